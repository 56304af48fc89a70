import type { World } from "@keen-pebble/core/world";
import { covers } from "@keen-pebble/core/world";
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
import type { BenchState } from "../../session/bench/bench-store.ts";
import { SideEdge, sideColumns, useSide } from "../../look/side-panel.tsx";
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
  const left = useSide("anatomy");
  const right = useSide("kit");
  // What was asked for beside the room is shown, wherever the anatomy is.
  const shownLeft = { ...left, folded: left.folded && side === "anatomy" };
  const { over, handlers } = useFileDrop((files) => void session.board.takeLogsIn(files));
  useCommandKeys(session.commands.bench, session.walks.walkTakesKeys);
  return (
    <>
      <main className={`area bench${over ? " dropping" : ""}`} style={sideColumns(shownLeft, right)} {...handlers}>
        <h1 className="visually-hidden">Bench</h1>
        <PebbleLine />
        {side === "room" ? <RoomText /> : side === "log" ? <LogSide /> : !left.folded && <Anatomy />}
        {showsProgram ? (
          <Suspense fallback={<section className="field" aria-label="Rules as a program" />}>
            <ProgramPane />
          </Suspense>
        ) : (
          <Field />
        )}
        {!right.folded && <Kit />}
        <SideEdge name="anatomy" />
        <SideEdge name="kit" />
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

/** What is in the cell of the cursor; null while there is none. */
function cursorText({ cursor, pointer, room: id }: BenchState, world: World | null): string | null {
  const room = world?.rooms.find((each) => each.id === id);
  if (cursor === "none" || pointer === null || world === null || room === undefined) return null;
  const [x, y] = [Math.floor(pointer.x / world.tileSize), Math.floor(pointer.y / world.tileSize)];
  const tile = world.tiles[room.cells[y * room.width + x]!]!;
  const standing = [
    ...room.fixtures.filter((each) => covers(each, [x, y])).map((each) => each.id),
    ...room.actors.filter(({ cell }) => cell[0] === x && cell[1] === y).map(({ id: actor }) => actor),
  ];
  return `Cell ${x} ${y}: ${[tile.name, ...tile.flags, ...standing].join(", ")}${cursor === "held" ? "; held down" : ""}`;
}

/** Tells a screen reader what the cell of the cursor holds, or the shown frame once it stands still. */
function LiveRegion() {
  const world = useProject((state) => state.project?.world ?? null);
  const text = useBench((state) => {
    const under = cursorText(state, world);
    if (under !== null) return under;
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
