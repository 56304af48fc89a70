import fc from "fast-check";
import { expect, it } from "vitest";
import { FIXED } from "../test-support/arbitraries.ts";
import { wholeRoot } from "./root.ts";

it("is the whole part of the root", () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 2 ** 50 }), (n) => {
      const root = wholeRoot(n);
      expect(root * root <= n && (root + 1) * (root + 1) > n).toBe(true);
    }),
    FIXED,
  );
});
