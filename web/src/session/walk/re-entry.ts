import type { ReEntry } from "@keen-pebble/core/analyse";
import { mergeLines, writeLog } from "@keen-pebble/core/check";
import { createStore } from "zustand/vanilla";
import { freeSlug } from "../log/log-title.ts";
import { selectLog } from "../bench/shown-log.ts";
import { benchStore } from "../bench/bench-store.ts";
import { keepFor } from "../bench/fixtures.ts";
import { edit, onProject, projectStore, simulationClient } from "../project/project.ts";

/** The last re-entry test: under way, refused, given up after so many states, or what came of it. */
export type ReEntryState =
  | { readonly phase: "none" }
  | { readonly phase: "looking"; readonly room: string }
  | { readonly phase: "refused"; readonly room: string; readonly why: string }
  | { readonly phase: "not found"; readonly room: string; readonly states: number }
  | { readonly phase: "done"; readonly room: string; readonly result: ReEntry };

export const reEntryStore = createStore<ReEntryState>(() => ({ phase: "none" }));

/** Counts the tests: what was asked of an older world is dropped. */
let asked = 0;

/** What was tested is forgotten once the world or a log changes, or another world is opened. Gives back what stops that. */
export function startReEntry(): () => void {
  const stop = onProject(forget);
  return () => {
    stop();
    forget();
  };
}

function forget(): void {
  asked++;
  reEntryStore.setState({ phase: "none" }, true);
}

/** Leaves the room in which the shown frame is and comes back, and keeps what that changed. */
export async function testReEntry(): Promise<void> {
  const { project } = projectStore.getState();
  const { log, run, frame } = benchStore.getState();
  const client = simulationClient();
  if (project === null || log === null || run === null || client === null) return;
  const mine = ++asked;
  const room = project.world.rooms[run.rows.room[Math.min(frame, run.frames)]!]!.id;
  reEntryStore.setState({ phase: "looking", room }, true);
  const answer = await client.reEntry(project.logs.get(log)!, frame);
  if (mine !== asked) return;
  if ("refused" in answer) reEntryStore.setState({ phase: "refused", room, why: answer.refused }, true);
  else if (answer.found === null) reEntryStore.setState({ phase: "not found", room, states: answer.states }, true);
  else reEntryStore.setState({ phase: "done", room, result: answer.found }, true);
}

/** Keeps the way out and back as a log of its own, with the checks that it proves, and selects it. */
export function keepReEntry(): void {
  const { project } = projectStore.getState();
  const tested = reEntryStore.getState();
  if (project === null || tested.phase !== "done") return;
  const { result, room } = tested;
  const title = `Out of ${room} and back`;
  const id = freeSlug(title, [...project.logs.keys()]);
  if (edit({ kind: "add-log", log: id, text: writeLog({ ...result.log, title, lines: mergeLines(result.log.lines) }) })) selectLog(id, result.to);
}

/** Lets a fixture keep what happened to it for the whole run. */
export function keepForTheRun(fixture: string): void {
  keepFor(fixture, "run");
}
