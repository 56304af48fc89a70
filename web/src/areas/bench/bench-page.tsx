import { useEffect, useRef } from "react";
import Button from "react-bootstrap/Button";
import { Link, useParams, useSearchParams } from "react-router";
import { Anatomy } from "../../anatomy/anatomy.tsx";
import { Field } from "../../field/field.tsx";
import { Kit } from "../../kit/kit.tsx";
import { MatchColours } from "../../kit/match-colours.tsx";
import { RoomText } from "../../kit/room-text.tsx";
import { KeyHelp } from "../../look/key-help.tsx";
import { Notice } from "../../look/notice.tsx";
import { TopBar } from "../../look/top-bar.tsx";
import { PebbleLine } from "../../pebble-line/pebble-line.tsx";
import { showAddress, startBench } from "../../session/bench.ts";
import { benchStore } from "../../session/bench-store.ts";
import { BENCH } from "../../session/commands.ts";
import { useBench, useCommandKeys, useProject } from "../../session/hooks.ts";
import { startMending } from "../../session/mending.ts";
import { closeProject, notice, openProject, projectStore } from "../../session/project-store.ts";
import { startSound } from "../../session/sound.ts";
import { followSheets } from "../../session/sheets.ts";
import { endWalk } from "../../session/walk.ts";
import { StatusLine } from "./status-line.tsx";
import "./bench.css";

/** The Bench: what happens in this frame, and why. */
export function BenchPage() {
  const { world: worldId = "" } = useParams();
  const phase = useProject((state) => state.phase);
  const message = useProject((state) => state.message);
  const typing = useBench((state) => state.typing);
  useOpenWorld(worldId);
  useAddress();
  useCommandKeys(BENCH);
  if (phase === "missing" || phase === "failed") {
    return (
      <div className="page">
        <TopBar area="bench" />
        <div className="area empty">
          <h1>{message}</h1>
          {phase === "missing" ? (
            <Link className="btn btn-main" to="/">
              To the Shelf
            </Link>
          ) : (
            <>
              <p className="quiet">Nothing is lost: what you did not see acknowledged is kept in this browser.</p>
              <Button variant="main" onClick={() => void openProject(worldId)}>
                Try again
              </Button>
            </>
          )}
        </div>
      </div>
    );
  }
  return (
    <div className="page">
      <TopBar area="bench" />
      <BenchNotice />
      <main className="area bench">
        <h1 className="visually-hidden">Bench</h1>
        <PebbleLine />
        {typing ? <RoomText /> : <Anatomy />}
        <Field />
        <Kit />
      </main>
      <StatusLine />
      <LiveRegion />
      <MatchColours />
      <KeyHelp area="Bench" commands={BENCH}>
        While walking: arrows or WASD walk, E or Space uses, Q is spare, Esc stops.
      </KeyHelp>
    </div>
  );
}

function BenchNotice() {
  const told = useProject((state) => state.notice);
  return <Notice told={told} onDismiss={() => notice(null)} />;
}

function useOpenWorld(worldId: string): void {
  useEffect(() => {
    const stops = [startBench(), startMending(), startSound(), followSheets()];
    void openProject(worldId);
    return () => {
      endWalk();
      for (const stop of stops) stop();
      closeProject();
    };
  }, [worldId]);
}

/** The address carries room, log and frame: read when a world was opened, written when they change. */
function useAddress(): void {
  const [query, setQuery] = useSearchParams();
  const first = useRef(query);
  // It is another function after each change of the address, and must not start the reading again.
  const write = useRef(setQuery);
  useEffect(() => {
    write.current = setQuery;
  }, [setQuery]);
  const phase = useProject((state) => state.phase);
  useEffect(() => {
    const { project } = projectStore.getState();
    if (phase !== "ready" || project === null) return;
    const asked = first.current.get("f");
    const frame = asked !== null && /^\d{1,9}$/.test(asked) ? Number(asked) : null;
    const fault = showAddress(project, first.current.get("room"), first.current.get("log"), frame);
    if (fault !== null) notice(fault);
    let timer: ReturnType<typeof setTimeout> | undefined;
    const stop = benchStore.subscribe(({ room, log, frame: shown, walk, playing }) => {
      // Browsers count how often an address changes; while it plays it would be too often.
      clearTimeout(timer);
      if (walk !== null || playing) return;
      timer = setTimeout(() => write.current({ room, ...(log === null ? {} : { log }), f: String(shown) }, { replace: true }), 150);
    });
    return () => {
      stop();
      clearTimeout(timer);
    };
  }, [phase]);
}

/** Tells a screen reader what the shown frame holds once it stands still. */
function LiveRegion() {
  const text = useBench((state) => {
    if (state.playing || state.walk !== null || state.explanation === null) return "";
    const { frame, events, stoppedBy } = state.explanation;
    const stop = stoppedBy === null ? "" : `, cell ${stoppedBy.cx} ${stoppedBy.cy} stops the walker`;
    return `Frame ${frame}${events.length > 0 ? `: ${events.join(", ")}` : ""}${stop}`;
  });
  return (
    <div className="visually-hidden" role="status">
      {text}
    </div>
  );
}
