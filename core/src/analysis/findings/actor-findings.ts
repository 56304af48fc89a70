import type { Actor } from "../../world/actors.ts";
import { isSolidFor } from "../../world/queries.ts";
import type { Pair, Room, World } from "../../world/world.ts";
import type { Finding } from "./finding.ts";

const BESIDE = [
  [-1, 0],
  [1, 0],
  [0, -1],
  [0, 1],
] as const;

/** What cannot work with actors: paths through what is shut to them, actors that never move, one where the walker respawns. */
export function actorFindings(world: World): Finding[] {
  return world.rooms.flatMap((room, i) =>
    room.actors.flatMap((actor, n) => {
      const place = `rooms[${i}].actors[${n}]`;
      return [
        ...pathFindings(world, room, actor, place),
        ...neverMoves(world, room, actor, place),
        ...onRespawnPlace(world, room, actor, place),
      ];
    }),
  );
}

/** Whether a cell is shut to an actor with all doors open that may ever open. */
function isShut(world: World, room: Room, actor: Actor, [x, y]: Pair): boolean {
  if (x < 0 || y < 0 || x >= room.width || y >= room.height) return true;
  if (isSolidFor(actor.blockedBy, world.tiles[room.cells[y * room.width + x]!]!)) return true;
  return (
    actor.doors === "none" && room.fixtures.some(({ cell, kind }) => kind === "door" && cell[0] === x && cell[1] === y)
  );
}

/** The cells that it passes from one to another: first along x, then along y. */
function cellsBetween([x, y]: Pair, [toX, toY]: Pair): Pair[] {
  const cells: Pair[] = [];
  let cx = x;
  for (; cx !== toX;) cells.push([(cx += Math.sign(toX - cx)), y]);
  for (let cy = y; cy !== toY;) cells.push([cx, (cy += Math.sign(toY - cy))]);
  return cells;
}

function pathFindings(world: World, room: Room, actor: Actor, place: string): Finding[] {
  return actor.plan.flatMap((phase, p): Finding[] => {
    if (phase.do !== "path") return [];
    const { cells } = phase;
    const round = phase.then === "round" && cells.length > 1 ? [[cells.at(-1)!, cells[0]!] as const] : [];
    const pairs = [...cells.slice(1).map((cell, i) => [cells[i]!, cell] as const), ...round];
    const there = cells.length === 1 ? [cells[0]!] : pairs.flatMap(([from, to]) => cellsBetween(from, to));
    const shut = there.find((cell) => isShut(world, room, actor, cell));
    return shut === undefined
      ? []
      : [
          {
            place: `${place}.plan[${p}].cells`,
            message: `the path of ${actor.id} in ${room.name} leads into ${shut[0]},${shut[1]}, which is shut to it: it stands still there`,
          },
        ];
  });
}

function neverMoves(world: World, room: Room, actor: Actor, place: string): Finding[] {
  if (actor.plan.every((phase) => phase.do === "stand")) return [];
  const [x, y] = actor.cell;
  if (BESIDE.some(([dx, dy]) => !isShut(world, room, actor, [x + dx, y + dy]))) return [];
  return [
    {
      place: `${place}.cell`,
      message: `${actor.id} in ${room.name} can never move: all cells beside it are shut to it`,
    },
  ];
}

function onRespawnPlace(world: World, room: Room, actor: Actor, place: string): Finding[] {
  if (actor.touch !== "hurt") return [];
  const stands = ([x, y]: Pair): boolean => x === actor.cell[0] && y === actor.cell[1];
  const where =
    world.start.room === room.id && stands(world.start.cell)
      ? "the start"
      : room.fixtures.find(({ cell, kind }) => kind === "checkpoint" && stands(cell))?.id;
  return where === undefined
    ? []
    : [
        {
          place: `${place}.cell`,
          message: `${actor.id} in ${room.name} begins on ${where}, where the walker respawns: whoever does is hurt at once`,
        },
      ];
}
