import { LIMITS, allFixtures, covers, hasSize, withSize } from "@keen-pebble/core/world";
import type { Fixture, FixtureKindName, Pair, Room } from "@keen-pebble/core/world";
import { changeFixtures, freeCells, moveFixtures, placeFixtures } from "@keen-pebble/core/edit";
import type { ProjectSession } from "../project/project.ts";
import type { BenchStore, Spread } from "./bench-store.ts";
import type { Fixtures } from "./fixtures.ts";
import type { Cell } from "./paint-cells.ts";
import { brushLine, rectCells, rectOf } from "./paint-cells.ts";

/** Type of what is dragged from the Kit to the field. */
export const KIND_TYPE = "application/x-keen-pebble-fixture";

/** What the pointer does while its button is down. */
type Drag = { readonly stroke: string } & (
  | { readonly does: "move"; from: Cell }
  /** The one that was placed grows. */
  | { readonly does: "stretch"; readonly from: Cell }
  | { readonly does: "brush"; last: Cell }
  /** A line or a box of them, placed when the button goes up. */
  | { readonly does: "span"; readonly from: Cell; to: Cell }
);

/** Placing fixtures, one or many, and dragging those that are there. */
export class Placing {
  private drag: Drag | null = null;

  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
    private readonly fixtures: Fixtures,
  ) {}

  private readonly world = () => this.project.store.getState().project!.world;

  private readonly room = (): Room | undefined => {
    const { room } = this.benchStore.getState();
    return this.world().rooms.find(({ id }) => id === room);
  };

  /** Takes up a kind of fixture to place it; null only chooses and moves. */
  readonly takeUpKind = (kind: FixtureKindName | null): void => {
    this.benchStore.setState(({ placing, about }) => ({
      tool: "place",
      placing: kind,
      about: kind === placing ? about : null,
    }));
  };

  /** The item or circuit that the next ones are about; null for the world's first. */
  readonly chooseAbout = (about: string | null): void => {
    this.benchStore.setState({ about });
  };

  /** How many are placed by one stroke. */
  readonly chooseSpread = (spread: Spread): void => {
    this.benchStore.setState({ spread });
  };

  /** The fixtures in a cell of the shown room, the one drawn last first. */
  private readonly inCell = ({ x, y }: Cell): readonly Fixture[] =>
    this.room()
      ?.fixtures.filter((fixture) => covers(fixture, [x, y]))
      .reverse() ?? [];

  /** The pointer goes down on a cell with Place: what stands there is chosen and can be dragged; else the kind is placed. */
  readonly beginPlacing = (cell: Cell, also: boolean): void => {
    const { placing, spread } = this.benchStore.getState();
    const stroke = crypto.randomUUID();
    if (this.inCell(cell).length > 0 && (placing === null || spread === "one")) {
      this.chooseIn(cell, also);
      this.drag = { does: "move", from: cell, stroke };
      return;
    }
    if (placing === null) {
      if (!also) this.fixtures.chooseFixtures([]);
      return;
    }
    if (spread === "line" || spread === "box") {
      this.drag = { does: "span", from: cell, to: cell, stroke };
      return;
    }
    this.placeIn([[cell.x, cell.y]], stroke);
    if (spread === "brush") this.drag = { does: "brush", last: cell, stroke };
    else
      this.drag = hasSize({ kind: placing })
        ? { does: "stretch", from: cell, stroke }
        : { does: "move", from: cell, stroke };
  };

  /** Several fixtures in one cell are chosen in turn. */
  private readonly chooseIn = (cell: Cell, also: boolean): void => {
    const { fixtures } = this.benchStore.getState();
    const there = this.inCell(cell);
    const at = there.findIndex(({ id }) => id === fixtures[0]);
    const next =
      there.some(({ id }) => fixtures.includes(id)) && fixtures.length > 1
        ? fixtures
        : [there[(at + 1) % there.length]!.id];
    this.fixtures.chooseFixtures(also ? [...new Set([...next, ...fixtures])] : next);
  };

  /** Places one of the kind in each of some cells, as far as they are free, and chooses them. */
  private readonly placeIn = (cells: readonly Pair[], stroke: string): void => {
    const { placing, about } = this.benchStore.getState();
    const room = this.room();
    if (placing === null || room === undefined) return;
    const free = freeCells(room, placing, cells);
    const left = LIMITS.fixtures - allFixtures(this.world()).length;
    const placed = free.slice(0, Math.max(left, 0));
    let made: readonly string[] = [];
    if (placed.length > 0)
      this.project.changeWorld((w) => {
        const { world, ids } = placeFixtures(w, room.id, { kind: placing, about }, placed);
        made = ids;
        return world;
      }, stroke);
    if (placed.length < free.length)
      this.project.notice(
        `A world has at most ${LIMITS.fixtures} fixtures: ${placed.length} of these ${free.length} were placed.`,
      );
    if (made.length > 0) this.fixtures.chooseFixtures(made);
  };

  /** The pointer moves to a cell: a new fixture grows up to it where its kind may, chosen ones follow where they fit. */
  readonly movePlacing = (cell: Cell): void => {
    const { drag } = this;
    if (drag === null) return;
    switch (drag.does) {
      case "stretch":
        return this.stretchTo(cell, drag);
      case "brush":
        if (cell.x !== drag.last.x || cell.y !== drag.last.y) this.brushTo(cell, drag);
        drag.last = cell;
        return;
      case "span":
        drag.to = cell;
        // The field draws what is under way.
        this.benchStore.setState({ drag: { from: drag.from, to: cell } });
        return;
      case "move":
        return this.moveTo(cell, drag);
    }
  };

  private readonly brushTo = (cell: Cell, { last, stroke }: { readonly last: Cell; readonly stroke: string }): void => {
    const room = this.room();
    if (room !== undefined) this.placeIn(pairs(room, brushLine(room, last, cell, 1)), stroke);
  };

  private readonly moveTo = (cell: Cell, drag: { from: Cell; readonly stroke: string }): void => {
    if (cell.x === drag.from.x && cell.y === drag.from.y) return;
    const { fixtures } = this.benchStore.getState();
    const moved = moveFixtures(this.world(), fixtures, cell.x - drag.from.x, cell.y - drag.from.y);
    if (moved === null) return;
    this.project.changeWorld(() => moved, drag.stroke);
    drag.from = cell;
  };

  private readonly stretchTo = (
    cell: Cell,
    { from, stroke }: { readonly from: Cell; readonly stroke: string },
  ): void => {
    const { fixtures } = this.benchStore.getState();
    const room = this.room();
    if (room === undefined) return;
    const [x, y] = [Math.min(Math.max(cell.x, 0), room.width - 1), Math.min(Math.max(cell.y, 0), room.height - 1)];
    const size = [Math.abs(x - from.x) + 1, Math.abs(y - from.y) + 1] as const;
    this.project.changeWorld(
      (w) =>
        changeFixtures(w, fixtures, (fixture) => ({
          ...withSize(fixture, size),
          cell: [Math.min(x, from.x), Math.min(y, from.y)],
        })),
      stroke,
    );
  };

  /** The cells that a line or a box under way covers, as indices; none where neither is. */
  readonly spanned = (): readonly number[] => {
    const { drag } = this;
    const room = this.room();
    if (drag?.does !== "span" || room === undefined) return [];
    return this.benchStore.getState().spread === "line"
      ? brushLine(room, drag.from, drag.to, 1)
      : rectCells(room, rectOf(drag.from, drag.to));
  };

  /** The pointer goes up: a line or a box of fixtures is placed. */
  readonly finishPlacing = (): void => {
    const room = this.room();
    if (this.drag?.does === "span" && room !== undefined) this.placeIn(pairs(room, this.spanned()), this.drag.stroke);
    this.drag = null;
    this.benchStore.setState({ drag: null });
    this.project.endStroke();
  };

  /** Nothing of what is under way is placed. */
  readonly letGo = (): void => {
    this.drag = null;
    this.benchStore.setState({ drag: null });
  };
}

/** Cells by index as columns and rows, in reading order: they are numbered so. */
function pairs(room: Room, cells: readonly number[]): readonly Pair[] {
  return [...cells].sort((a, b) => a - b).map((cell) => [cell % room.width, Math.floor(cell / room.width)]);
}
