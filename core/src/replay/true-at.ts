import type { Check } from "../checks/check.ts";
import { checkText, parseCheck } from "../checks/check.ts";
import type { Condition } from "../checks/condition.ts";
import { CONDITION_KINDS } from "../checks/condition.ts";
import { cellOf } from "../checks/conditions/cell.ts";
import type { When } from "../checks/when.ts";
import type { Compiled } from "../compiled/compiled.ts";
import { thingOf } from "../simulation/event-text.ts";
import type { SimState } from "../compiled/state.ts";
import type { InputLog } from "../logs/input-log.ts";
import { EVENT_NAMES, EVENT_SUBJECTS, PLAYING, STATUS_NAMES } from "../world/vocabulary.ts";
import { run, stateAt } from "./run.ts";

/**
 * Checks that hold in a log's run and say something of one of its frames: what happened in it first, then where the
 * walker is and what it has, then what holds in every frame (interface.md, pebble line). Those that the log has are
 * left out.
 * @param s the state after that frame, as `stateAt` gives it
 */
export function checksTrueAt(c: Compiled, log: InputLog, s: SimState): Check[] {
  const happened = eventsOf(c, s).map((what): Check => ({ when: { kind: "by", frame: s.frame }, what }));
  const offered = CONDITION_KINDS.flatMap((kind) =>
    kind.trueIn(c, s).map((what): Check => ({ when: whenOf(kind.offeredWhen, s.frame), what })),
  );
  const had = new Set(log.checks.map(checkText));
  const fresh = new Map(
    [...happened, ...offered.sort((a, b) => rank(a) - rank(b))].map((check) => [checkText(check), check]),
  );
  return holding(
    c,
    log,
    [...fresh.values()].filter((check) => !had.has(checkText(check))),
  );
}

/** What is offered first: by this frame, at it, at the end, always, never. */
const OFFERED: readonly When["kind"][] = ["by", "at", "end", "always", "never"];
const rank = ({ when }: Check): number => OFFERED.indexOf(when.kind);
const whenOf = (kind: When["kind"], frame: number): When =>
  kind === "at" || kind === "by" ? { kind, frame } : { kind };

/**
 * Checks that are offered with a walk that was just made: where it ended and how, and that it kept to the grid; where it
 * does not, that it never overlapped what blocks. All of them hold.
 * @param log the walk, with whatever checks
 * @throws {CoreError} as `run` does
 */
export function checksOfWalk(c: Compiled, log: InputLog): Check[] {
  const s = stateAt(c, log, Infinity);
  const end: When = { kind: "end" };
  const aligned: Check = { when: { kind: "always" }, what: { kind: "aligned", strictly: false } };
  const apart: Check = { when: { kind: "never" }, what: { kind: "overlap" } };
  const ended: readonly Check[] =
    s.status === PLAYING ? [] : [{ when: end, what: { kind: "status", status: STATUS_NAMES[s.status]! } }];
  const held = holding(c, log, [{ when: end, what: cellOf(c, s) }, ...ended, aligned, apart]);
  return held.includes(aligned) ? held.filter((check) => check !== apart) : held;
}

/** Those of some checks that pass in the log's run, and that can be read again as they are written. */
export function holding(c: Compiled, log: InputLog, checks: readonly Check[]): Check[] {
  const readable = checks.filter((check) => "check" in parseCheck(checkText(check).split(" ")));
  const { verdicts } = run(c, { ...log, checks: readable }, { checks: true });
  return readable.filter((_, i) => verdicts[i]!.verdict === "pass");
}

/** What happened in a frame, each in the words that say it best. */
function eventsOf(c: Compiled, s: SimState): Condition[] {
  const said: Condition[] = [];
  for (let i = 0; i < s.eventCount; i++) {
    const event = EVENT_NAMES[s.eventKinds[i]!]!;
    const kind = EVENT_SUBJECTS.get(event);
    const number = s.eventSubjects[i]!;
    const subject = kind === undefined ? null : (kind === "room" ? c.rooms[number]! : thingOf(c, number)).id;
    for (const { ofEvent } of CONDITION_KINDS) {
      const condition = ofEvent({ event, subject }, s);
      if (condition === null) continue;
      said.push(condition);
      break;
    }
  }
  return said;
}
