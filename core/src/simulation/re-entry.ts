import { rememberedIn } from "./explain.ts";
import type { Remembered } from "./explain.ts";
import type { LogLine, InputLog } from "../logs/input-log.ts";
import { mergeLines } from "../logs/write-log.ts";
import { DOWN, LEFT, RIGHT, UP } from "../movement/keys.ts";
import { occupiedX, occupiedY } from "../rooms/occupied.ts";
import type { Compiled } from "./compiled.ts";
import { startState } from "./start-state.ts";
import { PLAYING, SimState } from "./state.ts";
import { step } from "./step.ts";

/** A walk out of a room and back into it, and what of the room is another than it was. */
export interface ReEntry {
  /** The log up to the shown frame, and then out and back. */
  readonly log: InputLog;
  /** The frame before leaving and the one in which the walker was back. */
  readonly from: number;
  readonly to: number;
  readonly before: Remembered;
  readonly after: Remembered;
}

/** So many states are looked at before the search is given up. */
const MOST_STATES = 6000;
/** A move that takes longer than this leads nowhere. */
const MOST_FRAMES = 160;

interface Node {
  readonly state: SimState;
  readonly lines: readonly LogLine[];
}

/**
 * Looks for the shortest way out of the room in which a log is at a frame, and back into it, by asking the simulation
 * itself; null where there is none within reach.
 * @param frame at most the log's last one; the keys up to it are kept as they were pressed
 */
export function reEntry(c: Compiled, log: InputLog, keys: Uint8Array, frame: number): ReEntry | null {
  const start = startState(c, log.start ?? undefined, log.with);
  const pressed: LogLine[] = [];
  for (let i = 1; i <= frame && start.status === PLAYING; i++) {
    step(c, start, keys[i]!, null);
    pressed.push(line(keys[i]!, 1));
  }
  if (start.status !== PLAYING) return null;
  const before = rememberedIn(c, start);
  const room = start.room;
  const out = search(c, { state: start, lines: [] }, (s) => s.room !== room);
  const back = out === null ? null : search(c, out, (s) => s.room === room);
  if (out === null || back === null) return null;
  return { log: { ...log, checks: [], accept: null, title: null, lines: mergeLines([...pressed, ...back.lines]) }, from: start.frame, to: back.state.frame, before, after: rememberedIn(c, back.state) };
}

const line = (keys: number, count: number): LogLine => ({ kind: "keys", count, keys, pointer: null, until: null });

/** Breadth first over moves of about a cell, until a state fits. */
function search(c: Compiled, from: Node, fits: (s: SimState) => boolean): Node | null {
  const seen = new Set<string>([keyOf(c, from.state)]);
  const queue: Node[] = [from];
  for (let at = 0; at < queue.length && seen.size < MOST_STATES; at++) {
    for (const keys of [LEFT, RIGHT, UP, DOWN]) {
      const made = move(c, queue[at]!, keys, fits);
      if (made === null) continue;
      if (fits(made.state)) return made;
      const key = keyOf(c, made.state);
      if (seen.has(key)) continue;
      seen.add(key);
      queue.push(made);
    }
  }
  return null;
}

/** Holds a direction until the walker is in another cell and at rest on its leg, or stands still; null where it ends the run. */
function move(c: Compiled, { state, lines }: Node, keys: number, fits: (s: SimState) => boolean): Node | null {
  const s = new SimState(c);
  s.copyFrom(state);
  const [cx, cy, room] = [occupiedX(c.tileUnits, s.x), occupiedY(c.tileUnits, s.y), s.room];
  let held = 0;
  let still = 0;
  for (; held < MOST_FRAMES && still < 3; held++) {
    const [x, y] = [s.x, s.y];
    step(c, s, keys, null);
    if (s.status !== PLAYING) return null;
    still = s.x === x && s.y === y ? still + 1 : 0;
    const away = s.room !== room || occupiedX(c.tileUnits, s.x) !== cx || occupiedY(c.tileUnits, s.y) !== cy;
    if (away && s.legX === 0 && s.legY === 0 && (s.room === room || fits(s))) return { state: s, lines: [...lines, line(keys, held + 1)] };
  }
  return { state: s, lines: [...lines, line(keys, held)] };
}

function keyOf(c: Compiled, s: SimState): string {
  const { taken, open, on } = s.memory;
  return `${s.room} ${occupiedX(c.tileUnits, s.x)} ${occupiedY(c.tileUnits, s.y)} ${taken.join("")} ${open.join("")} ${on.join("")}`;
}
