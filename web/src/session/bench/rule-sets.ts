import type { ProjectSession } from "../project/project.ts";
import type { BenchStore } from "./bench-store.ts";
import { changedWorld } from "@keen-pebble/core/analyse";
import type { SingleChange } from "@keen-pebble/core/analyse";
import { copyRuleSet, removeRuleSet, renameRuleSet, withRules } from "@keen-pebble/core/edit";

/** Rule sets and their settings changed. */
export class RuleSets {
  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
  ) {}

  /** Lets the shown log go by a rule set: named in the log where it is not the world's own. */
  readonly goBy = (id: string): void => {
    const { project } = this.project.store.getState();
    const { log } = this.benchStore.getState();
    if (project === null) return;
    if (log === null) {
      this.makeWorldsOwn(id);
      return;
    }
    const before = project.logs.get(log)!;
    const after = withRules(before, id === project.world.activeRules ? null : id);
    if (after !== before) this.project.edit({ kind: "change-log", log, before, after });
  };

  /** Makes a rule set the one that logs go by which name none. */
  readonly makeWorldsOwn = (id: string): void => {
    this.project.changeWorld((world) => ({ ...world, activeRules: id }));
  };

  /** Copies a rule set and lets the shown log go by the copy. */
  readonly copyRules = (id: string): void => {
    const stroke = crypto.randomUUID();
    let made: string | null = null;
    this.project.changeWorld((world) => {
      const { world: after, copy } = copyRuleSet(world, id);
      made = copy;
      return after;
    }, stroke);
    const { project } = this.project.store.getState();
    const { log } = this.benchStore.getState();
    if (made === null || project === null || log === null) return;
    const before = project.logs.get(log)!;
    this.project.edit({ kind: "change-log", log, before, after: withRules(before, made) }, stroke);
  };

  /** Calls a rule set otherwise. */
  readonly renameRules = (id: string, name: string): void => {
    this.project.changeWorld((world) => renameRuleSet(world, id, name));
  };

  /** Takes a rule set away; logs that named it go by the world's own. */
  readonly removeRules = (id: string): void => {
    this.project.change((project) => removeRuleSet(project, id));
  };

  /** Changes a setting of the shown rule set; a row of changes to it in one `stroke` is undone as one. */
  readonly changeSetting = (
    rulesId: string,
    setting: string,
    before: number | string | boolean,
    after: number | string | boolean,
    stroke: string | null,
  ): boolean => {
    if (before === after) return true;
    return this.project.edit({ kind: "change-rules", rules: rulesId, setting, before, after }, stroke);
  };

  /** Changes a rule set in one way: a setting, gait, body, or flags that block. */
  readonly changeRules = (rulesId: string, change: SingleChange, stroke?: string): boolean => {
    return this.project.changeWorld((world) => changedWorld(world, rulesId, change), stroke);
  };
}
