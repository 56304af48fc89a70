import fc from "fast-check";
import { expect, it } from "vitest";
import { occupiedX, occupiedY } from "../../ground/occupied.ts";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import { step } from "../../simulation/step.ts";
import { FIXED } from "../../test-support/arbitraries.ts";
import { EFFORT } from "../../test-support/effort.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import { told } from "../../test-support/told.ts";
import { DOWN, LEFT, RIGHT, UP } from "../../world/keys.ts";
import type { EdgeRule, Side, World } from "../../world/world.ts";
import { GridSuperset } from "./grid-superset.ts";

const IDS = ["a", "b", "c", "d"] as const;
const LEG = 8;
const WAYS = [RIGHT | UP, RIGHT | DOWN, LEFT | UP, LEFT | DOWN, RIGHT, LEFT, UP, DOWN];

const anyRule: fc.Arbitrary<EdgeRule> = fc.oneof(
  { weight: 4, arbitrary: fc.constantFrom(...IDS).map((room) => ({ kind: "link" as const, room, offset: 0 })) },
  { weight: 1, arbitrary: fc.constantFrom<EdgeRule>({ kind: "wall" }, { kind: "wrap" }) },
);
/** A rule for all of a side, or for its first cell and its last one each. */
const anySide: fc.Arbitrary<Side> = fc.oneof(
  anyRule,
  fc.tuple(anyRule, anyRule).map(([one, other]) => [
    { ...one, from: 0, to: 0 },
    { ...other, from: 1, to: 1 },
  ]),
);
/** Four rooms of two by two cells, each of them a corner and some of them a wall, whose sides lead anywhere. */
const anyCorners: fc.Arbitrary<World> = fc
  .record({
    solid: fc.array(fc.array(fc.constantFrom(0, 0, 1), { minLength: 4, maxLength: 4 }), {
      minLength: IDS.length,
      maxLength: IDS.length,
    }),
    sides: fc.array(fc.record({ north: anySide, east: anySide, south: anySide, west: anySide }), {
      minLength: IDS.length,
      maxLength: IDS.length,
    }),
    speed: fc.constantFrom(2, 3, 3, 11),
    carry: fc.constantFrom(true, true, false),
    crossesAt: fc.constantFrom("centre" as const, "whole" as const),
  })
  .map(({ solid, sides, speed, carry, crossesAt }) => {
    const world = tinyWorld(["S ", "  "], { glide: { speed, carry }, input: { ways: 8 } });
    return {
      ...world,
      rooms: IDS.map((id, i) => ({
        ...world.rooms[0]!,
        id,
        name: id,
        edges: sides[i]!,
        cells: Uint16Array.from(solid[i]!, (tile, cell) => (i + cell === 0 ? 0 : tile)),
      })),
      rules: world.rules.map((each) => ({ ...each, walker: { ...each.walker, crossesAt } })),
    };
  });

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
          expect.fail(`frame ${i} is in ${IDS[s.room]} ${cx},${cy}`);
      }
    }),
    { ...FIXED, numRuns: 1500 * EFFORT },
  );
  told("cells", seen);
  expect(seen.never).toBeGreaterThan(1500);
  expect(seen.crossed).toBeGreaterThan(2000);
});
