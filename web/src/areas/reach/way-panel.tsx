import type { WayStep } from "@keen-pebble/core/analyse";
import type { World } from "@keen-pebble/core/world";
import { allFixtures, roomById } from "@keen-pebble/core/world";
import Button from "react-bootstrap/Button";
import { useNavigate } from "react-router";
import { useStore } from "zustand";
import { Icon } from "../../look/icon.tsx";
import { plural } from "../../look/plural.ts";
import { session } from "../../page-session.ts";
import type { WayTo } from "../../workers/reach.ts";
import { useIsOwnQuestion } from "./use-is-own-question.ts";

/** The way that is shown: what happens on it, and what may be done with it. */
export function WayPanel({ world }: { readonly world: World }) {
  const way = useStore(session.reach.store, (state) => state.way);
  const unit = useStore(session.reach.store, (state) => state.shown?.answer.unit ?? "moves");
  const navigate = useNavigate();
  if (way === null)
    return (
      <section className="reach-way" aria-label="The way">
        <h2>The way</h2>
        <p className="quiet">Click a cell of the plan or a thing of the list for the shortest way there.</p>
      </section>
    );
  const { found, never, title, heading, to } = way;
  if (found === null)
    return (
      <section className="reach-way" aria-label="The way">
        <h2>{title}</h2>
        <p className="attention">
          <Icon name="attention" /> {never === null ? "No way there is known." : `Never: ${never}.`}
        </p>
        {never !== null && way.target !== null && (
          <Fixes ask="What would open it" none="No single change that was tried opens it." />
        )}
        {never !== null && <KeepUnreachable world={world} to={to} />}
        <AskFromHere world={world} to={to} />
      </section>
    );
  const keep = (): void => {
    const log = session.reach.keepWay();
    if (log !== null) void navigate(`../bench?${new URLSearchParams({ log }).toString()}`, { relative: "path" });
  };
  return (
    <section className="reach-way" aria-label="The way">
      <div className="row-line">
        <h2 className="grow">{heading}</h2>
        <span className="mono quiet">{plural(found.way.moves, unit.slice(0, -1))}</span>
      </div>
      <WaySteps world={world} steps={found.played.steps} moves={found.way.moves} />
      <div className="row-line way-acts">
        <Button variant="main" onClick={session.reach.play}>
          <Icon name="play" /> Play
        </Button>
        <Button variant="plain" onClick={() => void session.reach.keepWay()}>
          Keep as a log
        </Button>
        <Button variant="plain" onClick={keep} title="Keeps it as a log and opens it on the Bench">
          To the Bench
        </Button>
      </div>
      <AskFromHere world={world} to={to} />
      {way.target !== null && (
        <Fixes ask="What would fix it" none="No single change of a side or of what stands in the rooms fixes it." />
      )}
    </section>
  );
}

/** Of a thing that is never reached, and should not be: keeps that as a check of all play. */
function KeepUnreachable({ world, to }: { readonly world: World; readonly to: WayTo }) {
  const isOwn = useIsOwnQuestion(world);
  if (to.kind !== "fixture" || !isOwn) return null;
  const check = `unreachable ${allFixtures(world)[to.fixture]?.id}`;
  if (world.reachChecks.includes(check)) return null;
  return (
    <Button variant="plain" title={check} onClick={() => session.reach.addChecks([check])}>
      Add as a check
    </Button>
  );
}

/** Of a cell: what can be reached from there. */
function AskFromHere({ world, to }: { readonly world: World; readonly to: WayTo }) {
  if (to.kind !== "cell") return null;
  const room = world.rooms[to.room];
  if (room === undefined) return null;
  const cell = [to.cell % room.width, Math.floor(to.cell / room.width)] as const;
  return (
    <Button variant="plain" onClick={() => session.reach.askFrom(room.id, cell)}>
      Ask from here
    </Button>
  );
}

/** The single changes that would open the way or fix the loss, tried on a copy when one asks. */
function Fixes({ ask, none }: { readonly ask: string; readonly none: string }) {
  const fixes = useStore(session.reach.store, (state) => state.fixes);
  const trying = useStore(session.reach.store, (state) => state.trying);
  if (fixes === null)
    return (
      <Button variant="plain" onClick={() => void session.reach.tryFixes()}>
        {ask}
      </Button>
    );
  return (
    <div role="status">
      <ul className="openings" aria-label={ask}>
        {fixes.map((fix) => (
          <li key={fix.text}>
            <span className="grow">
              {fix.text} <span className="quiet">{fix.then}</span>
            </span>
            <Button variant="plain" onClick={() => session.reach.applyFix(fix)}>
              Apply
            </Button>
          </li>
        ))}
      </ul>
      {trying && <p className="quiet small">Trying single changes on a copy</p>}
      {!trying && fixes.length === 0 && <p className="quiet small">{none}</p>}
    </div>
  );
}

/** What happens on the way, each with its move; a click shows the walker there. */
function WaySteps({
  world,
  steps,
  moves,
}: {
  readonly world: World;
  readonly steps: readonly WayStep[];
  readonly moves: number;
}) {
  return (
    <ol className="way-steps" tabIndex={0} aria-label="What happens on the way">
      <li>
        <span className="grow">Start</span>
        <span className="mono quiet">0</span>
      </li>
      {steps.map((step) => (
        <li key={`${step.frame} ${step.event} ${step.subject ?? ""}`}>
          <button type="button" className="grow" onClick={() => session.reach.showFrame(step.frame)}>
            {stepText(world, step)}
          </button>
          <span className="mono quiet">{step.moves}</span>
        </li>
      ))}
      <li>
        <span className="grow">Arrive</span>
        <span className="mono quiet">{moves}</span>
      </li>
    </ol>
  );
}

function stepText(world: World, { event, subject }: WayStep): string {
  const name = subject ?? "";
  switch (event) {
    case "take":
      return `Take ${name}`;
    case "open":
      return `Open ${name}`;
    case "switch":
      return `Switch ${name}`;
    case "portal":
      return `Through ${name}`;
    case "enter":
      return `Into ${roomById(world, name)?.name ?? name}`;
    case "hurt":
      return `Hurt by ${name}`;
    case "respawn":
      return "Respawn";
    case "win":
      return "Win";
    default:
      return `Touch ${name}`;
  }
}
