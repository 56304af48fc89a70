import { changeActor, placeActor, removeActor, renameActor } from "@keen-pebble/core/edit";
import type { Actor, Pair, Phase, Room } from "@keen-pebble/core/world";
import { ID_PATTERN, LIMITS, actorById, thingIds } from "@keen-pebble/core/world";
import type { ProjectSession } from "../project/project.ts";
import type { BenchStore, KitTab } from "./bench-store.ts";
import type { Cell } from "./paint-cells.ts";

/** What the pointer does with actors while its button is down. */
type Drag =
  /** An actor is dragged to the cell in which it begins. */
  | { readonly does: "move"; readonly stroke: string }
  /** Cells are added to a path, one after the other. */
  | { readonly does: "draw"; readonly stroke: string }
  /** One cell of a path is dragged. */
  | { readonly does: "bend"; readonly place: number; readonly stroke: string };

/** What moves by itself: placed, chosen, dragged, its path drawn on the field, its settings changed. */
export class Actors {
  private drag: Drag | null = null;

  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
  ) {}

  private readonly world = () => this.project.store.getState().project!.world;

  private readonly room = (): Room | undefined => {
    const { room } = this.benchStore.getState();
    return this.world().rooms.find(({ id }) => id === room);
  };

  /** Shows a tab of the Kit; while that is *Actors*, a click on the field is theirs until a tool is taken up. */
  readonly openKit = (kit: KitTab): void => {
    const { tool, walk } = this.benchStore.getState();
    this.benchStore.setState({
      kit,
      actorPen: "choose",
      ...(kit === "actors" && walk === null && tool !== "look" && { tool: "look" }),
    });
  };

  /** The chosen one; undefined where none is, or it is gone. */
  readonly chosen = (): Actor | undefined => {
    const { actor } = this.benchStore.getState();
    return actor === null ? undefined : actorById(this.world(), actor)?.actor;
  };

  /** Chooses an actor, or none: its settings and its path are shown. */
  readonly choose = (actor: string | null): void => {
    this.benchStore.setState({ actor, actorPen: "choose", path: 0 });
  };

  /** What a click on the field does: choose and move, place a new one, or draw the path of a phase of the chosen one. */
  readonly takeUp = (actorPen: "choose" | "place" | "path", path = 0): void => {
    this.benchStore.setState({ actorPen, path, tool: "look" });
  };

  /** Changes the chosen actor. */
  readonly change = (how: (actor: Actor) => Actor, stroke?: string): void => {
    const { actor } = this.benchStore.getState();
    if (actor !== null) this.project.changeWorld((world) => changeActor(world, actor, how), stroke);
  };

  /** Changes one phase of the chosen actor's plan. */
  readonly changePhase = (at: number, how: (phase: Phase) => Phase, stroke?: string): void => {
    this.change((actor) => ({ ...actor, plan: actor.plan.map((phase, i) => (i === at ? how(phase) : phase)) }), stroke);
  };

  readonly addPhase = (): void => {
    this.change((actor) =>
      actor.plan.length === LIMITS.phases[1]
        ? actor
        : {
            ...actor,
            // One that lasts for ever would keep the next one from its turn.
            plan: [
              ...actor.plan.map((phase) => (phase.frames === null ? { ...phase, frames: 60 } : phase)),
              { frames: 60, do: "stand" },
            ],
          },
    );
  };

  readonly removePhase = (at: number): void => {
    this.change((actor) =>
      actor.plan.length === 1 ? actor : { ...actor, plan: actor.plan.filter((_, i) => i !== at) },
    );
    this.takeUp("choose");
  };

  readonly removeChosen = (): void => {
    const { actor } = this.benchStore.getState();
    if (actor === null) return;
    this.choose(null);
    this.project.change((project) => removeActor(project, actor));
  };

  /** Gives the chosen one another id; refused where it is none or taken. */
  readonly rename = (from: string, to: string): void => {
    if (to === from) return;
    if (!ID_PATTERN.test(to)) {
      this.project.notice(`An actor's id has 1 to 40 small letters, digits and hyphens; "${to}" was not taken.`);
      return;
    }
    if (thingIds(this.world()).includes(to)) {
      this.project.notice(`There is a fixture or an actor ${to} already; ${from} keeps its id.`);
      return;
    }
    if (this.project.change((project) => renameActor(project, from, to))) this.choose(to);
  };

  /** The pointer goes down on a cell; false where nothing of actors is to be done there. */
  readonly down = (cell: Cell): boolean => {
    const room = this.room();
    if (room === undefined || !isIn(room, cell)) return false;
    const { actorPen, path } = this.benchStore.getState();
    const stroke = crypto.randomUUID();
    const phase = this.chosen()?.plan[path];
    if (actorPen === "path" && phase?.do === "path") {
      const place = phase.cells.findIndex((each) => isAt(each, cell));
      // From its last cell it goes on.
      if (place >= 0 && place < phase.cells.length - 1) this.drag = { does: "bend", place, stroke };
      else {
        this.addToPath(cell, stroke);
        this.drag = { does: "draw", stroke };
      }
      return true;
    }
    const there = room.actors.filter((each) => isAt(each.cell, cell));
    if (actorPen === "place" && there.length === 0) {
      this.place(room, cell, stroke);
      this.drag = { does: "move", stroke };
      return true;
    }
    const { actor } = this.benchStore.getState();
    // Several in one cell are chosen in turn.
    const at = there.findIndex(({ id }) => id === actor);
    this.choose(there[(at + 1) % there.length]?.id ?? null);
    this.drag = there.length === 0 ? null : { does: "move", stroke };
    return there.length > 0;
  };

  readonly move = (cell: Cell): void => {
    const { drag } = this;
    const room = this.room();
    if (drag === null || room === undefined || !isIn(room, cell)) return;
    const { path } = this.benchStore.getState();
    if (drag.does === "draw") this.addToPath(cell, drag.stroke);
    else if (drag.does === "bend")
      this.changePhase(path, (phase) => withCell(phase, drag.place, [cell.x, cell.y]), drag.stroke);
    else if (!isAt(this.chosen()?.cell ?? [-1, -1], cell))
      this.change((actor) => ({ ...actor, cell: [cell.x, cell.y] }), drag.stroke);
  };

  readonly up = (): void => {
    this.drag = null;
    this.project.endStroke();
  };

  private readonly place = (room: Room, cell: Cell, stroke: string): void => {
    if (room.actors.length === LIMITS.actors) {
      this.project.notice(`A room has at most ${LIMITS.actors} actors; none was placed.`);
      return;
    }
    let made = "";
    this.project.changeWorld((world) => {
      const placed = placeActor(world, room.id, [cell.x, cell.y]);
      made = placed.id;
      return placed.world;
    }, stroke);
    this.choose(made);
  };

  /** Goes on with the path of the shown phase to a cell; what lies straight on is one stretch. */
  private readonly addToPath = ({ x, y }: Cell, stroke: string): void => {
    const { path } = this.benchStore.getState();
    this.changePhase(
      path,
      (phase) => {
        if (phase.do !== "path") return phase;
        const last = phase.cells.at(-1);
        if (last !== undefined && isAt(last, { x, y })) return phase;
        const before = phase.cells.at(-2);
        const goesOn = last !== undefined && before !== undefined && isStraight(before, last, [x, y]);
        const kept = goesOn ? phase.cells.slice(0, -1) : phase.cells;
        if (kept.length === LIMITS.pathCells[1]) return phase;
        return { ...phase, cells: [...kept, [x, y] as const] };
      },
      stroke,
    );
  };
}

const isIn = ({ width, height }: Room, { x, y }: Cell): boolean => x >= 0 && y >= 0 && x < width && y < height;
const isAt = (cell: Pair, { x, y }: Cell): boolean => cell[0] === x && cell[1] === y;

/** Whether a way goes on in the direction in which it came. */
const isStraight = (a: Pair, b: Pair, c: Pair): boolean =>
  Math.sign(b[0] - a[0]) === Math.sign(c[0] - b[0]) &&
  Math.sign(b[1] - a[1]) === Math.sign(c[1] - b[1]) &&
  (a[0] === c[0] || a[1] === c[1]);

function withCell(phase: Phase, place: number, cell: Pair): Phase {
  if (phase.do !== "path") return phase;
  return { ...phase, cells: phase.cells.map((each, i) => (i === place ? cell : each)) };
}
