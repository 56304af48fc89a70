import type { ProjectSession } from "../project/project.ts";
import type { Chosen } from "./chosen.ts";
import type { BenchStore } from "./bench-store.ts";
import type { Look, Shape, Tile } from "@keen-pebble/core/world";
import {
  addFlag,
  addTile,
  changeTiles,
  copyTile,
  freeId,
  moveTile,
  removeFlag,
  removeTiles,
  renameFlag,
  setBlockedBy,
  setFlag,
} from "@keen-pebble/core/edit";
import { newTile } from "@keen-pebble/core/formats";
import { ID_PATTERN } from "@keen-pebble/core/world";

/** Tiles and flags made and changed. */
export class Tiles {
  constructor(
    private readonly project: ProjectSession,
    private readonly chosen: Chosen,
    private readonly benchStore: BenchStore,
  ) {}

  private readonly world = () => this.project.store.getState().project!.world;

  /** Adds a tile and chooses it. */
  readonly makeTile = (): void => {
    const id = freeId(
      "tile",
      this.world().tiles.map((tile) => tile.id),
    );
    if (this.project.changeWorld((w) => addTile(w, newTile(id, [], w.tiles.length)))) this.chosen.chooseTile(id);
  };

  /** Adds a tile for a character of a room text that nothing explains. */
  readonly makeTileFor = (glyph: string): void => {
    const id = freeId(
      "tile",
      this.world().tiles.map((tile) => tile.id),
    );
    this.project.changeWorld((w) => addTile(w, { ...newTile(id, [], w.tiles.length), glyph }));
  };

  /** Copies the chosen tile and chooses the copy. */
  readonly copyChosenTile = (): void => {
    const { tile } = this.benchStore.getState();
    const before = new Set(this.world().tiles.map((each) => each.id));
    if (!this.project.changeWorld((w) => copyTile(w, tile))) return;
    const copy = this.world().tiles.find((each) => !before.has(each.id));
    if (copy) this.chosen.chooseTile(copy.id);
  };

  /** Takes the chosen tiles away; cells that have them get the replacement. */
  readonly removeChosenTiles = (replacement: string): void => {
    const { chosenTiles } = this.benchStore.getState();
    this.project.changeWorld((w) => removeTiles(w, chosenTiles, replacement));
  };

  /** Moves the chosen tile in the list by so many places. */
  readonly moveChosenTile = (by: number): void => {
    const { tile } = this.benchStore.getState();
    const at = this.world().tiles.findIndex((each) => each.id === tile);
    this.project.changeWorld((w) => moveTile(w, tile, at + by));
  };

  /** Changes the chosen tiles alike. A row of changes in one `stroke` is undone as one. */
  readonly changeChosen = (how: (tile: Tile) => Tile, stroke?: string): boolean => {
    const { chosenTiles } = this.benchStore.getState();
    return this.project.changeWorld((w) => changeTiles(w, chosenTiles, how), stroke);
  };

  readonly setShape = (shape: Shape, stroke?: string): boolean =>
    this.changeChosen((tile) => ({ ...tile, shape }), stroke);

  readonly setLook = (look: Look, stroke?: string): boolean => this.changeChosen((tile) => ({ ...tile, look }), stroke);

  /** Gives a flag to all chosen tiles, or takes it from them. */
  readonly toggleFlag = (flag: string, on: boolean): void => {
    const { chosenTiles } = this.benchStore.getState();
    this.project.changeWorld((w) => setFlag(w, chosenTiles, flag, on));
  };

  /** Whether the walker of a rule set is blocked by a flag. */
  readonly toggleBlockedBy = (rules: string, flag: string, on: boolean): void => {
    this.project.changeWorld((w) => setBlockedBy(w, rules, flag, on));
  };

  /** What is wrong with a name for a flag, or null. */
  readonly flagFault = (name: string): string | null => {
    if (!ID_PATTERN.test(name)) return "1 to 40 of a to z, 0 to 9 and -";
    return this.world().flags.includes(name) ? `there is a flag ${name} already` : null;
  };

  /** Adds a flag. */
  readonly makeFlag = (name: string): void => {
    const fault = this.world().flags.length >= 16 ? "a world has at most 16 flags" : this.flagFault(name);
    if (fault !== null) this.project.notice(`No flag was added: ${fault}.`);
    else this.project.changeWorld((w) => addFlag(w, name));
  };

  /** Calls a flag otherwise, everywhere. */
  readonly callFlag = (from: string, to: string): void => {
    if (from === to) return;
    const fault = this.flagFault(to);
    if (fault !== null) this.project.notice(`The flag stays ${from}: ${fault}.`);
    else this.project.changeWorld((w) => renameFlag(w, from, to));
  };

  /** Takes a flag away everywhere. */
  readonly dropFlag = (name: string): void => {
    this.project.changeWorld((w) => removeFlag(w, name));
  };
}
