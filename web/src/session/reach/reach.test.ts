import type { World } from "@keen-pebble/core/world";
import { placeFixtures } from "@keen-pebble/core/edit";
import { session } from "../../page-session.ts";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { ReachClient } from "./reach-client.ts";
import { openHere, until } from "../../test-support/opened.ts";

const { reach, project, benchStore } = session;
/** A hall parted by a wall in its column 10, with a door in it, and a lamp behind. */
function parted(spare: number): World {
  const bare = hall();
  const [room] = bare.rooms;
  const wall = bare.tiles.findIndex(({ flags }) => flags.includes("solid"));
  const cells = room!.cells.map((cell, i) => (i % room!.width === 10 && i !== 10 + 5 * room!.width ? wall : cell));
  const walled: World = { ...bare, rooms: [{ ...room!, cells }], goal: null };
  const keyed = placeFixtures(walled, room!.id, { kind: "item", about: null }, [[4, 4]]).world;
  const locked = placeFixtures(keyed, room!.id, { kind: "door", about: "key" }, [[10, 5]]).world;
  const marked = placeFixtures(locked, room!.id, { kind: "marker", about: null }, [[15, 5]]).world;
  return {
    ...marked,
    rooms: marked.rooms.map((each) => ({
      ...each,
      fixtures: each.fixtures.map((fixture) =>
        fixture.kind === "item"
          ? { ...fixture, count: spare }
          : fixture.kind === "door"
            ? { ...fixture, lock: { kind: "item", item: "key", count: 2, spends: true } }
            : fixture,
      ),
    })),
  };
}

let opened: Opened;
let stop: () => void;
const state = () => reach.store.getState();
const world = (): World => project.store.getState().project!.world;
const marker = (): number => world().rooms[0]!.fixtures.findIndex(({ kind }) => kind === "marker");
const look = async (of: World): Promise<void> => {
  opened = await openHere(of, { along: "keen-pebble-inputs 1\n---\n32 R\n" });
  stop = reach.watch();
  await until(() => state().phase === "done" && state().way !== null);
};
/** Does something, and waits for the answer that comes of it, with the way that is shown first. */
async function next(act: () => void): Promise<void> {
  const { shown } = state();
  act();
  await until(() => state().phase === "done" && state().shown !== shown && state().way !== null);
}
beforeEach(() => look(parted(2)));
afterEach(() => {
  stop();
  reach.forget();
  opened.close();
  vi.unstubAllGlobals();
});

describe("what can be reached", () => {
  it("is asked from the start while somebody looks, anew after an edit, and not any more once nobody does", async () => {
    expect(state().shown!.answer.fixtures.every((n) => n >= 0)).toBe(true);
    expect(state().world).toBe(world());
    await next(() => project.changeWorld((now) => ({ ...now, rooms: parted(1).rooms })));
    expect(state().shown!.answer.fixtures[marker()]).toBeLessThan(0);
    expect(state().shown!.reasons[marker()]).toContain("behind");
    stop();
    expect(state()).toMatchObject({ phase: "none", world: null });
    project.changeWorld((now) => ({ ...now, rooms: parted(2).rooms }));
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(state().phase).toBe("none");
    stop = reach.watch();
    await until(() => state().phase === "done");
    expect(state().shown!.answer.fixtures[marker()]).toBeGreaterThan(0);
  });

  it("is asked from a cell with a bag, and from the shown frame", async () => {
    await next(() => reach.askFrom("room-1", [12, 5]));
    const cells = state().shown!.answer.first[0]!;
    const width = world().rooms[0]!.width;
    expect([cells[5 * width + 12], cells[2 * width + 2]! < 0]).toEqual([0, true]);
    await next(() => reach.askWith("key", 2));
    expect(state().stand!.bag.get("key")).toBe(2);
    expect(state().shown!.answer.first[0]![2 * width + 2]).toBeGreaterThan(0);
    // A cell that is not there any more is the start.
    expect(reach.stand()).toMatchObject({ cell: [12, 5] });
    reach.store.setState({ stand: { ...state().stand!, cell: [width, 5] } });
    expect(reach.stand()).toMatchObject({ cell: [2, 2] });
    reach.store.setState({ stand: { ...state().stand!, cell: [5, world().rooms[0]!.height] } });
    expect(reach.stand()).toMatchObject({ cell: [2, 2] });
    session.shownLog.selectLog("along", 32);
    await until(() => benchStore.getState().run !== null);
    await until(() => benchStore.getState().explanation !== null);
    await next(() => reach.chooseOrigin("frame"));
    expect(state().shown!.answer.first[0]![2 * width + 6]).toBe(0);
  });

  it("is asked under the rules that one chooses, as long as the world has them", async () => {
    expect(state().rules).toBe("main");
    await next(() => reach.chooseRules("free"));
    expect(state().rules).toBe("free");
    await next(() => reach.chooseRules("gone"));
    expect(state().rules).toBe("main");
  });

  it("is not asked any more where it is taken back, and what was shown stays", async () => {
    const before = state().shown;
    const cancelled = vi.spyOn(ReachClient.prototype, "cancel");
    reach.askAgain();
    reach.cancel();
    // The worker looks no further either.
    expect(cancelled).toHaveBeenCalledOnce();
    cancelled.mockRestore();
    expect(state()).toMatchObject({ phase: "done", shown: before });
    stop();
    reach.forget();
    stop = reach.watch();
    reach.cancel();
    expect(state()).toMatchObject({ phase: "none", shown: null });
  });

  it("is refused where the walker cannot begin", async () => {
    project.changeWorld((now) => ({
      ...now,
      rooms: now.rooms.map((room) => ({ ...room, id: "other" })),
      start: { ...now.start, room: "other" },
    }));
    reach.chooseOrigin("cell");
    await until(() => state().phase === "done" || state().phase === "refused");
    reach.store.setState({ stand: { room: "room-1", cell: [1, 1], bag: new Map() } });
    expect(reach.stand()).toMatchObject({ room: "other", cell: [2, 2] });
  });
});

describe("a way", () => {
  const toMarker = () => ({ kind: "fixture", fixture: marker() }) as const;

  it("is shown at its end, played, and kept as a log that begins there and says where it ends", async () => {
    await reach.showWay("the marker", toMarker());
    const { way, frame } = state();
    const last = way!.found!.played.rows.count - 1;
    expect([way!.heading, frame, way!.never, way!.target]).toEqual(["The way to the marker", last, null, null]);
    reach.showFrame(3);
    expect(state().frame).toBe(3);
    const id = reach.keepWay()!;
    const text = project.store.getState().project!.logs.get(id)!;
    expect(text).toContain("title The way to the marker\n");
    expect(text).toContain("check end cell 15 5 in room-1\n");
    expect(text).toContain("rules main\n");
    await until(() => benchStore.getState().log === id && benchStore.getState().run !== null);
    await until(() => benchStore.getState().run!.verdicts.length > 0);
    expect(benchStore.getState().run!.verdicts.map(({ verdict }) => verdict)).toEqual(["pass"]);
    expect(reach.keepWay()).not.toBe(id);
  });

  it("plays from its first frame to its last, a picture at a time", async () => {
    await reach.showWay("the marker", toMarker());
    const last = state().frame;
    const shown: number[] = [];
    const asked: (() => void)[] = [];
    vi.stubGlobal("requestAnimationFrame", (next: () => void) => asked.push(next));
    reach.play();
    while (asked.length > 0) {
      shown.push(state().frame);
      asked.shift()!();
    }
    expect([shown[0], shown[1], state().frame, shown.length]).toEqual([0, 1, last, last]);
    reach.play();
    await reach.showWay("the marker", toMarker());
    const before = state().frame;
    asked.shift()!();
    expect(state().frame).toBe(before);
  });

  it("that there is none says why, which changes would open it, and one of them makes it", async () => {
    await next(() => project.changeWorld((now) => ({ ...now, rooms: parted(1).rooms })));
    await reach.showWay("the marker", toMarker());
    expect(state().way).toMatchObject({
      found: null,
      never: expect.stringContaining("behind") as string,
      target: toMarker(),
    });
    expect([reach.keepWay(), state().frame]).toEqual([null, 0]);
    // Where it is asked once more meanwhile, the way is shown anew and nothing is tried for it yet.
    await until(async () => {
      if (state().way?.title !== "the marker") await reach.showWay("the marker", toMarker());
      await reach.tryFixes();
      return state().fixes !== null && !state().trying;
    });
    const fix = state().fixes!.find(({ text }) => text.includes("gives 1 to 2"))!;
    expect(fix.then).toMatch(/^then in \d+$/);
    await next(() => reach.applyFix(fix));
    expect(state().shown!.answer.fixtures[marker()]).toBeGreaterThan(0);
  });

  it("that was asked for while one looked is shown of the next answer", async () => {
    reach.askAgain();
    void reach.showWay("the marker", toMarker());
    await until(() => state().phase === "done" && state().way?.title === "the marker");
  });
});

it("checks are added once each, and taken away", () => {
  reach.addChecks(["reachable key-1", "never stuck"]);
  reach.addChecks(["never stuck", "aligned"]);
  expect(world().reachChecks).toEqual(["reachable key-1", "never stuck", "aligned"]);
  reach.removeCheck("never stuck");
  expect(world().reachChecks).toEqual(["reachable key-1", "aligned"]);
});

describe("who looks", () => {
  it("is answered as long as anybody does, and once for all of them", async () => {
    const other = reach.watch();
    stop();
    await next(() => project.changeWorld((now) => ({ ...now, rooms: parted(1).rooms })));
    other();
    expect(state()).toMatchObject({ phase: "none", world: null });
    stop = reach.watch();
    await until(() => state().phase === "done");
  });

  it("chooses what is listed, and holds what was asked to be held before in another cell too", async () => {
    reach.chooseList("items" as never);
    expect(state().list).toBe("items");
    expect(reach.stand()).toMatchObject({ cell: [2, 2] });
    await next(() => reach.askFrom("room-1", [3, 3]));
    // With an empty bag nothing is held before.
    const bare = reach.keepWay()!;
    expect(project.store.getState().project!.logs.get(bare)).not.toContain("with ");
    project.travel("undo");
    await until(() => state().phase === "done" && state().way !== null);
    await next(() => reach.askWith("key", 1));
    await next(() => reach.askFrom("room-1", [4, 3]));
    expect([...state().stand!.bag]).toEqual([["key", 1]]);
    await next(() => reach.askWith("key", 0));
    expect(state().shown!.answer.fixtures[marker()]).toBeGreaterThan(0);
    // From a cell it begins with what it holds: kept as a log it says so.
    await next(() => reach.askWith("key", 2));
    await reach.showWay("the marker", { kind: "fixture", fixture: marker() });
    const kept = reach.keepWay()!;
    const log = project.store.getState().project!.logs.get(kept)!;
    expect(log).toContain("start room-1 4 3 down\n");
    expect(log).toContain("with holds key 2\n");
  });

  it("is shown the goal's way first, and without a goal that of what takes longest", async () => {
    expect(state().way).toMatchObject({ title: world().rooms[0]!.fixtures[marker()]!.id });
    await next(() => project.changeWorld((now) => ({ ...now, goal: { kind: "collect", item: "key" } })));
    expect(state().way).toMatchObject({ title: "the goal", heading: "The way to the goal" });
    const id = reach.keepWay()!;
    expect(project.store.getState().project!.logs.get(id)).toContain("check end status won\n");
    // Also where one stands on it already.
    await next(() =>
      project.changeWorld((now) => {
        const { world: there, ids } = placeFixtures(now, "room-1", { kind: "marker", about: null }, [now.start.cell]);
        return { ...there, goal: { kind: "marker", fixture: ids[0]! } };
      }),
    );
    expect(state().way).toMatchObject({ title: "the goal" });
  });

  it("is told nothing of changes that would help before a way is shown, and none once it is another one", async () => {
    reach.store.setState({ way: null });
    await reach.tryFixes();
    expect([state().fixes, state().trying]).toEqual([null, false]);
    reach.play();
    expect(reach.keepWay()).toBeNull();
    await next(() => project.changeWorld((now) => ({ ...now, rooms: parted(1).rooms })));
    await reach.showWay("the marker", { kind: "fixture", fixture: marker() });
    const trying = reach.tryFixes();
    expect([state().fixes, state().trying]).toEqual([[], true]);
    reach.store.setState({ way: { ...state().way! }, fixes: null, trying: false });
    await trying;
    expect([state().fixes, state().trying]).toEqual([null, false]);
  });
});

describe("where nothing is open", () => {
  it("nothing is asked, shown, kept or changed", async () => {
    stop();
    reach.forget();
    expect(state()).toEqual(reach.store.getInitialState());
    expect(state()).toMatchObject({
      phase: "none",
      origin: "start",
      shown: null,
      way: null,
      fixes: null,
      trying: false,
    });
    const { project: open } = project.store.getState();
    project.store.setState({ project: null });
    stop = reach.watch();
    reach.askAgain();
    reach.askWith("key", 1);
    await new Promise((resolve) => setTimeout(resolve, 150));
    expect([state().phase, reach.stand(), reach.keepWay()]).toEqual(["none", null, null]);
    project.store.setState({ project: open });
  });
});

describe("an answer", () => {
  it("that comes once another one was asked for is dropped, its states too", async () => {
    const { shown } = state();
    reach.askFrom("room-1", [12, 5]);
    await next(() => reach.chooseOrigin("start"));
    const width = world().rooms[0]!.width;
    // From the start: the cell of the first question is far.
    expect(state().shown).not.toBe(shown);
    expect(state().shown!.answer.first[0]![5 * width + 12]).toBeGreaterThan(0);
  });

  it("that is late is dropped, and one that was given up is none", async () => {
    const { shown } = state();
    let late: (answer: never) => void = () => undefined;
    const ask = vi.spyOn(ReachClient.prototype, "ask");
    ask.mockImplementationOnce(() => new Promise((resolve) => (late = resolve)));
    reach.askAgain();
    await next(() => reach.askAgain());
    const newer = state().shown;
    late({ ...shown } as never);
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(state().shown).toBe(newer);
    ask.mockImplementationOnce(() => Promise.resolve(null));
    reach.askAgain();
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(state()).toMatchObject({ phase: "looking", shown: newer });
    ask.mockRestore();
  });

  it("is asked for once by who comes back while another one is waited for", async () => {
    project.changeWorld((now) => ({ ...now, rooms: parted(1).rooms }));
    stop();
    const ask = vi.spyOn(ReachClient.prototype, "ask");
    stop = reach.watch();
    await until(() => state().phase === "done");
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(ask).toHaveBeenCalledOnce();
    ask.mockRestore();
  });

  it("to a way is dropped once the next answer is there", async () => {
    const way = reach.showWay("gone by then", { kind: "fixture", fixture: marker() });
    reach.store.setState({ shown: { ...state().shown! }, way: null });
    await way;
    expect(state().way).toBeNull();
  });

  it("that nothing can be done about names no target: a way that is found, and one to a loss its loss", async () => {
    const loss = { kind: "cell", room: "room-1", cell: [3, 3] } as never;
    await reach.showWay("the marker", { kind: "fixture", fixture: marker() }, loss);
    expect(state().way).toMatchObject({ never: null, target: loss });
    await next(() => project.changeWorld((now) => ({ ...now, rooms: parted(1).rooms, goal: null })));
    // What takes longest of what can be reached is shown, never what cannot.
    expect(state().way!.found).not.toBeNull();
    await reach.showWay("the marker", { kind: "fixture", fixture: marker() }, loss);
    expect(state().way).toMatchObject({ found: null, target: { kind: "fixture", fixture: marker() } });
  });

  it("kept where one stands already is a log of one frame that presses nothing", async () => {
    await reach.showWay("the start", { kind: "cell", room: 0, cell: 2 * world().rooms[0]!.width + 2 });
    const kept = reach.keepWay()!;
    expect(project.store.getState().project!.logs.get(kept)).toMatch(/---\n1 \.\n$/);
  });
});
