import type { ProjectSession } from "../project/project.ts";
import type { BenchStore } from "../bench/bench-store.ts";
import type { ShownLog } from "../bench/shown-log.ts";
import type { InputLog, LogLine } from "@keen-pebble/core/check";
import type { Refusal } from "@keen-pebble/core/world";
import { acceptWalk, cutLog, readLog, writeLog } from "@keen-pebble/core/check";
import { RefusedError, copyName } from "@keen-pebble/core/world";
import { freeSlug, logTitle } from "./log-title.ts";

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

/** Logs changed: as text, renamed, copied, cut, accepted. */
export class LogEdits {
  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
    private readonly shownLog: ShownLog,
  ) {}

  /** Changes a log as a value; what it wrote before is what undo brings back. */
  readonly changeLog = (id: string, how: (log: InputLog) => InputLog, stroke: string | null = null): boolean => {
    const before = this.project.store.getState().project?.logs.get(id);
    if (before === undefined) return false;
    try {
      const after = writeLog(how(readLog(before)));
      return after === before || this.project.edit({ kind: "change-log", log: id, before, after }, stroke);
    } catch (error) {
      if (!(error instanceof RefusedError)) throw error;
      this.project.notice(error.message);
      return false;
    }
  };

  /** Changes the shown log. */
  readonly changeShownLog = (how: (log: InputLog) => InputLog, stroke: string | null = null): boolean => {
    const { log } = this.benchStore.getState();
    return log !== null && this.changeLog(log, how, stroke);
  };

  /** Changes the lines of the shown log. */
  readonly changeShownLines = (how: (lines: readonly LogLine[]) => readonly LogLine[]): boolean => {
    return this.changeShownLog((log) => ({ ...log, lines: how(log.lines) }));
  };

  /**
   * Takes over a log as it is typed, once it is in order.
   * @returns what is not in order, by lines; the log then stays as it was
   */
  readonly layTypedLog = (id: string, text: string, stroke: string): readonly Refusal[] => {
    const before = this.project.store.getState().project?.logs.get(id);
    if (before === undefined || before === text) return [];
    const faults = faultsOf(text);
    if (faults.length === 0) this.project.edit({ kind: "change-log", log: id, before, after: text }, stroke);
    return faults;
  };

  /** Takes a log away; undo brings it back. */
  readonly takeLogAway = (id: string): void => {
    const text = this.project.store.getState().project?.logs.get(id);
    if (text !== undefined) this.project.edit({ kind: "remove-log", log: id, text });
  };

  /** Copies a log under an id of its own, and selects the copy. */
  readonly copyLog = (id: string): void => {
    const logs = this.project.store.getState().project?.logs;
    const text = logs?.get(id);
    if (logs === undefined || text === undefined) return;
    const title = copyName(
      logTitle(text, id),
      [...logs].map(([log, each]) => logTitle(each, log)),
    );
    const copy = freeSlug(title, logs.keys());
    if (this.project.edit({ kind: "add-log", log: copy, text: writeLog({ ...readLog(text), title }) }))
      this.shownLog.selectLog(copy);
  };

  /** Gives a log another id, which is its file's name; says why it cannot be, or null. */
  readonly renameLog = (id: string, to: string): string | null => {
    if (to === id) return null;
    if (!/^[a-z0-9-]{1,40}$/.test(to)) return "1 to 40 of a to z, 0 to 9 and -";
    if (this.project.store.getState().project?.logs.has(to)) return `there is a log ${to} already`;
    const shown = this.benchStore.getState().log === id;
    const done = this.project.change((project) => {
      const text = project.logs.get(id);
      return text === undefined
        ? null
        : { ...project, logs: new Map([...[...project.logs].filter(([log]) => log !== id), [to, text]]) };
    });
    if (done && shown) this.shownLog.selectLog(to, this.benchStore.getState().frame);
    return null;
  };

  /** Cuts everything behind the shown frame off the shown log. */
  readonly cutHere = (): void => {
    const { run, frame } = this.benchStore.getState();
    if (run !== null) this.changeShownLog((log) => cutLog(log, run.lineEnds, frame));
  };

  /** Whether there is something behind the shown frame that could be cut off. */
  readonly canCut = (): boolean => {
    const { run, frame, walk, refused } = this.benchStore.getState();
    return walk === null && refused === null && run !== null && frame > 0 && frame < run.frames;
  };

  /** Accepts the log's present walk, with a reason: "this is how it should walk". */
  readonly acceptLog = async (id: string, reason: string): Promise<void> => {
    const { project } = this.project.store.getState();
    const text = project?.logs.get(id);
    const answer = text === undefined ? undefined : await this.project.simulationClient()?.fingerprint(text);
    if (answer === undefined) return;
    if (typeof answer !== "string") this.project.notice(answer.refused);
    // It would be accepted as the walk of another text, or in another world.
    else if (this.project.store.getState().project !== project)
      this.project.notice(
        `Something was changed meanwhile: the walk of ${id} was not accepted. Look at it, and accept it then.`,
      );
    else if (this.changeLog(id, (log) => acceptWalk(log, answer, reason)))
      this.project.notice(`Accepted: later runs say whether they walk just so.`, "info");
  };

  /** Accepts no walk of the log any more. */
  readonly acceptNone = (id: string): void => {
    this.changeLog(id, (log) => acceptWalk(log, null, ""));
  };
}
