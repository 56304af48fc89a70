import fc from "fast-check";
import { expect, it } from "vitest";
import { compile } from "../../simulation/compile.ts";
import { FIXED } from "../../test-support/arbitraries.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import { Places } from "./places.ts";
import { columnOf, roomOf, rowOf } from "./state-layout.ts";

it("each cell and each place beyond the sides has one number, however often it is met, and its word says where it is", () => {
  const { rooms } = compile(tinyWorld(["S...", "...."]));
  const anyPlace = fc.tuple(fc.integer({ min: -5, max: 8 }), fc.integer({ min: -5, max: 6 }));
  fc.assert(
    fc.property(fc.array(anyPlace, { minLength: 1, maxLength: 120 }), (met) => {
      const places = new Places(rooms);
      const numbers = new Map<string, number>();
      for (const [cx, cy] of met) {
        const place = places.of(0, cx, cy);
        expect(numbers.get(`${cx} ${cy}`) ?? place).toBe(place);
        numbers.set(`${cx} ${cy}`, place);
        const word = places.words[place]!;
        expect([roomOf(word), columnOf(word), rowOf(word)]).toEqual([0, cx, cy]);
        expect(place < places.cells).toBe(cx >= 0 && cy >= 0 && cx < 4 && cy < 2);
      }
      expect(new Set(numbers.values()).size).toBe(numbers.size);
    }),
    FIXED,
  );
});
