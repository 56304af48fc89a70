import { OPPOSITE, ruleAt } from "@keen-pebble/core/edit";
import type { Room, SideName, World } from "@keen-pebble/core/world";
import { createStore } from "zustand/vanilla";
import type { WorldSettings } from "../bench/world-settings.ts";
import type { ProjectSession } from "../project/project.ts";
import type { FloorplanSession } from "./floorplan.ts";

/** A cell of a room on the plan, or the room's side beside it. */
export interface PlanPlace {
  readonly room: string;
  readonly cx: number;
  readonly cy: number;
  readonly side: SideName | null;
}

/** The plan's cell cursor, and what is held there. */
export interface PlanCursorState {
  readonly at: PlanPlace | null;
  /** The start is carried along, or a link is drawn from a side. */
  readonly held: "start" | PlanPlace | null;
}

const NOTHING: PlanCursorState = { at: null, held: null };

const STEP: Readonly<Record<SideName, readonly [number, number]>> = {
  north: [0, -1],
  south: [0, 1],
  west: [-1, 0],
  east: [1, 0],
};

/** How far a room lies aside of a direction counts for more than how far away it is. */
const ASIDE = 2;

/**
 * The Floorplan's cell cursor: what the pointer does on the plan, by keys. Past the last cell of a room it is at that
 * side, and past the side in the room there.
 */
export class PlanCursor {
  readonly store = createStore<PlanCursorState>(() => NOTHING);
  private stroke: string | null = null;

  constructor(
    private readonly project: ProjectSession,
    private readonly floorplan: FloorplanSession,
    private readonly worldSettings: WorldSettings,
  ) {}

  readonly isShown = (): boolean => this.store.getState().at !== null;

  /** Moves it by a cell; the first press shows where it is: at the start, or in the chosen room. */
  readonly moveTo = (direction: SideName): void => {
    const world = this.world();
    if (world === null) return;
    const { at, held } = this.store.getState();
    const room = at === null ? undefined : roomOf(world, at.room);
    const next = at === null || room === undefined ? this.begin(world) : moved(world, room, at, direction);
    // The start stands in a cell, not at a side.
    const to = held === "start" && next.side !== null ? through(world, roomOf(world, next.room)!, next) : next;
    this.store.setState({ at: to });
    if (held === "start") this.worldSettings.putStart(to.room, [to.cx, to.cy], this.stroke!);
  };

  /**
   * Chooses the room; on the start takes that up, and puts it down; at a side draws a link from there, and at another one
   * lets it end.
   */
  readonly press = (how: { readonly oneWay: boolean; readonly opening: boolean }): void => {
    const world = this.world();
    const { at, held } = this.store.getState();
    if (world === null || at === null) return;
    if (held === "start") this.letGo();
    else if (held !== null) this.endLink(held, at, how);
    else if (at.side !== null) {
      this.floorplan.chooseRoomOnPlan(at.room);
      this.store.setState({ held: at });
    } else if (world.start.room === at.room && world.start.cell[0] === at.cx && world.start.cell[1] === at.cy) {
      this.stroke = crypto.randomUUID();
      this.store.setState({ held: "start" });
    } else this.floorplan.chooseRoomOnPlan(at.room);
  };

  /** Lets go of what is held, else hides the cursor. */
  readonly letGo = (): void => {
    const { held } = this.store.getState();
    this.stroke = null;
    this.store.setState(held === null ? NOTHING : { held: null });
  };

  /** Another world is opened: what is held is let go, and the cursor is nowhere. */
  readonly forget = (): void => {
    this.letGo();
    this.store.setState(NOTHING);
  };

  private endLink(from: PlanPlace, to: PlanPlace, how: { readonly oneWay: boolean; readonly opening: boolean }): void {
    if (to.side !== OPPOSITE[from.side!]) {
      this.project.notice(`A link from a ${from.side!} side ends at a ${OPPOSITE[from.side!]} side.`, "info");
      return;
    }
    this.store.setState({ held: null });
    this.floorplan.dropLink(
      { room: from.room, side: from.side!, at: along(from) },
      { room: to.room, at: along(to) },
      how,
    );
  }

  private begin({ rooms, start }: World): PlanPlace {
    const { room: chosen } = this.floorplan.store.getState();
    const room = rooms.find(({ id }) => id === chosen);
    if (room === undefined || room.id === start.room)
      return { room: start.room, cx: start.cell[0], cy: start.cell[1], side: null };
    return { room: room.id, cx: Math.floor(room.width / 2), cy: Math.floor(room.height / 2), side: null };
  }

  private world(): World | null {
    return this.project.store.getState().project?.world ?? null;
  }
}

const roomOf = ({ rooms }: World, id: string): Room | undefined => rooms.find((room) => room.id === id);

/** Row or column along the side that a place is at. */
export const along = ({ cx, cy, side }: PlanPlace): number => (side === "north" || side === "south" ? cx : cy);

const within = (n: number, count: number): number => Math.min(Math.max(n, 0), count - 1);

function moved(world: World, room: Room, at: PlanPlace, direction: SideName): PlanPlace {
  // A room that became smaller meanwhile has it still.
  const here = { ...at, cx: within(at.cx, room.width), cy: within(at.cy, room.height) };
  if (here.side === direction) return through(world, room, here);
  if (here.side === OPPOSITE[direction]) return { ...here, side: null };
  const [dx, dy] = STEP[direction];
  const [cx, cy] = [here.cx + dx, here.cy + dy];
  if (cx >= 0 && cy >= 0 && cx < room.width && cy < room.height) return { ...here, cx, cy };
  // Along a side it goes as far as that does.
  return here.side === null ? { ...here, side: direction } : here;
}

/** The place behind a side: where that leads to, else in the nearest room there; the same one where there is none. */
function through(world: World, room: Room, at: PlanPlace): PlanPlace {
  const side = at.side!;
  const rule = ruleAt(room.edges[side], along(at));
  const linked = rule.kind === "link" ? roomOf(world, rule.room) : rule.kind === "wrap" ? room : undefined;
  const there = linked ?? nearest(world, room, side);
  if (there === undefined) return at;
  const offset =
    rule.kind === "link" && linked !== undefined ? rule.offset : linked === room ? 0 : aligned(room, there, side);
  const place = along(at) + offset;
  const isAcross = side === "east" || side === "west";
  return {
    room: there.id,
    cx: isAcross ? (side === "east" ? 0 : there.width - 1) : within(place, there.width),
    cy: isAcross ? within(place, there.height) : side === "south" ? 0 : there.height - 1,
    side: OPPOSITE[side],
  };
}

/** What a place along a side is in another room's rows or columns, as both lie on the plan. */
const aligned = (room: Room, there: Room, side: SideName): number =>
  side === "east" || side === "west" ? room.plan[1] - there.plan[1] : room.plan[0] - there.plan[0];

/** The nearest of the rooms that lie beyond a side on the plan. */
function nearest({ rooms }: World, room: Room, side: SideName): Room | undefined {
  const axis = side === "east" || side === "west" ? 0 : 1;
  const size = (each: Room): number => (axis === 0 ? each.width : each.height);
  const aside = (each: Room): number => 2 * each.plan[1 - axis]! + (axis === 0 ? each.height : each.width);
  return rooms
    .flatMap((each) => {
      const gap =
        side === "east" || side === "south"
          ? each.plan[axis] - room.plan[axis] - size(room)
          : room.plan[axis] - each.plan[axis] - size(each);
      return each !== room && gap >= 0 ? [{ each, far: gap + (ASIDE * Math.abs(aside(each) - aside(room))) / 2 }] : [];
    })
    .sort((one, other) => one.far - other.far)[0]?.each;
}
