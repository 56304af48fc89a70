import type { CompiledBody } from "./body.ts";
import type { CompiledRoom } from "./compiled-room.ts";
import { EAST, LINK, NORTH, SOUTH, WALL, WEST, WRAP, edgeRuleAt } from "./compiled-room.ts";
import type { SolidShape } from "./solid-shape.ts";
import { FULL } from "./solid-shape.ts";

/** Bit of a cell's number where a closed door stands: a full shape of its own besides the tile's. */
export const DOOR = 0x8000;

/** All that a question about what blocks needs to know. A class, so that every caller hands over the same shape. */
export class Ground {
  constructor(
    /** `TU`: units of a cell's side. */
    readonly tileUnits: number,
    readonly rooms: readonly CompiledRoom[],
    /** Shapes of boxes and polygons by number; the first two numbers stand for `NOTHING` and `FULL`. */
    readonly shapes: readonly (SolidShape | null)[],
    readonly body: CompiledBody,
    /** By room what is solid in each cell, closed doors too. */
    readonly solid: readonly Uint16Array[],
  ) {}

  /** The same ground for another body. */
  withBody(body: CompiledBody): Ground {
    return new Ground(this.tileUnits, this.rooms, this.shapes, body, this.solid);
  }

  /** The same ground with layers of its own for the rooms whose doors open and close. */
  withOwn(rooms: readonly number[]): Ground {
    if (rooms.length === 0) return this;
    return new Ground(
      this.tileUnits,
      this.rooms,
      this.shapes,
      this.body,
      this.solid.map((cells, room) => (rooms.includes(room) ? cells.slice() : cells)),
    );
  }
}

/** Where the cell that was resolved last lies: room and place in its cells. */
export const resolved = { room: 0, cell: 0 };

/**
 * Finds the cell that lies at a place as seen from a room, its sides read through at most two crossings (semantics.md
 * section 3, "Outside the map"). Leaves it in `resolved`.
 * @returns false where a wall side, or a third crossing, blocks
 */
export function resolveCell(ground: Ground, roomNumber: number, cellX: number, cellY: number): boolean {
  let number = roomNumber;
  let room = ground.rooms[number]!;
  let cx = cellX;
  let cy = cellY;
  for (let crossings = 0; crossings < 3; crossings++) {
    const outsideX = cx < 0 || cx >= room.width;
    if (!outsideX && cy >= 0 && cy < room.height) {
      resolved.room = number;
      resolved.cell = cy * room.width + cx;
      return true;
    }
    if (crossings === 2) return false;
    const side = outsideX ? (cx < 0 ? WEST : EAST) : cy < 0 ? NORTH : SOUTH;
    const rule = edgeRuleAt(room, side, outsideX ? cy : cx);
    if (rule === WALL) return false;
    const here = room;
    let offset = 0;
    if (rule !== WRAP) {
      number = here.linkRoom[rule - LINK]!;
      offset = here.linkOffset[rule - LINK]!;
      room = ground.rooms[number]!;
    }
    if (outsideX) {
      cx += side === WEST ? room.width : -here.width;
      cy += offset;
    } else {
      cy += side === NORTH ? room.height : -here.height;
      cx += offset;
    }
  }
  return false;
}

/**
 * What is solid at a cell as seen from a room, the cells beyond its sides included.
 * @returns `NOTHING`, `FULL` or a shape's number, with the bit `DOOR` where a closed door stands
 */
export function solidAt(ground: Ground, roomNumber: number, cx: number, cy: number): number {
  const room = ground.rooms[roomNumber]!;
  if (cx >= 0 && cy >= 0 && cx < room.width && cy < room.height)
    return ground.solid[roomNumber]![cy * room.width + cx]!;
  if (!resolveCell(ground, roomNumber, cx, cy)) return FULL;
  return ground.solid[resolved.room]![resolved.cell]!;
}
