import { changedWorld } from "@keen-pebble/core/analyse";
import type { SingleChange } from "@keen-pebble/core/analyse";
import { copyRuleSet, removeRuleSet, renameRuleSet, withRules } from "@keen-pebble/core/edit";
import { benchStore } from "./bench-store.ts";
import { change, changeWorld, edit, projectStore } from "../project/project.ts";

/** Lets the shown log go by a rule set: named in the log where it is not the world's own. */
export function goBy(id: string): void {
  const { project } = projectStore.getState();
  const { log } = benchStore.getState();
  if (project === null) return;
  if (log === null) {
    makeWorldsOwn(id);
    return;
  }
  const before = project.logs.get(log)!;
  const after = withRules(before, id === project.world.activeRules ? null : id);
  if (after !== before) edit({ kind: "change-log", log, before, after });
}

/** Makes a rule set the one that logs go by which name none. */
export function makeWorldsOwn(id: string): void {
  changeWorld((world) => ({ ...world, activeRules: id }));
}

/** Copies a rule set and lets the shown log go by the copy. */
export function copyRules(id: string): void {
  const stroke = crypto.randomUUID();
  let made: string | null = null;
  changeWorld((world) => {
    const { world: after, copy } = copyRuleSet(world, id);
    made = copy;
    return after;
  }, stroke);
  const { project } = projectStore.getState();
  const { log } = benchStore.getState();
  if (made === null || project === null || log === null) return;
  const before = project.logs.get(log)!;
  edit({ kind: "change-log", log, before, after: withRules(before, made) }, stroke);
}

/** Calls a rule set otherwise. */
export function renameRules(id: string, name: string): void {
  changeWorld((world) => renameRuleSet(world, id, name));
}

/** Takes a rule set away; logs that named it go by the world's own. */
export function removeRules(id: string): void {
  change((project) => removeRuleSet(project, id));
}

/** Changes a setting of the shown rule set; a row of changes to it in one `stroke` is undone as one. */
export function changeSetting(rulesId: string, setting: string, before: number | string | boolean, after: number | string | boolean, stroke: string | null): boolean {
  if (before === after) return true;
  return edit({ kind: "change-rules", rules: rulesId, setting, before, after }, stroke);
}

/** Changes a rule set in one way: a setting, gait, body, or flags that block. */
export function changeRules(rulesId: string, change: SingleChange, stroke?: string): boolean {
  return changeWorld((world) => changedWorld(world, rulesId, change), stroke);
}
