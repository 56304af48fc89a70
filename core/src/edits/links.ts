import { isSolidFor, roomById, rulesById } from "../world/queries.ts";
import type { EdgeRule, Room, Side, SideName, Span, World } from "../world/world.ts";

const WALL = { kind: "wall" } as const;

/** The side that lies opposite. */
export const OPPOSITE: Readonly<Record<SideName, SideName>> = {
  north: "south",
  south: "north",
  east: "west",
  west: "east",
};

/** How many cells a side of a room has. */
export function sideLength(room: Room, side: SideName): number {
  return side === "east" || side === "west" ? room.height : room.width;
}

/** The rule of a side at a row or column; what no span names is a wall. */
export function ruleAt(side: Side, at: number): EdgeRule {
  if (!Array.isArray(side)) return side as EdgeRule;
  return (side as readonly Span[]).find(({ from, to }) => at >= from && at <= to) ?? WALL;
}

/** A way from a side of one room to the opposite side of another. */
export interface NewLink {
  readonly room: string;
  readonly side: SideName;
  readonly to: string;
  /** Row or column there less the one here. */
  readonly offset: number;
  /** First and last cell along the side; null for all of it. */
  readonly span: readonly [number, number] | null;
  /** The other room's side stays as it is. */
  readonly oneWay: boolean;
}

/** The world with two sides linked, there and back unless it is one way. */
export function linkSides(world: World, link: NewLink): World {
  const { room, side, to, offset, span, oneWay } = link;
  const there = withRule(world, room, side, { kind: "link", room: to, offset }, span);
  if (oneWay) return there;
  return withRule(
    there,
    to,
    OPPOSITE[side],
    { kind: "link", room, offset: -offset + 0 },
    span && [span[0] + offset, span[1] + offset],
  );
}

/** The world with a room's sides wrapped round, across or down. */
export function wrapRoom(world: World, room: string, axis: "x" | "y"): World {
  const [one, other] = axis === "x" ? (["west", "east"] as const) : (["north", "south"] as const);
  return withRule(withRule(world, room, one, { kind: "wrap" }, null), room, other, { kind: "wrap" }, null);
}

/** The world with a side of a room walled up; what led back from there stays, one way. */
export function wallSide(world: World, room: string, side: SideName): World {
  return withRule(world, room, side, WALL, null);
}

function withRule(
  world: World,
  id: string,
  name: SideName,
  rule: EdgeRule,
  span: readonly [number, number] | null,
): World {
  return {
    ...world,
    rooms: world.rooms.map((room) =>
      room.id === id ? { ...room, edges: { ...room.edges, [name]: ruledSide(room, name, rule, span) } } : room,
    ),
  };
}

/** A side with a rule on a span of it; neighbouring spans are cut where it lies over them. */
function ruledSide(room: Room, name: SideName, rule: EdgeRule, span: readonly [number, number] | null): Side {
  if (span === null) return rule;
  const length = sideLength(room, name);
  const [from, to] = [Math.max(0, span[0]), Math.min(length - 1, span[1])];
  if (from > to) return room.edges[name];
  const spans: Span[] = [];
  for (let at = 0; at < length; at++) {
    const here = at >= from && at <= to ? rule : ruleAt(room.edges[name], at);
    const last = spans.at(-1);
    if (here.kind === "wall") continue;
    if (last !== undefined && last.to === at - 1 && sameRule(last, here)) spans[spans.length - 1] = { ...last, to: at };
    else spans.push({ from: at, to: at, ...here });
  }
  return spans;
}

const sameRule = (one: EdgeRule, other: EdgeRule): boolean =>
  one.kind === other.kind &&
  (one.kind !== "link" || (other.kind === "link" && one.room === other.room && one.offset === other.offset));

/** A stretch of a side that leads somewhere, whole or a span of it. */
export interface Seam {
  readonly room: string;
  readonly side: SideName;
  readonly from: number;
  readonly to: number;
  readonly rule: Exclude<EdgeRule, { kind: "wall" }>;
  /** A link that the other side does not answer with the same offset. */
  readonly oneWay: boolean;
  /** Rows or columns that are open here and solid there, or the other way round, for the world's own rules. */
  readonly unmet: readonly number[];
  /** The first and the last row or column that is open here; null where none is. */
  readonly open: readonly [number, number] | null;
}

/** Every stretch of a side that wraps or links, room by room. */
export function seamsOf(world: World): Seam[] {
  const open = openCells(world);
  return world.rooms.flatMap((room) =>
    (["north", "east", "south", "west"] as const).flatMap((name) => {
      const side = room.edges[name];
      const stretches: readonly Span[] = Array.isArray(side)
        ? (side as readonly Span[])
        : [{ from: 0, to: sideLength(room, name) - 1, ...(side as EdgeRule) }];
      return stretches.flatMap((stretch): Seam[] => {
        if (stretch.kind === "wall") return [];
        const rule: Seam["rule"] =
          stretch.kind === "wrap" ? { kind: "wrap" } : { kind: "link", room: stretch.room, offset: stretch.offset };
        return [
          {
            room: room.id,
            side: name,
            from: stretch.from,
            to: stretch.to,
            rule,
            oneWay: isOneWay(world, room.id, name, stretch),
            unmet: unmetCells(world, room, name, stretch, open),
            open: openPart(room, name, stretch, open),
          },
        ];
      });
    }),
  );
}

function isOneWay(world: World, room: string, name: SideName, stretch: Span): boolean {
  if (stretch.kind !== "link") return false;
  const back = roomById(world, stretch.room)?.edges[OPPOSITE[name]];
  const answer = back === undefined ? WALL : ruleAt(back, stretch.from + stretch.offset);
  return !(answer.kind === "link" && answer.room === room && answer.offset === -stretch.offset);
}

/** Whether a cell of a room does not block the walker of the world's own rule set. */
type IsOpen = (room: Room, x: number, y: number) => boolean;

function openCells(world: World): IsOpen {
  const blockedBy = rulesById(world, world.activeRules)?.walker.blockedBy ?? [];
  const solid = world.tiles.map((tile) => isSolidFor(blockedBy, tile));
  return (room, x, y) =>
    x >= 0 && y >= 0 && x < room.width && y < room.height && !solid[room.cells[y * room.width + x]!];
}

function unmetCells(world: World, room: Room, name: SideName, stretch: Span, open: IsOpen): number[] {
  const other = stretch.kind === "link" ? roomById(world, stretch.room) : room;
  if (other === undefined) return [];
  const offset = stretch.kind === "link" ? stretch.offset : 0;
  const unmet: number[] = [];
  for (let at = stretch.from; at <= stretch.to; at++) {
    const [hereX, hereY] = onSide(room, name, at);
    const [thereX, thereY] = onSide(other, OPPOSITE[name], at + offset);
    if (open(room, hereX, hereY) !== open(other, thereX, thereY)) unmet.push(at);
  }
  return unmet;
}

function openPart(room: Room, name: SideName, { from, to }: Span, open: IsOpen): readonly [number, number] | null {
  const rows = Array.from({ length: to - from + 1 }, (_, i) => from + i).filter((at) =>
    open(room, ...onSide(room, name, at)),
  );
  return rows.length === 0 ? null : [rows[0]!, rows.at(-1)!];
}

function onSide(room: Room, side: SideName, at: number): readonly [number, number] {
  if (side === "north") return [at, 0];
  if (side === "south") return [at, room.height - 1];
  return side === "west" ? [0, at] : [room.width - 1, at];
}

/** The run of open cells of a side around one of them: what is linked where only an opening is meant. */
export function openingAt(world: World, room: Room, side: SideName, at: number): readonly [number, number] {
  const open = openCells(world);
  const isOpen = (n: number): boolean => open(room, ...onSide(room, side, n));
  let [from, to] = [at, at];
  // Beyond the room nothing is open.
  while (isOpen(from - 1)) from--;
  while (isOpen(to + 1)) to++;
  return [from, to];
}

/** The world with a room moved on the plan, in cells. */
export function moveRoom(world: World, id: string, x: number, y: number): World {
  return { ...world, rooms: world.rooms.map((room) => (room.id === id ? { ...room, plan: [x, y] } : room)) };
}
