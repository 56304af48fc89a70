import type { InputLog } from "@keen-pebble/core/check";
import type { TraceRows } from "@keen-pebble/core/simulate";
import type { World } from "@keen-pebble/core/world";
import { keyRuns, conditionText } from "@keen-pebble/core/check";
import { ARRIVE, ENTER, EVENT_NAMES, LEAVE, allActors, allFixtures } from "@keen-pebble/core/world";
import type { UntilEnd } from "./draw-lanes.ts";
import { EVENTS_Y, KEYS_Y } from "./draw-lanes.ts";
import type { LineScale } from "./line-scale.ts";
import { frameX, isOnLine } from "./line-scale.ts";

/** A mark under the pointer: where it is, and what it says of which frame. */
export interface Near {
  readonly x: number;
  readonly frame: number;
  readonly text: string;
}

const NO_UNTILS: readonly UntilEnd[] = [];

/** Where the lines that were held until something ended; the one that ran out has no end of that kind. */
export function untilEnds(parsed: InputLog | null, lineEnds: readonly number[] | null): readonly UntilEnd[] {
  if (parsed === null || lineEnds === null || !parsed.lines.some((line) => line.kind === "keys" && line.until !== null))
    return NO_UNTILS;
  return keyRuns(parsed, lineEnds).flatMap(({ line, to }): UntilEnd[] =>
    line.until === null || to === null ? [] : [{ frame: to, text: `until ${conditionText(line.until)}` }],
  );
}

/** The end of an `until` line under the pointer. */
export function untilNear(untils: readonly UntilEnd[], scale: LineScale, x: number, y: number): Near | null {
  if (y < KEYS_Y || y > KEYS_Y + 15) return null;
  const near = untils.filter(({ frame }) => isOnLine(scale, frame) && Math.abs(frameX(scale, frame) - x) <= 7);
  const [best] = near.sort((a, b) => Math.abs(frameX(scale, a.frame) - x) - Math.abs(frameX(scale, b.frame) - x));
  return best === undefined ? null : { ...best, x: frameX(scale, best.frame) };
}

/** The events whose mark is under the pointer; arrivals have none. */
export function eventsNear(rows: TraceRows, world: World, scale: LineScale, x: number, y: number): Near | null {
  if (Math.abs(y - EVENTS_Y) > 7) return null;
  let best: number | null = null;
  for (let i = 0; i < rows.events.length; i += 3) {
    if (rows.events[i + 1] === ARRIVE) continue;
    const apart = Math.abs(frameX(scale, rows.events[i]!) - x);
    if (apart <= 5 && (best === null || apart < Math.abs(frameX(scale, best) - x))) best = rows.events[i]!;
  }
  if (best === null) return null;
  const texts: string[] = [];
  for (let i = 0; i < rows.events.length; i += 3)
    if (rows.events[i] === best && rows.events[i + 1] !== ARRIVE)
      texts.push(eventText(world, rows.events[i + 1]!, rows.events[i + 2]!));
  return { x: frameX(scale, best), frame: best, text: texts.join(", ") };
}

/** An event in words, such as `take crank-1`. */
function eventText(world: World, kind: number, subject: number): string {
  const name = EVENT_NAMES[kind]!;
  if (subject < 0) return name;
  // Actors are numbered after the fixtures.
  const things = [...allFixtures(world), ...allActors(world)];
  return `${name} ${(kind === LEAVE || kind === ENTER ? world.rooms[subject]?.name : things[subject]?.id) ?? ""}`;
}
