import type { TraceRows } from "../../simulation/trace.ts";
import {
  CHECKPOINT_TOUCHED,
  HURT,
  MARKER_TOUCHED,
  OPEN,
  PORTAL_TAKEN,
  SWITCHED,
  TAKE,
} from "../../world/vocabulary.ts";

/** By kind of event whether it says that a fixture did what it is there for. */
const DOINGS = new Uint8Array(32);
for (const kind of [TAKE, OPEN, HURT, CHECKPOINT_TOUCHED, SWITCHED, PORTAL_TAKEN, MARKER_TOUCHED]) DOINGS[kind] = 1;

/** Whether a kind of event says that a fixture was taken, opened, met, touched, switched or gone through. */
export const isDoing = (kind: number): boolean => DOINGS[kind] === 1;

/** The fixtures that did something in a run, each as often as it did. */
export function doingsOf({ events }: Pick<TraceRows, "events">): number[] {
  const fixtures: number[] = [];
  for (let at = 0; at < events.length; at += 3) if (isDoing(events[at + 1]!)) fixtures.push(events[at + 2]!);
  return fixtures;
}
