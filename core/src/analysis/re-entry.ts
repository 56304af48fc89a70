import { rememberedIn } from "../simulation/explain.ts";
import type { Remembered } from "../simulation/explain.ts";
import type { LogLine, InputLog } from "../logs/input-log.ts";
import { mergeLines } from "../logs/write-log.ts";
import { DOWN, LEFT, RIGHT, UP, USE } from "../world/keys.ts";
import { holding } from "../replay/true-at.ts";
import type { Check } from "../checks/check.ts";
import type { When } from "../checks/when.ts";
import { occupiedX, occupiedY } from "../ground/occupied.ts";
import type { Compiled } from "../compiled/compiled.ts";
import { startState } from "../simulation/start-state.ts";
import { PLAYING } from "../world/vocabulary.ts";
import { SimState } from "../compiled/state.ts";
import { step } from "../simulation/step.ts";

/** What a search for a way out of a room and back came to. */
export interface ReEntrySearch {
  /** Null where none was found: that says nothing of whether there is one. */
  readonly found: ReEntry | null;
  /** How many states were looked at. */
  readonly states: number;
}

/** A walk out of a room and back into it, and what of the room is another than it was. */
export interface ReEntry {
  /** The log up to the shown frame, and then out and back, with the checks that it proves. */
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
 * itself: walking, and using what is used with the button.
 * @param frame at most the log's last one; the keys up to it are kept as they were pressed
 */
export function reEntry(c: Compiled, log: InputLog, keys: Uint8Array, frame: number): ReEntrySearch {
  const start = startState(c, log.start ?? undefined, log.with);
  const pressed: LogLine[] = [];
  for (let i = 1; i <= frame && start.status === PLAYING; i++) {
    step(c, start, keys[i]!, null);
    pressed.push(line(keys[i]!, 1));
  }
  if (start.status !== PLAYING) return { found: null, states: 0 };
  const before = rememberedIn(c, start);
  const room = start.room;
  const looked = { states: 0 };
  const out = search(c, { state: start, lines: [] }, (s) => s.room !== room, looked);
  const back = out === null ? null : search(c, out, (s) => s.room === room, looked);
  if (out === null || back === null) return { found: null, states: looked.states };
  const walk: InputLog = {
    ...log,
    checks: [],
    accept: null,
    title: null,
    lines: mergeLines([...pressed, ...back.lines]),
  };
  const after = rememberedIn(c, back.state);
  return {
    found: {
      log: { ...walk, checks: checksOf(c, walk, out.state, back.state) },
      from: start.frame,
      to: back.state.frame,
      before,
      after,
    },
    states: looked.states,
  };
}

/** That it was out and is back, and what of the room is taken and open when it is. */
function checksOf(c: Compiled, walk: InputLog, out: SimState, back: SimState): Check[] {
  const end: When = { kind: "end" };
  const kept = c.fixtures.all.flatMap(({ id, room }, i): Check[] => {
    if (room !== back.room) return [];
    if (back.memory.taken[i] === 1) return [{ when: end, what: { kind: "taken", fixture: id } }];
    return back.memory.open[i] === 1 ? [{ when: end, what: { kind: "open", fixture: id } }] : [];
  });
  const way: Check[] = [
    { when: { kind: "at", frame: out.frame }, what: { kind: "room", room: c.rooms[out.room]!.id } },
    { when: end, what: { kind: "room", room: c.rooms[back.room]!.id } },
  ];
  return holding(c, walk, [...way, ...kept]);
}

const line = (keys: number, count: number): LogLine => ({ kind: "keys", count, keys, pointer: null, until: null });

/** Breadth first over moves of about a cell, and uses of what stands beside, until a state fits. */
function search(c: Compiled, from: Node, fits: (s: SimState) => boolean, looked: { states: number }): Node | null {
  const seen = new Set<string>([keyOf(c, from.state)]);
  const queue: Node[] = [from];
  const uses = c.fixtures.all.some(({ opensOnUse }) => opensOnUse);
  for (let at = 0; at < queue.length && seen.size < MOST_STATES; at++) {
    looked.states++;
    for (const keys of uses ? [...WAYS, ...WAYS.map((way) => way | USE)] : WAYS) {
      const made = (keys & USE) === 0 ? move(c, queue[at]!, keys, fits) : press(c, queue[at]!, keys);
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

const WAYS = [LEFT, RIGHT, UP, DOWN];

/** Turns to a side and uses what stands there: both held for one frame, then nothing until the walker is at rest. */
function press(c: Compiled, { state, lines }: Node, keys: number): Node | null {
  const s = new SimState(c);
  s.copyFrom(state);
  step(c, s, keys, null);
  let rest = 0;
  do {
    if (s.status !== PLAYING) return null;
    step(c, s, 0, null);
    rest++;
  } while ((s.legX !== 0 || s.legY !== 0) && rest < MOST_FRAMES);
  return s.status === PLAYING ? { state: s, lines: [...lines, line(keys, 1), line(0, rest)] } : null;
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
    if (away && s.legX === 0 && s.legY === 0 && (s.room === room || fits(s)))
      return { state: s, lines: [...lines, line(keys, held + 1)] };
  }
  return { state: s, lines: [...lines, line(keys, held)] };
}

function keyOf(c: Compiled, s: SimState): string {
  const { taken, open, on } = s.memory;
  return `${s.room} ${occupiedX(c.tileUnits, s.x)} ${occupiedY(c.tileUnits, s.y)} ${taken.join("")} ${open.join("")} ${on.join("")}`;
}
