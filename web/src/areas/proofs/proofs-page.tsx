import type { Project } from "@keen-pebble/core/edit";
import { BringRecordingHere } from "../../elsewhere/bring-recording-here.tsx";
import { session } from "../../page-session.ts";
import { useCallback, useEffect, useMemo, useRef } from "react";
import Button from "react-bootstrap/Button";
import { useNavigate } from "react-router";
import { useShallow } from "zustand/react/shallow";
import { FileButton } from "../../look/file-button.tsx";
import { Icon } from "../../look/icon.tsx";
import { ActFinder } from "../../look/act-finder.tsx";
import { plural } from "../../look/plural.ts";
import { Tallies } from "../../look/tallies.tsx";
import { SideEdge, sideColumns, useSide } from "../../look/side-panel.tsx";
import { useFileDrop } from "../../look/use-file-drop.ts";
import { junitAddress } from "../../session/project/api-client.ts";
import type { BoardFilter, BoardRow } from "../../session/proofs/board.ts";
import { boardItems } from "../../session/proofs/board-order.ts";
import { boardRows, isFailing, pathDiffers, shownRows } from "../../session/proofs/board.ts";
import { useBench, useBoard, useProject, useProofs, useSaving } from "../../use-session.ts";
import { useCommandKeys } from "../../look/use-commands.ts";
import { Board } from "./board.tsx";
import { LogDetail } from "./log-detail.tsx";
import { ManyLogsPanel } from "./many-logs-panel.tsx";
import { ReachStrip } from "./reach-strip.tsx";
import { RandomWalksPanel } from "./random-walks-panel.tsx";
import "./proofs.css";
import { Segments } from "../../look/segments.tsx";
import Form from "react-bootstrap/Form";

/** Proofs: do all logs still hold after the last change? */
export function ProofsPage() {
  const project = useProject((state) => state.project);
  const worldId = useProject((state) => state.worldId);
  const proofs = useProofs((state) => state.proofs);
  const paths = useProofs((state) => state.paths);
  const filter = useBoard((state) => state.filter);
  const sought = useBoard((state) => state.sought);
  const side = useSide("detail");
  const navigate = useNavigate();
  const { over, handlers } = useFileDrop((files) => void session.board.takeLogsIn(files));
  const rows = useMemo(() => (project === null ? [] : boardRows(project, { proofs, paths })), [project, proofs, paths]);
  const order = useBoard(useShallow(({ byTag, descending, sort }) => ({ byTag, descending, sort })));
  const items = useMemo(
    () => boardItems(shownRows(rows, { filter, sought, ...order }), order),
    [rows, filter, sought, order],
  );
  const openOnBench = useCallback(
    () => void navigate({ pathname: `/w/${worldId ?? ""}/bench`, search: window.location.search }),
    [navigate, worldId],
  );
  useEffect(() => session.asked.openOnBench.answer(openOnBench), [openOnBench]);
  useCommandKeys(session.commands.proofs, session.walks.walkTakesKeys);
  if (project === null) return <main className="area" />;
  const longest = Math.max(0, ...rows.map(({ proof }) => proof?.frames ?? 0));
  return (
    <>
      <main className={`area proofs${over ? " dropping" : ""}`} style={sideColumns(null, side)} {...handlers}>
        <h1 className="visually-hidden">Proofs</h1>
        <Tools rows={rows} filter={filter} sought={sought} />
        <div className="board-box">
          {project.world.reachChecks.length > 0 && <ReachStrip />}
          {rows.length === 0 ? (
            <div className="empty">
              <h2>No logs yet.</h2>
              <p className="quiet">
                Press R on the Bench, walk, and keep the walk. Or drop .inputs files here, or what your game wrote down
                of the keys that were pressed (CSV, JSON Lines).
              </p>
            </div>
          ) : (
            <>
              <Board items={items} longest={longest} onOpen={openOnBench} />
              {items.length === 0 && <p className="quiet board-none">No log is like that.</p>}
            </>
          )}
          <LogDrop />
        </div>
        {!side.folded && <Detail project={project} rows={rows} onOpen={openOnBench} />}
        <SideEdge name="detail" />
      </main>
      <Status rows={rows} />
      <BringRecordingHere />
      <ActFinder area="Proofs" commands={session.commands.proofs} isBusy={session.walks.walkTakesKeys}>
        A pebble of the last runs compares all paths with its revision. Files of logs may be dropped anywhere.
      </ActFinder>
    </>
  );
}

/** What stands beside the board: the shown log, or random walks. */
function Detail({
  project,
  rows,
  onOpen,
}: {
  readonly project: Project;
  readonly rows: readonly BoardRow[];
  readonly onOpen: () => void;
}) {
  const chosen = useBoard((state) => state.chosen);
  const beside = useBoard((state) => state.beside);
  const log = useBench((state) => state.log);
  if (beside === "wander") return <RandomWalksPanel world={project.world} />;
  const together = rows.filter((row) => chosen.has(row.log));
  if (together.length > 0) return <ManyLogsPanel rows={together} world={project.world} />;
  if (log === null || project.logs.get(log) === undefined) return <aside className="proof-detail" />;
  return <LogDetail key={log} id={log} onOpen={onOpen} />;
}

function Tools({
  rows,
  filter,
  sought,
}: {
  readonly rows: readonly BoardRow[];
  readonly filter: BoardFilter;
  readonly sought: string;
}) {
  const worldId = useProject((state) => state.worldId);
  const saving = useSaving();
  const search = useRef<HTMLInputElement>(null);
  useEffect(() => session.asked.searchLogs.answer(() => search.current?.focus()), []);
  return (
    <div className="proof-tools">
      <Segments
        label="Show"
        value={filter}
        choices={[
          { value: "all", name: `All ${rows.length}` },
          { value: "failing", name: `Failing ${rows.filter(isFailing).length}` },
          { value: "path", name: `Path differs ${rows.filter(pathDiffers).length}` },
        ]}
        onValue={session.board.chooseFilter}
      />
      <label className="search">
        <Icon name="search" />
        <Form.Control
          ref={search}
          type="search"
          aria-label="Search"
          placeholder="Log, tag or check"
          value={sought}
          onChange={(event) => session.board.store.setState({ sought: event.target.value })}
        />
      </label>
      <ByTag />
      <span className="grow" />
      <Tallies verdicts={rows.flatMap(({ proof }) => proof?.checks ?? [])} />
      <span className="bar" />
      <Button
        variant="plain"
        title={`${session.commands.proofs.randomWalks.name} (W)`}
        onClick={session.commands.proofs.randomWalks.act}
      >
        <Icon name="walk" /> Random walks
      </Button>
      <a
        className={`btn btn-plain${saving.state === "saved" ? "" : " disabled"}`}
        href={worldId === null ? undefined : junitAddress(worldId)}
        download
        title="The outcomes of the newest revision as JUnit XML"
      >
        <Icon name="takeHome" /> JUnit XML
      </a>
      <ServerRun />
    </div>
  );
}

/** Puts logs with the same tag together. */
function ByTag() {
  const byTag = useBoard((state) => state.byTag);
  return (
    <Button
      variant="plain"
      aria-pressed={byTag}
      className={byTag ? "active" : ""}
      title={`${session.commands.proofs.byTag.name} (T)`}
      onClick={session.commands.proofs.byTag.act}
    >
      By tag
    </Button>
  );
}

/** Runs all logs on the server, or takes that back. */
function ServerRun() {
  const server = useProofs((state) => state.server);
  const running = server?.state === "running";
  return (
    <Button
      variant={running ? "plain" : "main"}
      title={running ? "Cancel the server's run (S)" : "All logs of the saved revision, by the server (S)"}
      onClick={() => void session.proofs.runOnServer()}
    >
      <Icon name={running ? "close" : "play"} />{" "}
      {running ? `${server.done} of ${server.total}, stop` : "Run on the server"}
    </Button>
  );
}

/** Where files of logs are dropped, or chosen. */
function LogDrop() {
  return (
    <div className="log-drop">
      <Icon name="bringIn" />
      <span>Drop .inputs files here, or what your game wrote down (CSV, JSON Lines). Each is run at once.</span>
      <FileButton
        name="Logs to take in"
        accept=".inputs,.csv,.tsv,.jsonl"
        multiple
        onFiles={(files) => void session.board.takeLogsIn(files)}
      >
        Choose
      </FileButton>
    </div>
  );
}

function Status({ rows }: { readonly rows: readonly BoardRow[] }) {
  const { revision } = useSaving();
  const { done, total, took, reached, server } = useProofs((state) => state);
  const frames = rows.reduce((sum, { proof }) => sum + (proof?.frames ?? 0), 0);
  const checks = rows.reduce((sum, { proof }) => sum + (proof?.checks.length ?? 0), 0);
  return (
    <footer className="status">
      <span>
        Revision <b className="mono">{revision}</b>
      </span>
      <span className="bar" />
      <span>
        {plural(rows.length, "log")}, <b className="mono">{frames.toLocaleString("en")}</b> frames,{" "}
        <b className="mono">{checks}</b> checks;{" "}
        {took === null
          ? `running ${done} of ${total}`
          : `the last look at ${plural(total, "log")} took ${Math.round(took)} ms`}
      </span>
      <span className="bar" />
      <span>
        {!reached
          ? "The server does not answer; this page's own proofs go on"
          : server === null
            ? "The server has not been asked yet"
            : serverText(server)}
      </span>
      <span className="grow" />
      <span>Enter opens the frame on the Bench</span>
    </footer>
  );
}

function serverText({
  state,
  revision,
  done,
  total,
  holds,
}: {
  readonly state: string;
  readonly revision: number;
  readonly done: number;
  readonly total: number;
  readonly holds: number;
}): string {
  switch (state) {
    case "running":
      return `Server at revision ${revision}: ${done} of ${total}`;
    case "done":
      return holds === total
        ? `Server run of revision ${revision}: all hold`
        : `Server run of revision ${revision}: ${holds} of ${total} hold`;
    case "none":
      return "The server has not run them yet";
    case "failed":
      return `Server run of revision ${revision} could not be finished: run it again`;
    default:
      return `Server run of revision ${revision}: cancelled at ${done} of ${total}`;
  }
}
