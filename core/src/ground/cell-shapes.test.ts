import { expect, it } from "vitest";
import { compile } from "../simulation/compile.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { bodyMeets, shapesOfCell } from "./cell-shapes.ts";

/** A tile in units. */
const T = 16 * 256;

it.each([
  ["just above the slope", T / 2, T / 2 - 1, false],
  ["on the slope", T / 2, T / 2, true],
  ["in the last corner of its cell", T - 1, T - 1, true],
  ["to the right of its cell, whose side the slope touches", T, T - 1, false],
  ["below its cell, whose side the slope touches", T - 1, T, false],
])("a probe %s meets it or not", (_, x, y, meets) => {
  const body = { kind: "probes", points: [[0, 0]], flush: "free" } as const;
  const { ground } = compile(tinyWorld(["/ ", "  "], { gait: "roam", body }));
  const [slope, ...others] = shapesOfCell(ground, 0, 0, 0);
  expect(others).toEqual([]);
  expect(bodyMeets(ground, x, y, slope!)).toBe(meets);
});
