import type { World } from "@keen-pebble/core/world";
import { isUpToChance } from "@keen-pebble/core/check";
import { useMemo } from "react";
import Button from "react-bootstrap/Button";
import { useStore } from "zustand";
import { Progress } from "../../look/progress.tsx";
import { WholeField } from "../../look/whole-field.tsx";
import { session } from "../../page-session.ts";
import { useBench } from "../../use-session.ts";

const MOST_SEEDS = 1_000_000;

/** How often the shown log holds over many seeds; nothing where its run meets nothing that is left to chance. */
export function ByChance({ id, world }: { readonly id: string; readonly world: World }) {
  const { seeds, log, phase, tried, held, broken, took, refused } = useStore(session.byChance.store);
  const run = useBench((state) => state.run);
  const isSought = useMemo(() => run !== null && run.log === id && isUpToChance(world, run.rows), [id, run, world]);
  if (!isSought) return null;
  const running = phase === "running";
  const isOfThis = log === id && phase !== "none";
  return (
    <section className="by-chance" aria-label="By chance">
      <div className="row-line">
        <div className="grow">
          <WholeField label="Seeds" range={[1, MOST_SEEDS]} value={seeds} onValue={session.byChance.chooseSeeds} />
        </div>
        {running ? (
          <Button variant="plain" onClick={session.byChance.cancel}>
            Cancel
          </Button>
        ) : (
          <Button variant="plain" onClick={() => void session.byChance.start(id)}>
            Run over all of them
          </Button>
        )}
      </div>
      {isOfThis && refused === null && (
        <div role="status">
          {running && <Progress now={tried} max={seeds} label="Seeds tried" />}
          <p>
            Holds in {held.toLocaleString("en")} of {tried.toLocaleString("en")}
            {broken === null ? "" : `; first broken: seed ${broken.seed}`}
            {!running && took > 0 && <span className="quiet"> in {(took / 1000).toFixed(1)} s</span>}
          </p>
        </div>
      )}
      {isOfThis && refused !== null && <p className="attention">It cannot be run: {refused}.</p>}
      {isOfThis && broken !== null && (
        <div className="row-line">
          <span className="grow quiet mono">
            {broken.check} at frame {broken.frame}
          </span>
          <Button variant="plain" onClick={session.byChance.keepBroken}>
            Keep it as a log
          </Button>
        </div>
      )}
    </section>
  );
}
