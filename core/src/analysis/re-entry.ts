import { rememberedIn } from "../simulation/explain.ts";
import type { Remembered } from "../simulation/explain.ts";
import type { LogLine, InputLog } from "../logs/input-log.ts";
import { mergeLines } from "../logs/write-log.ts";
import { cutLog } from "../logs/change-lines.ts";
import { stateAt } from "../replay/run.ts";
import { holding } from "../replay/true-at.ts";
import type { Check } from "../checks/check.ts";
import type { When } from "../checks/when.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { Way } from "./reach/answer.ts";
import { searchFrom } from "./reach/reach.ts";
import { PLAYING } from "../world/vocabulary.ts";
import { NO_BUTTON } from "../compiled/state.ts";
import type { SimState } from "../compiled/state.ts";
import { step } from "../simulation/step.ts";

/** What a search for a way out of a room and back came to. */
export interface ReEntrySearch {
  /** Null where none was found: that says nothing of whether there is one, but where all play was looked at. */
  readonly found: ReEntry | null;
  readonly exhaustive: boolean;
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

/** So many states are looked at before a search is given up. */
const MOST_STATES = 6000;
/** And so many between two looks at whether it is done. */
const AT_ONCE = 100;
/** Who is not at rest after so many frames without a key is taken as it is. */
const MOST_REST = 600;

/**
 * Looks for the nearest way out of the room in which a log is at a frame, and back into it (semantics.md section 10).
 * @param lineEnds of the log's run
 * @param frame at most its last one; what is pressed up to it is kept
 */
export function reEntry(c: Compiled, log: InputLog, lineEnds: readonly number[], frame: number): ReEntrySearch {
  const lines: LogLine[] = [...cutLog(log, lineEnds, frame).lines];
  const now = (): SimState => stateAt(c, { ...log, checks: [], lines }, Infinity);
  const shown = now();
  const { room } = shown;
  // A search begins at rest, with nothing held.
  const begin = now();
  begin.hasPointer = false;
  for (let i = 0; begin.status === PLAYING && i < MOST_REST && !rests(begin); i++) {
    step(c, begin, 0, null);
    lines.push({ kind: "keys", count: 1, keys: 0, pointer: null, until: null });
  }
  // The nearest room may be one from which nothing leads back.
  const tried = new Set([room]);
  const outside = go(c, begin, (other) => !tried.has(other));
  let states = outside.states;
  for (let out = outside; out.lines !== null; out = go(c, begin, (other) => !tried.has(other))) {
    const there = stateAt(c, { ...log, checks: [], lines: [...lines, ...out.lines] }, Infinity);
    if (there.room === room) break;
    tried.add(there.room);
    const back = go(c, there, (other) => other === room);
    states += back.states;
    if (back.lines === null) continue;
    const found = walkOf(c, log, [...lines, ...out.lines, ...back.lines], shown, there);
    if (found !== null) return { found, exhaustive: true, states };
  }
  return { found: null, exhaustive: outside.lines === null && outside.exhaustive, states };
}

/** What a walk out and back comes to; null where it does not come back. */
function walkOf(
  c: Compiled,
  log: InputLog,
  lines: readonly LogLine[],
  shown: SimState,
  outside: SimState,
): ReEntry | null {
  const there = stateAt(c, { ...log, checks: [], lines }, Infinity);
  if (there.room !== shown.room || there.status !== PLAYING) return null;
  const walk: InputLog = { ...log, checks: [], accept: null, title: null, lines: mergeLines(lines) };
  return {
    log: { ...walk, checks: checksOf(c, walk, outside, there) },
    from: shown.frame,
    to: there.frame,
    before: rememberedIn(c, shown),
    after: rememberedIn(c, there),
  };
}

const rests = (s: SimState): boolean => s.held === 0 && s.legX === 0 && s.legY === 0 && s.bufferedButton === NO_BUTTON;

/** What a search for the nearest way into some rooms came to; `lines` is null where none is known. */
interface Went {
  readonly lines: readonly LogLine[] | null;
  readonly exhaustive: boolean;
  readonly states: number;
}

const NO_WAY: Went = { lines: null, exhaustive: false, states: 0 };

function go(c: Compiled, s: SimState, fits: (room: number) => boolean): Went {
  if (s.status !== PLAYING) return NO_WAY;
  const search = searchFrom(c, s, MOST_STATES);
  let way: Way | null = null;
  for (let more = true; more && way === null;) {
    more = search.run(AT_ONCE);
    way = search.wayInto(fits);
  }
  return { lines: way?.lines ?? null, exhaustive: search.complete && way === null, states: search.states };
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
