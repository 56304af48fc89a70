import { expect, it } from "vitest";
import { firstFailing } from "./first-failing.ts";

it("finds the first of any numbers that fails, by halves, and says how many are left", async () => {
  for (let good = 0; good < 4; good++)
    for (let bad = good + 1; bad < 40; bad++)
      for (let first = good + 1; first <= bad; first++) {
        const asked: number[] = [];
        const left: number[] = [];
        const found = await firstFailing(
          good,
          bad,
          (number) => {
            asked.push(number);
            return Promise.resolve(number < first);
          },
          (n) => left.push(n),
        );
        expect(found).toBe(first);
        expect(asked.length).toBeLessThanOrEqual(Math.ceil(Math.log2(bad - good)));
        expect(asked.every((number) => number > good && number < bad)).toBe(true);
        expect(left).toHaveLength(asked.length);
        if (left.length > 0) expect(left.at(-1)).toBe(0);
        expect(left.every((n, i) => n < (left[i - 1] ?? bad - good))).toBe(true);
      }
});
