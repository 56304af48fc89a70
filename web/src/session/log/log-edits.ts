import type { InputLog, LogLine } from "@keen-pebble/core/check";
import type { Refusal } from "@keen-pebble/core/world";
import { acceptWalk, cutLog, readLog, writeLog } from "@keen-pebble/core/check";
import { RefusedError } from "@keen-pebble/core/world";
import { freeSlug, logTitle } from "./log-title.ts";
import { selectLog } from "../bench/shown-log.ts";
import { benchStore } from "../bench/bench-store.ts";
import { change, edit, notice, projectStore, simulationClient } from "../project/project.ts";

/** Changes a log as a value; what it wrote before is what undo brings back. */
export function changeLog(id: string, how: (log: InputLog) => InputLog, stroke: string | null = null): boolean {
  const before = projectStore.getState().project?.logs.get(id);
  if (before === undefined) return false;
  try {
    const after = writeLog(how(readLog(before)));
    return after === before || edit({ kind: "change-log", log: id, before, after }, stroke);
  } catch (error) {
    if (!(error instanceof RefusedError)) throw error;
    notice(error.message);
    return false;
  }
}

/** Changes the shown log. */
export function changeShownLog(how: (log: InputLog) => InputLog, stroke: string | null = null): boolean {
  const { log } = benchStore.getState();
  return log !== null && changeLog(log, how, stroke);
}

/** Changes the lines of the shown log. */
export function changeShownLines(how: (lines: readonly LogLine[]) => readonly LogLine[]): boolean {
  return changeShownLog((log) => ({ ...log, lines: how(log.lines) }));
}

/**
 * Takes over a log as it is typed, once it is in order.
 * @returns what is not in order, by lines; the log then stays as it was
 */
export function layTypedLog(id: string, text: string, stroke: string): readonly Refusal[] {
  const before = projectStore.getState().project?.logs.get(id);
  if (before === undefined || before === text) return [];
  const faults = faultsOf(text);
  if (faults.length === 0) edit({ kind: "change-log", log: id, before, after: text }, stroke);
  return faults;
}

/** What of a log's text is not in order, by lines. */
export function faultsOf(text: string): readonly Refusal[] {
  try {
    readLog(text, "the log");
    return [];
  } catch (error) {
    if (error instanceof RefusedError) return error.refusals;
    throw error;
  }
}

/** Takes a log away; undo brings it back. */
export function takeLogAway(id: string): void {
  const text = projectStore.getState().project?.logs.get(id);
  if (text !== undefined) edit({ kind: "remove-log", log: id, text });
}

/** Copies a log under an id of its own, and selects the copy. */
export function copyLog(id: string): void {
  const logs = projectStore.getState().project?.logs;
  const text = logs?.get(id);
  if (logs === undefined || text === undefined) return;
  const title = `${logTitle(text, id)}, copy`.slice(0, 80);
  const copy = freeSlug(title, logs.keys());
  if (edit({ kind: "add-log", log: copy, text: writeLog({ ...readLog(text), title }) })) selectLog(copy);
}

/** Gives a log another id, which is its file's name; says why it cannot be, or null. */
export function renameLog(id: string, to: string): string | null {
  if (to === id) return null;
  if (!/^[a-z0-9-]{1,40}$/.test(to)) return "1 to 40 of a to z, 0 to 9 and -";
  if (projectStore.getState().project?.logs.has(to)) return `there is a log ${to} already`;
  const shown = benchStore.getState().log === id;
  const done = change((project) => {
    const text = project.logs.get(id);
    return text === undefined ? null : { ...project, logs: new Map([...[...project.logs].filter(([log]) => log !== id), [to, text]]) };
  });
  if (done && shown) selectLog(to, benchStore.getState().frame);
  return null;
}

/** Cuts everything behind the shown frame off the shown log. */
export function cutHere(): void {
  const { run, frame } = benchStore.getState();
  if (run !== null) changeShownLog((log) => cutLog(log, run.lineEnds, frame));
}

/** Whether there is something behind the shown frame that could be cut off. */
export function canCut(): boolean {
  const { run, frame, walk, refused } = benchStore.getState();
  return walk === null && refused === null && run !== null && frame > 0 && frame < run.frames;
}

/** Accepts the log's present walk, with a reason: "this is how it should walk". */
export async function acceptLog(id: string, reason: string): Promise<void> {
  const text = projectStore.getState().project?.logs.get(id);
  const answer = text === undefined ? undefined : await simulationClient()?.fingerprint(text);
  if (answer === undefined) return;
  if (typeof answer !== "string") notice(answer.refused);
  else if (changeLog(id, (log) => acceptWalk(log, answer, reason))) notice(`Accepted: later runs say whether they walk just so.`, "info");
}

/** Accepts no walk of the log any more. */
export function acceptNone(id: string): void {
  changeLog(id, (log) => acceptWalk(log, null, ""));
}
