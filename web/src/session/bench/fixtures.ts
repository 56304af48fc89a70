import { covers, hasSize, withSize } from "@keen-pebble/core/world";
import type { ProjectSession } from "../project/project.ts";
import type { BenchStore } from "./bench-store.ts";
import { newLock, ID_PATTERN, allFixtures } from "@keen-pebble/core/world";
import type { FixtureKindName, Camera, Fixture, Goal, Item, Lock } from "@keen-pebble/core/world";
import {
  addCircuit,
  addItem,
  changeFixtures,
  changeItem,
  copyFixtures,
  isCircuitUsed,
  isItemUsed,
  moveFixtures,
  placeFixture,
  removeFixtures,
  renameFixture,
} from "@keen-pebble/core/edit";
import type { Cell } from "./paint-cells.ts";

/** Type of what is dragged from the Kit to the field. */
export const KIND_TYPE = "application/x-keen-pebble-fixture";

/** Fixtures placed, chosen and changed, and what they are about. */
export class Fixtures {
  /** A drag of the chosen fixtures: where it began, which stroke it is, and whether it draws a new one larger. */
  private drag: { from: Cell; readonly stroke: string; readonly stretches: boolean } | null = null;

  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
  ) {}

  private readonly world = () => this.project.store.getState().project!.world;

  /** Takes up a kind of fixture to place it; null only chooses and moves. */
  readonly takeUpKind = (kind: FixtureKindName | null): void => {
    this.benchStore.setState({ tool: "place", placing: kind });
  };

  /** Chooses fixtures: the settings of the first are shown. */
  readonly chooseFixtures = (ids: readonly string[]): void => {
    this.benchStore.setState({ fixtures: ids });
  };

  /** The fixtures in a cell of the shown room, the one drawn last first. */
  private readonly inCell = ({ x, y }: Cell): readonly Fixture[] => {
    const room = this.world().rooms.find(({ id }) => id === this.benchStore.getState().room);
    return room?.fixtures.filter((fixture) => covers(fixture, [x, y])).reverse() ?? [];
  };

  /** The pointer goes down on a cell with Place: what stands there is chosen and can be dragged; else the kind is placed. */
  readonly beginPlacing = (cell: Cell, also: boolean): void => {
    const { placing, room, fixtures } = this.benchStore.getState();
    const there = this.inCell(cell);
    const stroke = crypto.randomUUID();
    if (there.length > 0) {
      // Several fixtures in one cell are chosen in turn.
      const at = there.findIndex(({ id }) => id === fixtures[0]);
      const next =
        there.some(({ id }) => fixtures.includes(id)) && fixtures.length > 1
          ? fixtures
          : [there[(at + 1) % there.length]!.id];
      this.chooseFixtures(also ? [...new Set([...next, ...fixtures])] : next);
      this.drag = { from: cell, stroke, stretches: false };
      return;
    }
    if (placing === null) {
      if (!also) this.chooseFixtures([]);
      return;
    }
    let made = "";
    const shown = this.world().rooms.find(({ id }) => id === room);
    if (!shown || cell.x < 0 || cell.y < 0 || cell.x >= shown.width || cell.y >= shown.height) return;
    this.project.changeWorld((w) => {
      const placed = placeFixture(w, room, placing, [cell.x, cell.y]);
      made = placed.id;
      return placed.world;
    }, stroke);
    this.chooseFixtures([made]);
    this.drag = { from: cell, stroke, stretches: hasSize({ kind: placing }) };
  };

  /** The pointer moves to a cell: a new fixture grows up to it where its kind may, chosen ones follow where they fit. */
  readonly movePlacing = (cell: Cell): void => {
    if (this.drag === null) return;
    if (this.drag.stretches) return this.stretchTo(cell, this.drag);
    if (cell.x === this.drag.from.x && cell.y === this.drag.from.y) return;
    const moved = moveFixtures(
      this.world(),
      this.benchStore.getState().fixtures,
      cell.x - this.drag.from.x,
      cell.y - this.drag.from.y,
    );
    if (moved === null) return;
    this.project.changeWorld(() => moved, this.drag.stroke);
    this.drag.from = cell;
  };

  private readonly stretchTo = (
    cell: Cell,
    { from, stroke }: { readonly from: Cell; readonly stroke: string },
  ): void => {
    const { room: id, fixtures } = this.benchStore.getState();
    const room = this.world().rooms.find((each) => each.id === id);
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

  readonly finishPlacing = (): void => {
    this.drag = null;
    this.project.endStroke();
  };

  /** Changes all chosen fixtures of one kind. */
  readonly changeChosen = (how: (fixture: Fixture) => Fixture): void => {
    const { fixtures } = this.benchStore.getState();
    this.project.changeWorld((w) => changeFixtures(w, fixtures, how));
  };

  /** Changes for how long a fixture keeps what happened to it. */
  readonly keepFor = (id: string, keeps: Fixture["keeps"]): void => {
    this.project.changeWorld((w) => changeFixtures(w, [id], (fixture) => ({ ...fixture, keeps })));
  };

  /** Gives the chosen doors a lock of another kind. */
  readonly chooseLock = (kind: Lock["kind"]): void => {
    let made = newLock(kind, this.world());
    const stroke = crypto.randomUUID();
    if (made === null) {
      this.project.changeWorld((w) => (kind === "circuit" ? addCircuit(w).world : addItem(w, "key").world), stroke);
      made = newLock(kind, this.world());
    }
    const { fixtures } = this.benchStore.getState();
    this.project.changeWorld(
      (w) =>
        changeFixtures(w, fixtures, (fixture) =>
          fixture.kind === "door" && made !== null ? { ...fixture, lock: made } : fixture,
        ),
      stroke,
    );
  };

  /** Copies the chosen fixtures and chooses the copies. */
  readonly copyChosenFixtures = (): void => {
    const { fixtures } = this.benchStore.getState();
    let made: readonly string[] = [];
    this.project.changeWorld((w) => {
      const { world: after, copies } = copyFixtures(w, fixtures);
      made = copies;
      return after;
    });
    if (made.length > 0) this.chooseFixtures(made);
  };

  /** Takes the chosen fixtures away. */
  readonly removeChosenFixtures = (): void => {
    const { fixtures } = this.benchStore.getState();
    this.chooseFixtures([]);
    this.project.change((project) => removeFixtures(project, fixtures));
  };

  /** Gives a fixture another id; refused where it is none or taken. */
  readonly renameChosen = (from: string, to: string): void => {
    if (to === from) return;
    if (!ID_PATTERN.test(to)) {
      this.project.notice(`A fixture's id has 1 to 40 small letters, digits and hyphens; "${to}" was not taken.`);
      return;
    }
    if (allFixtures(this.world()).some(({ id }) => id === to)) {
      this.project.notice(`There is a fixture ${to} already; ${from} keeps its id.`);
      return;
    }
    if (this.project.change((project) => renameFixture(project, from, to))) this.chooseFixtures([to]);
  };

  readonly makeItem = (role: Item["role"]): void => {
    this.project.changeWorld((w) => addItem(w, role).world);
  };

  readonly setItem = (id: string, part: Partial<Omit<Item, "id">>): void => {
    this.project.changeWorld((w) => changeItem(w, id, (item) => ({ ...item, ...part })));
  };

  /** Takes an item away that nothing names. */
  readonly removeItem = (id: string): void => {
    if (isItemUsed(this.project.store.getState().project!, id)) {
      this.project.notice(`${id} is given, asked for or named in a log: it stays.`);
      return;
    }
    this.project.changeWorld((w) => ({ ...w, items: w.items.filter((item) => item.id !== id) }));
  };

  readonly makeCircuit = (): void => {
    this.project.changeWorld((w) => addCircuit(w).world);
  };

  /** Takes a circuit away that nothing names. */
  readonly removeCircuit = (id: string): void => {
    if (isCircuitUsed(this.project.store.getState().project!, id)) {
      this.project.notice(`${id} is used: it stays.`);
      return;
    }
    this.project.changeWorld((w) => ({ ...w, circuits: w.circuits.filter((each) => each !== id) }));
  };

  readonly setGoal = (goal: Goal | null): void => {
    this.project.changeWorld((w) => ({ ...w, goal }));
  };

  readonly setLives = (lives: number | null): void => {
    this.project.changeWorld((w) => ({ ...w, lives }));
  };

  readonly setCamera = (camera: Camera): void => {
    this.project.changeWorld((w) => ({ ...w, camera }));
  };
}
