import { Suspense, lazy } from "react";
import { session } from "../../page-session.ts";
import { Anatomy } from "../../anatomy/anatomy.tsx";
import { Field } from "../../field/field.tsx";
import { Kit } from "../../kit/kit.tsx";
import { MatchColours } from "../../kit/match-colours.tsx";
import { RoomText } from "../../kit/room-text.tsx";
import { ActFinder } from "../../look/act-finder.tsx";
import { LogSide } from "../../logs/log-side.tsx";
import { PebbleLine } from "../../pebble-line/pebble-line.tsx";
import { BringMapHere } from "../../elsewhere/bring-map-here.tsx";
import { BringRecordingHere } from "../../elsewhere/bring-recording-here.tsx";
import { useFileDrop } from "../../look/use-file-drop.ts";
import { useBench, useProject } from "../../use-session.ts";
import { useCommandKeys } from "../../look/use-commands.ts";
import { StatusLine } from "./status-line.tsx";
import "./bench.css";

const ProgramPane = lazy(() => import("./program-pane.tsx"));

/** The Bench: what happens in this frame, and why. */
export function BenchPage() {
  const side = useBench((state) => state.side);
  const showsProgram = useBench((state) => state.showsProgram && state.walk === null);
  const tileSize = useProject((state) => state.project?.world.tileSize ?? 16);
  const { over, handlers } = useFileDrop((files) => void session.board.takeLogsIn(files));
  useCommandKeys(session.commands.bench, session.walks.walkTakesKeys);
  return (
    <>
      <main className={`area bench${over ? " dropping" : ""}`} {...handlers}>
        <h1 className="visually-hidden">Bench</h1>
        <PebbleLine />
        {side === "room" ? <RoomText /> : side === "log" ? <LogSide /> : <Anatomy />}
        {showsProgram ? (
          <Suspense fallback={<section className="field" aria-label="Rules as a program" />}>
            <ProgramPane />
          </Suspense>
        ) : (
          <Field />
        )}
        <Kit />
      </main>
      <StatusLine />
      <LiveRegion />
      <MatchColours />
      <BringRecordingHere />
      <BringMapHere mapImport={session.mapImport} makes="room" tileSize={tileSize} />
      <ActFinder area="Bench" commands={session.commands.bench} isBusy={session.walks.walkTakesKeys}>
        While walking: arrows or WASD walk, E or Space uses, Q is spare, Esc stops.
      </ActFinder>
    </>
  );
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
