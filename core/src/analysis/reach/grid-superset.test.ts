import fc from "fast-check";
import { expect, it } from "vitest";
import { occupiedX, occupiedY } from "../../ground/occupied.ts";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import { step } from "../../simulation/step.ts";
import { FIXED } from "../../test-support/arbitraries.ts";
import { EFFORT } from "../../test-support/effort.ts";
import { CORNER_ROOMS, anyCorners } from "../../test-support/any-corners.ts";
import { told } from "../../test-support/told.ts";
import { DOWN, LEFT, RIGHT, UP } from "../../world/keys.ts";
import { GridSuperset } from "./grid-superset.ts";

const LEG = 8;
const WAYS = [RIGHT | UP, RIGHT | DOWN, LEFT | UP, LEFT | DOWN, RIGHT, LEFT, UP, DOWN];

it("no play over corners where sides lead on comes to a cell that nothing should reach", () => {
  const seen = { never: 0, crossed: 0 };
  fc.assert(
    fc.property(anyCorners, fc.array(fc.constantFrom(...WAYS), { minLength: 12, maxLength: 12 }), (world, keys) => {
      const c = compile(world);
      const start = startState(c);
      const { comes } = new GridSuperset(c, start);
      seen.never += comes.reduce((sum, cells) => sum + cells.filter((may) => may === 0).length, 0);
      const s = startState(c);
      for (let i = 0; i < keys.length * LEG && s.status === 0; i++) {
        const { room } = s;
        step(c, s, keys[Math.floor(i / LEG)]!, null);
        if (s.room !== room) seen.crossed++;
        const [cx, cy] = [occupiedX(c.tileUnits, s.x), occupiedY(c.tileUnits, s.y)];
        if (s.status === 0 && s.x === cx * c.tileUnits && s.y === cy * c.tileUnits && comes[s.room]![cy * 2 + cx] === 0)
          expect.fail(`frame ${i} is in ${CORNER_ROOMS[s.room]} ${cx},${cy}`);
      }
    }),
    { ...FIXED, numRuns: 1500 * EFFORT },
  );
  told("cells", seen);
  expect(seen.never).toBeGreaterThan(1500);
  expect(seen.crossed).toBeGreaterThan(2000);
});
