import { mistakesIn, roundPx, rulesDifferences, walkFeel } from "@keen-pebble/core/analyse";
import type { FoundRules, WalkFeel } from "@keen-pebble/core/analyse";
import type { Rules, World } from "@keen-pebble/core/world";
import { GAITS, rulesById } from "@keen-pebble/core/world";
import { Suspense, lazy, useMemo, useState } from "react";
import Button from "react-bootstrap/Button";
import Table from "react-bootstrap/Table";
import { useStore } from "zustand";
import { FileButton } from "../look/file-button.tsx";
import { Icon } from "../look/icon.tsx";
import { BareButton } from "../look/bare-button.tsx";
import { plural } from "../look/plural.ts";
import { Progress } from "../look/progress.tsx";
import { ToggleField } from "../look/toggle-field.tsx";
import { PlaceAnswers } from "../look/place-answers.tsx";
import { session } from "../page-session.ts";
import type { GameGhost } from "../session/elsewhere/own-game.ts";
import { useBench } from "../use-session.ts";
import "./game-panel.css";

const ApartCharts = lazy(() => import("./apart-charts.tsx"));

/** The walk of a game of one's own beside ours: where it differs, how it is read, how both feel, and by which rules it goes. */
export function GamePanel({ world }: { readonly world: World }) {
  const ghost = useBench((state) => state.gameGhost);
  if (ghost === null) return <NoTrace />;
  return (
    <div className="game-panel">
      <Outcome ghost={ghost} />
      <ReadAs ghost={ghost} world={world} />
      <Feels ghost={ghost} />
      <Charts ghost={ghost} />
      <WhichRules world={world} />
    </div>
  );
}

const ACCEPT = ".csv,.tsv,.jsonl,.inputs";
const take = (files: readonly File[]): void => void session.board.takeLogsIn(files);

function NoTrace() {
  return (
    <div className="game-panel">
      <h3>Your own game</h3>
      <p className="quiet">
        Let it write a row a frame of where its walker is, and of the keys, as CSV or JSON Lines. Drop the file here:
        its walk lies beside ours, the first frame that differs is marked, and the rules that it goes by can be looked
        for.
      </p>
      <FileButton name="A trace of your game" accept={ACCEPT} onFiles={take}>
        Choose a file
      </FileButton>
    </div>
  );
}

/** The file, and the first frame that differs, in words. */
function Outcome({ ghost }: { readonly ghost: GameGhost }) {
  const { conformance, text, file, game } = ghost;
  const { first, compared, farthest } = conformance;
  return (
    <section aria-label="Compared with your game">
      <div className="row-line">
        <h3 className="grow cut" title={file.name}>
          {file.name}
        </h3>
        <BareButton icon="again" name="Read the file again" onClick={() => void session.ownGame.readAgain()} />
        <BareButton icon="close" name="Close the comparison" onClick={session.ownGame.remove} />
      </div>
      {first === null ? (
        <p>
          Within {game.tolerance} px in all {plural(compared, "frame")} that both have; {roundPx(farthest)} px apart at
          the most.
        </p>
      ) : (
        <p>
          <button type="button" className="link" onClick={() => showFrame(first.frame)}>
            First differs at frame {first.frame}
          </button>
          <br />
          {text}
        </p>
      )}
    </section>
  );
}

function showFrame(frame: number): void {
  session.playing.pause();
  session.playing.showFrame(frame);
}

/** How it is read; changed in place where the world keeps it. */
function ReadAs({ ghost: { game }, world }: { readonly ghost: GameGhost; readonly world: World }) {
  if (!world.games.some(({ id }) => id === game.id)) return <p className="quiet">Read as a trace of Keen Pebble.</p>;
  return (
    <section aria-label="How it is read" className="read-as">
      <h3>Read as {game.name}</h3>
      <PlaceAnswers game={game} onAnswer={(answer) => void session.ownGame.readAs({ ...game, ...answer })} />
    </section>
  );
}

const FEEL_ROWS: readonly (readonly [string, string, (feel: WalkFeel) => number | null])[] = [
  ["First motion", "fr", ({ framesToMove }) => framesToMove],
  ...(["Left", "Right", "Up", "Down"] as const).map(
    (name, i) => [name, "px/fr", (feel: WalkFeel) => px(feel.straight[i]!)] as const,
  ),
  ["Diagonal", "px/fr", ({ diagonal }) => px(diagonal)],
  ["To stop", "fr", ({ framesToStop }) => framesToStop],
];
const px = (units: number | null): number | null => (units === null ? null : Number(roundPx(units)));

/** Both walks' feel numbers, measured in the walks themselves. */
function Feels({ ghost: { rows, run } }: { readonly ghost: GameGhost }) {
  const [ours, theirs] = useMemo(
    () => [walkFeel(run.rows, run.rows.keys), walkFeel(rows, run.rows.keys)] as const,
    [rows, run],
  );
  return (
    <Table aria-label="Feel numbers of both walks" className="both-feels">
      <thead>
        <tr>
          <th scope="col">In this walk</th>
          <th scope="col">Ours</th>
          <th scope="col">Yours</th>
          <th scope="col">
            <span className="visually-hidden">Unit</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {FEEL_ROWS.map(([name, unit, of]) => (
          <tr key={name} className={of(ours) === of(theirs) ? "" : "differs"}>
            <th scope="row">{name}</th>
            <td className="mono">{of(ours) ?? "none"}</td>
            <td className="mono">{of(theirs) ?? "none"}</td>
            <td className="quiet">{unit}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

/** Distance and speeds over frames, on demand. */
function Charts({ ghost }: { readonly ghost: GameGhost }) {
  const [shown, setShown] = useState(false);
  return (
    <section aria-label="Charts">
      <ToggleField label="Charts of distance and speeds" value={shown} onValue={setShown} />
      {shown && (
        <Suspense fallback={<div className="apart-charts" />}>
          <ApartCharts ghost={ghost} />
        </Suspense>
      )}
    </section>
  );
}

/** Which rules the game goes by: searched in workers, ranked. */
function WhichRules({ world }: { readonly world: World }) {
  const { phase, tried, took, found, refused, traces } = useStore(session.whichRules.store);
  const parsed = useBench((state) => state.parsed);
  const base = rulesById(world, parsed?.rules ?? world.activeRules) ?? world.rules[0]!;
  const best = found[0];
  return (
    <section aria-label="Which rules am I?">
      <h3>Which rules am I?</h3>
      {phase === "searching" ? (
        <Button variant="plain" onClick={session.whichRules.cancel}>
          <Icon name="close" /> Cancel
        </Button>
      ) : (
        <Button variant="plain" onClick={() => void session.whichRules.search()}>
          <Icon name="search" /> Look for them
        </Button>
      )}
      {phase !== "none" && (
        <div role="status">
          {phase === "searching" && best && <Progress now={best.agreed} max={best.frames} label="Frames that agree" />}
          <p className="quiet small">
            {tried.toLocaleString("en")} rule sets tried in {(took / 1000).toFixed(1)} s
            {traces > 1 && `, on ${traces} traces of this game together`}
          </p>
        </div>
      )}
      {refused !== null && <p className="attention">{refused}</p>}
      <ol className="found-rules">
        {found.slice(0, 5).map((each) => (
          <FoundRow key={rowKey(each)} found={each} base={base} />
        ))}
      </ol>
    </section>
  );
}

const rowKey = ({ rules }: FoundRules): string =>
  `${rules.gait} ${rules.gait === "roam" || rules.gait === "drift" ? rules[rules.gait].response : ""}`;

function FoundRow({ found, base }: { readonly found: FoundRules; readonly base: Rules }) {
  const { rules, agreed, frames, first } = found;
  const mistakes = mistakesIn(rules);
  const differences = rulesDifferences(base, rules);
  return (
    <li>
      <div className="row-line">
        <strong className="grow">
          {GAITS[rules.gait].label}
          {mistakes.length > 0 && `: ${mistakes.join(", ")}`}
        </strong>
        <BareButton icon="check" name="Make a rule set of it" onClick={() => session.whichRules.keep(found)} />
      </div>
      <span className="quiet">
        {first === null ? `all ${frames} frames` : `${agreed} of ${frames} frames; first differs at ${first}`}
      </span>
      {differences.length === 0 ? (
        <span className="quiet">as {base.name}</span>
      ) : (
        differences.slice(0, 8).map(({ label, here, there }) => (
          <span key={label} className="small">
            {label} <span className="quiet">{here}</span> → {there}
          </span>
        ))
      )}
    </li>
  );
}
