import type { BenchStore } from "../bench/bench-store.ts";
import type { ProjectSession } from "../project/project.ts";
import type { LogEdits } from "./log-edits.ts";
import type { Check, Verdict } from "@keen-pebble/core/check";
import { checkFault, checkText, parseCheck } from "@keen-pebble/core/check";

const parsed = (text: string): Check | null => {
  const result = parseCheck(text.split(" ").filter((word) => word !== ""));
  return "check" in result ? result.check : null;
};

/** The check that is being written, and the log's checks changed. */
export class CheckWriting {
  constructor(
    private readonly benchStore: BenchStore,
    private readonly project: ProjectSession,
    private readonly logEdits: LogEdits,
  ) {}

  /** Whether a check of the shown log can be written now. */
  readonly canWriteCheck = (): boolean => {
    const { run, walk } = this.benchStore.getState();
    return run !== null && walk === null;
  };

  /** Begins to write a check, or goes on with one that the log has. */
  readonly beginCheck = (replaces: number | null = null): void => {
    const check = replaces === null ? undefined : this.benchStore.getState().parsed?.checks[replaces];
    this.benchStore.setState({
      writing: { text: check === undefined ? "" : checkText(check), replaces: check === undefined ? null : replaces },
    });
  };

  readonly endCheck = (): void => {
    this.benchStore.setState({ writing: null });
  };

  /** Keeps the check that is written, as a new one or in the other's place; one that names what the world does not have is none. */
  readonly keepCheck = (text: string): boolean => {
    const { project } = this.project.store.getState();
    const { writing } = this.benchStore.getState();
    if (project === null || checkFault(project.world, text) !== null) return false;
    // What cannot be read has a fault.
    const check = parsed(text)!;
    const replaces = writing?.replaces ?? null;
    const kept = this.logEdits.changeShownLog((log) => ({
      ...log,
      checks: replaces === null ? [...log.checks, check] : log.checks.map((each, i) => (i === replaces ? check : each)),
    }));
    if (kept) this.endCheck();
    return kept;
  };

  /** Takes one of the shown log's checks away. */
  readonly removeCheck = (at: number): void => {
    this.logEdits.changeShownLog((log) => ({ ...log, checks: log.checks.filter((_, i) => i !== at) }));
  };

  /** Moves a check that names a frame to another one; a drag is undone as one. */
  readonly moveCheck = (at: number, frame: number, stroke: string | null): void => {
    this.logEdits.changeShownLog(
      (log) => ({
        ...log,
        checks: log.checks.map((check, i) =>
          i === at && "frame" in check.when ? { ...check, when: { ...check.when, frame: Math.max(0, frame) } } : check,
        ),
      }),
      stroke,
    );
  };

  /** Checks that hold in the shown log and say something of the shown frame. */
  readonly offerChecks = async (): Promise<readonly Check[]> => {
    const { project } = this.project.store.getState();
    const { log, frame } = this.benchStore.getState();
    const answer =
      project === null || log === null
        ? undefined
        : await this.project.simulationClient()?.checksTrueAt(project.logs.get(log)!, frame);
    return answer === undefined || "refused" in answer ? [] : answer;
  };

  /** What a check that is being written says to the shown log's run; null where it is not whole yet. */
  readonly tryCheck = async (text: string): Promise<Verdict | null> => {
    const check = parsed(text);
    const { project } = this.project.store.getState();
    const { log } = this.benchStore.getState();
    const answer =
      check === null || project === null || log === null
        ? undefined
        : await this.project.simulationClient()?.verdictOf(project.logs.get(log)!, check);
    return answer === undefined || "refused" in answer ? null : answer;
  };
}
