import { useEffect } from "react";
import { Link } from "react-router";
import { useStore } from "zustand";
import { Pebble } from "../../look/pebble.tsx";
import { session } from "../../page-session.ts";

/** The world's reach checks above the logs, each with its pebble; a click opens Reach with what shows it. */
export function ReachStrip() {
  const verdicts = useStore(session.reach.store, (state) => state.shown?.verdicts ?? null);
  useEffect(() => session.reach.watch(), []);
  const holding = verdicts?.filter(({ verdict }) => verdict === "pass").length ?? 0;
  return (
    <section className="reach-strip" aria-label="Checks of all play">
      <strong>All play</strong>
      <span className={verdicts !== null && holding < verdicts.length ? "attention" : "quiet"} role="status">
        {verdicts === null ? "looking" : `${holding} of ${verdicts.length} hold`}
      </span>
      <span className="row-line grow">
        {verdicts?.map(({ check, verdict, seen, way }) => (
          <Link
            key={check}
            to="../reach"
            relative="path"
            title={seen === null ? check : `${check}: ${seen}`}
            onClick={() => way !== null && session.reach.showLater(check, way)}
          >
            <Pebble kind={verdict === "open" ? "unreached" : verdict} radius={5} label={`${check}: ${verdict}`} />
          </Link>
        ))}
      </span>
    </section>
  );
}
