import type { InputLog } from "@keen-pebble/core/check";
import { readLog, writeLog } from "@keen-pebble/core/check";
import type { Logs } from "@keen-pebble/core/edit";
import { RefusedError } from "@keen-pebble/core/world";
import type { ProjectSession } from "../project/project.ts";
import type { ProofBoard } from "./board.ts";

/** Acts on all logs that are chosen on the board, each undone as one. */
export class ManyLogs {
  constructor(
    private readonly project: ProjectSession,
    private readonly board: ProofBoard,
  ) {}

  /** Gives all of them a tag. */
  readonly addTag = (tag: string): boolean =>
    this.change((log) => (log.tags.includes(tag) ? log : { ...log, tags: [...log.tags, tag] }));

  /** Takes a tag from those that have it. */
  readonly removeTag = (tag: string): boolean =>
    this.change((log) => ({ ...log, tags: log.tags.filter((each) => each !== tag) }));

  /** Has all of them go by a rule set; null: by the default rules. */
  readonly chooseRules = (rules: string | null): boolean => this.change((log) => ({ ...log, rules }));

  /** Deletes all of them. */
  readonly deleteAll = (): boolean => {
    const { chosen } = this.board.store.getState();
    const done = this.project.change((project) => ({
      ...project,
      logs: new Map([...project.logs].filter(([id]) => !chosen.has(id))),
    }));
    if (done) this.board.chooseNone();
    return done;
  };

  private change(how: (log: InputLog) => InputLog): boolean {
    const { chosen } = this.board.store.getState();
    try {
      return this.project.change((project) => ({ ...project, logs: changed(project.logs, chosen, how) }));
    } catch (error) {
      if (!(error instanceof RefusedError)) throw error;
      this.project.notice(`${error.message}. None of them was changed.`);
      return false;
    }
  }
}

/** @throws {RefusedError} where one of them does not read, before or after */
function changed(logs: Logs, chosen: ReadonlySet<string>, how: (log: InputLog) => InputLog): Logs {
  return new Map(
    [...logs].map(([id, text]) => {
      if (!chosen.has(id)) return [id, text];
      const made = writeLog(how(readLog(text, id)));
      readLog(made, id);
      return [id, made];
    }),
  );
}
