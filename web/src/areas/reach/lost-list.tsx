import type { Loss, StuckWay, Way } from "@keen-pebble/core/analyse";
import type { World } from "@keen-pebble/core/world";
import { allFixtures } from "@keen-pebble/core/world";
import { useStore } from "zustand";
import { Pebble } from "../../look/pebble.tsx";
import { plural } from "../../look/plural.ts";
import { session } from "../../page-session.ts";
import type { ReachShown } from "../../workers/reach.ts";

/** So many kinds of stuck states are listed. */
const MOST_LISTED = 40;

/** How one gets stuck, and what can be lost for good, each with its way. */
export function LostList({
  world,
  shown: { answer },
}: {
  /** The one that the answer is about. */
  readonly world: World;
  readonly shown: ReachShown;
}) {
  const title = useStore(session.reach.store, (state) => state.way?.title ?? null);
  const { stuck, losable } = answer;
  const classes = stuck?.classes ?? [];
  const all = allFixtures(world);
  if (classes.length === 0 && (losable === null || losable.length === 0)) return null;
  return (
    <section className="reach-lost" aria-label="Stuck and lost">
      <div className="row-line">
        <h2 className="grow">Stuck and lost</h2>
        {stuck !== null && stuck.states > 0 && (
          <span className="quiet">{`${stuck.states.toLocaleString("en")} of ${answer.states.toLocaleString("en")} states`}</span>
        )}
      </div>
      <ul>
        {(losable ?? []).map((way) => (
          <Lost
            key={way.fixture}
            words={`${way.fixture} is lost for good`}
            loss={{ kind: "lost", id: way.fixture, fixture: all.findIndex(({ id }) => id === way.fixture) }}
            title={title}
            way={way}
          />
        ))}
        {classes.slice(0, MOST_LISTED).map((way) => (
          <Lost key={classText(way)} words={classText(way)} loss={lossOf(way)} title={title} way={way} />
        ))}
      </ul>
      {classes.length > MOST_LISTED && (
        <p className="quiet small">{`And ${plural(classes.length - MOST_LISTED, "kind")} more.`}</p>
      )}
    </section>
  );
}

function Lost({
  words,
  loss,
  title,
  way,
}: {
  readonly words: string;
  readonly loss: Loss;
  readonly title: string | null;
  readonly way: Way;
}) {
  return (
    <li>
      <button
        type="button"
        aria-pressed={title === words}
        onClick={() => void session.reach.showWay(words, { kind: "way", way }, loss)}
      >
        <Pebble kind="fail" radius={4.5} label={null} />
        <span className="thing">{words}</span>
        <span className="mono">{way.moves}</span>
      </button>
    </li>
  );
}

const lossOf = ({ taken, open, on }: StuckWay): Loss => ({ kind: "stuck", taken, open, on });

/** What tells a kind of stuck states from the others. */
function classText({ taken, open, on }: StuckWay): string {
  const parts = [
    ...(taken.length > 0 ? [`${taken.join(", ")} taken`] : []),
    ...(open.length > 0 ? [`${open.join(", ")} open`] : []),
    ...(on.length > 0 ? [`${on.join(", ")} on`] : []),
  ];
  return `Stuck with ${parts.length === 0 ? "nothing taken or open" : parts.join("; ")}`;
}
