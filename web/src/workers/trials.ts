import type { LogFinding, SingleChange, StopCell, Trial, Trying } from "@keen-pebble/core/analyse";
import type { EditStep, Project } from "@keen-pebble/core/edit";
import type { TraceRows } from "@keen-pebble/core/simulate";
import { beginTrying, changedWorld, tryChange } from "@keen-pebble/core/analyse";
import { readLog } from "@keen-pebble/core/check";
import { applyAll } from "@keen-pebble/core/edit";
import { compile, run } from "@keen-pebble/core/simulate";
import { CoreError } from "@keen-pebble/core/world";

let project: Project | null = null;
let trying: Trying | null = null;

export const trials = {
  /** Takes a whole project. */
  load(whole: Project): void {
    project = whole;
    trying = null;
  },

  /** Follows edits that the page has made. */
  apply(steps: readonly EditStep[]): void {
    if (project !== null) project = applyAll(project, steps);
    trying = null;
  },

  /**
   * Takes the log that changes are to be tried on. Logs that cannot be read are left out: nothing can break in them.
   * @returns the findings of the log and the cells that stopped it, or null where it cannot be run
   */
  begin(log: string): { readonly findings: readonly LogFinding[]; readonly stops: readonly StopCell[] } | null {
    trying = null;
    if (project === null) return null;
    try {
      const logs = new Map([...project.logs].flatMap(([id, text]) => readable(id, text)));
      if (!logs.has(log)) return null;
      trying = beginTrying(project.world, logs, log);
      return { findings: trying.findings, stops: trying.stops };
    } catch (error) {
      if (error instanceof CoreError) return null;
      throw error;
    }
  },

  /** Tries some changes, one after the other. */
  trial(changes: readonly SingleChange[]): readonly Trial[] {
    return trying === null ? [] : changes.map((change) => tryChange(trying!, change));
  },

  /** The rows of the log under a change, or null where it cannot be run. */
  rows(change: SingleChange): TraceRows | null {
    if (trying === null) return null;
    try {
      const { world, rules, log, logs } = trying;
      return run(compile(changedWorld(world, rules, change), rules), logs.get(log)!, { rows: true }).rows;
    } catch (error) {
      if (error instanceof CoreError) return null;
      throw error;
    }
  },
};

function readable(id: string, text: string): [string, ReturnType<typeof readLog>][] {
  try {
    return [[id, readLog(text)]];
  } catch (error) {
    if (error instanceof CoreError) return [];
    throw error;
  }
}

export type Trials = typeof trials;
