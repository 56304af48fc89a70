import type { Check, Verdict } from "@keen-pebble/core/check";
import { checkFault, checkText, parseCheck } from "@keen-pebble/core/check";
import { benchStore } from "../bench/bench-store.ts";
import { changeShownLog } from "./log-edits.ts";
import { projectStore, simulationClient } from "../project/project.ts";

/** Whether a check of the shown log can be written now. */
export function canWriteCheck(): boolean {
  const { run, walk } = benchStore.getState();
  return run !== null && walk === null;
}

/** Begins to write a check, or goes on with one that the log has. */
export function beginCheck(replaces: number | null = null): void {
  const check = replaces === null ? undefined : benchStore.getState().parsed?.checks[replaces];
  benchStore.setState({ writing: { text: check === undefined ? "" : checkText(check), replaces: check === undefined ? null : replaces } });
}

export function endCheck(): void {
  benchStore.setState({ writing: null });
}

const parsed = (text: string): Check | null => {
  const result = parseCheck(text.split(" ").filter((word) => word !== ""));
  return "check" in result ? result.check : null;
};

/** Keeps the check that is written, as a new one or in the other's place; one that names what the world does not have is none. */
export function keepCheck(text: string): boolean {
  const check = parsed(text);
  const { project } = projectStore.getState();
  const { writing } = benchStore.getState();
  if (check === null || project === null || checkFault(project.world, text) !== null) return false;
  const replaces = writing?.replaces ?? null;
  const kept = changeShownLog((log) => ({ ...log, checks: replaces === null ? [...log.checks, check] : log.checks.map((each, i) => (i === replaces ? check : each)) }));
  if (kept) endCheck();
  return kept;
}

/** Takes one of the shown log's checks away. */
export function removeCheck(at: number): void {
  changeShownLog((log) => ({ ...log, checks: log.checks.filter((_, i) => i !== at) }));
}

/** Moves a check that names a frame to another one; a drag is undone as one. */
export function moveCheck(at: number, frame: number, stroke: string | null): void {
  changeShownLog((log) => ({ ...log, checks: log.checks.map((check, i) => (i === at && "frame" in check.when ? { ...check, when: { ...check.when, frame: Math.max(0, frame) } } : check)) }), stroke);
}

/** Checks that hold in the shown log and say something of the shown frame. */
export async function offerChecks(): Promise<readonly Check[]> {
  const { project } = projectStore.getState();
  const { log, frame } = benchStore.getState();
  const answer = project === null || log === null ? undefined : await simulationClient()?.checksTrueAt(project.logs.get(log)!, frame);
  return answer === undefined || "refused" in answer ? [] : answer;
}

/** What a check that is being written says to the shown log's run; null where it is not whole yet. */
export async function tryCheck(text: string): Promise<Verdict | null> {
  const check = parsed(text);
  const { project } = projectStore.getState();
  const { log } = benchStore.getState();
  const answer = check === null || project === null || log === null ? undefined : await simulationClient()?.verdictOf(project.logs.get(log)!, check);
  return answer === undefined || "refused" in answer ? null : answer;
}
