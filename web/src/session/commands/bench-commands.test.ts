import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { ALONG, hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";
import { OVERLAYS } from "../bench/bench-store.ts";
import { commandFor } from "./command.ts";

const { benchStore } = session;
const bench = () => benchStore.getState();
const tile = (cell: number): number => session.project.store.getState().project!.world.rooms[0]!.cells[cell]!;

let opened: Opened;
beforeEach(async () => {
  // The search goes on beside one, and ends with the world.
  opened = await openHere(hall(), { along: ALONG }, [], [() => session.fixes.startFixes()]);
  benchStore.setState({ ...benchStore.getInitialState(), room: "room-1", tile: "wall", chosenTiles: ["wall"] }, true);
  session.shownLog.selectLog("along", 20);
  await until(() => bench().run?.log === "along");
});
afterEach(() => {
  session.playing.pause();
  opened.close();
});

/** Presses keys one after the other; those that mean nothing now are told. */
function press(...keys: readonly string[]): string[] {
  return keys.filter((key) => {
    const command = commandFor(session.commands.bench, key);
    command?.act();
    return command === null;
  });
}

describe("frames", () => {
  it.each([
    ["ArrowLeft", 19],
    ["ArrowRight", 21],
    ["Shift+ArrowLeft", 10],
    ["Shift+ArrowRight", 30],
    ["Home", 0],
    ["End", 40],
    [".", 28],
  ])("%s goes from frame 20 to %i, and stops what plays", (key, frame) => {
    benchStore.setState({ playing: true });
    expect(press(key)).toEqual([]);
    expect([bench().playing, bench().frame]).toEqual([false, frame]);
    // There and back again.
    press("End", ",");
    expect(bench().frame).toBe(28);
  });

  it("are played by Space, and stand still by another one; where no run is there is nothing to play", () => {
    press("Space");
    expect(bench().playing).toBe(true);
    press("Space");
    expect(bench().playing).toBe(false);
    session.shownLog.selectLog(null);
    expect(press("Space", "Home", "ArrowLeft", "A", "Shift+W", "Shift+F")).toHaveLength(6);
  });
});

describe("pens", () => {
  it.each([
    ["P", "brush"],
    ["L", "line"],
    ["K", "bucket"],
    ["E", "erase"],
    ["M", "select"],
    ["O", "box"],
  ])("%s takes up the %s", (key, pen) => {
    benchStore.setState({ tool: "look", pen: key === "P" ? "line" : "brush" });
    expect(press(key)).toEqual([]);
    expect([bench().tool, bench().pen]).toEqual(["paint", pen]);
  });

  it("the brush grows and shrinks, a tile is picked under the pointer, fixtures and walls have keys of their own", () => {
    press("]", "]", "[");
    expect(bench().brush).toBe(2);
    benchStore.setState({ pointer: { x: 5, y: 5 } });
    press("I");
    expect(bench().tile).toBe("floor");
    press("N");
    expect(bench().tool).toBe("place");
    press("J");
    expect(bench().tool).toBe("wall");
  });

  it("a rectangle is copied or cut, taken up, turned and flipped, and let go, each only where there is something to do it to", () => {
    expect(press("Ctrl+C", "Ctrl+X", "Ctrl+V", "Shift+H", "Shift+V", "Shift+R", "Escape", "Delete")).toHaveLength(8);
    benchStore.setState({ selection: { x: 1, y: 1, width: 2, height: 1 } });
    expect(press("Ctrl+C")).toEqual([]);
    expect([bench().piece!.width, tile(21)]).toEqual([2, 1]);
    press("Ctrl+X");
    expect(tile(21)).toBe(0);
    expect(press("Ctrl+V", "Shift+R")).toEqual([]);
    expect([bench().laying, bench().piece!.width]).toEqual([true, 1]);
    expect(press("Shift+H", "Shift+V", "Escape")).toEqual([]);
    expect(bench().laying).toBe(false);
  });
});

describe("what is drawn over the room", () => {
  it.each([
    ["G", "grid"],
    ["X", "solid"],
    ["C", "clearance"],
    ["B", "body"],
    ["V", "velocity"],
    ["T", "trail"],
    ["H", "ghost"],
    ["Q", "camera"],
  ] as const)("%s shows or hides %s, and nothing else", (key, overlay) => {
    const before = bench().overlays;
    press(key);
    expect(OVERLAYS.filter((each) => bench().overlays[each] !== before[each])).toEqual([overlay]);
  });
});

describe("a walk", () => {
  it("is begun and ended by R, or where the pointer is by S; while it goes on nothing is painted or played", () => {
    expect(press("S")).toEqual(["S"]);
    press("R");
    expect(session.walks.isWalking()).toBe(true);
    benchStore.setState({ pointer: { x: 40, y: 40 }, selection: { x: 1, y: 1, width: 1, height: 1 } });
    expect(press("S", "Shift+S", "P", "Ctrl+C", "Space", "D", "Y")).toHaveLength(7);
    press("W");
    expect(session.walks.isWalking()).toBe(false);
    press("S");
    expect(bench().walk).toMatchObject({ log: { start: { cell: [2, 2] } } });
    session.walks.endWalk();
    benchStore.setState({ walk: { phase: "offered" } as never });
    expect(press("R")).toEqual(["R"]);
    benchStore.setState({ walk: null });
  });

  it("goes on from the shown frame, and what lies behind it is cut off", async () => {
    press("Shift+W");
    expect(bench().walk).toMatchObject({ onto: "along" });
    session.walks.endWalk();
    await until(() => bench().run?.log === "along");
    session.playing.showFrame(16);
    expect(press("Shift+X")).toEqual([]);
    expect(session.project.store.getState().project!.logs.get("along")).toContain("---\n16 R\n");
  });
});

it("the log's text, a new check and what would fix it are a key away, and act only where they can", async () => {
  expect(bench().side).toBe("anatomy");
  press("D");
  expect(bench().side).toBe("log");
  press("D");
  expect(bench().side).toBe("anatomy");
  press("A");
  expect(bench().writing).not.toBeNull();
  expect(press("Y")).toEqual(["Y"]);
  session.ruleSets.changeSetting("main", "glide.speed", 2, 1, null);
  await until(() => session.fixes.isBroken());
  expect(press("Y")).toEqual([]);
  session.fixes.endSearch();
});
