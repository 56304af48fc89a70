import { session } from "../../page-session.ts";
import type { Project } from "@keen-pebble/core/edit";
import type { World } from "@keen-pebble/core/world";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import { openHere } from "../../test-support/opened.ts";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), {});
});
afterEach(() => opened.close());

const project = (): Project => session.project.store.getState().project!;
const world = (): World => project().world;
const bench = () => session.benchStore.getState();
const notice = (): string => session.project.store.getState().notice?.text ?? "";
/** The pointer goes down on the first of some cells, over the others, and up. */
function stroke(...cells: (readonly [number, number])[]): void {
  const [[x, y], ...further] = cells as [readonly [number, number], ...(readonly [number, number])[]];
  session.placing.beginPlacing({ x, y }, false);
  for (const [toX, toY] of further) session.placing.movePlacing({ x: toX, y: toY });
  session.placing.finishPlacing();
}

describe("many fixtures of a kind", () => {
  const standing = (): string[] =>
    world().rooms.flatMap(({ fixtures }) => fixtures.map(({ id, cell: [x, y] }) => `${id} ${x},${y}`));
  beforeEach(() => {
    session.fixtures.makeItem("key");
    session.fixtures.makeItem("treasure");
    session.placing.takeUpKind("item");
    session.placing.chooseAbout("treasure");
  });
  afterEach(() => session.placing.chooseSpread("one"));

  it("are laid by brush, line and box, numbered on in reading order, one in a cell; one undo each", () => {
    session.placing.chooseSpread("brush");
    let before = project();
    stroke([5, 5], [7, 5], [7, 6], [5, 5]);
    const brushed = ["treasure-1 5,5", "treasure-2 6,5", "treasure-3 7,5", "treasure-4 7,6", "treasure-5 6,5"];
    expect(standing().slice(0, 4)).toEqual(brushed.slice(0, 4));
    isOneAct(before);
    session.placing.chooseSpread("box");
    before = project();
    session.placing.beginPlacing({ x: 8, y: 8 }, false);
    session.placing.movePlacing({ x: 5, y: 5 });
    expect(session.painting.preview()!.cells).toHaveLength(16);
    session.placing.finishPlacing();
    expect(world().rooms[0]!.fixtures.every((each) => each.kind === "item" && each.give === "treasure")).toBe(true);
    expect(new Set(standing().map((text) => text.split(" ")[1])).size).toBe(16);
    expect(standing()).toHaveLength(16);
    isOneAct(before);
    session.placing.chooseSpread("line");
    stroke([1, 1], [3, 1]);
    expect(standing().slice(-3)).toEqual(["treasure-17 1,1", "treasure-18 2,1", "treasure-19 3,1"]);
    expect(bench().fixtures).toEqual(["treasure-17", "treasure-18", "treasure-19"]);
    // Drawn the other way too.
    stroke([3, 2], [1, 2]);
    expect(standing().slice(-3)).toEqual(["treasure-20 1,2", "treasure-21 2,2", "treasure-22 3,2"]);
    expect(notice()).toBe("");
  });

  it("are about the world's first item where the chosen one has gone meanwhile; taken up again it is still chosen", () => {
    session.placing.takeUpKind("item");
    expect(bench().about).toBe("treasure");
    session.fixtures.removeItem("treasure");
    stroke([3, 3]);
    expect(standing()).toEqual(["key-1 3,3"]);
    expect(world().rooms[0]!.fixtures[0]).toMatchObject({ give: "key" });
    session.placing.takeUpKind("hazard");
    expect(bench().about).toBeNull();
  });

  it("stop where a world can have no more, and say so", () => {
    const [room] = world().rooms;
    const many = Array.from({ length: 4094 }, (_, i) => ({
      id: `lamp-${i}`,
      kind: "marker" as const,
      name: "Lamp",
      cell: [0, 0] as const,
      touch: "cell" as const,
      keeps: "run" as const,
    }));
    session.project.changeWorld((w) => ({ ...w, rooms: [{ ...room!, fixtures: many }] }));
    session.placing.chooseSpread("line");
    stroke([1, 1], [3, 1]);
    expect(world().rooms[0]!.fixtures).toHaveLength(4096);
    expect(notice()).toBe("A world has at most 4096 fixtures: 2 of these 3 were placed.");
  });

  it("go along with a rectangle: a cut one moves them under their ids, a copied one brings new ones", () => {
    session.placing.chooseSpread("line");
    stroke([2, 2], [3, 2]);
    const choose = (): void => session.benchStore.setState({ selection: { x: 2, y: 2, width: 2, height: 1 } });
    choose();
    session.painting.copySelection(true);
    expect(standing()).toEqual(["treasure-1 2,2", "treasure-2 3,2"]);
    session.painting.takeUpPiece();
    session.painting.changePiece("flip x");
    let before = project();
    session.painting.beginStroke({ x: 11, y: 5 });
    session.painting.finishStroke();
    expect(standing()).toEqual(["treasure-1 11,5", "treasure-2 10,5"]);
    isOneAct(before);
    before = project();
    session.painting.beginStroke({ x: 11, y: 7 });
    session.painting.finishStroke();
    expect(standing().slice(2)).toEqual(["treasure-3 11,7", "treasure-4 10,7"]);
    isOneAct(before);
    session.painting.letGo();
  });
});

describe("fixtures that stand in a cell", () => {
  it("are chosen in turn by clicks, several with Shift, and let go by a click beside them", () => {
    for (const kind of ["hazard", "checkpoint", "marker"] as const) {
      session.placing.takeUpKind(kind);
      session.placing.chooseSpread("brush");
      stroke([4, 4]);
      session.placing.chooseSpread("one");
    }
    const ids = world().rooms[0]!.fixtures.map(({ id }) => id);
    session.placing.takeUpKind("item");
    session.fixtures.makeItem("key");
    stroke([9, 9]);
    session.placing.takeUpKind(null);
    const click = (x: number, y: number, also = false): readonly string[] => {
      session.placing.beginPlacing({ x, y }, also);
      session.placing.finishPlacing();
      return bench().fixtures;
    };
    expect(click(1, 1)).toEqual([]);
    // The one that is drawn last comes first.
    const turns = [click(4, 4), click(4, 4), click(4, 4), click(4, 4)];
    expect(turns.map(([id]) => id)).toEqual([...ids].reverse().concat(ids.at(-1)!));
    expect(click(9, 9, true)).toEqual(["key-1", ids.at(-1)]);
    // Of several that are chosen none is let go by a click on one of them: they are dragged together.
    expect(click(9, 9)).toHaveLength(2);
    expect(click(1, 1, true)).toHaveLength(2);
    expect(click(1, 1)).toEqual([]);
  });
});

describe("a fixture that is placed by a drag", () => {
  const drag = (kind: "hazard" | "checkpoint" | "portal", ...cells: (readonly [number, number])[]): void => {
    session.placing.takeUpKind(kind);
    stroke(...cells);
  };
  const placed = () => {
    const [id] = bench().fixtures;
    return world()
      .rooms.flatMap(({ fixtures }) => fixtures)
      .find((fixture) => fixture.id === id);
  };

  it("covers what was drawn where its kind may, whichever way, and never beyond the room; one undo", () => {
    const before = project();
    drag("hazard", [5, 4], [7, 4], [6, 2]);
    expect(placed()).toMatchObject({ kind: "hazard", cell: [5, 2], size: [2, 3] });
    isOneAct(before);
    drag("checkpoint", [1, 1], [-5, -5]);
    expect(placed()).toMatchObject({ kind: "checkpoint", cell: [0, 0], size: [2, 2] });
    const { width, height } = world().rooms[0]!;
    drag("checkpoint", [width - 3, height - 2], [width + 4, height + 4]);
    expect(placed()).toMatchObject({ cell: [width - 3, height - 2], size: [3, 2] });
    drag("hazard", [10, 4], [11, 4], [10, 4]);
    expect(placed()).not.toHaveProperty("size");
  });

  it("follows the pointer where its kind has one cell; one that is there is moved from any of its cells", () => {
    drag("portal", [5, 4], [7, 4]);
    expect(placed()).toMatchObject({ kind: "portal", cell: [7, 4] });
    drag("hazard", [8, 4], [9, 5]);
    drag("hazard", [9, 5], [10, 5]);
    expect(placed()).toMatchObject({ kind: "hazard", cell: [9, 4], size: [2, 2] });
    // Over a side of the room it does not go, and goes on from where it is.
    drag("hazard", [9, 4], [world().rooms[0]!.width, 4], [10, 4]);
    expect(placed()).toMatchObject({ kind: "hazard", cell: [10, 4], size: [2, 2] });
  });
});
