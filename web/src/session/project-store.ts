import type { EditStep, Followed, History, Project, World } from "@keen-pebble/core";
import { EMPTY_HISTORY, EditError, apply, applyAll, close, differences, freeId, fromPlain, invert, recent, record, redo, summary, undo, writeWorld } from "@keen-pebble/core";
import { createStore } from "zustand/vanilla";
import { OfflineError, ProblemError, listWorlds, openWorld, sendFiles, storeBatch } from "./api-client.ts";
import { claimEntry, keepHistory, keptHistory, leftBehind } from "./outbox.ts";
import { Saver } from "./saving.ts";
import { SimulationClient } from "./simulation-client.ts";

/** Something told to the person: good to know, or in need of attention. */
export interface Told {
  readonly tone: "info" | "attention";
  readonly text: string;
}

/** The world that is open, and what can be taken back. */
export interface ProjectState {
  readonly phase: "none" | "loading" | "ready" | "missing" | "failed";
  /** Why it is missing or failed. */
  readonly message: string | null;
  readonly worldId: string | null;
  readonly project: Project | null;
  readonly history: History;
  /** Something that must be told, until it is dismissed. */
  readonly notice: Told | null;
}

const NOTHING: ProjectState = { phase: "none", message: null, worldId: null, project: null, history: EMPTY_HISTORY, notice: null };

export const projectStore = createStore<ProjectState>(() => NOTHING);

/** Told of every change of the open project, with the steps that made it; null for a whole new project. */
export type ProjectListener = (project: Project, steps: readonly EditStep[] | null, stroke: string | null) => void;

/** So many things can be undone after a reload. */
const MOST_KEPT = 50;

const listeners = new Set<ProjectListener>();
let saver: Saver | null = null;
let simulation: SimulationClient | null = null;
let asked = 0;

/** Calls the listener at every change of the project; gives back what stops that. */
export function onProject(listener: ProjectListener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function tell(project: Project, steps: readonly EditStep[] | null, stroke: string | null): void {
  if (steps === null) simulation?.load(project);
  else simulation?.apply(steps);
  for (const listener of [...listeners]) listener(project, steps, stroke);
}

/** The worker that runs logs of the open project. */
export function simulationClient(): SimulationClient | null {
  return simulation;
}

/** Opens a world, with what a closed tab had not had acknowledged put on top. */
export async function openProject(worldId: string): Promise<void> {
  const mine = ++asked;
  closeProject();
  projectStore.setState({ ...NOTHING, phase: "loading", worldId });
  try {
    const left = await leftBehind(worldId);
    for (const { entry } of left) {
      // A batch that was under way is asked for again: it is stored once, or it is answered as stale and stays an own edit.
      if (entry.sent) await storeBatch(worldId, entry.sent).catch(keepOnlyOffline);
    }
    const opened = await openWorld(worldId);
    if (mine !== asked) return;
    const project: Project = { world: fromPlain(opened.world), logs: opened.logs };
    simulation = new SimulationClient();
    claimEntry(worldId);
    saver = new Saver(worldId, opened.revision, rebase, (revision) => void keepHistory(worldId, { revision, history: recent(projectStore.getState().history, MOST_KEPT) }));
    const history = (left.length === 0 ? await keptHistory(worldId, opened.revision) : null) ?? EMPTY_HISTORY;
    if (mine !== asked) return;
    projectStore.setState({ ...NOTHING, phase: "ready", worldId, project, history });
    tell(project, null, null);
    for (const { entry, own, remove } of left) {
      // What is brought back is written again under this tab's name, which must not be removed after that.
      if (own) await remove();
      bringBack(entry.waiting);
      if (!own) await remove();
    }
  } catch (error) {
    if (mine !== asked) return;
    const missing = error instanceof ProblemError && (error.problem.status === 404 || error.problem.status === 400);
    const message = missing ? `There is no world ${worldId} on the shelf.` : error instanceof Error ? error.message : String(error);
    projectStore.setState({ ...NOTHING, phase: missing ? "missing" : "failed", worldId, message });
  }
}

function keepOnlyOffline(error: unknown): void {
  if (error instanceof OfflineError) throw error;
}

/** Lets go of the open world; what is not saved yet stays in the browser. */
export function closeProject(): void {
  saver?.stop();
  simulation?.close();
  saver = null;
  simulation = null;
}

/**
 * Makes an edit: the project changes at once, the log re-runs, the server hears of it.
 * @param stroke steps with the same name are undone together
 * @returns whether it fitted; if not, nothing changed and the notice says why
 */
export function edit(step: EditStep, stroke: string | null = null): boolean {
  const { project, history } = projectStore.getState();
  if (project === null) return false;
  try {
    const after = apply(project, step);
    projectStore.setState({ project: after, history: record(history, step, stroke), notice: null });
    saver?.add([step]);
    tell(after, [step], stroke);
    return true;
  } catch (error) {
    if (!(error instanceof EditError)) throw error;
    notice(error.message);
    return false;
  }
}

/**
 * Changes the project as a whole: what differs afterwards becomes the edits, undone together. What could not follow
 * the change is told.
 * @param stroke changes with the same name are undone together
 * @returns whether it could be made
 */
export function change(how: (project: Project) => Project | Followed | null, stroke: string = crypto.randomUUID()): boolean {
  const { project } = projectStore.getState();
  if (project === null) return false;
  const made = how(project);
  if (made === null) return false;
  const after = "fellAway" in made ? made.project : made;
  const fits = differences(project, after).every((step) => edit(step, stroke));
  const fellAway = "fellAway" in made ? made.fellAway : [];
  if (fits && fellAway.length > 0) notice(`Fell away with it: ${fellAway.join("; ")}. Undo brings it back.`, "info");
  return fits;
}

/** Changes the world as a whole, as `change` does. */
export function changeWorld(how: (world: World) => World, stroke?: string): boolean {
  return change((project) => ({ ...project, world: how(project.world) }), stroke);
}

/** Says why of the edits that are made next: it becomes the note of their revision. */
export function noteNextRevision(text: string): void {
  saver?.note(text);
}

/** Ends the stroke under way. */
export function endStroke(): void {
  projectStore.setState((state) => ({ history: close(state.history) }));
}

/** Takes back the last edit, or makes it again. Asked with `dry`, it only says whether there is one. */
export function travel(direction: "undo" | "redo", dry = false): boolean {
  const { project, history } = projectStore.getState();
  const moved = direction === "undo" ? undo(history) : redo(history);
  if (moved === null || project === null) return false;
  if (dry) return true;
  try {
    const after = applyAll(project, moved.steps);
    projectStore.setState({ project: after, history: moved.history, notice: null });
    saver?.add(moved.steps);
    tell(after, moved.steps, null);
    return true;
  } catch (error) {
    if (!(error instanceof EditError)) throw error;
    notice(`That cannot be taken back any more: ${error.message}.`);
    return false;
  }
}

/** Tells the person something that stays until it is dismissed. */
export function notice(text: string | null, tone: Told["tone"] = "attention"): void {
  projectStore.setState({ notice: text === null ? null : { text, tone } });
}

/** Puts own steps back that were not acknowledged when their tab was closed. */
function bringBack(steps: readonly EditStep[]): void {
  if (steps.length === 0) return;
  const { project } = projectStore.getState();
  const { after, kept, lost } = applyWhatFits(project!, steps);
  projectStore.setState({ project: after });
  if (lost.length > 0) notice(`This world was changed elsewhere since your last visit. ${count(kept.length)} brought back; no longer fitting: ${summary(project!.world, lost)}.`);
  else notice(`${count(kept.length)} from your last visit brought back.`, "info");
  saver?.add(kept);
  tell(after, kept, null);
}

/** Somebody else was faster: their steps go below the own ones, as far as those still fit; the rest is kept as a copy. */
function rebase(theirs: readonly EditStep[], own: readonly EditStep[]): readonly EditStep[] {
  const { project: mine } = projectStore.getState();
  // Back to what both sides began with, then theirs, then the own ones again.
  const base = [...own].reverse().reduce((at, step) => apply(at, invert(step)), mine!);
  const { after, kept, lost } = applyWhatFits(applyAll(base, theirs), own);
  projectStore.setState({
    project: after,
    history: lost.length > 0 ? EMPTY_HISTORY : projectStore.getState().history,
  });
  if (lost.length > 0) void keepAsCopy(mine!, lost, kept.length);
  else notice("This world was changed elsewhere; your edits were put on top.", "info");
  tell(after, null, null);
  return kept;
}

/** Puts the world as it was here on the shelf under an id of its own, and says what could not be put on top. */
async function keepAsCopy(mine: Project, lost: readonly EditStep[], kept: number): Promise<void> {
  const what = `This world was changed elsewhere. ${count(kept)} of yours could be put on top; not ${summary(mine.world, lost)}`;
  try {
    const { worlds } = await listWorlds();
    const id = freeId(`${mine.world.id.slice(0, 34)}-mine`, worlds.map((world) => world.id));
    const name = `${[...mine.world.name].slice(0, 70).join("")}, as here`;
    await sendFiles({ world: writeWorld({ ...mine.world, id, name }), logs: mine.logs });
    notice(`${what}. The world as it was here is kept on the shelf as ${id}.`);
  } catch {
    notice(`${what}. No copy could be kept.`);
  }
}

function applyWhatFits(project: Project, steps: readonly EditStep[]): { after: Project; kept: EditStep[]; lost: EditStep[] } {
  let after = project;
  const kept: EditStep[] = [];
  const lost: EditStep[] = [];
  for (const step of steps) {
    try {
      after = apply(after, step);
      kept.push(step);
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      lost.push(step);
    }
  }
  return { after, kept, lost };
}

const count = (n: number): string => `${n} ${n === 1 ? "edit" : "edits"}`;
