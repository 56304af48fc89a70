import { newLock, ID_PATTERN, allFixtures } from "@keen-pebble/core/world";
import type { FixtureKindName, Camera, Fixture, Goal, Item, Lock } from "@keen-pebble/core/world";
import { addCircuit, addItem, changeFixtures, changeItem, copyFixtures, isCircuitUsed, isItemUsed, moveFixtures, placeFixture, removeFixtures, renameFixture  } from "@keen-pebble/core/edit";
import type { Cell } from "./paint-cells.ts";
import { benchStore } from "./bench-store.ts";
import { change, changeWorld, endStroke, notice, projectStore } from "../project/project.ts";

/** Type of what is dragged from the Kit to the field. */
export const KIND_TYPE = "application/x-keen-pebble-fixture";

const world = () => projectStore.getState().project!.world;

/** Takes up a kind of fixture to place it; null only chooses and moves. */
export function takeUpKind(kind: FixtureKindName | null): void {
  benchStore.setState({ tool: "place", placing: kind });
}

/** Chooses fixtures: the settings of the first are shown. */
export function chooseFixtures(ids: readonly string[]): void {
  benchStore.setState({ fixtures: ids });
}

/** The fixtures in a cell of the shown room, the one drawn last first. */
function inCell({ x, y }: Cell): readonly Fixture[] {
  const room = world().rooms.find(({ id }) => id === benchStore.getState().room);
  return room?.fixtures.filter(({ cell }) => cell[0] === x && cell[1] === y).reverse() ?? [];
}

/** A drag of the chosen fixtures: where it began, and which stroke it is. */
let drag: { from: Cell; readonly stroke: string } | null = null;

/** The pointer goes down on a cell with Place: what stands there is chosen and can be dragged; else the kind is placed. */
export function beginPlacing(cell: Cell, also: boolean): void {
  const { placing, room, fixtures } = benchStore.getState();
  const there = inCell(cell);
  const stroke = crypto.randomUUID();
  if (there.length > 0) {
    // Several fixtures in one cell are chosen in turn.
    const at = there.findIndex(({ id }) => id === fixtures[0]);
    const next = there.some(({ id }) => fixtures.includes(id)) && fixtures.length > 1 ? fixtures : [there[(at + 1) % there.length]!.id];
    chooseFixtures(also ? [...new Set([...next, ...fixtures])] : next);
    drag = { from: cell, stroke };
    return;
  }
  if (placing === null) {
    if (!also) chooseFixtures([]);
    return;
  }
  let made = "";
  const shown = world().rooms.find(({ id }) => id === room);
  if (!shown || cell.x < 0 || cell.y < 0 || cell.x >= shown.width || cell.y >= shown.height) return;
  changeWorld((w) => {
    const placed = placeFixture(w, room, placing, [cell.x, cell.y]);
    made = placed.id;
    return placed.world;
  }, stroke);
  chooseFixtures([made]);
  drag = { from: cell, stroke };
}

/** The pointer moves to a cell: the chosen fixtures follow where they fit. */
export function movePlacing(cell: Cell): void {
  if (drag === null || (cell.x === drag.from.x && cell.y === drag.from.y)) return;
  const moved = moveFixtures(world(), benchStore.getState().fixtures, cell.x - drag.from.x, cell.y - drag.from.y);
  if (moved === null) return;
  changeWorld(() => moved, drag.stroke);
  drag.from = cell;
}

export function finishPlacing(): void {
  drag = null;
  endStroke();
}

/** Changes all chosen fixtures of one kind. */
export function changeChosen(how: (fixture: Fixture) => Fixture): void {
  const { fixtures } = benchStore.getState();
  changeWorld((w) => changeFixtures(w, fixtures, how));
}

/** Changes for how long a fixture keeps what happened to it. */
export function keepFor(id: string, keeps: Fixture["keeps"]): void {
  changeWorld((w) => changeFixtures(w, [id], (fixture) => ({ ...fixture, keeps })));
}

/** Gives the chosen doors a lock of another kind. */
export function chooseLock(kind: Lock["kind"]): void {
  let made = newLock(kind, world());
  const stroke = crypto.randomUUID();
  if (made === null) {
    changeWorld((w) => (kind === "circuit" ? addCircuit(w).world : addItem(w, "key").world), stroke);
    made = newLock(kind, world());
  }
  const { fixtures } = benchStore.getState();
  changeWorld((w) => changeFixtures(w, fixtures, (fixture) => (fixture.kind === "door" && made !== null ? { ...fixture, lock: made } : fixture)), stroke);
}

/** Copies the chosen fixtures and chooses the copies. */
export function copyChosenFixtures(): void {
  const { fixtures } = benchStore.getState();
  let made: readonly string[] = [];
  changeWorld((w) => {
    const { world: after, copies } = copyFixtures(w, fixtures);
    made = copies;
    return after;
  });
  if (made.length > 0) chooseFixtures(made);
}

/** Takes the chosen fixtures away. */
export function removeChosenFixtures(): void {
  const { fixtures } = benchStore.getState();
  chooseFixtures([]);
  change((project) => removeFixtures(project, fixtures));
}

/** Gives a fixture another id; refused where it is none or taken. */
export function renameChosen(from: string, to: string): void {
  if (to === from) return;
  if (!ID_PATTERN.test(to)) {
    notice(`A fixture's id has 1 to 40 small letters, digits and hyphens; "${to}" was not taken.`);
    return;
  }
  if (allFixtures(world()).some(({ id }) => id === to)) {
    notice(`There is a fixture ${to} already; ${from} keeps its id.`);
    return;
  }
  if (change((project) => renameFixture(project, from, to))) chooseFixtures([to]);
}

export function makeItem(role: Item["role"]): void {
  changeWorld((w) => addItem(w, role).world);
}

export function setItem(id: string, part: Partial<Omit<Item, "id">>): void {
  changeWorld((w) => changeItem(w, id, (item) => ({ ...item, ...part })));
}

/** Takes an item away that nothing names. */
export function removeItem(id: string): void {
  if (isItemUsed(projectStore.getState().project!, id)) {
    notice(`${id} is given, asked for or named in a log: it stays.`);
    return;
  }
  changeWorld((w) => ({ ...w, items: w.items.filter((item) => item.id !== id) }));
}

export function makeCircuit(): void {
  changeWorld((w) => addCircuit(w).world);
}

/** Takes a circuit away that nothing names. */
export function removeCircuit(id: string): void {
  if (isCircuitUsed(projectStore.getState().project!, id)) {
    notice(`${id} is used: it stays.`);
    return;
  }
  changeWorld((w) => ({ ...w, circuits: w.circuits.filter((each) => each !== id) }));
}

export function setGoal(goal: Goal | null): void {
  changeWorld((w) => ({ ...w, goal }));
}

export function setLives(lives: number | null): void {
  changeWorld((w) => ({ ...w, lives }));
}

export function setCamera(camera: Camera): void {
  changeWorld((w) => ({ ...w, camera }));
}
