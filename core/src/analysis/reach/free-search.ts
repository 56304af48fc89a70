import type { Compiled } from "../../compiled/compiled.ts";
import { SimState } from "../../compiled/state.ts";
import { occupiedX, occupiedY } from "../../ground/occupied.ts";
import type { LogLine } from "../../logs/input-log.ts";
import { GAIT_MOVEMENTS } from "../../movement/gaits.ts";
import { buttonsAlong } from "../../movement/intent.ts";
import { step } from "../../simulation/step.ts";
import { USE } from "../../world/keys.ts";
import { PLAYING, WON } from "../../world/vocabulary.ts";
import type { Way } from "./answer.ts";
import { DIRECTION_X, DIRECTION_Y } from "./actions.ts";
import { isDoing } from "./doings.ts";
import { StateLayout } from "./state-layout.ts";
import { StateTable } from "./state-table.ts";

/** A walker that does not come to rest within so many frames is given up. */
const MOST_REST = 600;
/** Places nearer to each other than such a part of a cell are one place. */
const PARTS = 4;

/** One thing to hold for some frames, then nothing until the walker rests. */
interface Hold {
  readonly keys: number;
  readonly frames: number;
}

interface Node {
  readonly parent: number;
  readonly hold: Hold | null;
  /** Frames of the hold, and frames without keys after it. */
  readonly held: number;
  readonly rested: number;
  readonly frames: number;
  readonly x: number;
  readonly y: number;
  readonly vx: number;
  readonly vy: number;
}

/** Something that was come by in a frame: after a node, in so many frames of a hold. */
interface Sighting {
  readonly node: number;
  readonly hold: Hold;
  readonly held: number;
  readonly rested: number;
  readonly frames: number;
}

/**
 * Plays the simulation from rest to rest, the places a quarter of a cell apart, for rules that leave the grid. What it
 * finds has a witness; what it does not find it says nothing of (semantics.md section 10).
 */
export class FreeSearch {
  readonly layout: StateLayout;
  /** By room and cell the first play that was in it in some row. */
  readonly cells: readonly (Sighting | null)[][];
  readonly fixtures: (Sighting | null)[];
  goal: Sighting | null = null;
  /** The first play that rests off the grid. */
  offGrid: Sighting | null = null;
  /** Nothing more was to be tried. */
  complete = false;
  private readonly nodes: Node[] = [];
  private readonly table: StateTable;
  private readonly packed: Int32Array;
  private readonly here: SimState;
  private readonly there: SimState;
  private readonly holds: readonly Hold[];
  private at = 0;

  constructor(
    readonly c: Compiled,
    readonly start: SimState,
    limit: number,
  ) {
    this.layout = new StateLayout(c);
    this.cells = c.rooms.map(({ width, height }) => Array.from({ length: width * height }, () => null));
    this.fixtures = c.fixtures.all.map(() => null);
    // What is packed says nothing of the place within its cell.
    this.table = new StateTable(this.layout.words + 2, limit);
    this.packed = new Int32Array(this.layout.words + 2);
    this.here = new SimState(c);
    this.here.copyFrom(start);
    this.there = new SimState(c);
    this.holds = holdsOf(c);
    this.meet(start, { parent: -1, hold: null, held: 0, rested: 0, frames: 0, ...placeOf(start) });
  }

  get states(): number {
    return this.nodes.length;
  }

  /** Plays on from so many states more; false once there is nothing more to try or the limit is reached. */
  run(states: number): boolean {
    for (let n = 0; n < states; n++) {
      const node = this.nodes[this.at];
      if (node === undefined) {
        this.complete = true;
        return false;
      }
      this.load(this.at);
      for (const hold of this.holds) if (!this.play(hold)) return false;
      this.at++;
    }
    return true;
  }

  /** The play up to what was come by. */
  way(seen: Sighting): Way {
    const lines: LogLine[] = [];
    const add = (keys: number, count: number): void => {
      if (count > 0) lines.unshift({ kind: "keys", count, keys, pointer: null, until: null });
    };
    add(0, seen.rested);
    add(seen.hold.keys, seen.held);
    for (let i = seen.node; i >= 0; i = this.nodes[i]!.parent) {
      const { hold, held, rested } = this.nodes[i]!;
      if (hold === null) break;
      add(0, rested);
      add(hold.keys, held);
    }
    return { moves: seen.frames, ends: null, lines };
  }

  private load(node: number): void {
    const { x, y, vx, vy } = this.nodes[node]!;
    if (node === 0) this.here.copyFrom(this.start);
    else this.layout.load(this.here, this.table.words, node * (this.layout.words + 2));
    Object.assign(this.here, { x, y, vx, vy });
  }

  /** Holds something from the loaded state, then nothing until the walker rests; false where the limit is reached. */
  private play(hold: Hold): boolean {
    const { c, there } = this;
    there.copyFrom(this.here);
    const from = this.nodes[this.at]!;
    const seen = { node: this.at, hold, held: 0, rested: 0, frames: from.frames };
    const frame = (keys: number): boolean => {
      step(c, there, keys, null);
      seen.frames++;
      this.look(seen);
      return there.status === PLAYING;
    };
    const [cx, cy, room] = [occupiedX(c.tileUnits, there.x), occupiedY(c.tileUnits, there.y), there.room];
    while (seen.held < hold.frames) {
      seen.held++;
      if (!frame(hold.keys)) return true;
      // A cell further is far enough: what comes of it is tried from there.
      if (there.room !== room || occupiedX(c.tileUnits, there.x) !== cx || occupiedY(c.tileUnits, there.y) !== cy)
        break;
    }
    do {
      seen.rested++;
      if (!frame(0)) return true;
    } while (isMoving(there) && seen.rested < MOST_REST);
    if (isMoving(there)) return true;
    const isOff = there.x % c.tileUnits !== 0 || there.y % c.tileUnits !== 0;
    if (isOff) this.offGrid ??= { ...seen };
    return this.meet(there, {
      parent: this.at,
      hold,
      held: seen.held,
      rested: seen.rested,
      frames: seen.frames,
      ...placeOf(there),
    });
  }

  /** Takes note of where the walker is and what it did. */
  private look(seen: Sighting): void {
    const { c, there } = this;
    if (there.status === WON) this.goal ??= { ...seen };
    for (let i = 0; i < there.eventCount; i++)
      if (isDoing(there.eventKinds[i]!)) this.fixtures[there.eventSubjects[i]!] ??= { ...seen };
    const { width, height } = c.rooms[there.room]!;
    const [cx, cy] = [occupiedX(c.tileUnits, there.x), occupiedY(c.tileUnits, there.y)];
    if (cx < 0 || cy < 0 || cx >= width || cy >= height) return;
    this.cells[there.room]![cy * width + cx] ??= { ...seen };
  }

  private meet(s: SimState, node: Node): boolean {
    const { tileUnits } = this.c;
    const { packed, layout } = this;
    const part = tileUnits / PARTS;
    // Packed as if it stood on its cell; the place itself comes after.
    const [x, y] = [s.x, s.y];
    s.x = occupiedX(tileUnits, x) * tileUnits;
    s.y = occupiedY(tileUnits, y) * tileUnits;
    layout.save(s, packed, 0);
    s.x = x;
    s.y = y;
    packed[layout.words] = Math.floor(x / part);
    packed[layout.words + 1] = Math.floor(y / part);
    const before = this.table.count;
    const found = this.table.find(packed, 0);
    if (found < 0) return false;
    if (found === before) this.nodes.push(node);
    return true;
  }
}

const placeOf = ({ x, y, vx, vy }: SimState): Pick<Node, "x" | "y" | "vx" | "vy"> => ({ x, y, vx, vy });

const isMoving = (s: SimState): boolean => s.legX !== 0 || s.legY !== 0 || s.vx !== 0 || s.vy !== 0;

/** Each direction for about a quarter of a cell and for a whole one, and with the button for using where something is used. */
function holdsOf(c: Compiled): Hold[] {
  const whole = Math.min(MOST_REST, 2 * GAIT_MOVEMENTS[c.rules.gait].framesOfCell(c));
  const ways = c.rules.input.ways === 8 ? 8 : 4;
  const uses = c.fixtures.all.some(({ opensOnUse }) => opensOnUse);
  return Array.from({ length: ways }, (_, way) => buttonsAlong(DIRECTION_X[way]!, DIRECTION_Y[way]!)).flatMap(
    (keys) => [
      { keys, frames: whole },
      { keys, frames: Math.max(1, Math.round(whole / 8)) },
      ...(uses ? [{ keys: keys | USE, frames: 1 }] : []),
    ],
  );
}
