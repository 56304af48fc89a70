import type { Actor, Phase } from "@keen-pebble/core/world";
import { LIMITS, PATH_THEN, PHASE_DOES, PHASE_SAYS } from "@keen-pebble/core/world";
import Button from "react-bootstrap/Button";
import { BareButton } from "../look/bare-button.tsx";
import { SelectField } from "../look/select-field.tsx";
import { ToggleField } from "../look/toggle-field.tsx";
import { session } from "../page-session.ts";
import { useBench } from "../use-session.ts";
import { KitField } from "./kit-field.tsx";

const THEN_NAMES = { round: "on to the first", stop: "stays there", back: "back the same way" } as const;

/** The phases of an actor, one after the other; after the last the first. */
export function ActorPlan({ actor, shown }: { readonly actor: Actor; readonly shown: number | null }) {
  return (
    <>
      <ol className="plan" aria-label="Plan">
        {actor.plan.map((phase, at) => (
          <PhaseFields key={at} actor={actor} phase={phase} at={at} isShown={at === shown} />
        ))}
      </ol>
      <Button
        variant="plain"
        size="sm"
        disabled={actor.plan.length === LIMITS.phases[1]}
        onClick={session.actors.addPhase}
      >
        Add a phase
      </Button>
    </>
  );
}

interface PhaseProps {
  readonly actor: Actor;
  readonly phase: Phase;
  readonly at: number;
  /** It is under way in the shown frame. */
  readonly isShown: boolean;
}

function PhaseFields({ actor, phase, at, isShown }: PhaseProps) {
  const becomes = (value: string): void => {
    session.actors.changePhase(at, ({ frames }) =>
      value === "path"
        ? { frames, do: "path", then: "back", cells: [actor.cell] }
        : { frames, do: value as Exclude<Phase["do"], "path"> },
    );
    session.actors.takeUp(value === "path" ? "path" : "choose", at);
  };
  return (
    <li aria-current={isShown ? "step" : undefined} className={isShown ? "shown" : ""}>
      <div className="row-line">
        <b className="mono">{at + 1}</b>
        <div className="grow">
          <SelectField
            label="It"
            value={phase.do}
            choices={PHASE_DOES.map((each) => [each, PHASE_SAYS[each]] as const)}
            onValue={becomes}
          />
        </div>
        {actor.plan.length > 1 && (
          <BareButton icon="bin" name={`Delete phase ${at + 1}`} onClick={() => session.actors.removePhase(at)} />
        )}
      </div>
      {phase.do === "path" && <PathFields actor={actor} phase={phase} at={at} />}
      <div className="fixture-settings">
        <ToggleField
          label="For ever"
          value={phase.frames === null}
          onValue={(ever) => session.actors.changePhase(at, (each) => ({ ...each, frames: ever ? null : 60 }))}
        />
        {phase.frames !== null && (
          <KitField
            label="Lasts"
            unit="fr"
            range={LIMITS.phaseFrames}
            value={phase.frames}
            onValue={(frames, stroke) => session.actors.changePhase(at, (each) => ({ ...each, frames }), stroke)}
          />
        )}
      </div>
    </li>
  );
}

/** How a path goes on after its last cell, and the drawing of it on the field. */
function PathFields({
  actor,
  phase,
  at,
}: {
  readonly actor: Actor;
  readonly phase: Extract<Phase, { readonly do: "path" }>;
  readonly at: number;
}) {
  const drawing = useBench((state) => state.actorPen === "path" && state.path === at);
  const change = (how: Partial<Pick<typeof phase, "then" | "cells">>): void =>
    session.actors.changePhase(at, (each) => (each.do === "path" ? { ...each, ...how } : each));
  return (
    <div className="fixture-settings">
      <SelectField
        label="Then"
        value={phase.then}
        choices={PATH_THEN.map((each) => [each, THEN_NAMES[each]] as const)}
        onValue={(then) => change({ then: then as (typeof PATH_THEN)[number] })}
      />
      <Button
        variant={drawing ? "main" : "plain"}
        size="sm"
        aria-pressed={drawing}
        onClick={() => session.actors.takeUp(drawing ? "choose" : "path", at)}
      >
        {drawing ? "Done drawing" : `Draw the path (${phase.cells.length})`}
      </Button>
      {drawing && (
        <Button variant="plain" size="sm" onClick={() => change({ cells: [actor.cell] })}>
          Start anew
        </Button>
      )}
    </div>
  );
}
