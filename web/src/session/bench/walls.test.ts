import { unusedCutTiles } from "@keen-pebble/core/edit";
import { session } from "../../page-session.ts";
import type { Pair, World } from "@keen-pebble/core/world";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import { openHere } from "../../test-support/opened.ts";
import { readWallNumbers } from "./wall-numbers.ts";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), {});
  session.benchStore.setState({ tile: "floor", chosenTiles: ["floor"] });
  session.walls.takeUp();
  session.walls.setSnap(1);
});
afterEach(() => opened.close());

const project = () => session.project.store.getState().project!;
const world = (): World => project().world;
const pen = () => session.benchStore.getState().wall;
const at = ([x, y]: Pair) => ({ x, y });
/** The cells of the hall that are not floor, with their tiles. */
const walls = (): string[] => {
  const [room] = world().rooms;
  return [...room!.cells].flatMap((tile, i) =>
    tile === 1 ? [] : [`${i % room!.width},${Math.floor(i / room!.width)} ${world().tiles[tile]!.id}`],
  );
};
function drag(from: Pair, to: Pair): void {
  session.walls.down(at(from));
  session.walls.move(at(to));
  session.walls.up();
}

describe("a wall drawn by hand", () => {
  it("is of the first tile that blocks where the chosen one does not; a tile chosen meanwhile is taken", () => {
    expect(session.walls.tile()!.id).toBe("wall");
    session.chosen.chooseTile("floor");
    expect([session.benchStore.getState().tool, session.walls.tile()!.id]).toEqual(["wall", "floor"]);
    drag([20, 20], [60, 60]);
    expect(session.project.store.getState().notice!.text).toBe(
      "No wall was added: Floor has no flag: nothing would be blocked.",
    );
    expect(walls()).toEqual([]);
  });

  it("is shown while it is dragged, and cut when the button goes up; one undo", () => {
    const before = project();
    session.walls.chooseWay("straight");
    session.walls.down({ x: 8, y: 16 });
    session.walls.move({ x: 40, y: 32 });
    expect(session.walls.preview()).toMatchObject({ fault: null, cells: [{ cell: 20 }, { cell: 21 }, { cell: 22 }] });
    expect(walls()).toEqual([]);
    session.walls.up();
    expect(walls()).toEqual(["0,1 wall-cut-1", "1,1 wall", "2,1 wall-cut-2"]);
    expect([session.walls.preview(), pen().laid]).toEqual([null, "3 cells, 2 new tiles."]);
    isOneAct(before);
    // What is let go of, or a click, is no wall.
    session.walls.down({ x: 100, y: 100 });
    session.walls.move({ x: 120, y: 120 });
    session.walls.letGo();
    session.walls.up();
    drag([100, 100], [100, 100]);
    expect(walls()).toHaveLength(3);
  });

  it("is neither shown nor laid once its tile is gone", () => {
    session.walls.chooseWay("straight");
    session.walls.down({ x: 8, y: 16 });
    session.walls.move({ x: 40, y: 32 });
    // As another tab may have it.
    session.benchStore.setState({ tile: "gone" });
    expect(session.walls.preview()).toBeNull();
    session.walls.up();
    expect(walls()).toEqual([]);
  });

  it("runs along the line that is dragged, so thick; its pointer goes to multiples of px", () => {
    session.walls.chooseWay("turned");
    session.walls.setThickness(8);
    session.walls.setSnap(8);
    session.walls.down({ x: 33, y: 31 });
    session.walls.move({ x: 95, y: 33 });
    expect(session.walls.preview()!.outline).toEqual([
      [32, 28],
      [96, 28],
      [96, 36],
      [32, 36],
    ]);
    session.walls.up();
    expect(walls()).toHaveLength(8);
    drag([160, 32], [208, 96]);
    expect(pen().laid).toMatch(/^\d+ cells, \d+ new tiles\. Between cells its edges are off by up to 0\.\d+ px\.$/);
  });

  it("is set corner by corner, taken back by one, closed at the first; what crosses itself is not laid", () => {
    session.walls.chooseWay("corners");
    for (const corner of [
      [16, 16],
      [48, 16],
      [90, 90],
    ] as Pair[])
      session.walls.down(at(corner));
    session.walls.letGo();
    session.walls.down({ x: 48, y: 48 });
    session.walls.up();
    expect(walls()).toEqual([]);
    session.walls.down({ x: 17, y: 15 });
    expect(pen().corners).toEqual([]);
    expect(walls()).toEqual(["1,1 wall-cut-1", "2,1 wall", "2,2 wall-cut-1"]);
    for (const corner of [
      [100, 100],
      [140, 140],
      [140, 100],
      [100, 140],
    ] as Pair[])
      session.walls.down(at(corner));
    // Another tool or another room has nothing to do with it.
    session.painting.choosePen("brush");
    expect([session.commands.bench.finishWall.can(), session.walls.preview()]).toEqual([false, null]);
    session.walls.takeUp();
    session.commands.bench.finishWall.act();
    expect(session.project.store.getState().notice!.text).toContain("does not cross or touch itself");
    expect(walls()).toHaveLength(3);
    session.walls.down({ x: 20, y: 20 });
    session.shownRoom.chooseRoom("room-1");
    expect(pen().corners).toEqual([]);
  });

  it("is given as numbers; what it was cut into and no cell has is deleted", () => {
    expect(session.walls.layNumbers("40 16 8 16")).toBeNull();
    expect(walls()).toEqual(["2,1 wall-cut-1"]);
    expect(session.walls.layNumbers("0,0 16,0")).toContain("expected left, top, width and height");
    session.walls.layNumbers("32 16 16 16");
    expect([walls(), unusedCutTiles(world())]).toEqual([["2,1 wall"], ["wall-cut-1"]]);
    const before = project();
    session.walls.tidy();
    expect(world().tiles.map(({ id }) => id)).toEqual(["empty", "floor", "wall"]);
    isOneAct(before);
  });
});

describe("what a wall became is said", () => {
  const laid = (numbers: string): string => {
    expect(session.walls.layNumbers(numbers)).toBeNull();
    return pen().laid;
  };

  it("with its cells and new tiles, what was solid already, and where nothing changed", () => {
    expect(laid("40 16 8 16")).toBe("1 cell, 1 new tile.");
    expect(laid("64 16 16 16")).toBe("1 cell, 0 new tiles.");
    expect(laid("64 16 16 16")).toBe("Nothing changed: all of it was solid already, or lies outside the room.");
    expect(laid("4000 16 16 16")).toBe("Nothing changed: all of it was solid already, or lies outside the room.");
    expect(laid("64 16 32 16")).toBe("1 cell, 0 new tiles. 1 more was solid there already and stays as before.");
    expect(laid("64 64 80 64 72 74 80 80 64 80")).toBe(
      "1 cell, 1 new tile. Off by up to 1 px, as no shape says it exactly: 4,4.",
    );
  });

  it("and an outline that is none is refused, with nothing laid", () => {
    const before = project();
    expect(session.walls.layNumbers("0 0 16 16 0 16 16 0")).toContain("does not cross or touch itself");
    expect(session.walls.layNumbers("1 2 x 4")).toContain("character 5");
    expect(project()).toBe(before);
    // While somebody walks, none is laid.
    session.benchStore.setState({ walk: {} as never });
    expect(session.walls.layNumbers("40 16 8 16")).toBeNull();
    session.benchStore.setState({ walk: null });
    expect(project()).toBe(before);
  });
});

describe("corners", () => {
  it("are closed at the first from 3 px away at the most, with three or more of them", () => {
    session.walls.chooseWay("corners");
    const set = (...corners: Pair[]): void => corners.forEach((corner) => session.walls.down(at(corner)));
    // Two of them cannot close: the third is set where the first is.
    set([16, 16], [48, 16], [16, 16]);
    expect(pen().corners).toHaveLength(3);
    session.walls.letGo();
    set([48, 48]);
    const near = 3;
    set([16 + near + 1, 16]);
    expect(pen().corners).toHaveLength(4);
    session.walls.letGo();
    set([16, 16 + near + 1]);
    expect(pen().corners).toHaveLength(4);
    session.walls.letGo();
    set([16 - near, 16 + near]);
    expect(pen().corners).toEqual([]);
    expect(walls()).not.toEqual([]);
  });

  it("are under way while they are set with the pen in hand, and the whole of a drag is let go at once", () => {
    expect(session.walls.isUnderWay()).toBe(false);
    session.walls.chooseWay("corners");
    session.walls.down({ x: 16, y: 16 });
    expect(session.walls.isUnderWay()).toBe(true);
    session.benchStore.setState({ tool: "paint" });
    expect(session.walls.isUnderWay()).toBe(false);
    session.walls.takeUp();
    session.walls.chooseWay("straight");
    const before = project();
    session.walls.down({ x: 16, y: 16 });
    session.walls.move({ x: 40, y: 40 });
    session.walls.letGo();
    session.walls.up();
    expect([pen().corners, project()]).toEqual([[], before]);
    session.walls.down({ x: 16, y: 16 });
    session.walls.move(null);
    expect(session.walls.preview()?.cells ?? []).toEqual([]);
    session.walls.up();
    expect(project()).toBe(before);
  });
});

describe("numbers of a wall", () => {
  it.each([
    ["8 16 24 2", "8,16 32,16 32,18 8,18"],
    ["[[0,0], [16,-4]; {8, 12}]", "0,0 16,-4 8,12"],
    ["0,0 16,0 16,16 8,24 0,16", "0,0 16,0 16,16 8,24 0,16"],
    ["", "expected left, top, width, height, or x and y of 3 or more corners; found 0 numbers"],
    ["1 2 1 1", "1,2 2,2 2,3 1,3"],
    ["1 2 0 3", "expected left, top, width and height, both of the last at least 1"],
    ["1 2 3 0", "expected left, top, width and height, both of the last at least 1"],
    ["1 2 3 4 5", "expected left, top, width, height, or x and y of 3 or more corners; found 5 numbers"],
    ["1 2 x 4", 'character 5: expected numbers of px, found "x"'],
    ["1 2.5 3 4", 'character 3: expected a whole number of px, found "2.5"'],
    ["1 2 100000 1", "1,2 100001,2 100001,3 1,3"],
    ["1 2 3 100001", 'character 7: expected a whole number of px, found "100001"'],
    ["1 2 3 1-2", 'character 7: expected a whole number of px, found "1-2"'],
  ])("%s", (text, expected) => {
    const read = readWallNumbers(text);
    expect("fault" in read ? read.fault : read.outline.map((corner) => corner.join()).join(" ")).toBe(expected);
  });
});
