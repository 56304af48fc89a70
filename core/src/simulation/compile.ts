import { isSolidFor, rulesById } from "../world/queries.ts";
import { compileActors } from "../actors/compile-actors.ts";
import { compileFixtures } from "../rooms/compile-fixtures.ts";
import { GAITS } from "../world/gaits.ts";
import { GAIT_MOVEMENTS } from "../movement/gaits.ts";
import { CoreError } from "../base/core-error.ts";
import { compileBody } from "../ground/body.ts";
import { compileRoom } from "../ground/compiled-room.ts";
import { Ground } from "../ground/ground.ts";
import type { SolidShape } from "../ground/solid-shape.ts";
import { FULL, NOTHING, solidShape } from "../ground/solid-shape.ts";
import { unitsFromPx } from "../base/units.ts";
import { FACINGS } from "../world/facing.ts";
import type { Rules, World } from "../world/world.ts";
import type { Compiled } from "../compiled/compiled.ts";

/**
 * Turns a world and one of its rule sets into what `step` reads (architecture.md, flow 1).
 * @param rulesId id of the rule set; the world's active one where it is left out
 * @throws {CoreError} `no-such-rules` where the world has no such rule set
 */
export function compile(world: World, rulesId: string = world.activeRules): Compiled {
  const rules = rulesById(world, rulesId);
  if (!rules)
    throw new CoreError(
      "no-such-rules",
      `this world has no rule set ${rulesId}; it has ${world.rules.map((r) => r.id).join(", ")}`,
      { rules: rulesId },
    );
  const { shapes, solidByTile } = compileTiles(world, rules);
  const poseEvery = rules.pose.advance === "distance" ? unitsFromPx(rules.pose.every) : rules.pose.every;
  const tileUnits = unitsFromPx(world.tileSize);
  const fixtures = compileFixtures(world);
  const roomNumbers = new Map(world.rooms.map((room, i) => [room.id, i]));
  const rooms = world.rooms.map((room, i) =>
    compileRoom(room, solidByTile, tileUnits, (id) => roomNumbers.get(id)!, fixtures.at[i]!),
  );
  const body = compileBody(rules.walker.body);
  const { goal } = world;
  const movement = GAIT_MOVEMENTS[rules.gait];
  return {
    world,
    rules,
    ground: new Ground(
      tileUnits,
      rooms,
      shapes,
      body,
      rooms.map((room) => room.solid),
    ),
    tileUnits,
    rooms,
    body,
    fixtures,
    hasFixtures: fixtures.all.length > 0,
    actors: compileActors(world),
    countsLives: world.lives !== null,
    goalFixture: goal?.kind === "marker" ? fixtures.all.findIndex(({ id }) => id === goal.fixture) : -1,
    goalItem: goal?.kind === "collect" ? world.items.findIndex(({ id }) => id === goal.item) : -1,
    onGrid: GAITS[rules.gait].onGrid,
    tapCounts: GAITS[rules.gait].tapCounts,
    crossesWhole: rules.walker.crossesAt === "whole",
    move: movement.move,
    glide: { ...rules.glide, speed: unitsFromPx(rules.glide.speed) },
    free: (movement.free ?? GAIT_MOVEMENTS.roam.free!)(rules),
    poseEvery,
    poseRound: poseEvery * rules.pose.images,
    restFacing: FACINGS.indexOf(rules.facing.rest),
  };
}

/** What is solid by tile number: the tiles that carry a flag which blocks the walker (semantics.md section 3). */
function compileTiles(world: World, rules: Rules): { shapes: (SolidShape | null)[]; solidByTile: Uint16Array } {
  const shapes: (SolidShape | null)[] = [null, null];
  const solidByTile = Uint16Array.from(world.tiles, (tile) => {
    if (!isSolidFor(rules.walker.blockedBy, tile)) return NOTHING;
    if (tile.shape.kind === "full") return FULL;
    return shapes.push(solidShape(tile.shape)) - 1;
  });
  return { shapes, solidByTile };
}
