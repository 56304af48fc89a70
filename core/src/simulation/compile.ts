import { NotSimulatedError } from "../errors/not-simulated-error.ts";
import { CoreError } from "../errors/core-error.ts";
import { compileBody } from "../ground/body.ts";
import { compileRoom } from "../ground/compiled-room.ts";
import type { SolidShape } from "../ground/solid-shape.ts";
import { FULL, NOTHING, solidShape } from "../ground/solid-shape.ts";
import { unitsFromPx } from "../integers/units.ts";
import { drift } from "../movement/drift.ts";
import { glide } from "../movement/glide.ts";
import { hop } from "../movement/hop.ts";
import { roam } from "../movement/roam.ts";
import { FACINGS } from "../world/facing.ts";
import type { Rules, World } from "../world/world.ts";
import { SIDES, rulesById } from "../world/world.ts";
import type { Compiled } from "./compiled.ts";

/**
 * Turns a world and one of its rule sets into what `step` reads (architecture.md, flow 1).
 * @param rulesId id of the rule set; the world's active one where it is left out
 * @throws {CoreError} `no-such-rules` where the world has no such rule set
 * @throws {NotSimulatedError} where the world needs something that is not simulated yet
 */
export function compile(world: World, rulesId: string = world.activeRules): Compiled {
  const rules = rulesById(world, rulesId);
  if (!rules) throw new CoreError("no-such-rules", `this world has no rule set ${rulesId}; it has ${world.rules.map((r) => r.id).join(", ")}`, { rules: rulesId });
  const missing = notSimulated(world);
  if (missing.length > 0) throw new NotSimulatedError(missing);

  const { shapes, solidByTile } = compileTiles(world, rules);
  const poseEvery = rules.pose.advance === "distance" ? unitsFromPx(rules.pose.every) : rules.pose.every;
  return {
    world,
    rules,
    tileUnits: unitsFromPx(world.tileSize),
    rooms: world.rooms.map((room) => compileRoom(room, solidByTile, unitsFromPx(world.tileSize))),
    shapes,
    body: compileBody(rules.walker.body),
    move: GAITS[rules.gait],
    glide: { ...rules.glide, speed: unitsFromPx(rules.glide.speed) },
    free: compileFree(rules),
    poseEvery,
    poseRound: poseEvery * rules.pose.images,
    restFacing: FACINGS.indexOf(rules.facing.rest),
  };
}

const GAITS = { hop, glide, roam, drift } as const;

function compileFree(rules: Rules): Compiled["free"] {
  const { roam, drift } = rules;
  const common = rules.gait === "drift" ? drift : roam;
  return {
    speedX: unitsFromPx(roam.speedX),
    speedY: unitsFromPx(roam.speedY),
    accel: unitsFromPx(drift.accel),
    drag: drift.drag,
    maxSpeed: unitsFromPx(drift.maxSpeed),
    evenDiagonal: common.diagonal === "even",
    response: common.response,
    xFirst: common.axisOrder === "x-first",
    aheadUnits: unitsFromPx(common.aheadPx),
    nudgePx: common.nudge,
    slide: common.slopes === "slide",
  };
}

/**
 * The same world with other cells in one room: all but that room's cells is taken over from what was compiled before.
 * @param world the world after the edit; rules, tiles and the rest must be those of `compiled`
 */
export function recompileRoom(compiled: Compiled, world: World, roomNumber: number): Compiled {
  const { solidByTile } = compileTiles(world, compiled.rules);
  const rooms = compiled.rooms.map((room, i) => (i === roomNumber ? compileRoom(world.rooms[i]!, solidByTile, compiled.tileUnits) : room));
  return { ...compiled, world, rooms };
}

/** What is solid by tile number: the tiles that carry a flag which blocks the walker (semantics.md section 3). */
function compileTiles(world: World, rules: Rules): { shapes: (SolidShape | null)[]; solidByTile: Uint16Array } {
  const shapes: (SolidShape | null)[] = [null, null];
  const solidByTile = Uint16Array.from(world.tiles, (tile) => {
    if (!tile.flags.some((flag) => rules.walker.blockedBy.includes(flag))) return NOTHING;
    if (tile.shape.kind === "full") return FULL;
    return shapes.push(solidShape(tile.shape)) - 1;
  });
  return { shapes, solidByTile };
}

/** What a world needs that is not simulated yet, each thing by name and place. */
function notSimulated(world: World): string[] {
  const missing: string[] = [];
  for (const room of world.rooms) {
    for (const name of SIDES) {
      const side = room.edges[name];
      const linked = "kind" in side ? side.kind === "link" : side.some((span) => span.kind === "link");
      if (linked) missing.push(`link to another room (room ${room.id}, ${name} side)`);
    }
    for (const fixture of room.fixtures) missing.push(`fixture kind ${fixture.kind} (${fixture.id} in room ${room.id})`);
  }
  if (world.goal) missing.push(`goal ${world.goal.kind}`);
  return missing;
}
