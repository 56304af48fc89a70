import { expect, it } from "vitest";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { FACING_ORDERS, figureOf } from "./figure.ts";

it("pictures lie a row or a column for each facing, and stay where they were moved to", () => {
  const world = tinyWorld(["S."]);
  const sheets = [{ id: "tender", file: "tender.png", tile: 24, margin: 0, spacing: 0 }];
  const rows = figureOf(
    { ...world, sheets },
    { sheet: "tender", at: [1, 2], size: [3, 4], along: "rows", facings: FACING_ORDERS[4]! },
    null,
  );
  expect(rows).toEqual({
    sheet: "tender",
    offset: [-4, -8],
    images: {
      right: [
        [1, 2],
        [2, 2],
        [3, 2],
      ],
      down: [
        [1, 3],
        [2, 3],
        [3, 3],
      ],
      left: [
        [1, 4],
        [2, 4],
        [3, 4],
      ],
      up: [
        [1, 5],
        [2, 5],
        [3, 5],
      ],
    },
  });
  const columns = figureOf(
    { ...world, sheets },
    { sheet: "tender", at: [0, 0], size: [2, 1], along: "columns", facings: FACING_ORDERS[2]! },
    { ...rows, offset: [7, 7] },
  );
  expect(columns).toEqual({ sheet: "tender", offset: [7, 7], images: { right: [[0, 0]], left: [[1, 0]] } });
  const further = figureOf(
    { ...world, sheets: [{ ...sheets[0]!, tile: 17 }] },
    { sheet: "tender", at: [3, 5], size: [2, 2], along: "columns", facings: FACING_ORDERS[2]! },
    null,
  );
  expect(further).toEqual({
    sheet: "tender",
    offset: [0, -1],
    images: {
      right: [
        [3, 5],
        [3, 6],
      ],
      left: [
        [4, 5],
        [4, 6],
      ],
    },
  });
  expect(Object.is(further.offset[0], 0)).toBe(true);
});
