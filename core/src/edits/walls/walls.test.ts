import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import { step } from "../../simulation/step.ts";
import { readWorld } from "../../formats/read-world.ts";
import { writeWorld } from "../../formats/write-world.ts";
import { FIXED } from "../../test-support/arbitraries.ts";
import { depthOf, distanceToEdges } from "../../test-support/figures.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import { DOWN, LEFT, RIGHT, UP } from "../../world/keys.ts";
import type { Pair, Shape, World } from "../../world/world.ts";
import { layWall, tidyCutTiles, unusedCutTiles } from "./lay-wall.ts";
import type { Outline } from "./outline.ts";
import { outlineFault, straightWall } from "./outline.ts";
import { isInside } from "./px-cells.ts";

/** A bare room of so many cells across and down. */
const bare = (across: number, down: number, tileSize = 16): World => {
  const world = tinyWorld(
    Array.from({ length: down }, () => ".".repeat(across)),
    {
      tileSize,
      gait: "roam",
      roam: { speedX: 3, speedY: 3, response: "contact", slopes: "slide" },
      body: { kind: "box", box: [2, 3, 11, 9], flush: "free" },
    },
  );
  // Tiles that are there for other tests: walls here are made of the block alone.
  return { ...world, tiles: world.tiles.slice(0, 2) };
};

function laid(world: World, outline: Outline, tile = "block") {
  const result = layWall(world, "a", outline, tile);
  if ("fault" in result) throw new Error(result.fault);
  return result;
}

function shapeHolds(shape: Shape, x: number, y: number): boolean {
  if (shape.kind === "full") return true;
  if (shape.kind === "poly") return isInside(shape.points, x, y);
  return shape.boxes.some(([left, top, w, h]) => x > left && x < left + w && y > top && y < top + h);
}

/** Whether a point of the first room is solid. */
function isSolid(world: World, x: number, y: number): boolean {
  const [room] = world.rooms;
  const [cx, cy] = [Math.floor(x / world.tileSize), Math.floor(y / world.tileSize)];
  const tile = world.tiles[room!.cells[cy * room!.width + cx]!]!;
  return tile.flags.includes("solid") && shapeHolds(tile.shape, x - cx * world.tileSize, y - cy * world.tileSize);
}

/** Figures with corners in all directions around a middle, many of them not convex. */
const anyOutline: fc.Arbitrary<Outline> = fc
  .record({
    middle: fc.tuple(fc.integer({ min: 20, max: 100 }), fc.integer({ min: 20, max: 80 })),
    turned: fc.double({ min: 0, max: 6.28, noNaN: true }),
    radii: fc.array(fc.integer({ min: 5, max: 60 }), { minLength: 3, maxLength: 9 }),
    backwards: fc.boolean(),
  })
  .map(({ middle: [x, y], turned, radii, backwards }): Outline => {
    const corners = radii.map((radius, i): Pair => {
      const angle = turned + (i / radii.length) * 2 * Math.PI;
      return [Math.round(x + radius * Math.cos(angle)), Math.round(y + radius * Math.sin(angle))];
    });
    return backwards ? corners.reverse() : corners;
  })
  .filter((outline) => outlineFault(outline) === null);

/** Rectangles turned by any angle, their corners in whole px. */
const anyTurned: fc.Arbitrary<Outline> = fc
  .record({
    middle: fc.tuple(fc.integer({ min: 70, max: 170 }), fc.integer({ min: 70, max: 170 })),
    angle: fc.double({ min: 0, max: 3.14, noNaN: true }),
    half: fc.tuple(fc.integer({ min: 6, max: 60 }), fc.integer({ min: 3, max: 30 })),
  })
  .map(({ middle: [x, y], angle, half: [along, across] }): Outline => {
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const corner = (a: number, b: number): Pair => [Math.round(x + a * c - b * s), Math.round(y + a * s + b * c)];
    return [corner(-along, -across), corner(along, -across), corner(along, across), corner(-along, across)];
  });

describe("what a wall blocks", () => {
  it("is what its outline holds, within 1 px of the edge, in cells that are named within what is named", () => {
    let slanted = 0;
    let steps = 0;
    fc.assert(
      fc.property(anyOutline, fc.constantFrom(8, 16, 20), (outline, tileSize) => {
        const { world, off, rounding } = laid(
          bare(Math.ceil(128 / tileSize), Math.ceil(112 / tileSize), tileSize),
          outline,
        );
        expect(rounding).toBeLessThanOrEqual(0.5);
        steps += off.length;
        slanted += world.tiles.filter(({ shape }) => shape.kind === "poly").length;
        const named = new Map(off.map(({ cell, off: by }) => [cell.join(), by]));
        for (let y = 0.53; y < 112; y += 1.7)
          for (let x = 0.53; x < 128; x += 1.7) {
            const far = distanceToEdges(outline, [x, y]);
            const by = named.get(`${Math.floor(x / tileSize)},${Math.floor(y / tileSize)}`) ?? 0;
            if (far > 1.2 + by && isSolid(world, x, y) !== isInside(outline, x, y))
              throw new Error(`${x},${y} is ${far} px from the edge and wrong`);
          }
        // Every shape is one that a world may have.
        expect(readWorld(writeWorld(world))).toEqual(world);
        // Once more, it changes nothing.
        const again = laid(world, outline);
        expect([again.made, again.changed]).toEqual([0, 0]);
      }),
      { ...FIXED, numRuns: 120 },
    );
    expect(slanted).toBeGreaterThan(500);
    expect(steps).toBeGreaterThan(10);
  });

  it("is both where one lies over the other", () => {
    let both = 0;
    fc.assert(
      fc.property(anyTurned, anyTurned, (one, other) => {
        const first = laid(bare(16, 16), one);
        const { world, off } = laid(first.world, other);
        const named = new Map([...first.off, ...off].map(({ cell, off: by }) => [cell.join(), by]));
        for (let y = 0.53; y < 256; y += 2.3)
          for (let x = 0.53; x < 256; x += 2.3) {
            const inside = isInside(one, x, y) || isInside(other, x, y);
            const far = Math.min(distanceToEdges(one, [x, y]), distanceToEdges(other, [x, y]));
            const by = named.get(`${Math.floor(x / 16)},${Math.floor(y / 16)}`) ?? 0;
            if (isInside(one, x, y) && isInside(other, x, y)) both++;
            if (far > 1.2 + by && isSolid(world, x, y) !== inside) throw new Error(`${x},${y} is wrong`);
          }
        expect(readWorld(writeWorld(world))).toEqual(world);
      }),
      { ...FIXED, numRuns: 40 },
    );
    expect(both).toBeGreaterThan(500);
  });
});

/** How deep a walker's body at a place is in a figure. */
function bodyDepth(outline: Outline, x: number, y: number): number {
  const [left, top] = [x / 256 + 2, y / 256 + 3];
  return depthOf(
    [
      [left, top],
      [left + 11, top],
      [left + 11, top + 9],
      [left, top + 9],
    ],
    outline,
  );
}

it("a turned rectangle that is walked along stops the walker at its own edge, within the rounding to whole px", () => {
  let stops = 0;
  let frames = 0;
  const around = [0, RIGHT, RIGHT | DOWN, DOWN, DOWN | LEFT, LEFT, LEFT | UP, UP, UP | RIGHT];
  fc.assert(
    fc.property(anyTurned, fc.array(fc.nat(8), { minLength: 6, maxLength: 10 }), (outline, ways) => {
      const { world, off } = laid(bare(15, 15), outline);
      // A turned rectangle is convex: no cell of it is told otherwise.
      expect(off).toEqual([]);
      const compiled = compile(world);
      const state = startState(compiled);
      for (const way of ways) {
        for (let frame = 0; frame < 25; frame++) {
          const [x, y] = [state.x, state.y];
          step(compiled, state, around[way]!, null);
          frames++;
          const depth = bodyDepth(outline, state.x, state.y);
          if (depth > 1.2) throw new Error(`the body is ${depth} px in the wall at frame ${frame}`);
          if (way === 0 || state.x !== x || state.y !== y) continue;
          // It stands although a way is held: something is within a px that way, the wall or the room's side.
          const atSide =
            state.x / 256 + 2 < 1 || state.y / 256 + 3 < 1 || state.x / 256 + 13 > 239 || state.y / 256 + 12 > 239;
          if (!atSide) {
            stops++;
            if (depth < -1.2) throw new Error(`stopped ${-depth} px before the wall`);
          }
        }
      }
    }),
    { ...FIXED, numRuns: 1000 },
  );
  expect(frames).toBeGreaterThan(100_000);
  expect(stops).toBeGreaterThan(1000);
});

describe("the tiles that a wall is cut into", () => {
  const slope: Outline = [
    [16, 16],
    [48, 16],
    [48, 32],
  ];

  it("are named after the one that it is of, found again, and tidied when no cell has them", () => {
    const one = laid(bare(8, 6), slope);
    expect(one.world.tiles.map(({ id }) => id)).toEqual(
      ["floor", "block", "block-cut-1", "block-cut-2"].map((id) => (id === "floor" ? one.world.tiles[0]!.id : id)),
    );
    expect(one.world.tiles[2]).toMatchObject({ name: "block, cut 1", flags: ["solid"], glyph: null });
    const moved = laid(
      one.world,
      slope.map(([x, y]): Pair => [x + 48, y + 32]),
    );
    expect([moved.made, moved.changed]).toEqual([0, 2]);
    // A tile that was cut stands for the one that it was cut from.
    const from = laid(one.world, straightWall([64, 0], [80, 16]), "block-cut-2");
    expect([from.made, from.world.rooms[0]!.cells[4]]).toEqual([0, 1]);
    expect(unusedCutTiles(moved.world)).toEqual([]);
    const over = laid(one.world, straightWall([16, 16], [48, 32])).world;
    expect(unusedCutTiles(over)).toEqual(["block-cut-1", "block-cut-2"]);
    expect(tidyCutTiles(over).tiles).toHaveLength(2);
    expect(tidyCutTiles(moved.world)).toBe(moved.world);
  });

  it("are boxes where the wall is straight, and what is not quite said is named", () => {
    const straight = laid(bare(8, 6), straightWall([70, 40], [20, 10]));
    expect(new Set(straight.world.tiles.map(({ shape }) => shape.kind))).toEqual(new Set(["full", "boxes"]));
    expect([straight.off, straight.rounding]).toEqual([[], 0]);
    const notch: Outline = [
      [0, 0],
      [16, 0],
      [8, 10],
      [16, 16],
      [0, 16],
    ];
    expect(laid(bare(2, 2), notch).off).toEqual([{ cell: [0, 0], off: 1 }]);
    const corner: Outline = [
      [0, 0],
      [16, 0],
      [16, 6],
      [5, 6],
      [5, 16],
      [0, 16],
    ];
    const made = laid(bare(2, 2), corner);
    expect([made.off, made.world.tiles.at(-1)!.shape]).toEqual([
      [],
      {
        kind: "boxes",
        boxes: [
          [0, 0, 16, 6],
          [0, 6, 5, 10],
        ],
      },
    ]);
  });

  it("nothing is laid that would be no wall", () => {
    const fault = (outline: Outline, tile = "block"): unknown => layWall(bare(8, 6), "a", outline, tile);
    expect(fault([])).toEqual({ fault: "a wall has at least 3 corners, this one 0" });
    expect(fault(Array.from({ length: 65 }, (_, i): Pair => [i, i * i]))).toEqual({
      fault: "a wall has at most 64 corners, this one 65",
    });
    expect(
      fault([
        [0, 0],
        [20, 20],
        [20, 0],
        [0, 20],
      ]),
    ).toEqual({
      fault: "its edge from 0,0 meets the one from 20,0: a wall does not cross or touch itself",
    });
    expect(
      fault([
        [0, 0],
        [20, 0],
        [10, 0],
      ]),
    ).toMatchObject({ fault: expect.stringContaining("meets") as string });
    expect(fault(slope, "floor")).toMatchObject({ fault: expect.stringContaining("no") as string });
    expect(
      laid(bare(8, 6), [
        [500, 500],
        [520, 500],
        [510, 520],
      ]).changed,
    ).toBe(0);
  });
});
