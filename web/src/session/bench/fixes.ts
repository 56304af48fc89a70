import type { BenchStore, ShownRun } from "./bench-store.ts";
import type { ProjectSession } from "../project/project.ts";
import type { RuleSets } from "./rule-sets.ts";
import type { LogFinding, SingleChange, StopCell, Trial } from "@keen-pebble/core/analyse";
import type { Project } from "@keen-pebble/core/edit";
import type { Rules } from "@keen-pebble/core/world";
import { isFix, singleChanges } from "@keen-pebble/core/analyse";
import { logHolds } from "@keen-pebble/core/check";
import { rulesById } from "@keen-pebble/core/world";
import { createStore } from "zustand/vanilla";
import { TrialPool } from "./trial-pool.ts";

/** What is wrong with the shown log's walk, and what would mend it. */
export interface FixesState {
  /** Mistakes at work in the log; null until they were looked for. */
  readonly findings: readonly LogFinding[] | null;
  /** By finding: its cures under which the log's checks hold, no other log breaks, and the finding is gone. */
  readonly cures: readonly (readonly Trial[])[];
  /** The search over every single change: under way, or done with what mends, smallest first. */
  readonly search: {
    readonly done: number;
    readonly all: number;
    readonly fixes: readonly Trial[];
    readonly took: number | null;
  } | null;
}

const NOTHING: FixesState = { findings: null, cures: [], search: null };

/** A drag of a number makes a run every few ms: findings are looked for once it rests for so long. */
const REST_MS = 90;

const isCureOf = (finding: LogFinding, { change }: Trial): boolean =>
  finding.cures.some((cure) => JSON.stringify(cure) === JSON.stringify(change));

function inOrder(changes: readonly SingleChange[], trials: readonly Trial[]): Trial[] {
  const keys = changes.map((change) => JSON.stringify(change));
  return [...trials].sort((a, b) => keys.indexOf(JSON.stringify(a.change)) - keys.indexOf(JSON.stringify(b.change)));
}

/** What is wrong with the shown log's walk, and what would fix it. */
export class Fixes {
  readonly store = createStore<FixesState>(() => NOTHING);
  private pool: TrialPool | null = null;
  /** What the pool was begun with last. */
  private begun: { readonly project: Project; readonly stops: readonly StopCell[] } | null = null;
  private asked = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private wanted: SingleChange | null = null;
  /** Whether findings are shown; they are not looked for where nobody sees them. */
  private shown = false;
  /** The run whose findings were looked for. */
  private looked: ShownRun | null = null;

  constructor(
    private readonly benchStore: BenchStore,
    private readonly project: ProjectSession,
    private readonly ruleSets: RuleSets,
  ) {}

  /** Has the findings of each run looked for from now on, once it rests. Gives back what ends that. */
  readonly showFindings = (): (() => void) => {
    this.shown = true;
    this.lookSoon();
    return () => {
      this.shown = false;
      clearTimeout(this.timer);
    };
  };

  private readonly lookSoon = (): void => {
    clearTimeout(this.timer);
    const { run, walk } = this.benchStore.getState();
    if (this.shown && run !== null && run !== this.looked && walk === null)
      this.timer = setTimeout(() => void this.look(), REST_MS);
  };

  /** Forgets what was found with each new run. Gives back what stops it. */
  readonly startFixes = (): (() => void) => {
    let seen = this.benchStore.getState().run;
    const stop = this.benchStore.subscribe(({ run }) => {
      if (run === seen) return;
      const other = run?.log !== seen?.log;
      seen = run;
      this.asked++;
      this.begun = null;
      this.store.setState(other || run === null ? NOTHING : { search: null });
      this.showPreview(null);
      this.lookSoon();
    });
    // The pool follows the project by its steps, from when it is first needed.
    const stopFollowing = this.project.onProject((project, steps) => {
      if (steps === null) this.pool?.load(project);
      else this.pool?.apply(steps);
    });
    return () => {
      stop();
      stopFollowing();
      this.asked++;
      clearTimeout(this.timer);
      this.pool?.close();
      this.pool = null;
      this.begun = null;
      this.looked = null;
      this.store.setState(NOTHING);
    };
  };

  /** The rule set that the shown log goes by. */
  readonly shownRules = (): Rules | null => {
    const { project } = this.project.store.getState();
    const { parsed } = this.benchStore.getState();
    return project === null ? null : (rulesById(project.world, parsed?.rules ?? project.world.activeRules) ?? null);
  };

  /** The pool, with the project that is open. */
  private readonly poolOf = (project: Project): TrialPool => {
    if (this.pool === null) {
      this.pool = new TrialPool(() => this.project.store.getState().project);
      this.pool.load(project);
    }
    return this.pool;
  };

  private readonly look = async (): Promise<void> => {
    const mine = this.asked;
    const { project } = this.project.store.getState();
    const { log, run } = this.benchStore.getState();
    if (project === null || log === null) return;
    this.looked = run;
    const answer = await this.poolOf(project).begin(log);
    if (mine !== this.asked || this.pool === null) return;
    this.begun = { project, stops: answer?.stops ?? [] };
    const findings = answer?.findings ?? null;
    const all: Trial[][] = (findings ?? []).map(() => []);
    this.store.setState({ findings, cures: all });
    await this.pool.tryAll(
      // Two findings may name the same change.
      [
        ...new Map(
          (findings ?? []).flatMap((finding) => finding.cures).map((cure) => [JSON.stringify(cure), cure]),
        ).values(),
      ],
      (trials) => {
        if (mine !== this.asked) return false;
        for (const trial of trials)
          if (isFix(trial)) for (const i of trial.cures) if (isCureOf(findings![i]!, trial)) all[i]!.push(trial);
        return true;
      },
    );
    if (mine === this.asked) this.store.setState({ cures: all.map((cures, i) => inOrder(findings![i]!.cures, cures)) });
  };

  /** Whether the shown log has a check that fails. */
  readonly isBroken = (): boolean => {
    const { run, walk } = this.benchStore.getState();
    return walk === null && run !== null && !logHolds(run.verdicts);
  };

  /** Tries every single change of the rules on the shown log (interface.md, "What would fix it"). */
  readonly searchFixes = async (): Promise<void> => {
    const { project } = this.project.store.getState();
    const rules = this.shownRules();
    const { log, run } = this.benchStore.getState();
    if (project === null || rules === null || log === null || !this.isBroken()) return;
    const mine = ++this.asked;
    clearTimeout(this.timer);
    this.looked = run;
    const began = performance.now();
    const trials = this.poolOf(project);
    if (this.begun?.project !== project) {
      const answer = await trials.begin(log);
      if (mine !== this.asked) return;
      this.begun = { project, stops: answer?.stops ?? [] };
      this.store.setState({ findings: answer?.findings ?? null, cures: (answer?.findings ?? []).map(() => []) });
    }
    const changes = singleChanges(
      project.world,
      rules,
      (this.store.getState().findings ?? []).flatMap((finding) => finding.cures),
      this.begun.stops,
    );
    const fixes: Trial[] = [];
    const tell = (done: number, took: number | null): void =>
      this.store.setState({ search: { done, all: changes.length, fixes: inOrder(changes, fixes), took } });
    tell(0, null);
    await trials.tryAll(changes, (tried, done) => {
      if (mine !== this.asked) return false;
      fixes.push(...tried.filter(isFix));
      tell(done, null);
      return true;
    });
    if (mine !== this.asked) return;
    tell(changes.length, performance.now() - began);
    // The same search has tried the findings' cures too.
    const findings = this.store.getState().findings ?? [];
    this.store.setState({
      cures: findings.map((finding, i) =>
        inOrder(
          finding.cures,
          fixes.filter((trial) => trial.cures.includes(i) && isCureOf(finding, trial)),
        ),
      ),
    });
  };

  /** Ends the search, or puts its list away. */
  readonly endSearch = (): void => {
    this.asked++;
    this.store.setState({ search: null });
    this.showPreview(null);
  };

  /** Draws the walk under a change as a ghost; null takes it away. */
  readonly showPreview = (change: SingleChange | null): void => {
    this.wanted = change;
    if (change === null || this.pool === null) {
      this.benchStore.setState({ preview: null });
      return;
    }
    void this.pool.rows(change).then((rows) => {
      if (this.wanted === change) this.benchStore.setState({ preview: rows });
    });
  };

  /** Makes a change that was found. */
  readonly fixWith = (change: SingleChange): void => {
    const rules = this.shownRules();
    this.showPreview(null);
    if (rules !== null) this.ruleSets.changeRules(rules.id, change);
  };
}
