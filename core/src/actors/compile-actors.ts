import { unitsFromPx } from "../base/units.ts";
import type { CompiledActor, CompiledActors, CompiledPhase } from "../compiled/compiled-actor.ts";
import type { Actor, Phase } from "../world/actors.ts";
import { MOST_PHASES } from "../compiled/compiled-actor.ts";
import { PATH_THEN, PHASE_DOES } from "../world/actors.ts";
import { FACINGS } from "../world/facing.ts";
import { KEEPS } from "../world/fixtures.ts";
import { isSolidFor } from "../world/queries.ts";
import type { Room, World } from "../world/world.ts";

/** The actors of a world as the simulation reads them (semantics.md section 9); null where it has none. */
export function compileActors(world: World): CompiledActors | null {
  // Most actors of a room are stopped by the same.
  const known = new Map<string, Uint8Array>();
  const shutFor = ({ blockedBy, doors }: Actor, room: number): Uint8Array => {
    const key = `${room} ${doors === "none" ? "doors" : ""} ${blockedBy.join(" ")}`;
    const shut = known.get(key) ?? shutCells(world, world.rooms[room]!, blockedBy, doors === "none");
    known.set(key, shut);
    return shut;
  };
  const all = world.rooms
    .flatMap((room, number) => room.actors.map((actor) => [actor, number] as const))
    .map(([actor, room], number) => compileActor(actor, room, number, shutFor(actor, room)));
  if (all.length === 0) return null;
  const does = new Uint8Array(all.length * MOST_PHASES);
  for (const { number, plan } of all)
    does.set(
      plan.map((phase) => phase.does),
      number * MOST_PHASES,
    );
  const before = (room: number): number => all.filter((each) => each.room < room).length;
  return {
    all,
    speeds: Int32Array.from(all, ({ speed }) => speed),
    bodies: Int32Array.from(all.flatMap(({ height, left, top, width }) => [left, top, width, height])),
    does,
    firstOfRoom: Int32Array.from({ length: world.rooms.length + 1 }, (_, room) => before(room)),
  };
}

/** By cell of a room 1 where a tile carries one of some flags, or where a door stands. */
function shutCells(world: World, room: Room, blockedBy: readonly string[], byDoors: boolean): Uint8Array {
  const tiles = world.tiles.map((tile) => (isSolidFor(blockedBy, tile) ? 1 : 0));
  const shut = Uint8Array.from(room.cells, (tile) => tiles[tile]!);
  if (byDoors)
    for (const { cell, kind } of room.fixtures) if (kind === "door") shut[cell[1] * room.width + cell[0]] = 1;
  return shut;
}

function compileActor(actor: Actor, room: number, number: number, shut: Uint8Array): CompiledActor {
  const [left, top, width, height] = actor.body;
  return {
    id: actor.id,
    number,
    room,
    cx: actor.cell[0],
    cy: actor.cell[1],
    facing: FACINGS.indexOf(actor.facing),
    speed: unitsFromPx(actor.speed),
    shut,
    closedDoorsShut: actor.doors === "open",
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
