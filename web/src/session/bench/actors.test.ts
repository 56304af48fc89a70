import type { Actor, Phase, World } from "@keen-pebble/core/world";
import { LIMITS, newActor } from "@keen-pebble/core/world";
import { afterEach, beforeEach, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { ALONG, hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), { along: ALONG }, [], [session.byChance.followProject]);
  session.actors.openKit("actors");
});
afterEach(() => {
  session.actors.choose(null);
  opened.close();
});

const world = (): World => session.project.store.getState().project!.world;
const bench = () => session.benchStore.getState();
const placed = (): readonly Actor[] => world().rooms[0]!.actors;
const notice = (): string => session.project.store.getState().notice?.text ?? "";
/** The pointer goes down on the first of some cells, over the others, and up. */
function stroke(...cells: (readonly [number, number])[]): void {
  const [[x, y], ...further] = cells as [readonly [number, number], ...(readonly [number, number])[]];
  session.actors.down({ x, y });
  for (const [toX, toY] of further) session.actors.move({ x: toX, y: toY });
  session.actors.up();
}
/** What is done is taken back by one undo, and done again by one redo. */
function oneAct(act: () => void): void {
  const before = session.project.store.getState().project!;
  act();
  isOneAct(before);
}
const cellsOf = (phase: Phase): string => (phase.do === "path" ? phase.cells.join(" ") : phase.do);

it("is placed by a click, chosen, dragged to another cell, and gone again; each is undone as one", () => {
  session.actors.takeUp("place");
  oneAct(() => stroke([4, 3]));
  expect(placed().map(({ cell, id }) => `${id} ${cell.join()}`)).toEqual(["actor-1 4,3"]);
  expect([bench().actor, bench().actorPen]).toEqual(["actor-1", "choose"]);
  oneAct(() => stroke([4, 3], [5, 3], [6, 4], [99, 4]));
  expect(placed()[0]!.cell).toEqual([6, 4]);
  expect(session.actors.down({ x: 10, y: 10 })).toBe(false);
  session.actors.up();
  expect(bench().actor).toBe(null);
  expect(session.actors.down({ x: 6, y: 4 })).toBe(true);
  session.actors.up();
  oneAct(() => session.actors.removeChosen());
  expect(placed()).toEqual([]);
});

it("is placed and dragged to the very edges of the room, and not beyond", () => {
  const { width, height } = session.project.store.getState().project!.world.rooms[0]!;
  session.actors.takeUp("place");
  stroke([0, 0]);
  const at = (): string => placed()[0]!.cell.join();
  expect(at()).toBe("0,0");
  stroke([0, 0], [width - 1, 0]);
  expect(at()).toBe(`${width - 1},0`);
  stroke([width - 1, 0], [width - 1, height - 1]);
  expect(at()).toBe(`${width - 1},${height - 1}`);
  stroke([width - 1, height - 1], [0, height - 1]);
  stroke([0, height - 1], [0, height], [-1, height - 1], [0, -1], [width, 0]);
  expect(at()).toBe(`0,${height - 1}`);
});

it("its path is drawn cell by cell, straight stretches as one, from its last cell on; one of its cells is dragged", () => {
  session.actors.takeUp("place");
  stroke([4, 3]);
  session.actors.changePhase(0, ({ frames }) => ({ frames, do: "path", then: "back", cells: [[4, 3]] }));
  session.actors.takeUp("path", 0);
  oneAct(() => stroke([4, 3], [5, 3], [6, 3], [7, 3], [7, 4], [7, 5]));
  expect(cellsOf(placed()[0]!.plan[0]!)).toBe("4,3 7,3 7,5");
  stroke([9, 5]);
  expect(cellsOf(placed()[0]!.plan[0]!)).toBe("4,3 7,3 7,5 9,5");
  oneAct(() => stroke([7, 3], [7, 2]));
  expect(cellsOf(placed()[0]!.plan[0]!)).toBe("4,3 7,2 7,5 9,5");
  // The last but one as well: only from the last one it goes on.
  oneAct(() => stroke([7, 5], [7, 6]));
  expect(cellsOf(placed()[0]!.plan[0]!)).toBe("4,3 7,2 7,6 9,5");
});

it.each([
  [
    "in slants, cell by cell",
    [
      [1, 1],
      [2, 2],
      [3, 3],
      [4, 4],
    ],
    "1,1 2,2 3,3 4,4",
  ],
  [
    "from a straight stretch into a slant",
    [
      [1, 1],
      [2, 1],
      [3, 2],
      [3, 3],
    ],
    "1,1 2,1 3,2 3,3",
  ],
  [
    "back the way that it came",
    [
      [1, 1],
      [4, 1],
      [3, 1],
      [1, 1],
    ],
    "1,1 4,1 1,1",
  ],
  [
    "down and on, and up again",
    [
      [1, 1],
      [1, 2],
      [1, 4],
      [1, 3],
    ],
    "1,1 1,4 1,3",
  ],
  [
    "over the same cell once",
    [
      [1, 1],
      [1, 1],
      [2, 1],
      [2, 1],
    ],
    "1,1 2,1",
  ],
] as const)("a path goes %s", (_how, cells, expected) => {
  session.actors.takeUp("place");
  stroke([1, 1]);
  session.actors.changePhase(0, ({ frames }) => ({ frames, do: "path", then: "back", cells: [[1, 1]] }));
  session.actors.takeUp("path", 0);
  stroke(...cells);
  expect(cellsOf(placed()[0]!.plan[0]!)).toBe(expected);
});

it("a cell that is dragged is let be where its path is none any more", () => {
  session.actors.takeUp("place");
  stroke([1, 1]);
  session.actors.changePhase(0, ({ frames }) => ({
    frames,
    do: "path",
    then: "back",
    cells: [
      [1, 1],
      [4, 1],
      [4, 4],
    ],
  }));
  session.actors.takeUp("path", 0);
  session.actors.down({ x: 4, y: 1 });
  session.actors.changePhase(0, ({ frames }) => ({ frames, do: "stand" }));
  session.actors.move({ x: 5, y: 1 });
  session.actors.up();
  expect(cellsOf(placed()[0]!.plan[0]!)).toBe("stand");
});

it("a path and a plan have so many parts at the most; what is no path stays as it is", () => {
  session.actors.takeUp("place");
  stroke([1, 1]);
  session.actors.takeUp("path", 0);
  const standing = placed()[0]!.plan;
  // The first phase is none: a click chooses.
  stroke([8, 8]);
  expect([placed()[0]!.plan, bench().actor]).toEqual([standing, null]);
  session.actors.choose("actor-1");
  const most = LIMITS.pathCells[1];
  const zigzag = Array.from({ length: most + 5 }, (_, i) => [1 + (i % 2), 1 + (i % 3)] as const);
  session.actors.changePhase(0, ({ frames }) => ({ frames, do: "path", then: "back", cells: [[5, 5]] }));
  session.actors.takeUp("path", 0);
  stroke([5, 5], ...zigzag);
  const [phase] = placed()[0]!.plan;
  expect(phase!.do === "path" && phase!.cells.length).toBe(most);
  for (let i = 0; i < LIMITS.phases[1] + 3; i++) session.actors.addPhase();
  expect(placed()[0]!.plan).toHaveLength(LIMITS.phases[1]);
  expect(notice()).toBe("");
});

it("a room has so many at the most; several in one cell are chosen in turn", () => {
  session.project.changeWorld((now) => ({
    ...now,
    rooms: now.rooms.map((room) => ({
      ...room,
      actors: Array.from({ length: LIMITS.actors - 1 }, (_, i) => newActor(`a-${i}`, [i % 2 === 0 ? 3 : 4, 3], now)),
    })),
  }));
  session.actors.takeUp("choose");
  stroke([3, 3]);
  expect(bench().actor).toBe("a-0");
  stroke([3, 3]);
  expect(bench().actor).toBe("a-2");
  stroke([4, 3]);
  expect(bench().actor).toBe("a-1");
  session.actors.takeUp("place");
  stroke([9, 9]);
  expect(placed()).toHaveLength(LIMITS.actors);
  session.actors.takeUp("place");
  stroke([10, 9]);
  expect(placed()).toHaveLength(LIMITS.actors);
  expect(notice()).toBe(`A room has at most ${LIMITS.actors} actors; none was placed.`);
  session.actors.choose(null);
  session.actors.removeChosen();
  session.actors.change(() => {
    throw new Error("none is chosen");
  });
  expect(placed()).toHaveLength(LIMITS.actors);
});

it("the Kit's tab of actors takes up Look unless somebody walks", () => {
  session.benchStore.setState({ tool: "paint", actorPen: "place" });
  session.actors.openKit("tiles");
  expect([bench().tool, bench().kit, bench().actorPen]).toEqual(["paint", "tiles", "choose"]);
  session.actors.openKit("actors");
  expect(bench().tool).toBe("look");
  session.benchStore.setState({ tool: "walk", walk: {} as never });
  session.actors.openKit("actors");
  expect(bench().tool).toBe("walk");
  session.benchStore.setState({ walk: null });
});

it("another phase gives those that lasted for ever an end; the last one stays", () => {
  session.actors.takeUp("place");
  stroke([4, 3]);
  session.actors.removePhase(0);
  session.actors.addPhase();
  expect(placed()[0]!.plan.map(({ frames }) => frames)).toEqual([60, 60]);
  session.actors.removePhase(0);
  expect(placed()[0]!.plan).toHaveLength(1);
});

it("an id that is none, or taken by a fixture or an actor, is refused with a word", () => {
  session.actors.takeUp("place");
  stroke([4, 3]);
  session.actors.rename("actor-1", "Drain crab");
  expect(notice()).toBe(`An actor's id has 1 to 40 small letters, digits and hyphens; "Drain crab" was not taken.`);
  session.actors.takeUp("place");
  stroke([6, 3]);
  session.actors.rename("actor-2", "actor-1");
  expect(notice()).toBe("There is a fixture or an actor actor-1 already; actor-2 keeps its id.");
  session.actors.rename("actor-2", "crab");
  expect([placed()[1]!.id, bench().actor]).toEqual(["crab", "crab"]);
});

it("a log is run over seeds, its first breaking one kept as a log; an edit forgets what was found", async () => {
  session.actors.takeUp("place");
  stroke([5, 2]);
  session.actors.change((actor) => ({ ...actor, speed: 4, touch: "hurt", plan: [{ frames: null, do: "wander" }] }));
  session.byChance.chooseSeeds(250);
  await session.byChance.start("along");
  const { broken, held, phase, tried } = session.byChance.store.getState();
  expect([phase, tried]).toEqual(["done", 250]);
  expect(held).toBeLessThan(250);
  session.byChance.keepBroken();
  const kept = `along-seed-${broken!.seed}`;
  expect(bench().log).toBe(kept);
  await until(() => bench().run?.log === kept);
  expect(bench().run!.verdicts.some(({ verdict }) => verdict === "fail")).toBe(true);
  expect(session.byChance.store.getState().phase).toBe("none");
});
