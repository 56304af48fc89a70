import type { LogFinding, SingleChange, StopCell, Trial } from "@keen-pebble/core/analyse";
import type { Project } from "@keen-pebble/core/edit";
import type { Rules } from "@keen-pebble/core/world";
import { isFix, singleChanges } from "@keen-pebble/core/analyse";
import { logHolds } from "@keen-pebble/core/check";
import { rulesById } from "@keen-pebble/core/world";
import { createStore } from "zustand/vanilla";
import { changeRules } from "./rule-sets.ts";
import { benchStore } from "./bench-store.ts";
import { onProject, projectStore } from "../project/project.ts";
import { TrialPool } from "./trial-pool.ts";

/** What is wrong with the shown log's walk, and what would mend it. */
export interface FixesState {
  /** Mistakes at work in the log; null until they were looked for. */
  readonly findings: readonly LogFinding[] | null;
  /** By finding: its cures under which the log's checks hold, no other log breaks, and the finding is gone. */
  readonly cures: readonly (readonly Trial[])[];
  /** The search over every single change: under way, or done with what mends, smallest first. */
  readonly search: { readonly done: number; readonly all: number; readonly fixes: readonly Trial[]; readonly took: number | null } | null;
}

const NOTHING: FixesState = { findings: null, cures: [], search: null };

export const fixesStore = createStore<FixesState>(() => NOTHING);

/** A drag of a number makes a run every few ms: findings are looked for once it rests for so long. */
const REST_MS = 90;

let pool: TrialPool | null = null;
/** What the pool was begun with last. */
let begun: { readonly project: Project; readonly stops: readonly StopCell[] } | null = null;
let asked = 0;
let timer: ReturnType<typeof setTimeout> | undefined;

/** Looks for the findings of each new run, once it rests. Gives back what stops it. */
export function startFixes(): () => void {
  let seen = benchStore.getState().run;
  const stop = benchStore.subscribe(({ run, walk }) => {
    if (run === seen) return;
    const other = run?.log !== seen?.log;
    seen = run;
    asked++;
    begun = null;
    clearTimeout(timer);
    fixesStore.setState(other || run === null ? NOTHING : { search: null });
    benchStore.setState({ preview: null });
    if (run !== null && walk === null) timer = setTimeout(() => void look(), REST_MS);
  });
  // The pool follows the project by its steps, from when it is first needed.
  const stopFollowing = onProject((project, steps) => {
    if (steps === null) pool?.load(project);
    else pool?.apply(steps);
  });
  return () => {
    stop();
    stopFollowing();
    asked++;
    clearTimeout(timer);
    pool?.close();
    pool = null;
    begun = null;
    fixesStore.setState(NOTHING);
  };
}

/** The rule set that the shown log goes by. */
export function shownRules(): Rules | null {
  const { project } = projectStore.getState();
  const { parsed } = benchStore.getState();
  return project === null ? null : (rulesById(project.world, parsed?.rules ?? project.world.activeRules) ?? null);
}

/** The pool, with the project that is open. */
function poolOf(project: Project): TrialPool {
  if (pool === null) {
    pool = new TrialPool();
    pool.load(project);
  }
  return pool;
}

async function look(): Promise<void> {
  const mine = asked;
  const { project } = projectStore.getState();
  const { log } = benchStore.getState();
  if (project === null || log === null) return;
  const answer = await poolOf(project).begin(log);
  if (mine !== asked || pool === null) return;
  begun = { project, stops: answer?.stops ?? [] };
  const findings = answer?.findings ?? null;
  const all: Trial[][] = (findings ?? []).map(() => []);
  fixesStore.setState({ findings, cures: all });
  await pool.tryAll(
    // Two findings may name the same change.
    [...new Map((findings ?? []).flatMap((finding) => finding.cures).map((cure) => [JSON.stringify(cure), cure])).values()],
    (trials) => {
      if (mine !== asked) return false;
      for (const trial of trials) if (isFix(trial)) for (const i of trial.cures) if (isCureOf(findings![i]!, trial)) all[i]!.push(trial);
      return true;
    },
  );
  if (mine === asked) fixesStore.setState({ cures: all.map((cures, i) => inOrder(findings![i]!.cures, cures)) });
}

const isCureOf = (finding: LogFinding, { change }: Trial): boolean => finding.cures.some((cure) => JSON.stringify(cure) === JSON.stringify(change));

function inOrder(changes: readonly SingleChange[], trials: readonly Trial[]): Trial[] {
  const keys = changes.map((change) => JSON.stringify(change));
  return [...trials].sort((a, b) => keys.indexOf(JSON.stringify(a.change)) - keys.indexOf(JSON.stringify(b.change)));
}

/** Whether the shown log has a check that fails. */
export function isBroken(): boolean {
  const { run, walk } = benchStore.getState();
  return walk === null && run !== null && !logHolds(run.verdicts);
}

/** Tries every single change of the rules on the shown log (interface.md, "What mends it"). */
export async function searchFixes(): Promise<void> {
  const { project } = projectStore.getState();
  const rules = shownRules();
  const { log } = benchStore.getState();
  if (project === null || rules === null || log === null || !isBroken()) return;
  const mine = ++asked;
  clearTimeout(timer);
  const began = performance.now();
  const trials = poolOf(project);
  if (begun?.project !== project) {
    const answer = await trials.begin(log);
    if (mine !== asked) return;
    begun = { project, stops: answer?.stops ?? [] };
    fixesStore.setState({ findings: answer?.findings ?? null, cures: (answer?.findings ?? []).map(() => []) });
  }
  const changes = singleChanges(project.world, rules, (fixesStore.getState().findings ?? []).flatMap((finding) => finding.cures), begun.stops);
  const fixes: Trial[] = [];
  const tell = (done: number, took: number | null): void => fixesStore.setState({ search: { done, all: changes.length, fixes: inOrder(changes, fixes), took } });
  tell(0, null);
  await trials.tryAll(changes, (tried, done) => {
    if (mine !== asked) return false;
    fixes.push(...tried.filter(isFix));
    tell(done, null);
    return true;
  });
  if (mine !== asked) return;
  tell(changes.length, performance.now() - began);
  // The same search has tried the findings' cures too.
  const findings = fixesStore.getState().findings ?? [];
  fixesStore.setState({ cures: findings.map((finding, i) => inOrder(finding.cures, fixes.filter((trial) => trial.cures.includes(i) && isCureOf(finding, trial)))) });
}

/** Ends the search, or puts its list away. */
export function endSearch(): void {
  asked++;
  fixesStore.setState({ search: null });
  showPreview(null);
}

let wanted: SingleChange | null = null;

/** Draws the walk under a change as a ghost; null takes it away. */
export function showPreview(change: SingleChange | null): void {
  wanted = change;
  if (change === null || pool === null) {
    benchStore.setState({ preview: null });
    return;
  }
  void pool.rows(change).then((rows) => {
    if (wanted === change) benchStore.setState({ preview: rows });
  });
}

/** Makes a change that was found. */
export function fixWith(change: SingleChange): void {
  const rules = shownRules();
  showPreview(null);
  if (rules !== null) changeRules(rules.id, change);
}
