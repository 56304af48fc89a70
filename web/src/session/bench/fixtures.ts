import type { ProjectSession } from "../project/project.ts";
import type { BenchStore } from "./bench-store.ts";
import { newLock, ID_PATTERN, allFixtures } from "@keen-pebble/core/world";
import type { Fixture, Item, Lock } from "@keen-pebble/core/world";
import {
  addCircuit,
  addItem,
  changeFixtures,
  changeItem,
  copyFixtures,
  isCircuitUsed,
  isItemUsed,
  removeFixtures,
  renameFixture,
} from "@keen-pebble/core/edit";

/** Fixtures chosen and changed, and what they are about. */
export class Fixtures {
  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
  ) {}

  private readonly world = () => this.project.store.getState().project!.world;

  /** Chooses fixtures: the settings of the first are shown. */
  readonly chooseFixtures = (ids: readonly string[]): void => {
    this.benchStore.setState({ fixtures: ids });
  };

  /** Changes all chosen fixtures of one kind. */
  readonly changeChosen = (how: (fixture: Fixture) => Fixture, stroke?: string): void => {
    const { fixtures } = this.benchStore.getState();
    this.project.changeWorld((w) => changeFixtures(w, fixtures, how), stroke);
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
      this.project.notice(`${id} is given, asked for or named in a check or a log: it stays.`);
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
}
