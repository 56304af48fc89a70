import type { InputLog } from "../logs/input-log.ts";
import { occupiedX, occupiedY } from "../rooms/occupied.ts";
import type { Compiled } from "../simulation/compiled.ts";
import { run, stateAt } from "../simulation/run.ts";
import type { SimState } from "../simulation/state.ts";
import { CHECKPOINT_TOUCHED, CLOSE, ENTER, ESCAPE, EVENT_NAMES, HURT, LOSE, MARKER_TOUCHED, OPEN, PLAYING, PORTAL_TAKEN, REFUSED, STATUS_NAMES, SWITCHED, TAKE, WIN } from "../simulation/state.ts";
import { FACINGS } from "../world/facing.ts";
import type { Check, When } from "./check.ts";
import { checkText, parseCheck } from "./check.ts";
import type { What } from "./what.ts";

/**
 * Checks that hold in a log's run and say something of one of its frames: what happened in it first, then where the
 * walker is and what it has, then what holds in every frame (interface.md, pebble line). Those that the log has are
 * left out.
 * @param s the state after that frame, as `stateAt` gives it
 */
export function checksTrueAt(c: Compiled, log: InputLog, s: SimState): Check[] {
  const at: When = { kind: "at", frame: s.frame };
  const by: When = { kind: "by", frame: s.frame };
  const offered: Check[] = [
    ...eventsOf(c, s).map((what) => ({ when: by, what })),
    ...standingOn(c, s).map((what) => ({ when: by, what })),
    { when: at, what: cellOf(c, s) },
    ...heldBy(c, s).map((what) => ({ when: at, what })),
    ...circuitsOn(c, s).map((what) => ({ when: at, what })),
    { when: at, what: { kind: "facing", facing: FACINGS[s.facing]! } },
    { when: at, what: { kind: "still" } },
    ...(s.status === PLAYING ? [] : [{ when: { kind: "end" } as const, what: { kind: "status", status: STATUS_NAMES[s.status]! } as const }]),
    { when: { kind: "always" }, what: { kind: "aligned", strictly: false } },
    { when: { kind: "never" }, what: { kind: "overlap" } },
    { when: { kind: "never" }, what: { kind: "outside" } },
  ];
  const had = new Set(log.checks.map(checkText));
  return holding(c, log, [...new Map(offered.map((check) => [checkText(check), check])).values()].filter((check) => !had.has(checkText(check))));
}

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
  const ended: readonly Check[] = s.status === PLAYING ? [] : [{ when: end, what: { kind: "status", status: STATUS_NAMES[s.status]! } }];
  const held = holding(c, log, [{ when: end, what: cellOf(c, s) }, ...ended, aligned, apart]);
  return held.includes(aligned) ? held.filter((check) => check !== apart) : held;
}

/** Those of some checks that pass in the log's run, and that can be read again as they are written. */
export function holding(c: Compiled, log: InputLog, checks: readonly Check[]): Check[] {
  const readable = checks.filter((check) => "check" in parseCheck(checkText(check).split(" ")));
  const { verdicts } = run(c, { ...log, checks: readable }, { checks: true });
  return readable.filter((_, i) => verdicts[i]!.verdict === "pass");
}

function eventsOf(c: Compiled, s: SimState): What[] {
  const whats: What[] = [];
  for (let i = 0; i < s.eventCount; i++) {
    const kind = s.eventKinds[i]!;
    const subject = s.eventSubjects[i]!;
    const fixture = c.fixtures.all[subject]?.id ?? "";
    switch (kind) {
      case TAKE:
        whats.push({ kind: "taken", fixture });
        break;
      case OPEN:
        whats.push({ kind: "open", fixture });
        break;
      case ENTER:
        whats.push({ kind: "room", room: c.rooms[subject]!.id });
        break;
      case MARKER_TOUCHED:
        whats.push({ kind: "on", fixture });
        break;
      case WIN:
      case LOSE:
      case ESCAPE:
        whats.push({ kind: "status", status: STATUS_NAMES[s.status]! });
        break;
      case CLOSE:
      case REFUSED:
      case HURT:
      case SWITCHED:
      case PORTAL_TAKEN:
      case CHECKPOINT_TOUCHED:
        whats.push({ kind: "event", event: EVENT_NAMES[kind], subject: fixture });
        break;
      default:
        if (EVENT_NAMES[kind] !== "arrive" && EVENT_NAMES[kind] !== "leave") whats.push({ kind: "event", event: EVENT_NAMES[kind]!, subject: null });
    }
  }
  return whats;
}

function standingOn(c: Compiled, s: SimState): What[] {
  const [x, y] = [occupiedX(c.tileUnits, s.x), occupiedY(c.tileUnits, s.y)];
  return c.fixtures.all.flatMap((fixture): What[] => (fixture.room === s.room && fixture.cx === x && fixture.cy === y ? [{ kind: "on", fixture: fixture.id }] : []));
}

/** The occupied cell, with its room where the world has several. */
export function cellOf(c: Compiled, s: SimState): What {
  const room = c.rooms.length > 1 ? c.rooms[s.room]!.id : null;
  return { kind: "cell", x: occupiedX(c.tileUnits, s.x), y: occupiedY(c.tileUnits, s.y), room };
}

function heldBy(c: Compiled, s: SimState): What[] {
  return c.world.items.flatMap(({ id }, i): What[] => (s.memory.bag[i]! > 0 ? [{ kind: "holds", item: id, count: s.memory.bag[i]! > 1 ? s.memory.bag[i]! : null }] : []));
}

function circuitsOn(c: Compiled, s: SimState): What[] {
  return c.world.circuits.flatMap((circuit, i): What[] => (s.memory.on[i] === 1 ? [{ kind: "circuit", circuit, on: true }] : []));
}
