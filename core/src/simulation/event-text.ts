import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { ENTER, EVENT_NAMES, LEAVE } from "../world/vocabulary.ts";

/** The fixture or actor that an event names. */
export function thingOf(c: Compiled, subject: number): { readonly id: string } {
  return c.fixtures.all[subject] ?? c.actors!.all[subject - c.fixtures.all.length]!;
}

/** One event as the trace writes it: `bump`, `enter:ROOM`, `take:FIXTURE` or `meet:ACTOR`. */
export function eventName(c: Compiled, kind: number, subject: number): string {
  const name = EVENT_NAMES[kind]!;
  if (subject < 0) return name;
  return `${name}:${(kind === LEAVE || kind === ENTER ? c.rooms[subject]! : thingOf(c, subject)).id}`;
}

/** The events of the state's frame as the trace writes them: parted by `;`, in their order. */
export function eventText(c: Compiled, s: SimState): string {
  let text = "";
  for (let i = 0; i < s.eventCount; i++) {
    text += `${i > 0 ? ";" : ""}${eventName(c, s.eventKinds[i]!, s.eventSubjects[i]!)}`;
  }
  return text;
}
