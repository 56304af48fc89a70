import { session } from "../page-session.ts";
import type { Explanation } from "@keen-pebble/core/simulate";
import type { Rules, World } from "@keen-pebble/core/world";
import { roundPx } from "@keen-pebble/core/analyse";
import { FACINGS } from "@keen-pebble/core/world";
import { useBench } from "../use-session.ts";
import { directionWord } from "./arrow.tsx";
import "./findings.css";
import { BareButton } from "../look/bare-button.tsx";
import { BesideValues } from "./beside-values.tsx";

/** The shown frame here and elsewhere, value by value; what differs is stressed. */
export function BesideTable({ world, rules }: { readonly world: World; readonly rules: Rules }) {
  const beside = useBench((state) => state.beside);
  const here = useBench((state) => state.explanation);
  const frame = useBench((state) => state.frame);
  if (beside === null) return null;
  const there = beside.explanation;
  const rows =
    here === null || there === null
      ? []
      : VALUES.map(
          ([name, of]) => [name, of(here, world), there.frame === frame ? of(there, world) : "run has ended"] as const,
        );
  return (
    <section className="beside" aria-label="Two runs beside each other">
      <div className="mends-head">
        {beside.rows === null ? (
          <span>running</span>
        ) : beside.differs === null ? (
          <span>The same walk</span>
        ) : (
          <button
            type="button"
            className="link"
            onClick={() => {
              session.playing.pause();
              session.playing.showFrame(beside.differs!);
            }}
          >
            First differs at frame {beside.differs}
          </button>
        )}
        <span className="grow" />
        <BareButton icon="close" name="Close the comparison" onClick={() => session.beside.layBeside(null)} />
      </div>
      <BesideValues
        frame={frame}
        names={[beside.where.kind === "rules" ? rules.name : "Now", beside.name]}
        rows={rows}
      />
    </section>
  );
}

const pair = ([x, y]: readonly [number, number]): string => `${roundPx(x)}, ${roundPx(y)}`;

const VALUES: readonly (readonly [string, (explanation: Explanation, world: World) => string])[] = [
  ["Intent", ({ intent }) => directionWord(intent)],
  ["Moved px", ({ velocity }) => pair(velocity)],
  ["Place px", ({ to }) => pair(to)],
  ["Stopped by", ({ stoppedBy }) => (stoppedBy === null ? "nothing" : `${stoppedBy.cx},${stoppedBy.cy}`)],
  ["Events", ({ events }) => events.join(" ") || "none"],
  ["Facing", ({ facing, pose }) => `${FACINGS[facing]!} ${pose}`],
];
