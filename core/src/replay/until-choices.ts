import { conditionText, compileCondition } from "../checks/condition.ts";
import type { Condition } from "../checks/condition.ts";
import { cellOf } from "../checks/conditions/cell.ts";
import type { Verdict } from "../checks/verdict.ts";
import { logHolds } from "../checks/verdict.ts";
import type { Compiled } from "../compiled/compiled.ts";
import { run, stateAt } from "./run.ts";
import { TAKE, OPEN } from "../world/vocabulary.ts";
import type { KeyRun } from "../logs/change-lines.ts";
import { keyRuns, withLine } from "../logs/change-lines.ts";
import type { InputLog } from "../logs/input-log.ts";
import { MOST_LINE_FRAMES } from "../logs/input-log.ts";

/** A stretch of keys held until something holds, instead of for so many frames. */
export interface UntilChoice {
  readonly what: Condition;
  readonly text: string;
  /** The log with the line. */
  readonly log: InputLog;
  /** How many frames sooner the line ends than it did; 0: the walk is the very same. */
  readonly sooner: number;
  /** The walk takes the same path as before. */
  readonly same: boolean;
  readonly holds: boolean;
}

/** The keys may be held so many times as long as they were: a slower walker needs longer. */
const ROOM = 6;
const LEAST_ROOM = 60;

/**
 * What a line of keys may be held until, so that the log survives a change of speed (formats.md section 2): what was
 * taken, opened or entered by it, the place where it ended, and its cell. Each is run; those that do not come about in
 * the line are left out. The ones that leave the walk as it was come first.
 */
export function untilChoices(c: Compiled, log: InputLog, at: number): UntilChoice[] {
  const before = run(c, log, { checks: true });
  const found = keyRuns(log, before.lineEnds).find((each) => each.at === at);
  if (found === undefined || found.to === null || found.line.until !== null) return [];
  // What holds already when the line begins would end it at once.
  const began = stateAt(c, log, found.from!);
  const fresh = whatsOf(c, log, found).filter((what) => !compileCondition(c, what)(began));
  const choices = fresh.flatMap((what): UntilChoice[] => {
    const count = Math.min(MOST_LINE_FRAMES, Math.max(LEAST_ROOM, found.line.count * ROOM));
    const changed = withLine(log, at, { ...found.line, count, until: what });
    const after = run(c, changed, { checks: true });
    const end = keyRuns(changed, after.lineEnds).find((each) => each.at === at)?.to ?? null;
    if (end === null || end > found.to! || ranOut(after.verdicts, what, end)) return [];
    return [
      {
        what,
        text: conditionText(what),
        log: changed,
        sooner: found.to! - end,
        same: after.pathHash === before.pathHash && after.frames === before.frames,
        holds: logHolds(after.verdicts),
      },
    ];
  });
  return choices.sort(
    (a, b) => Number(b.same) - Number(a.same) || Number(b.holds) - Number(a.holds) || a.sooner - b.sooner,
  );
}

const ranOut = (verdicts: readonly Verdict[], what: Condition, end: number): boolean =>
  verdicts.some(
    ({ check, frame, verdict }) => verdict === "fail" && frame === end && check === `until ${conditionText(what)}`,
  );

function whatsOf(c: Compiled, log: InputLog, { to }: KeyRun): Condition[] {
  const s = stateAt(c, log, to!);
  const whats: Condition[] = [];
  for (let i = 0; i < s.eventCount; i++) {
    const fixture = c.fixtures.all[s.eventSubjects[i]!]?.id;
    if (fixture !== undefined && (s.eventKinds[i] === TAKE || s.eventKinds[i] === OPEN))
      whats.push({ kind: s.eventKinds[i] === TAKE ? "taken" : "open", fixture });
  }
  whats.push(cellOf(c, s));
  if (c.onGrid) whats.push({ kind: "pixel", x: s.x / 256, y: s.y / 256 });
  if (c.rooms.length > 1) whats.push({ kind: "room", room: c.rooms[s.room]!.id });
  return whats;
}
