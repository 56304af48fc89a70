import fc from "fast-check";
import type { Actor, Phase } from "../world/actors.ts";
import { ACTOR_DOORS, ACTOR_TOUCHES, PATH_THEN, TURNS_BACK } from "../world/actors.ts";
import { FACINGS } from "../world/facing.ts";
import type { Pair, World } from "../world/world.ts";
import { anyHouse } from "./any-house.ts";

const anyCellOf = (width: number, height: number): fc.Arbitrary<Pair> =>
  fc.tuple(fc.integer({ min: 0, max: width - 1 }), fc.integer({ min: 0, max: height - 1 }));

function anyPhaseOf(width: number, height: number): fc.Arbitrary<Phase> {
  const frames = fc.option(fc.integer({ min: 1, max: 60 }));
  return fc.oneof(
    fc.record({
      frames,
      do: fc.constantFrom("stand" as const, "wander" as const, "toward" as const, "away" as const),
    }),
    fc.record({
      frames,
      do: fc.constant("path" as const),
      then: fc.constantFrom(...PATH_THEN),
      cells: fc.array(anyCellOf(width, height), { minLength: 1, maxLength: 4 }),
    }),
  );
}

/** Any actor of a room of that size, in a world of 16 px; its id is to be given. */
export function anyActorOf(width: number, height: number): fc.Arbitrary<Actor> {
  return fc.record({
    id: fc.constant(""),
    cell: anyCellOf(width, height),
    facing: fc.constantFrom(...FACINGS),
    speed: fc.constantFrom(1, 2.5, 16),
    blockedBy: fc.constantFrom(["solid"], ["solid"], []),
    doors: fc.constantFrom(...ACTOR_DOORS),
    turnsBack: fc.constantFrom(...TURNS_BACK),
    touch: fc.constantFrom(...ACTOR_TOUCHES),
    body: fc.constantFrom([0, 0, 16, 16] as const, [4, 2, 8, 10] as const, [-4, -4, 24, 24] as const),
    keeps: fc.constantFrom("run" as const, "visit" as const, "life" as const),
    plan: fc.array(anyPhaseOf(width, height), { minLength: 1, maxLength: 3 }),
  });
}

/** Houses in whose rooms something moves by itself. */
export const anyHouseWithActors: fc.Arbitrary<World> = anyHouse.chain((house) =>
  fc
    .tuple(
      ...house.rooms.map(({ height, width }) => fc.array(anyActorOf(width, height), { minLength: 1, maxLength: 3 })),
    )
    .map((actors) => ({
      ...house,
      rooms: house.rooms.map((room, i) => ({
        ...room,
        actors: actors[i]!.map((actor, n) => ({ ...actor, id: `actor-${room.id}-${n}` })),
      })),
    })),
);
