import type { Compiled } from "../../compiled/compiled.ts";
import { doorIn } from "../../compiled/door-in-cell.ts";
import { resolveCell, resolved } from "../../ground/ground.ts";
import { DIRECTION_X, DIRECTION_Y } from "./actions.ts";

const UNKNOWN = 0;
const NONE = 1;
const SOME = 2;

/** In which cells a door that is opened by using it is a neighbour, open or closed, also through a seam. */
export class NearUses {
  private readonly known: readonly Uint8Array[];

  constructor(private readonly c: Compiled) {
    this.known = c.rooms.map(({ width, height }) => new Uint8Array(width * height));
  }

  /** Whether one is beside a cell; for a place beyond the room it may be. */
  isNear(room: number, cx: number, cy: number): boolean {
    const { width, height } = this.c.rooms[room]!;
    if (cx < 0 || cy < 0 || cx >= width || cy >= height) return true;
    const known = this.known[room]!;
    const cell = cy * width + cx;
    if (known[cell] === UNKNOWN) known[cell] = this.look(room, cx, cy) ? SOME : NONE;
    return known[cell] === SOME;
  }

  private look(room: number, cx: number, cy: number): boolean {
    for (let way = 0; way < 4; way++) {
      if (!resolveCell(this.c.ground, room, cx + DIRECTION_X[way]!, cy + DIRECTION_Y[way]!)) continue;
      const door = doorIn(this.c, resolved.room, resolved.cell);
      if (door >= 0 && this.c.fixtures.all[door]!.opensOnUse) return true;
    }
    return false;
  }
}
