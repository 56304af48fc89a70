import { unitsFromPx } from "../base/units.ts";
import type { CompiledActor, CompiledActors, CompiledPhase } from "../compiled/compiled-actor.ts";
import type { Actor, Phase } from "../world/actors.ts";
import { ACTOR_DOORS, PATH_THEN, PHASE_DOES } from "../world/actors.ts";
import { FACINGS } from "../world/facing.ts";
import { KEEPS } from "../world/fixtures.ts";
import { isSolidFor } from "../world/queries.ts";
import type { World } from "../world/world.ts";

/** The actors of a world as the simulation reads them (semantics.md section 9); null where it has none. */
export function compileActors(world: World): CompiledActors | null {
  const all = world.rooms
    .flatMap((room, number) => room.actors.map((actor) => [actor, number] as const))
    .map(([actor, room], number) => compileActor(world, actor, room, number));
  if (all.length === 0) return null;
  return {
    all,
    ofRoom: world.rooms.map((_, room) =>
      Int32Array.from(
        all.filter((each) => each.room === room),
        (each) => each.number,
      ),
    ),
    tiles: world.rooms.map(({ cells }) => cells),
  };
}

function compileActor(world: World, actor: Actor, room: number, number: number): CompiledActor {
  const [left, top, width, height] = actor.body;
  return {
    id: actor.id,
    number,
    room,
    cx: actor.cell[0],
    cy: actor.cell[1],
    facing: FACINGS.indexOf(actor.facing),
    speed: unitsFromPx(actor.speed),
    shutTiles: Uint8Array.from(world.tiles, (tile) => (isSolidFor(actor.blockedBy, tile) ? 1 : 0)),
    doors: ACTOR_DOORS.indexOf(actor.doors),
    turnsBackLast: actor.turnsBack === "last",
    hurts: actor.touch === "hurt",
    left: unitsFromPx(left),
    top: unitsFromPx(top),
    width: unitsFromPx(width),
    height: unitsFromPx(height),
    keeps: KEEPS.indexOf(actor.keeps),
    plan: actor.plan.map(compilePhase),
  };
}

function compilePhase(phase: Phase): CompiledPhase {
  return {
    does: PHASE_DOES.indexOf(phase.do),
    frames: phase.frames ?? -1,
    then: phase.do === "path" ? PATH_THEN.indexOf(phase.then) : 0,
    cells: Int32Array.from(phase.do === "path" ? phase.cells.flat() : []),
  };
}
