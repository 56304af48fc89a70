import { NEVER } from "@keen-pebble/core/analyse";
import type { World } from "@keen-pebble/core/world";
import { Suspense, lazy, useEffect } from "react";
import Button from "react-bootstrap/Button";
import { useStore } from "zustand";
import { ActFinder } from "../../look/act-finder.tsx";
import { Icon } from "../../look/icon.tsx";
import { plural } from "../../look/plural.ts";
import { SideEdge, sideColumns, useSide } from "../../look/side-panel.tsx";
import { useCommandKeys } from "../../look/use-commands.ts";
import { session } from "../../page-session.ts";
import { useProject } from "../../use-session.ts";
import type { ReachShown } from "../../workers/reach.ts";
import { LostList } from "./lost-list.tsx";
import { Question } from "./question.tsx";
import { ReachCanvas } from "./reach-canvas.tsx";
import { ReachChecks } from "./reach-checks.tsx";
import { ThingList } from "./thing-list.tsx";
import { TINTS, farthestOf, tintStep } from "./tints.ts";
import { WayPanel } from "./way-panel.tsx";
import "./reach.css";

const MovesChart = lazy(() => import("./moves-chart.tsx"));

/** Reach: what can be reached at all, in how many moves, and where does one get stuck? */
export function ReachPage() {
  const world = useProject((state) => state.project?.world ?? null);
  const shown = useStore(session.reach.store, (state) => state.shown);
  const about = useStore(session.reach.store, (state) => state.world);
  const isOpen = world !== null;
  useEffect(() => (isOpen ? session.reach.watch() : undefined), [isOpen]);
  const left = useSide("question");
  const right = useSide("way");
  useCommandKeys(session.commands.reach, session.walks.walkTakesKeys);
  if (world === null) return <main className="area" />;
  const isFresh = about === world;
  return (
    <>
      <main className={`area reach${isFresh ? "" : " older"}`} style={sideColumns(left, right)}>
        <h1 className="visually-hidden">Reach</h1>
        <Sentence shown={shown} isFresh={isFresh} />
        {!left.folded && (
          <div className="reach-left">
            <Question world={world} />
            {shown !== null && about !== null && <Figures shown={shown} />}
            {shown !== null && about !== null && <ThingList world={about} shown={shown} />}
            {shown !== null && about !== null && <LostList world={about} shown={shown} />}
          </div>
        )}
        <ReachCanvas />
        <Legend shown={shown} />
        {!right.folded && (
          <div className="reach-right">
            <WayPanel world={world} />
            {shown !== null && <ReachChecks world={world} shown={shown} />}
            {shown !== null && (
              <section aria-label="Cells by moves">
                <h2>Cells reached by number of {shown.answer.unit}</h2>
                <Suspense fallback={<div className="moves-chart" />}>
                  <MovesChart first={shown.answer.first} unit={shown.answer.unit} />
                </Suspense>
              </section>
            )}
          </div>
        )}
        <SideEdge name="question" />
        <SideEdge name="way" />
      </main>
      <Status world={world} shown={shown} />
      <ActFinder area="Reach" commands={session.commands.reach} isBusy={session.walks.walkTakesKeys}>
        A click on a cell or a thing shows the shortest way there; a drag moves the plan, the wheel zooms.
      </ActFinder>
    </>
  );
}

/** What the search came to in one sentence, to be pasted into a message. */
function Sentence({ shown, isFresh }: { readonly shown: ReachShown | null; readonly isFresh: boolean }) {
  const phase = useStore(session.reach.store, (state) => state.phase);
  const why = useStore(session.reach.store, (state) => state.why);
  const states = useStore(session.reach.store, (state) => state.states);
  const isLooking = phase === "looking";
  return (
    <div className="reach-sentence">
      <p role="status" className={`grow${phase === "refused" ? " attention" : ""}`}>
        {phase === "refused"
          ? `This cannot be searched: ${why}`
          : shown === null
            ? isLooking
              ? "Looking at all play there could be"
              : "Nothing was searched yet."
            : shown.sentence}
      </p>
      {isLooking ? (
        <>
          <span className="quiet">
            {shown !== null && !isFresh ? "as it was before; " : ""}
            {states.toLocaleString("en")} states
          </span>
          <Button variant="plain" onClick={session.reach.cancel}>
            Stop
          </Button>
        </>
      ) : (
        <>
          {!isFresh && shown !== null && <span className="attention">as it was before</span>}
          {shown !== null && (
            <Button
              variant="plain"
              title="Copies the sentence"
              onClick={() => void navigator.clipboard.writeText(shown.sentence)}
            >
              <Icon name="copy" /> Copy
            </Button>
          )}
          {!isFresh && (
            <Button variant="main" onClick={session.reach.askAgain}>
              Search
            </Button>
          )}
        </>
      )}
    </div>
  );
}

/** The three numbers that one looks at first. */
function Figures({ shown: { answer } }: { readonly shown: ReachShown }) {
  const { goal, unit, stuck } = answer;
  const never = answer.fixtures.filter((n) => n === NEVER).length;
  return (
    <dl className="reach-figures">
      <div>
        <dt>{goal === null ? "no goal" : `${unit} to the goal`}</dt>
        <dd>{goal === null ? "" : goal === NEVER ? "never" : goal < 0 ? "open" : goal}</dd>
      </div>
      <div>
        <dt>{stuck?.classes.length === 1 ? "way to get stuck" : "ways to get stuck"}</dt>
        <dd>{stuck?.classes.length ?? 0}</dd>
      </div>
      <div>
        <dt>{never === 1 ? "thing never reached" : "things never reached"}</dt>
        <dd>{never}</dd>
      </div>
    </dl>
  );
}

/** What the tints mean. */
function Legend({ shown }: { readonly shown: ReachShown | null }) {
  const step = shown === null ? 1 : tintStep(farthestOf(shown.answer.first));
  return (
    <div className="reach-legend" aria-hidden="true">
      {TINTS.map((tint, i) => (
        <span key={tint} className="tint">
          <i style={{ background: tint }} />
          {i * step}
        </span>
      ))}
      <span className="quiet">{shown?.answer.unit ?? "moves"} to the first arrival</span>
      <span className="never">
        <i /> never
      </span>
    </div>
  );
}

function Status({ world, shown }: { readonly world: World; readonly shown: ReachShown | null }) {
  if (shown === null) return <footer className="status" />;
  const { answer, took } = shown;
  const cells = answer.first.reduce((sum, each) => sum + each.filter((n) => n >= 0).length, 0);
  return (
    <footer className="status">
      <span>
        <b className="mono">{answer.states.toLocaleString("en")}</b> states in{" "}
        <b className="mono">{Math.round(took)} ms</b>, {answer.exhaustive ? "nothing is open" : "not all was looked at"}
      </span>
      <span className="bar" />
      <span>
        <b className="mono">{cells}</b> cells of {plural(world.rooms.length, "room")} reached
      </span>
      <span className="grow" />
      <span>Click a cell for the shortest way there</span>
    </footer>
  );
}
