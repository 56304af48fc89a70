import type { World } from "@keen-pebble/core/world";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere } from "../../test-support/opened.ts";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), {});
  session.benchStore.setState({
    brush: 1,
    boxFrame: false,
    piece: null,
    laying: false,
    selection: null,
    pointer: null,
  });
});
afterEach(() => opened.close());

const project = () => session.project.store.getState().project!;
const world = (): World => project().world;
const bench = () => session.benchStore.getState();
const cell = (x: number, y: number): string => world().tiles[world().rooms[0]!.cells[y * 20 + x]!]!.id;

describe("painting", () => {
  const drag = (...cells: readonly (readonly [number, number])[]): void => {
    const [first, ...rest] = cells.map(([x, y]) => ({ x, y }));
    session.painting.beginStroke(first!);
    for (const each of rest) session.painting.moveStroke(each);
    session.painting.finishStroke();
  };
  const walls = (): string =>
    world()
      .rooms[0]!.cells.reduce(
        (text, tile, i) => (world().tiles[tile]!.id === "wall" ? `${text} ${i % 20},${Math.floor(i / 20)}` : text),
        "",
      )
      .trim();

  it.each([
    [
      "brush",
      [
        [1, 1],
        [3, 1],
        [3, 2],
      ],
      "1,1 2,1 3,1 3,2",
    ],
    [
      "line",
      [
        [1, 1],
        [9, 9],
        [4, 1],
      ],
      "1,1 2,1 3,1 4,1",
    ],
    [
      "box",
      [
        [3, 3],
        [1, 2],
      ],
      "1,2 2,2 3,2 1,3 2,3 3,3",
    ],
  ] as const)("with the %s over %j lays %s, undone as one", (pen, cells, expected) => {
    session.chosen.chooseTile("wall");
    session.painting.choosePen(pen);
    const before = project();
    drag(...cells);
    expect(walls()).toBe(expected);
    isOneAct(before);
  });

  it("with the bucket fills what hangs together; with the eraser lays the empty tile; a pipette takes what is there", () => {
    session.chosen.chooseTile("wall");
    session.painting.choosePen("line");
    drag([5, 0], [5, 11]);
    session.painting.choosePen("bucket");
    drag([0, 0]);
    expect(cell(4, 11)).toBe("wall");
    expect(cell(6, 0)).toBe("floor");
    session.painting.choosePen("erase");
    drag([0, 0], [1, 0]);
    expect([cell(0, 0), cell(1, 0), cell(2, 0)]).toEqual(["empty", "empty", "wall"]);
    session.painting.pickTile({ x: 6, y: 6 });
    expect(bench()).toMatchObject({ tile: "floor", pen: "brush" });
    session.painting.pickTile({ x: 60, y: 6 });
    expect(bench().tile).toBe("floor");
  });

  it("the box chosen again paints its frame alone, as thick as the brush, and shows which cells before", () => {
    session.chosen.chooseTile("wall");
    session.painting.choosePen("brush");
    session.painting.chooseBox();
    session.painting.chooseBox();
    session.painting.beginStroke({ x: 1, y: 1 });
    session.painting.moveStroke({ x: 3, y: 3 });
    expect(session.painting.preview()?.cells).toHaveLength(8);
    session.painting.finishStroke();
    expect(walls()).toBe("1,1 2,1 3,1 1,2 3,2 1,3 2,3 3,3");
    session.painting.chooseBox();
    expect(bench().boxFrame).toBe(false);
  });

  it("a rectangle is cut, taken up and laid down elsewhere", () => {
    session.chosen.chooseTile("wall");
    session.painting.choosePen("box");
    drag([1, 1], [2, 2]);
    session.painting.choosePen("select");
    drag([1, 1], [2, 2]);
    expect(bench().selection).toMatchObject({ x: 1, y: 1 });
    session.painting.copySelection(true);
    expect(cell(1, 1)).toBe("empty");
    session.painting.takeUpPiece();
    drag([10, 5]);
    // Its middle is where the pointer is.
    expect(walls()).toBe("9,4 10,4 9,5 10,5");
  });

  it("does nothing while somebody walks, or beyond the room", () => {
    const before = project();
    session.chosen.chooseTile("wall");
    session.painting.choosePen("brush");
    drag([40, 40]);
    session.benchStore.setState({ walk: { phase: "walking" } as never });
    drag([1, 1]);
    session.benchStore.setState({ walk: null });
    expect(project()).toBe(before);
  });
});

describe("what the pointer would do is shown before", () => {
  const at = (x: number, y: number): void =>
    session.benchStore.setState({
      tool: "paint",
      pointer: { x: x * world().tileSize + 3, y: y * world().tileSize + 3 },
      drag: null,
      laying: false,
    });

  it.each([
    [1, { x: 7, y: 5, width: 1, height: 1 }],
    [2, { x: 7, y: 5, width: 2, height: 2 }],
    [5, { x: 5, y: 3, width: 5, height: 5 }],
    [8, { x: 4, y: 2, width: 8, height: 8 }],
  ])("a brush of %i", (brush, rect) => {
    for (const pen of ["brush", "erase", "line"] as const) {
      session.benchStore.setState({ pen, brush });
      at(7, 5);
      expect(session.painting.preview()).toEqual({ rects: [rect], cells: [] });
    }
    session.benchStore.setState({ pen: "bucket" });
    expect(session.painting.preview()).toEqual({ rects: [{ x: 7, y: 5, width: 1, height: 1 }], cells: [] });
  });

  it("a line and a box under way, a piece in its middle; nothing beyond the room or with another tool", () => {
    session.benchStore.setState({ pen: "line", brush: 1 });
    at(2, 1);
    session.benchStore.setState({ drag: { from: { x: 2, y: 1 }, to: { x: 4, y: 1 } } });
    expect(session.painting.preview()).toEqual({ rects: [], cells: [22, 23, 24] });
    session.benchStore.setState({ pen: "box" });
    expect(session.painting.preview()).toEqual({ rects: [{ x: 2, y: 1, width: 3, height: 1 }], cells: [] });
    session.painting.choosePen("select");
    session.painting.beginStroke({ x: 1, y: 1 });
    session.painting.moveStroke({ x: 4, y: 3 });
    session.painting.finishStroke();
    session.painting.copySelection(false);
    session.painting.takeUpPiece();
    session.benchStore.setState({ pointer: { x: 10 * world().tileSize, y: 6 * world().tileSize } });
    expect(session.painting.preview()).toEqual({ rects: [{ x: 8, y: 5, width: 4, height: 3 }], cells: [] });
    session.benchStore.setState({ laying: false, pen: "brush", pointer: { x: -1, y: 4 } });
    expect(session.painting.preview()).toBeNull();
    at(2, 2);
    session.benchStore.setState({ tool: "place" });
    expect(session.painting.preview()).toBeNull();
    session.benchStore.setState({ tool: "paint", pointer: null });
    expect(session.painting.preview()).toBeNull();
  });
});
