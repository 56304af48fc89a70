import { createStore } from "zustand/vanilla";
import { beforeEach, expect, it } from "vitest";
import type { ProjectSession } from "../project/project.ts";
import type { BenchState, BenchStore } from "./bench-store.ts";
import { FieldTool } from "./field-tool.ts";

/** What the parts were told, in order. */
let told: string[];
/** Whether the start or an actor is where the tool is put down. */
let there: boolean;
let tool: FieldTool;
let bench: BenchStore;
let tileSize: number | undefined;

/** A part that only tells what it was asked to do. */
const part = (name: string): never =>
  new Proxy(
    {},
    {
      get:
        (_, act: string) =>
        ({ x, y }: { readonly x?: number; readonly y?: number } = {}, more?: boolean) => {
          told.push(
            [name, act, ...(x === undefined ? [] : [`${x},${y}`]), ...(more === true ? ["more"] : [])].join(" "),
          );
          return there;
        },
    },
  ) as never;
/** Sets what is in hand, and forgets what was told. */
function inHand(state: Partial<BenchState>): void {
  bench.setState({ walk: null, tool: "paint", kit: "tiles", ...state });
  told = [];
}
/** Down, over to another cell, and up: whether it was held, and what was told. */
function drawn(): [boolean, readonly string[]] {
  told = [];
  const held = tool.down({ x: 17, y: 35 }, false);
  tool.move({ x: -1, y: 48 });
  tool.up();
  tool.move({ x: 90, y: 90 });
  tool.up();
  return [held, told];
}

beforeEach(() => {
  told = [];
  there = true;
  tileSize = 16;
  bench = createStore(() => ({})) as unknown as BenchStore;
  const project = { store: { getState: () => ({ project: tileSize === undefined ? null : { world: { tileSize } } }) } };
  tool = new FieldTool(project as unknown as ProjectSession, bench, {
    painting: part("painting"),
    placing: part("placing"),
    walls: part("walls"),
    actors: part("actors"),
    worldSettings: part("start"),
  });
  inHand({});
});

it("is the part that is in hand, told cells, a wall px; let go it moves nothing", () => {
  expect(drawn()).toEqual([true, ["painting beginStroke 1,2", "painting moveStroke -1,3", "painting finishStroke"]]);
  inHand({ tool: "place" });
  expect(drawn()).toEqual([true, ["placing beginPlacing 1,2", "placing movePlacing -1,3", "placing finishPlacing"]]);
  inHand({ tool: "wall" });
  // Where a wall would go is shown before it is put down.
  expect(drawn()).toEqual([true, ["walls down 17,35", "walls move -1,48", "walls up", "walls move 90,90"]]);
  inHand({ tool: "look", kit: "actors" });
  expect(drawn()).toEqual([true, ["actors down 1,2", "actors move -1,3", "actors up"]]);
  inHand({ tool: "look", kit: "world" });
  expect(drawn()).toEqual([true, ["start beginDrag 1,2", "start moveDrag -1,3", "start endDrag"]]);
});

it("holds nothing where nothing is, where one only looks, and while somebody walks", () => {
  inHand({ tool: "look", kit: "tiles" });
  expect(drawn()).toEqual([false, []]);
  inHand({ tool: "walk" });
  expect(drawn()).toEqual([false, []]);
  inHand({ walk: {} as never });
  expect(drawn()).toEqual([false, []]);
  there = false;
  inHand({ tool: "look", kit: "actors" });
  expect(drawn()).toEqual([false, ["actors down 1,2"]]);
  // Beside the start the tool in hand does what it does elsewhere.
  inHand({ kit: "world" });
  expect(drawn()).toEqual([
    true,
    ["start beginDrag 1,2", "painting beginStroke 1,2", "painting moveStroke -1,3", "painting finishStroke"],
  ]);
  tileSize = undefined;
  inHand({});
  expect(drawn()).toEqual([false, []]);
});

it("put down once more it is let go first, and takes more to what is chosen", () => {
  inHand({ tool: "place" });
  tool.down({ x: 0, y: 0 }, false);
  tool.down({ x: 16, y: 0 }, true);
  expect(told).toEqual(["placing beginPlacing 0,0", "placing finishPlacing", "placing beginPlacing 1,0 more"]);
  // It is what it was when it was put down that moves and is let go.
  inHand({ tool: "paint" });
  tool.move({ x: 32, y: 0 });
  tool.up();
  expect(told).toEqual(["placing movePlacing 2,0", "placing finishPlacing"]);
});
