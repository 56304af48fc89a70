import type { Pair } from "@keen-pebble/core/world";
import { expect, it } from "vitest";
import { cellsText } from "./cells-text.ts";

it("cells are listed up to six, and counted beyond", () => {
  const cells = Array.from({ length: 8 }, (_, i): Pair => [i, 2 * i]);
  expect(cellsText(cells.slice(0, 1))).toBe("0,0");
  expect(cellsText(cells.slice(0, 6))).toBe("0,0 1,2 2,4 3,6 4,8 5,10");
  expect(cellsText(cells)).toBe("0,0 1,2 2,4 3,6 4,8 5,10 and 2 more");
});
