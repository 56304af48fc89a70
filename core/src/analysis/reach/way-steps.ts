import { EMPTY_LOG } from "../../logs/input-log.ts";
import { run } from "../../replay/run.ts";
import { compile } from "../../simulation/compile.ts";
import { thingOf } from "../../simulation/event-text.ts";
import type { RunStart } from "../../simulation/run-start.ts";
import type { TraceRows } from "../../simulation/trace.ts";
import type { EventName } from "../../world/vocabulary.ts";
import { ENTER, EVENT_NAMES, RESPAWN, WIN } from "../../world/vocabulary.ts";
import type { World } from "../../world/world.ts";
import type { Way } from "./answer.ts";
import { isDoing } from "./doings.ts";

/** Something that happens on a way: with which move (or frame), and of which fixture or room. */
export interface WayStep {
  readonly event: EventName;
  readonly subject: string | null;
  readonly moves: number;
  readonly frame: number;
}

/** A way as it is played: its rows, and what happens on it: things done, rooms entered, deaths, the goal. */
export interface PlayedWay {
  readonly rows: TraceRows;
  readonly steps: readonly WayStep[];
}

/** Plays a way from where it begins. */
export function playWay(world: World, rules: string, from: RunStart | null, way: Way): PlayedWay {
  const c = compile(world, rules);
  const start = from === null ? {} : { start: from.start, with: from.with };
  const rows = run(c, { ...EMPTY_LOG, ...start, lines: way.lines }, { rows: true }).rows!;
  const steps: WayStep[] = [];
  for (let at = 0; at < rows.events.length; at += 3) {
    const [frame, kind, subject] = [rows.events[at]!, rows.events[at + 1]!, rows.events[at + 2]!];
    if (!isDoing(kind) && kind !== ENTER && kind !== RESPAWN && kind !== WIN) continue;
    const named = kind === ENTER ? c.rooms[subject]!.id : subject < 0 ? null : thingOf(c, subject).id;
    steps.push({ event: EVENT_NAMES[kind]!, subject: named, moves: movesAt(way, frame), frame });
  }
  return { rows, steps };
}

/** With which move a frame is played. */
function movesAt({ ends }: Way, frame: number): number {
  if (ends === null) return frame;
  const at = ends.findIndex((end) => frame <= end);
  return at < 0 ? ends.length : at + 1;
}
