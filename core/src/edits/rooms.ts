import { copyName } from "../world/copy-name.ts";
import { thingIds } from "../world/queries.ts";
import { movedActor } from "../world/moved-actor.ts";
import { keptPart } from "../world/fixture-area.ts";
import type { Fixture } from "../world/fixtures.ts";
import { placesOf, withPlaces } from "../world/fixture-references.ts";
import type { Place } from "../world/fixtures/portal.ts";
import { NOTHING_CHANGES, follow } from "./references.ts";
import type { Project } from "./project.ts";
import type { EdgeRule, Pair, Room, Side, SideName, Span, World } from "../world/world.ts";
import { SIDES } from "../world/world.ts";
import { LIMITS } from "../world/limits.ts";
import type { Followed } from "./references.ts";
import { FreeIds, freeId } from "./tiles.ts";

const WALL = { kind: "wall" } as const;

/** The world with an empty room added, right of all others on the plan. */
export function addRoom(world: World, id: string, name: string, width: number, height: number): World {
  const cells = new Uint16Array(width * height);
  const room: Room = {
    id,
    name,
    width,
    height,
    plan: beside(world),
    edges: { north: WALL, east: WALL, south: WALL, west: WALL },
    cells,
    fixtures: [],
    actors: [],
  };
  return { ...world, rooms: [...world.rooms, room] };
}

/** The world with a copy of a room; its fixtures and actors get ids of their own, and its sides are as those of the first. */
export function copyRoom(world: World, id: string): World {
  const room = world.rooms.find((each) => each.id === id);
  if (!room) return world;
  const ids = new FreeIds(thingIds(world));
  const fixtures = room.fixtures.map((fixture) => ({ ...fixture, id: ids.take(fixture.id) }));
  const actors = room.actors.map((actor) => ({ ...actor, id: ids.take(actor.id) }));
  const copy = {
    ...room,
    id: freeId(
      id,
      world.rooms.map((each) => each.id),
    ),
    name: copyName(
      room.name,
      world.rooms.map((each) => each.name),
    ),
    plan: beside(world),
    fixtures,
    actors,
  };
  return { ...world, rooms: [...world.rooms, copy] };
}

function beside(world: World): Pair {
  return [Math.max(...world.rooms.map((room) => room.plan[0] + room.width)) + 2, world.rooms[0]!.plan[1]];
}

/** A room called otherwise; its id, which files and checks name it by, stays. */
export function renameRoom(world: World, id: string, name: string): World {
  return { ...world, rooms: world.rooms.map((room) => (room.id === id ? { ...room, name } : room)) };
}

/** A room under another id; every reference follows, in logs too (architecture.md, flow 2). */
export function changeRoomId(project: Project, from: string, to: string): Followed {
  const { world } = project;
  const room = (id: string): string => (id === from ? to : id);
  const edge = (rule: EdgeRule): EdgeRule => (rule.kind === "link" ? { ...rule, room: room(rule.room) } : rule);
  const rooms = world.rooms.map((each) => ({
    ...each,
    ...(each.id === from ? { id: to } : {}),
    edges: mapEdges(each, edge),
    fixtures: each.fixtures.map((fixture) => withPlaces(fixture, (to) => ({ ...to, room: room(to.room) }))),
  }));
  const start = { ...world.start, room: room(world.start.room) };
  return follow(
    { ...project, world: { ...world, rooms, start } },
    { ...NOTHING_CHANGES, room, start: (begin) => (begin.room === from ? { ...begin, room: to } : begin) },
  );
}

/** The project without a room; what led there or was about it falls away and is told. The last room cannot go. */
export function removeRoom(project: Project, id: string): Followed {
  const { world } = project;
  const gone = world.rooms.find((room) => room.id === id);
  const [first] = world.rooms.filter((room) => room.id !== id);
  if (!gone || !first) return { project, fellAway: [] };
  const fellAway: string[] = [];
  const rooms = world.rooms
    .filter((room) => room.id !== id)
    .map((room) => ({
      ...room,
      edges: mapEdges(room, (rule) => {
        if (rule.kind !== "link" || rule.room !== id) return rule;
        fellAway.push(`a side of ${room.name} that led there`);
        return WALL;
      }),
      fixtures: withoutPortals(room, (to) => to.room === id, fellAway),
    }));
  // Portals that led there go too.
  const fixtures = lostThings(world, rooms);
  const goal = world.goal?.kind === "marker" && fixtures.has(world.goal.fixture) ? null : world.goal;
  if (goal !== world.goal) fellAway.push("the goal");
  const start =
    world.start.room === id ? { room: first.id, cell: [0, 0] as const, facing: world.start.facing } : world.start;
  if (start !== world.start) fellAway.push("the start");
  const followed = follow(
    { ...project, world: { ...world, rooms, goal, start } },
    {
      ...NOTHING_CHANGES,
      room: (each) => (each === id ? null : each),
      fixture: without(fixtures),
      start: (begin) => (begin.room === id ? null : begin),
    },
  );
  return { project: followed.project, fellAway: [...fellAway, ...followed.fellAway] };
}

/** How many cells come at each side; less than 0: go. */
export type Growth = Readonly<Record<SideName, number>>;

/**
 * A room of another size, grown or cut at any side; what stands in it keeps its place, and so does whatever refers to
 * a place in it: fixtures, actors and their paths, portals, the start, spans and links of sides, checks, logs.
 * @returns null where the room would have no cell or be too large
 */
export function resizeRoom(project: Project, id: string, growth: Growth, fill = 0): Followed | null {
  const { world } = project;
  const room = world.rooms.find((each) => each.id === id);
  if (!room) return null;
  const width = room.width + growth.west + growth.east;
  const height = room.height + growth.north + growth.south;
  const [min, max] = LIMITS.roomSide;
  if (width < min || height < min || width > max || height > max) return null;
  const dx = growth.west;
  const dy = growth.north;
  const fellAway: string[] = [];
  const cells = resizedCells(room, width, height, dx, dy, fill);
  const inside = ([x, y]: Pair): boolean => x >= 0 && y >= 0 && x < width && y < height;
  const moved = ([x, y]: Pair): Pair => [x + dx, y + dy];
  const fixtures = room.fixtures
    .map((fixture): Fixture => ({ ...fixture, cell: moved(fixture.cell) }))
    .flatMap((fixture) => {
      const kept = keptPart(fixture, width, height);
      if (kept === null) fellAway.push(`${fixture.id}, which stood in what was cut off`);
      return kept ?? [];
    });
  const actors = room.actors.flatMap((actor) => movedActor(actor, moved, inside, fellAway));
  const along = (side: SideName): number => (side === "north" || side === "south" ? dx : dy);
  const resized: Room = {
    ...room,
    width,
    height,
    plan: [room.plan[0] - dx, room.plan[1] - dy],
    cells,
    fixtures,
    actors,
    edges: movedEdges(room, along, width, height),
  };
  const rooms = world.rooms
    .map((each) => (each.id === id ? resized : each))
    .map((each) => ({ ...each, ...ledInto(each, id, along, moved, inside, fellAway) }));
  const clamped = ([x, y]: Pair): Pair => [Math.min(Math.max(x, 0), width - 1), Math.min(Math.max(y, 0), height - 1)];
  const start = world.start.room === id ? { ...world.start, cell: clamped(moved(world.start.cell)) } : world.start;
  if (world.start.room === id && !inside(moved(world.start.cell)))
    fellAway.push("the start, which stood in what was cut off; it is at the edge now");
  const only = world.rooms.length === 1;
  const lost = lostThings(world, rooms);
  const goal = world.goal?.kind === "marker" && lost.has(world.goal.fixture) ? null : world.goal;
  if (goal !== world.goal) fellAway.push("the goal");
  const followed = follow(
    { ...project, world: { ...world, rooms, start, goal } },
    {
      room: (each) => each,
      fixture: without(lost),
      cell: (named, cell) => (named === id || (named === null && only) ? moved(cell) : cell),
      pixel: ([x, y]) => (only ? [x + dx * world.tileSize, y + dy * world.tileSize] : [x, y]),
      start: (begin) => {
        if (begin.room !== id) return begin;
        const cell = moved(begin.cell);
        return inside(cell) ? (dx === 0 && dy === 0 ? begin : { ...begin, cell }) : null;
      },
    },
  );
  return { project: followed.project, fellAway: [...fellAway, ...followed.fellAway] };
}

/** The cells of a room that has so many at its west and north more, and is of that size then. */
function resizedCells(room: Room, width: number, height: number, dx: number, dy: number, fill: number): Uint16Array {
  const cells = new Uint16Array(width * height).fill(fill);
  for (let y = Math.max(0, dy); y < Math.min(height, room.height + dy); y++) {
    for (let x = Math.max(0, dx); x < Math.min(width, room.width + dx); x++)
      cells[y * width + x] = room.cells[(y - dy) * room.width + x - dx]!;
  }
  return cells;
}

/** Sides and portals of a room that lead into one that was resized. */
function ledInto(
  room: Room,
  id: string,
  along: (side: SideName) => number,
  moved: (cell: Pair) => Pair,
  inside: (cell: Pair) => boolean,
  fellAway: string[],
): Pick<Room, "edges" | "fixtures"> {
  const led = room.fixtures.map((fixture) =>
    withPlaces(fixture, (to) => (to.room === id ? { ...to, cell: moved(to.cell) } : to)),
  );
  return {
    // Row y over there is row y + offset here: the offset takes in what came before it.
    edges: mapEdges(room, (rule, side) =>
      rule.kind === "link" && rule.room === id ? { ...rule, offset: rule.offset + along(side) } : rule,
    ),
    fixtures: withoutPortals({ fixtures: led }, (to) => to.room === id && !inside(to.cell), fellAway),
  };
}

/** Ids of the fixtures and actors that are in none of some rooms any more. */
function lostThings(world: World, rooms: readonly Room[]): ReadonlySet<string> {
  const kept = new Set(thingIds({ ...world, rooms }));
  return new Set(thingIds(world).filter((id) => !kept.has(id)));
}

/** Fixtures that are gone have no id any more. */
function without(lost: ReadonlySet<string>): (fixture: string) => string | null {
  return (fixture) => (lost.has(fixture) ? null : fixture);
}

function movedEdges(room: Room, along: (side: SideName) => number, width: number, height: number): Room["edges"] {
  const edges = { ...room.edges };
  for (const side of SIDES) {
    const shift = along(side);
    const last = (side === "north" || side === "south" ? width : height) - 1;
    const rule = room.edges[side];
    // A place on this side is further along by what came before it; the same place over there is not.
    const kept = (each: EdgeRule): EdgeRule => (each.kind === "link" ? { ...each, offset: each.offset - shift } : each);
    edges[side] =
      "kind" in rule
        ? kept(rule)
        : rule
            .map((span) => spanOf(kept(span), Math.max(span.from + shift, 0), Math.min(span.to + shift, last)))
            .filter((span) => span.from <= span.to);
  }
  return edges;
}

/** The sides of a room with each rule changed, those of spans too. */
function mapEdges(room: Room, change: (rule: EdgeRule, side: SideName) => EdgeRule): Room["edges"] {
  const changed = (side: Side, name: SideName): Side =>
    "kind" in side ? change(side, name) : side.map((span) => spanOf(change(span, name), span.from, span.to));
  return {
    north: changed(room.edges.north, "north"),
    east: changed(room.edges.east, "east"),
    south: changed(room.edges.south, "south"),
    west: changed(room.edges.west, "west"),
  };
}

function spanOf(rule: EdgeRule, from: number, to: number): Span {
  return rule.kind === "link"
    ? { from, to, kind: "link", room: rule.room, offset: rule.offset }
    : { from, to, kind: rule.kind };
}

function withoutPortals(room: Pick<Room, "fixtures">, isGone: (to: Place) => boolean, fellAway: string[]): Fixture[] {
  return room.fixtures.filter((fixture) => {
    const gone = placesOf(fixture).some(isGone);
    if (gone) fellAway.push(`${fixture.kind} ${fixture.id}, which led there`);
    return !gone;
  });
}
