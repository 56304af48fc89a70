import type { ReEntry } from "@keen-pebble/core";
import { mergeLines, writeLog } from "@keen-pebble/core";
import { createStore } from "zustand/vanilla";
import { logIdFor } from "../logs/log-title.ts";
import { selectLog } from "./bench.ts";
import { benchStore } from "./bench-store.ts";
import { keepFor } from "./fixtures.ts";
import { edit, projectStore, simulationClient } from "./project-store.ts";

/** The last re-entry test: under way, without a way, or what came of it. */
export interface ReEntryState {
  readonly phase: "none" | "looking" | "no way" | "done";
  readonly room: string;
  readonly result: ReEntry | null;
}

const NOTHING: ReEntryState = { phase: "none", room: "", result: null };

export const reEntryStore = createStore<ReEntryState>(() => NOTHING);

/** Leaves the room in which the shown frame is and comes back, and keeps what that changed. */
export async function testReEntry(): Promise<void> {
  const { project } = projectStore.getState();
  const { log, run, frame } = benchStore.getState();
  const client = simulationClient();
  if (project === null || log === null || run === null || client === null) return;
  const room = project.world.rooms[run.rows.room[Math.min(frame, run.frames)]!]!.id;
  reEntryStore.setState({ phase: "looking", room, result: null });
  const result = await client.reEntry(project.logs.get(log)!, frame);
  if (result === null || "refused" in result) reEntryStore.setState({ phase: "no way", result: null });
  else reEntryStore.setState({ phase: "done", result });
}

/** Keeps the way out and back as a log of its own, and selects it. */
export function keepReEntry(): void {
  const { project } = projectStore.getState();
  const { result, room } = reEntryStore.getState();
  if (project === null || result === null) return;
  const title = `Out of ${room} and back`;
  const id = logIdFor(title, [...project.logs.keys()]);
  if (edit({ kind: "add-log", log: id, text: writeLog({ ...result.log, title, lines: mergeLines(result.log.lines) }) })) selectLog(id, result.to);
}

/** Lets a fixture keep what happened to it for the whole run. */
export function keepForTheRun(fixture: string): void {
  keepFor(fixture, "run");
  reEntryStore.setState(NOTHING);
}
