import fc from "fast-check";
import { expect, it } from "vitest";
import { brushLine, floodCells, frameCells, rectCells, rectOf } from "./paint-cells.ts";
import { copyPiece, flipPiece, layPiece, turnPiece } from "./piece.ts";

const FIXED = { seed: 20_261_125, numRuns: 200 };
const anyGrid = fc
  .record({ width: fc.integer({ min: 1, max: 9 }), height: fc.integer({ min: 1, max: 9 }) })
  .chain(({ width, height }) =>
    fc
      .array(fc.nat(2), { minLength: width * height, maxLength: width * height })
      .map((cells) => ({ width, height, cells })),
  );
const anyCell = fc.record({ x: fc.integer({ min: -2, max: 10 }), y: fc.integer({ min: -2, max: 10 }) });
const IDS = ["empty", "floor", "wall"];

it("a brush covers a square at every cell of its way, without gaps and only in the room", () => {
  expect(
    brushLine({ width: 5, height: 5, cells: [] }, { x: 1, y: 1 }, { x: 1, y: 1 }, 3).sort((a, b) => a - b),
  ).toEqual([0, 1, 2, 5, 6, 7, 10, 11, 12]);
  // One that has no middle reaches further right and down.
  const even = (size: number): number[] =>
    brushLine({ width: 5, height: 5, cells: [] }, { x: 1, y: 1 }, { x: 1, y: 1 }, size).sort((a, b) => a - b);
  expect([even(1), even(2)]).toEqual([[6], [6, 7, 11, 12]]);
  expect(even(4)).toEqual([0, 1, 2, 3, 5, 6, 7, 8, 10, 11, 12, 13, 15, 16, 17, 18]);
  fc.assert(
    fc.property(anyGrid, anyCell, anyCell, fc.integer({ min: 1, max: 9 }), (grid, from, to, size) => {
      const cells = brushLine(grid, from, to, size);
      expect(new Set(cells).size).toBe(cells.length);
      expect(cells.every((cell) => cell >= 0 && cell < grid.width * grid.height)).toBe(true);
      expect(rectCells(grid, rectOf(from, to)).every((cell) => cell >= 0 && cell < grid.width * grid.height)).toBe(
        true,
      );
      const inside = to.x >= 0 && to.y >= 0 && to.x < grid.width && to.y < grid.height;
      if (inside) expect(cells).toContain(to.y * grid.width + to.x);
    }),
    FIXED,
  );
});

it("a frame is a box without what lies further inside than it is thick; a thick one is the whole box", () => {
  const grid = { width: 6, height: 5, cells: [] };
  expect(frameCells(grid, { x: 1, y: 1, width: 4, height: 3 }, 1)).toEqual([7, 8, 9, 10, 13, 16, 19, 20, 21, 22]);
  fc.assert(
    fc.property(anyGrid, anyCell, anyCell, fc.integer({ min: 1, max: 9 }), (of, from, to, thick) => {
      const rect = rectOf(from, to);
      const inner = {
        x: rect.x + thick,
        y: rect.y + thick,
        width: rect.width - 2 * thick,
        height: rect.height - 2 * thick,
      };
      const hole = inner.width > 0 && inner.height > 0 ? rectCells(of, inner) : [];
      expect([...frameCells(of, rect, thick), ...hole].sort((a, b) => a - b)).toEqual(
        rectCells(of, rect).sort((a, b) => a - b),
      );
    }),
    FIXED,
  );
});

it("the bucket fills what hangs together and nothing else", () => {
  fc.assert(
    fc.property(anyGrid, anyCell, (grid, at) => {
      const filled = new Set(floodCells(grid, at));
      const tile = grid.cells[at.y * grid.width + at.x];
      for (const cell of filled) expect(grid.cells[cell]).toBe(tile);
      // No neighbour of what was filled is of the same tile and was left out.
      for (const cell of filled) {
        for (const [dx, dy] of [
          [1, 0],
          [-1, 0],
          [0, 1],
          [0, -1],
        ] as const) {
          const [x, y] = [(cell % grid.width) + dx, Math.floor(cell / grid.width) + dy];
          if (x < 0 || y < 0 || x >= grid.width || y >= grid.height || grid.cells[y * grid.width + x] !== tile)
            continue;
          expect(filled.has(y * grid.width + x)).toBe(true);
        }
      }
    }),
    FIXED,
  );
});

it("a piece that is laid where it was taken changes nothing; two flips or four turns are none", () => {
  fc.assert(
    fc.property(anyGrid, anyCell, anyCell, (grid, a, b) => {
      const rect = rectOf(a, b);
      const piece = copyPiece({ ...grid, id: "a", fixtures: [], actors: [] }, rect, IDS, false);
      if (piece === null) return;
      expect(flipPiece(flipPiece(piece, "x"), "x")).toEqual(piece);
      expect(flipPiece(flipPiece(piece, "y"), "y")).toEqual(piece);
      expect(turnPiece(turnPiece(turnPiece(turnPiece(piece))))).toEqual(piece);
      expect(turnPiece(turnPiece(piece))).toEqual(flipPiece(flipPiece(piece, "x"), "y"));
      const middle = {
        x: Math.max(rect.x, 0) + Math.floor(piece.width / 2),
        y: Math.max(rect.y, 0) + Math.floor(piece.height / 2),
      };
      const { cells, tiles } = layPiece(grid, piece, middle);
      expect(tiles).toEqual(cells.map((cell) => IDS[grid.cells[cell]!]));
      expect(cells).toHaveLength(piece.tiles.length);
    }),
    FIXED,
  );
  expect(turnPiece({ width: 3, height: 1, tiles: ["a", "b", "c"], fixtures: [], actors: [], moves: [] })).toMatchObject(
    {
      width: 1,
      height: 3,
      tiles: ["a", "b", "c"],
    },
  );
  expect(turnPiece({ width: 1, height: 2, tiles: ["a", "b"], fixtures: [], actors: [], moves: [] })).toMatchObject({
    width: 2,
    height: 1,
    tiles: ["b", "a"],
  });
});
