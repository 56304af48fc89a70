import type { RandomWalkTask, RandomWalkFinding } from "@keen-pebble/core/analyse";
import { session } from "../../page-session.ts";
import type { World } from "@keen-pebble/core/world";
import Button from "react-bootstrap/Button";
import { useStore } from "zustand";
import { Icon } from "../../look/icon.tsx";
import { plural } from "../../look/plural.ts";
import { Progress } from "../../look/progress.tsx";
import { SelectField } from "../../look/select-field.tsx";
import { TextField } from "../../look/text-field.tsx";
import { BareButton } from "../../look/bare-button.tsx";

/** Random walks: seeded inputs look for broken laws, and what breaks one is offered as a short log. */
export function RandomWalksPanel({ world }: { readonly world: World }) {
  const { asked, rules, phase, walked, took, findings, refused } = useStore(session.randomWalks.store);
  const walking = phase === "walking";
  return (
    <aside className="proof-detail" aria-label="Random walks">
      <div className="row-line detail-head">
        <h2 className="grow">Random walks</h2>
        <BareButton
          icon="close"
          name="Back to the log"
          title="Back to the log (W)"
          onClick={() => session.board.store.setState({ beside: "log" })}
        />
      </div>
      <div className="detail-scroll wander">
        <p className="quiet">
          Seeded inputs, pressed as somebody does who tries the world out, look for broken laws: the world&apos;s own,
          and those of the gait.
        </p>
        <WalkFields asked={asked} rules={rules ?? world.activeRules} world={world} disabled={walking} />
        <p className="quiet">Laws: {[...world.laws, ...GAIT_LAWS].join("; ")}.</p>
        {phase !== "none" && (
          <div role="status">
            <Progress now={walked} max={asked.runs} label="Walks done" />
            <p>
              {walked} of {plural(asked.runs, "walk")}
              {took > 0 && `, ${(took / 1000).toFixed(1)} s`}
              {phase === "done" && findings.length === 0 && refused === null && ": no law broken"}
            </p>
          </div>
        )}
        {refused !== null && <p className="attention">Nobody can walk here yet: {refused}.</p>}
        <BrokenLaws findings={findings} />
      </div>
      <div className="row-line detail-foot">
        {walking ? (
          <Button variant="plain" onClick={session.randomWalks.stopRandomWalks}>
            <Icon name="close" /> Cancel
          </Button>
        ) : (
          <Button variant="main" onClick={() => void session.randomWalks.randomWalks()}>
            <Icon name="walk" /> Start
          </Button>
        )}
      </div>
    </aside>
  );
}

/** How many walks, how long, from which seed, under which rules. */
function WalkFields({
  asked,
  rules,
  world,
  disabled,
}: {
  readonly asked: RandomWalkTask;
  readonly rules: string;
  readonly world: World;
  readonly disabled: boolean;
}) {
  const number = (label: string, key: keyof RandomWalkTask, min: number, max: number) => (
    <TextField
      label={label}
      type="number"
      value={asked[key]}
      min={min}
      max={max}
      disabled={disabled}
      onChange={(event) => {
        const typed = Math.round(Number(event.target.value)) || min;
        session.randomWalks.askRandomWalks({ [key]: Math.max(min, Math.min(max, typed)) });
      }}
    />
  );
  return (
    <div className="wander-fields">
      {number("Walks", "runs", 1, 1_000_000)}
      {number("Frames", "frames", 1, 100_000)}
      {number("Seed", "seed", 0, 2_000_000_000)}
      <SelectField
        label="Rules"
        value={rules}
        choices={world.rules.map(({ id, name }) => [id, name] as const)}
        disabled={disabled}
        onValue={session.randomWalks.chooseRandomWalkRules}
      />
    </div>
  );
}

/** What was found, each to be kept as a log. */
function BrokenLaws({ findings }: { readonly findings: readonly RandomWalkFinding[] }) {
  return (
    <ul className="wander-found" aria-label="Broken laws">
      {findings.map((finding) => (
        <li key={finding.law}>
          <strong>{finding.law}</strong>
          <span className="quiet">
            in frame {finding.frame}
            {finding.foundAt > finding.frame && `, shrunk from ${finding.foundAt}`}; seed {finding.seed}
          </span>
          <Button variant="plain" onClick={() => session.randomWalks.keepFinding(finding)}>
            Keep it as a log
          </Button>
        </li>
      ))}
    </ul>
  );
}

const GAIT_LAWS = [
  "no new overlap",
  "on the grid at rest",
  "never outside",
  "no escape",
  "every leg ends",
  "nothing held against nothing",
];
