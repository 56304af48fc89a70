import { session } from "../page-session.ts";
import { useEffect } from "react";
import type { LogFinding, Trial } from "@keen-pebble/core/analyse";
import type { Rules } from "@keen-pebble/core/world";
import { changeText } from "@keen-pebble/core/analyse";
import { Icon } from "../look/icon.tsx";
import { Pebble } from "../look/pebble.tsx";
import { useBench, useFixes, useProject } from "../use-session.ts";
import type { FixesState } from "../session/bench/fixes.ts";
import "./findings.css";
import { Progress } from "../look/progress.tsx";
import { BareButton } from "../look/bare-button.tsx";

/** Mistakes that are at work in the shown log, each with the cures that hold; and the search for what mends it. */
export function Findings({ rules }: { readonly rules: Rules }) {
  useEffect(session.fixes.showFindings, []);
  const findings = useFixes((state) => state.findings);
  const cures = useFixes((state) => state.cures);
  const search = useFixes((state) => state.search);
  const broken = useBench((state) => state.run !== null && session.fixes.isBroken());
  // Flags are for other things too: that nobody is stopped by one is told where something is wrong.
  const shown = (findings ?? [])
    .map((finding, i) => ({ finding, i }))
    .filter(({ finding }) => broken || finding.kind !== "unasked flag");
  if (!broken && shown.length === 0) return null;
  return (
    <section className="findings" aria-label="Findings">
      {shown.map(({ finding, i }) => (
        <Finding
          key={`${finding.kind} ${finding.path} ${i}`}
          finding={finding}
          cures={search === null ? (cures[i] ?? []) : []}
          rules={rules}
        />
      ))}
      {broken && search === null && (
        <button type="button" className="btn btn-plain mend" onClick={session.commands.bench.fix.act}>
          What would fix it <kbd>Y</kbd>
        </button>
      )}
      {search !== null && <Search search={search} rules={rules} />}
    </section>
  );
}

function Finding({
  finding,
  cures,
  rules,
}: {
  readonly finding: LogFinding;
  readonly cures: readonly Trial[];
  readonly rules: Rules;
}) {
  return (
    <div className="finding">
      <button
        type="button"
        className="finding-text"
        title={`Show frame ${finding.frame}`}
        onClick={() => {
          session.playing.pause();
          session.playing.showFrame(finding.frame);
        }}
      >
        <Icon name="attention" /> {finding.text}
      </button>
      {cures.length > 0 && (
        <div className="cures" role="group" aria-label="Fixes that hold">
          {cures.map((trial) => (
            <Cure key={JSON.stringify(trial.change)} trial={trial} rules={rules} />
          ))}
        </div>
      )}
    </div>
  );
}

function Search({ search, rules }: { readonly search: NonNullable<FixesState["search"]>; readonly rules: Rules }) {
  const { done, all, fixes, took } = search;
  const under = took === null;
  return (
    <div className="mends" aria-label="What would fix it" role="group">
      <div className="mends-head">
        <span role="status">
          {under
            ? `Tried ${done} of ${all}`
            : fixes.length === 0
              ? `None of ${all} single changes fixes it`
              : `${fixes.length} of ${all} single changes fix it`}
        </span>
        {!under && <span className="mono quiet">{(took / 1000).toFixed(2)} s</span>}
        <span className="grow" />
        <BareButton
          icon="close"
          name={under ? "Stop the search" : "Put the list away"}
          onClick={session.fixes.endSearch}
        />
      </div>
      {under && <Progress now={done} max={all} label="Changes tried" />}
      {!under && fixes.length === 0 && (
        <p className="fact">All its checks must hold and no other log may break. Two changes at once are not tried.</p>
      )}
      <ul className="mend-list">
        {fixes.map((trial) => (
          <li key={JSON.stringify(trial.change)}>
            <Cure trial={trial} rules={rules} />
          </li>
        ))}
      </ul>
    </div>
  );
}

/** A change that mends: pointed at it shows its walk as a ghost, pressed it is made. */
function Cure({ trial, rules }: { readonly trial: Trial; readonly rules: Rules }) {
  const world = useProject((state) => state.project?.world ?? null);
  return (
    <button
      type="button"
      className="cure"
      title="All checks hold and no other log breaks. Point at it to see the walk, press to make the change"
      onMouseEnter={() => session.fixes.showPreview(trial.change)}
      onMouseLeave={() => session.fixes.showPreview(null)}
      onFocus={() => session.fixes.showPreview(trial.change)}
      onBlur={() => session.fixes.showPreview(null)}
      onClick={() => session.fixes.fixWith(trial.change)}
    >
      <Pebble kind="pass" radius={4} label={null} /> {world && changeText(world, rules, trial.change)}
    </button>
  );
}
