import type { World } from "@keen-pebble/core/world";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { newActor } from "@keen-pebble/core/world";
import { session } from "../../page-session.ts";
import { hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere } from "../../test-support/opened.ts";
import { LARGEST_BRUSH } from "./bench-store.ts";

const { painting } = session;
let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), {});
  session.benchStore.setState({
    tool: "paint",
    pen: "brush",
    brush: 1,
    piece: null,
    laying: false,
    selection: null,
    drag: null,
    boxFrame: false,
    pointer: null,
  });
});
afterEach(() => opened.close());

const project = () => session.project.store.getState().project!;
const world = (): World => project().world;
const bench = () => session.benchStore.getState();
const notice = (): string => session.project.store.getState().notice?.text ?? "";
const cells = (): string =>
  [...world().rooms[0]!.cells]
    .flatMap((tile, i) => (world().tiles[tile]!.id === "wall" ? [`${i % 20},${Math.floor(i / 20)}`] : []))
    .join(" ");
function drag(...over: readonly (readonly [number, number])[]): void {
  const [first, ...rest] = over.map(([x, y]) => ({ x, y }));
  painting.beginStroke(first!);
  for (const each of rest) painting.moveStroke(each);
  painting.finishStroke();
}
/** Walls in the cells 1,1 and 2,1, chosen as a rectangle and copied. */
function copied(cut = false): void {
  session.chosen.chooseTile("wall");
  drag([1, 1], [2, 1]);
  painting.choosePen("select");
  drag([1, 1], [2, 1]);
  painting.copySelection(cut);
}

describe("a piece", () => {
  it("is laid as often as one likes, each one act, cut off at the room's sides", () => {
    copied();
    expect(bench()).toMatchObject({
      laying: false,
      piece: { width: 2, height: 1, tiles: ["wall", "wall"], moves: [] },
    });
    painting.takeUpPiece();
    expect(bench()).toMatchObject({ laying: true, tool: "paint", pen: "select", selection: null });
    const before = project();
    drag([5, 5]);
    isOneAct(before);
    drag([0, 0]);
    drag([20, 11]);
    expect(cells()).toBe("0,0 1,1 2,1 4,5 5,5 19,11");
    // The pointer that moves while a piece is laid paints nothing.
    drag([8, 8], [9, 8], [12, 8]);
    expect(cells()).toBe("0,0 1,1 2,1 4,5 5,5 7,8 8,8 19,11");
  });

  it("is flipped and turned while it is in hand, and only then", () => {
    copied();
    session.chosen.chooseTile("wall");
    painting.changePiece("turn");
    expect(bench().piece).toMatchObject({ width: 2, height: 1 });
    painting.takeUpPiece();
    painting.changePiece("turn");
    expect(bench().piece).toMatchObject({ width: 1, height: 2 });
    const asymmetric = { ...bench().piece!, width: 2, height: 2, tiles: ["wall", "floor", "empty", "floor"] };
    session.benchStore.setState({ piece: asymmetric });
    painting.changePiece("flip x");
    expect(bench().piece!.tiles).toEqual(["floor", "wall", "floor", "empty"]);
    painting.changePiece("flip y");
    expect(bench().piece!.tiles).toEqual(["floor", "empty", "floor", "wall"]);
    session.benchStore.setState({ piece: null });
    painting.changePiece("turn");
    expect(bench().piece).toBeNull();
  });

  it("with a tile that is gone is laid without it, and that is said", () => {
    copied();
    painting.takeUpPiece();
    session.benchStore.setState({ piece: { ...bench().piece!, tiles: ["gone", "wall"] } });
    const old = world().rooms[0]!.cells[5 * 20 + 4];
    drag([5, 5]);
    expect(notice()).toBe("The piece has a tile gone, which is no longer there; it was pasted without it.");
    expect([world().rooms[0]!.cells[5 * 20 + 4], cells()]).toEqual([old, "1,1 2,1 5,5"]);
  });

  it("that is none is neither taken up nor laid; of a rectangle outside the room there is none", () => {
    painting.takeUpPiece();
    expect(bench().laying).toBe(false);
    painting.copySelection(false);
    expect(bench().piece).toBeNull();
    session.benchStore.setState({ selection: { x: 20, y: 3, width: 2, height: 2 } });
    const before = project();
    painting.copySelection(true);
    expect([bench().piece, project()]).toEqual([null, before]);
    session.benchStore.setState({ laying: true });
    drag([3, 3]);
    expect(project()).toBe(before);
  });

  it("that is cut leaves the empty tile in one act; what is laid already is no edit", () => {
    copied(true);
    expect(cells()).toBe("");
    expect(world().rooms[0]!.cells[21]).toBe(0);
    session.project.travel("undo");
    expect(cells()).toBe("1,1 2,1");
    painting.takeUpPiece();
    const before = project();
    drag([2, 1]);
    expect(project()).toBe(before);
  });
});

describe("a stroke", () => {
  it("ends when the button goes up: what comes behind it is another act, and the pointer that moves on paints nothing", () => {
    session.chosen.chooseTile("wall");
    painting.moveStroke({ x: 9, y: 9 });
    expect(cells()).toBe("");
    drag([1, 1], [2, 1]);
    painting.moveStroke({ x: 9, y: 9 });
    drag([4, 4]);
    expect(cells()).toBe("1,1 2,1 4,4");
    session.project.travel("undo");
    expect(cells()).toBe("1,1 2,1");
    session.project.travel("undo");
    expect(cells()).toBe("");
  });

  it("that somebody's walk interrupts paints nothing when it ends", () => {
    session.chosen.chooseTile("wall");
    painting.choosePen("box");
    painting.beginStroke({ x: 1, y: 1 });
    painting.moveStroke({ x: 2, y: 2 });
    session.benchStore.setState({ walk: {} as never });
    painting.moveStroke({ x: 5, y: 5 });
    painting.finishStroke();
    session.benchStore.setState({ walk: null });
    expect([cells(), bench().drag]).toEqual(["", null]);
  });

  it("over the cell that it is in already is no edit", () => {
    session.chosen.chooseTile("wall");
    painting.beginStroke({ x: 1, y: 1 });
    const before = project();
    session.project.edit({ kind: "set-cells", room: "room-1", cells: [21], before: [2], after: [1] });
    painting.moveStroke({ x: 1, y: 1 });
    expect(cells()).toBe("");
    painting.finishStroke();
    expect(project()).not.toBe(before);
  });

  it("takes a tile from the right cell, the first row and column too", () => {
    session.chosen.chooseTile("wall");
    drag([0, 0]);
    drag([3, 2]);
    for (const [x, y, tile] of [
      [0, 0, "wall"],
      [3, 2, "wall"],
      [2, 3, "floor"],
      [0, 1, "floor"],
    ] as const) {
      session.benchStore.setState({ tile: "empty" });
      painting.pickTile({ x, y });
      expect([x, y, bench().tile]).toEqual([x, y, tile]);
    }
  });
});

describe("things in a piece", () => {
  it("come along as new ones with each copy, as one act with its cells", () => {
    session.project.changeWorld((now) => ({
      ...now,
      rooms: now.rooms.map((room) => ({ ...room, actors: [newActor("crab", [2, 1], now)] })),
    }));
    copied();
    painting.takeUpPiece();
    const before = project();
    drag([9, 9]);
    expect(world().rooms[0]!.actors.map(({ id, cell }) => `${id} ${cell.join()}`)).toEqual(["crab 2,1", "crab-2 9,9"]);
    isOneAct(before);
  });

  it("that were cut move once, and come as copies from then on", () => {
    session.project.changeWorld((now) => ({
      ...now,
      rooms: now.rooms.map((room) => ({ ...room, actors: [newActor("crab", [2, 1], now)] })),
    }));
    copied(true);
    expect(bench().piece!.moves).toEqual(["crab"]);
    painting.takeUpPiece();
    drag([9, 9]);
    expect([world().rooms[0]!.actors.map(({ id, cell }) => `${id} ${cell.join()}`), bench().piece!.moves]).toEqual([
      ["crab 9,9"],
      [],
    ]);
    drag([5, 5]);
    expect(world().rooms[0]!.actors.map(({ cell }) => cell.join())).toEqual(["9,9", "5,5"]);
  });
});

describe("Esc", () => {
  it("lets go of a drag first, then of the piece in hand, then of the rectangle; nothing is painted", () => {
    copied();
    painting.takeUpPiece();
    session.benchStore.setState({ selection: { x: 1, y: 1, width: 1, height: 1 }, pen: "box", laying: false });
    painting.beginStroke({ x: 3, y: 3 });
    painting.moveStroke({ x: 5, y: 5 });
    session.benchStore.setState({ laying: true });
    const before = project();
    painting.letGo();
    expect([bench().drag, bench().laying, bench().selection]).toEqual([
      null,
      true,
      { x: 1, y: 1, width: 1, height: 1 },
    ]);
    painting.finishStroke();
    painting.letGo();
    expect([bench().laying, bench().selection]).toEqual([false, { x: 1, y: 1, width: 1, height: 1 }]);
    painting.letGo();
    expect(bench().selection).toBeNull();
    expect(project()).toBe(before);
  });
});

describe("pens", () => {
  it("the brush is 1 to its largest; another pen than the rectangle lets that go", () => {
    painting.changeBrush(-1);
    expect(bench().brush).toBe(1);
    painting.changeBrush(99);
    expect(bench().brush).toBe(LARGEST_BRUSH);
    painting.changeBrush(-2);
    expect(bench().brush).toBe(LARGEST_BRUSH - 2);
    session.benchStore.setState({ selection: { x: 0, y: 0, width: 1, height: 1 }, laying: true });
    painting.choosePen("select");
    expect(bench().selection).not.toBeNull();
    painting.choosePen("line");
    expect(bench()).toMatchObject({ selection: null, laying: false, pen: "line", tool: "paint" });
  });

  it("the box is all of it when it is taken up with another tool in hand", () => {
    session.benchStore.setState({ pen: "box", tool: "look", boxFrame: false });
    painting.chooseBox();
    expect([bench().tool, bench().boxFrame]).toEqual(["paint", false]);
    painting.chooseBox();
    expect(bench().boxFrame).toBe(true);
    session.benchStore.setState({ pen: "line" });
    painting.chooseBox();
    expect(bench().boxFrame).toBe(true);
  });

  it("a tile that is taken from a cell keeps the pen, but for those that lay no tile", () => {
    for (const [pen, after] of [
      ["line", "line"],
      ["bucket", "bucket"],
      ["erase", "brush"],
      ["select", "brush"],
    ] as const) {
      session.benchStore.setState({ pen, tool: "look" });
      painting.pickTile({ x: 19, y: 11 });
      expect([bench().pen, bench().tool, bench().tile, bench().chosenTiles]).toEqual([
        after,
        "paint",
        "floor",
        ["floor"],
      ]);
    }
    session.benchStore.setState({ tile: "wall" });
    for (const [x, y] of [
      [-1, 0],
      [0, -1],
      [20, 0],
      [0, 12],
    ] as const)
      painting.pickTile({ x, y });
    expect(bench().tile).toBe("wall");
  });

  it("would paint nothing where no room is shown, or while somebody walks", () => {
    session.benchStore.setState({ pointer: { x: 20, y: 20 } });
    expect(painting.preview()).not.toBeNull();
    session.benchStore.setState({ walk: {} as never });
    expect(painting.preview()).toBeNull();
    session.benchStore.setState({ walk: null, room: "gone" });
    expect(painting.preview()).toBeNull();
    const before = project();
    drag([1, 1]);
    expect(project()).toBe(before);
  });

  it("a tile that is gone paints the empty one", () => {
    session.benchStore.setState({ tile: "gone" });
    drag([3, 3]);
    expect(world().rooms[0]!.cells[3 * 20 + 3]).toBe(0);
  });
});

describe("the tool in hand", () => {
  const { fieldTool } = session;

  it("holds what is under way until it is let go, and holds nothing while somebody walks or looks", () => {
    session.chosen.chooseTile("wall");
    expect(fieldTool.down({ x: 17, y: 17 }, false)).toBe(true);
    fieldTool.move({ x: 40, y: 17 });
    fieldTool.up();
    fieldTool.move({ x: 80, y: 80 });
    expect(cells()).toBe("1,1 2,1");
    session.benchStore.setState({ tool: "look", kit: "tiles" });
    expect(fieldTool.down({ x: 17, y: 17 }, false)).toBe(false);
    session.benchStore.setState({ tool: "walk" });
    expect(fieldTool.down({ x: 17, y: 17 }, false)).toBe(false);
    session.benchStore.setState({ tool: "paint", walk: {} as never });
    expect(fieldTool.down({ x: 50, y: 50 }, false)).toBe(false);
    session.benchStore.setState({ walk: null });
    expect(cells()).toBe("1,1 2,1");
  });

  it("ends one stroke where another begins, so that each is undone by itself", () => {
    session.chosen.chooseTile("wall");
    fieldTool.down({ x: 17, y: 17 }, false);
    fieldTool.down({ x: 33, y: 17 }, false);
    fieldTool.up();
    expect(cells()).toBe("1,1 2,1");
    session.project.travel("undo");
    expect(cells()).toBe("1,1");
  });

  it("puts fixtures down, and is none where no world is open", () => {
    session.benchStore.setState({ tool: "place", placing: "item", spread: "one" });
    expect(fieldTool.down({ x: 17, y: 17 }, false)).toBe(true);
    fieldTool.move({ x: 33, y: 33 });
    fieldTool.up();
    expect(world().rooms[0]!.fixtures.map(({ cell }) => cell)).toEqual([[2, 2]]);
    const open = project();
    session.project.store.setState({ project: null });
    expect([fieldTool.cellOf({ x: 1, y: 1 }), fieldTool.down({ x: 1, y: 1 }, false)]).toEqual([null, false]);
    session.project.store.setState({ project: open });
    expect(fieldTool.cellOf({ x: -1, y: 16 })).toEqual({ x: -1, y: 1 });
  });

  it("moves the start while the Kit shows the world", () => {
    session.benchStore.setState({ tool: "look", kit: "world" });
    const before = project();
    expect(fieldTool.down({ x: 2 * 16 + 1, y: 2 * 16 + 1 }, false)).toBe(true);
    fieldTool.move({ x: 5 * 16, y: 3 * 16 });
    fieldTool.up();
    expect(world().start.cell).toEqual([5, 3]);
    isOneAct(before);
    expect(fieldTool.down({ x: 8 * 16, y: 8 * 16 }, false)).toBe(false);
    session.benchStore.setState({ kit: "tiles" });
  });
});
