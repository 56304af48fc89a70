import type { BenchStore } from "./bench-store.ts";
import type { ProjectSession } from "../project/project.ts";
import type { Project } from "@keen-pebble/core/edit";

/** The tiles that are chosen to paint with; what is chosen stays among what there is. */
export class Chosen {
  constructor(
    private readonly benchStore: BenchStore,
    private readonly project: ProjectSession,
  ) {}

  /** What is chosen stays among what there is. */
  readonly keepChosen = ({ world }: Project): void => {
    const { room, tile, chosenTiles, fixtures } = this.benchStore.getState();
    const here = new Set(world.rooms.flatMap((each) => each.fixtures.map(({ id }) => id)));
    if (fixtures.some((id) => !here.has(id)))
      this.benchStore.setState({ fixtures: fixtures.filter((id) => here.has(id)) });
    const ids = world.tiles.map((each) => each.id);
    const chosen = chosenTiles.filter((id) => ids.includes(id));
    const next = ids.includes(tile) ? tile : (chosen[0] ?? ids[1] ?? ids[0]!);
    const rooms = world.rooms.map((each) => each.id);
    if (next !== tile || chosen.length !== chosenTiles.length || chosen.length === 0)
      this.benchStore.setState({ tile: next, chosenTiles: chosen.includes(next) ? chosen : [next, ...chosen] });
    if (room !== "" && !rooms.includes(room)) this.benchStore.setState({ room: rooms[0]! });
  };

  /** Chooses a tile to paint with; `also` adds it to the chosen ones or takes it from them, `range` takes all up to it. */
  readonly chooseTile = (id: string, how: "only" | "also" | "range" = "only"): void => {
    const tiles = this.project.store.getState().project?.world.tiles.map((tile) => tile.id) ?? [];
    const { tile, chosenTiles } = this.benchStore.getState();
    if (how === "range") {
      const [from, to] = [tiles.indexOf(tile), tiles.indexOf(id)].sort((a, b) => a - b) as [number, number];
      this.benchStore.setState({ chosenTiles: tiles.slice(Math.max(from, 0), to + 1) });
      return;
    }
    if (how === "also") {
      const others = chosenTiles.filter((each) => each !== id);
      const chosen = others.length < chosenTiles.length && others.length > 0 ? others : [...others, id];
      this.benchStore.setState({ chosenTiles: chosen, tile: chosen.includes(tile) ? tile : chosen[0]! });
      return;
    }
    this.benchStore.setState((state) => ({
      tile: id,
      chosenTiles: [id],
      tool: state.tool === "wall" ? "wall" : "paint",
      pen: state.pen === "erase" || state.pen === "select" ? "brush" : state.pen,
      laying: false,
    }));
  };
}
