import type { Fixture, World } from "@keen-pebble/core/world";
import { readLog } from "@keen-pebble/core/check";
import { compile, rememberedIn, stateAt } from "@keen-pebble/core/simulate";
import { expect, it } from "vitest";
import { hall } from "../test-support/hall.ts";
import { drawSolid } from "./draw-solid.ts";
import { closedDoors } from "./fixture-looks.ts";

const door = (id: string, x: number, more: Partial<Extract<Fixture, { kind: "door" }>> = {}): Fixture => ({
  id,
  kind: "door",
  cell: [x, 3],
  touch: "cell",
  keeps: "run",
  lock: { kind: "none" },
  opensOn: "push",
  closes: "never",
  ...more,
});

/** The hall with a wall, a half-high tile, a slope, and two doors; a circuit that is off opens a third. */
const world: World = (() => {
  const base = hall();
  const [room] = base.rooms;
  const tiles = [
    ...base.tiles,
    { ...base.tiles[2]!, id: "ledge", shape: { kind: "boxes", boxes: [[0, 8, 16, 8]] } as const },
    {
      ...base.tiles[2]!,
      id: "slope",
      shape: {
        kind: "poly",
        points: [
          [16, 0],
          [16, 16],
          [0, 16],
        ],
      } as const,
    },
  ];
  const cells = room!.cells.slice();
  [cells[0], cells[1], cells[2]] = [2, 3, 4];
  const fixtures = [
    door("first", 3),
    door("second", 5),
    door("third", 7, { lock: { kind: "circuit", circuit: "pump", open: "off" } }),
  ];
  return {
    ...base,
    tiles,
    circuits: ["pump"],
    start: { ...base.start, cell: [2, 3] },
    rooms: [{ ...room!, cells, fixtures }],
  };
})();
const [room] = world.rooms;

/** What is drawn, by what it is drawn with. */
function drawn(blockedBy: readonly string[], doors: readonly Fixture[], view = { zoom: 1, left: 0, top: 0 }): string[] {
  const said: string[] = [];
  const c = new Proxy(
    {},
    {
      get:
        (_target, name: string) =>
        (...values: number[]) => {
          if (["rect", "moveTo", "lineTo"].includes(name)) said.push(`${name} ${values.join(" ")}`);
        },
      set: () => true,
    },
  );
  drawSolid(c as CanvasRenderingContext2D, { world, logs: new Map() }, room!, blockedBy, doors, view, 320, 192);
  return said;
}

it("draws the shapes of what blocks, and of nothing else", () => {
  const shapes = ["rect 0.5 0.5 15 15", "rect 16.5 8.5 15 7", "moveTo 48 0", "lineTo 48 16", "lineTo 32 16"];
  expect(drawn(["solid"], [])).toEqual(shapes);
  expect(drawn([], [])).toEqual([]);
  // Moved and twice as large; what is out of sight is left out.
  expect(drawn(["solid"], [], { zoom: 2, left: -32, top: 4 })).toEqual([
    "rect 0.5 20.5 31 15",
    "moveTo 64 4",
    "lineTo 64 36",
    "lineTo 32 36",
  ]);
});

it("draws doors while they are closed: as at the start where nothing is remembered, else as in the shown frame", () => {
  const closed = (frame: number): string[] => {
    const c = compile(world);
    return closedDoors(
      world,
      room!.id,
      rememberedIn(c, stateAt(c, readLog("keen-pebble-inputs 1\n---\n30 R\n"), frame)),
    ).map(({ id }) => id);
  };
  expect(closedDoors(world, room!.id, null).map(({ id }) => id)).toEqual(["first", "second"]);
  expect(closed(0)).toEqual(["first", "second"]);
  // The first is pushed open at once.
  expect(closed(1)).toEqual(["second"]);
  expect(closed(30)).toEqual([]);
  expect(drawn([], closedDoors(world, room!.id, null))).toEqual(["rect 48.5 48.5 15 15", "rect 80.5 48.5 15 15"]);
});
