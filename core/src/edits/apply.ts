import { RefusedError } from "../base/refused-error.ts";
import { plainText } from "../base/plain-text.ts";
import { readLog } from "../logs/read-log.ts";
import { ID_PATTERN } from "../world/limits.ts";
import { settingByPath, settingFault, settingValue, withSetting } from "../world/settings.ts";
import { changeParts } from "./change-parts.ts";
import { EditError } from "./edit-error.ts";
import type { Project } from "./project.ts";
import type { AddLog, ChangeLog, ChangeRules, EditStep, RemoveLog, SetCells } from "./step.ts";

/**
 * The project after a step. Shares everything that did not change.
 * @throws {EditError} where what the step says was there is not there, or what shall be there may not stand
 */
export function apply(project: Project, step: EditStep): Project {
  switch (step.kind) {
    case "set-cells":
      return setCells(project, step);
    case "change-rules":
      return changeRules(project, step);
    case "change-parts":
      return { ...project, world: changeParts(project.world, step) };
    case "add-log":
      return addLog(project, step);
    case "remove-log":
      return removeLog(project, step);
    case "change-log":
      return changeLog(project, step);
  }
}

/** The project after several steps, or an error and no change at all. Throws as `apply` does. */
export function applyAll(project: Project, steps: readonly EditStep[]): Project {
  return steps.reduce(apply, project);
}

function setCells(project: Project, step: SetCells): Project {
  const { world } = project;
  const at = world.rooms.findIndex((room) => room.id === step.room);
  const room = world.rooms[at];
  if (!room) throw new EditError(`there is no room ${step.room}`, step, "room");
  const cells = room.cells.slice();
  // Told only where it is needed: a bucket changes very many cells.
  const placeOf = (index: number): string =>
    `cell ${index % room.width} ${Math.floor(index / room.width)} of room ${step.room}`;
  for (let i = 0; i < step.cells.length; i++) {
    const index = step.cells[i]!;
    if (index >= cells.length)
      throw new EditError(`room ${step.room} has no cell number ${index}`, step, placeOf(index));
    if (cells[index] !== step.before[i])
      throw new EditError(
        `${placeOf(index)} holds tile ${cells[index]!}, not ${step.before[i]!}`,
        step,
        placeOf(index),
      );
    const after = step.after[i]!;
    if (after >= world.tiles.length) throw new EditError(`there is no tile number ${after}`, step, placeOf(index));
    cells[index] = after;
  }
  const rooms = world.rooms.map((r, i) => (i === at ? { ...r, cells } : r));
  return { ...project, world: { ...world, rooms } };
}

function changeRules(project: Project, step: ChangeRules): Project {
  const { world } = project;
  const rules = world.rules.find((r) => r.id === step.rules);
  if (!rules) throw new EditError(`there is no rule set ${step.rules}`, step, "rules");
  const setting = settingByPath(step.setting);
  const place = `${step.setting} of rules ${step.rules}`;
  if (!setting) throw new EditError(`there is no setting ${step.setting}`, step, place);
  const present = settingValue(rules, step.setting);
  if (present !== step.before)
    throw new EditError(`${place} is ${String(present)}, not ${String(step.before)}`, step, place);
  const fault = settingFault(setting, step.after, world.tileSize);
  if (fault !== null) throw new EditError(`${place} ${fault}`, step, place);
  const changed = withSetting(rules, step.setting, step.after);
  return { ...project, world: { ...world, rules: world.rules.map((r) => (r === rules ? changed : r)) } };
}

function addLog(project: Project, step: AddLog): Project {
  const place = `log ${step.log}`;
  if (!ID_PATTERN.test(step.log)) throw new EditError(`a log's id is 1 to 40 of a to z, 0 to 9 and -`, step, place);
  if (project.logs.has(step.log)) throw new EditError(`there is a log ${step.log} already`, step, place);
  ensureLog(step, step.text);
  return { ...project, logs: new Map(project.logs).set(step.log, step.text) };
}

function removeLog(project: Project, step: RemoveLog): Project {
  const place = `log ${step.log}`;
  if (!project.logs.has(step.log)) throw new EditError(`there is no log ${step.log}`, step, place);
  if (project.logs.get(step.log) !== step.text)
    throw new EditError(`log ${step.log} is not the one that was to be removed`, step, place);
  const logs = new Map(project.logs);
  logs.delete(step.log);
  return { ...project, logs };
}

function changeLog(project: Project, step: ChangeLog): Project {
  const place = `log ${step.log}`;
  if (!project.logs.has(step.log)) throw new EditError(`there is no log ${step.log}`, step, place);
  if (project.logs.get(step.log) !== step.before)
    throw new EditError(`log ${step.log} is not the one that was to be changed`, step, place);
  ensureLog(step, step.after);
  return { ...project, logs: new Map(project.logs).set(step.log, step.after) };
}

function ensureLog(step: AddLog | ChangeLog, text: string): void {
  const place = `log ${step.log}`;
  // Files are read with either; what is kept is the format's own form.
  if (plainText(text) !== text)
    throw new EditError("a log that is kept ends its lines by LF alone, and has no byte-order mark", step, place);
  try {
    readLog(text, place);
  } catch (error) {
    if (error instanceof RefusedError) throw new EditError(error.message, step, place);
    throw error;
  }
}
