import type { Explanation } from "@keen-pebble/core/simulate";
import { StageCard } from "./stage-card.tsx";

/** What came of the frame: its events, and the end of the run. */
export function AftermathCard({ explanation }: { readonly explanation: Explanation | null }) {
  const events = explanation?.events ?? [];
  const ended = explanation !== null && explanation.status !== "playing";
  return (
    <StageCard
      name="Aftermath"
      idle={events.length === 0}
      value={
        <>
          {events.length === 0 && <span className="quiet">no event</span>}
          {events.map((event, i) => (
            <span key={`${i}${event}`} className={`pill${ended ? " bad" : ""}`}>
              {event}
            </span>
          ))}
        </>
      }
    />
  );
}
