import equal from "fast-deep-equal/es6/index.js";
import { expect } from "vitest";

/**
 * Expects what `expect(value).toEqual(expected)` does, in a hundredth of the time where they are equal: for what is
 * compared very often.
 */
export function same(value: unknown, expected: unknown): void {
  if (!equal(value, expected)) expect(value).toEqual(expected);
}
