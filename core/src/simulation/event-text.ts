import type { Compiled } from "./compiled.ts";
import type { SimState } from "./state.ts";
import { EVENT_NAMES } from "./state.ts";

/** One event as the trace writes it: `bump`, or `enter:ROOM`. */
export function eventName(c: Compiled, kind: number, subject: number): string {
  const name = EVENT_NAMES[kind]!;
  return subject < 0 ? name : `${name}:${c.rooms[subject]!.id}`;
}

/** The events of the state's frame as the trace writes them: parted by `;`, in their order. */
export function eventText(c: Compiled, s: SimState): string {
  let text = "";
  for (let i = 0; i < s.eventCount; i++) {
    text += `${i > 0 ? ";" : ""}${eventName(c, s.eventKinds[i]!, s.eventSubjects[i]!)}`;
  }
  return text;
}
