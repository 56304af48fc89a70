import type { Proof } from "@keen-pebble/core/check";
import type { EditStep, Project } from "@keen-pebble/core/edit";
import { changesWorld } from "@keen-pebble/core/edit";
import type { BreakSearch, ProofHistory, ProofState } from "@keen-pebble/server/api";
import { createStore } from "zustand/vanilla";
import type { PathAnswer } from "../../workers/proofs.ts";
import { OfflineError, ProblemError, askForProofs, beginSearch, cancelProofs, cancelSearch, findSearch, openRevision, quietly, worldProofs } from "../project/api-client.ts";
import { openedProject } from "../project/opened-project.ts";
import { notice, onProject, projectStore, saveNow } from "../project/project.ts";
import { ProofPool } from "./proof-pool.ts";
import { saveStore } from "../project/saving.ts";
import { onServerEvent } from "../project/server-events.ts";

/** The revision that paths are compared with. */
export interface ComparedRevision {
  readonly revision: number;
  readonly summary: string;
  readonly project: Project;
}

/** What the logs came to at one revision. */
export type ShownHistory = Omit<ProofHistory, "logs"> & { readonly logs: ReadonlyMap<string, "holds" | "breaks" | "refused"> };

/** What all logs come to, here and on the server. */
export interface ProofsState {
  /** By log, for the open project; while it is being run again what was said before stays. */
  readonly proofs: ReadonlyMap<string, Proof>;
  readonly paths: ReadonlyMap<string, PathAnswer>;
  /** How far the last look at all of them is; `took` ms once it is over. */
  readonly done: number;
  readonly total: number;
  readonly took: number | null;
  readonly compared: ComparedRevision | null;
  /** Whether the server's word comes in; what it said before stays. */
  readonly reached: boolean;
  /** How the server's proofs stand, and what its last runs said, the newest last. */
  readonly server: ProofState | null;
  readonly history: readonly ShownHistory[];
  /** The search for what broke a check. */
  readonly search: BreakSearch | null;
}

const NOTHING: ProofsState = { proofs: new Map(), paths: new Map(), done: 0, total: 0, took: null, compared: null, reached: true, server: null, history: [], search: null };

export const proofsStore = createStore<ProofsState>(() => NOTHING);

/** A drag of a number changes the world every few ms: all logs are run again once it rests for so long. */
const REST_MS = 70;

let pool: ProofPool | null = null;
let asked = 0;
let timer: ReturnType<typeof setTimeout> | undefined;
/** Logs that are to be run again. */
let wanted = new Set<string>();
/** A revision that somebody chose to compare with stays; else it is the last one that was proven before the newest. */
let chosen: number | null = null;
/** Ends the following of the server. */
let unfollow: (() => void) | null = null;

/** Runs all logs of the open project now and after each change, and follows the server's proofs. Gives back what stops it. */
export function startProofs(): () => void {
  pool = new ProofPool();
  const stop = onProject(follow);
  return () => {
    stop();
    asked++;
    clearTimeout(timer);
    unfollow?.();
    pool?.close();
    pool = null;
    wanted = new Set();
    chosen = null;
    proofsStore.setState(NOTHING);
  };
}

function follow(project: Project, steps: readonly EditStep[] | null): void {
  const logs = [...project.logs.keys()];
  if (steps === null) {
    pool?.load(project);
    if (unfollow === null) followServer(project.world.id);
    wanted = new Set(logs);
  } else {
    pool?.apply(steps);
    if (steps.some(changesWorld)) wanted = new Set(logs);
    else for (const step of steps) if ("log" in step) wanted.add(step.log);
  }
  dropGone(project);
  look();
}

/** Logs that are gone are forgotten. */
function dropGone({ logs }: Project): void {
  const { proofs, paths } = proofsStore.getState();
  if ([...proofs.keys()].every((log) => logs.has(log))) return;
  const here = <T>(all: ReadonlyMap<string, T>): ReadonlyMap<string, T> => new Map([...all].filter(([log]) => logs.has(log)));
  proofsStore.setState({ proofs: here(proofs), paths: here(paths) });
}

function look(): void {
  asked++;
  clearTimeout(timer);
  timer = setTimeout(() => void proveWanted(), REST_MS);
}

async function proveWanted(): Promise<void> {
  const mine = asked;
  const logs = [...wanted].filter((log) => projectStore.getState().project?.logs.get(log) !== undefined);
  const began = performance.now();
  let done = 0;
  proofsStore.setState({ done, total: logs.length, took: null });
  await pool?.prove(logs, (proved) => {
    if (mine !== asked) return false;
    for (const { log } of proved) wanted.delete(log);
    done += proved.length;
    const { proofs, paths } = proofsStore.getState();
    proofsStore.setState({
      done,
      proofs: new Map([...proofs, ...proved.map(({ log, proof }) => [log, proof] as const)]),
      paths: new Map([...paths, ...proved.map(({ log, path }) => [log, path] as const)]),
    });
    return true;
  });
  if (mine === asked) proofsStore.setState({ took: performance.now() - began });
}

/** Follows the server's word of a world. */
function followServer(world: string): void {
  const stop = onServerEvent((heard) => {
    if (heard.event === "open") {
      // What was said while nobody listened is asked for.
      proofsStore.setState({ reached: true });
      void readHistory(world);
      void readSearch(world);
    } else if (heard.event === "lost") proofsStore.setState({ reached: false });
    else if (heard.event === "search" && heard.data.world === world) void readSearch(world);
    else if (heard.event === "proofs" && heard.data.world === world) {
      const { world: _world, ...server } = heard.data;
      const before = proofsStore.getState().server;
      proofsStore.setState({ server });
      if (server.state !== "running" && (before === null || before.revision !== server.revision || before.state !== server.state)) void readHistory(world);
    }
  });
  unfollow = () => {
    stop();
    unfollow = null;
  };
}

async function readHistory(world: string): Promise<void> {
  const read = await quietly(worldProofs(world));
  if (read === null || projectStore.getState().worldId !== world) return;
  proofsStore.setState({ server: read.proofs, history: read.history.map((each) => ({ ...each, logs: new Map(Object.entries(each.logs)) })) });
  const newest = saveStore.getState().revision;
  const before = read.history.filter(({ revision }) => revision < newest).at(-1);
  if (chosen === null && before !== undefined && before.revision !== proofsStore.getState().compared?.revision) await compareWith(before.revision, before.summary);
}

/** Compares all paths with a revision from now on. */
export async function compareWithRevision(revision: number): Promise<void> {
  chosen = revision;
  const { history } = proofsStore.getState();
  await compareWith(revision, history.find((each) => each.revision === revision)?.summary ?? "");
}

async function compareWith(revision: number, summary: string): Promise<void> {
  const project = await projectAt(revision);
  if (project === null) return;
  pool?.compareWith(project);
  proofsStore.setState({ compared: { revision, summary, project } });
  wanted = new Set(projectStore.getState().project?.logs.keys());
  look();
}

const MOST_KEPT = 4;
const kept = new Map<string, Project>();

/** The open world as it was at a revision; null where the server cannot say. */
export async function projectAt(revision: number): Promise<Project | null> {
  const { worldId } = projectStore.getState();
  if (worldId === null) return null;
  const key = `${worldId}/${revision}`;
  const known = kept.get(key);
  if (known !== undefined) return known;
  const opened = await quietly(openRevision(worldId, revision));
  if (opened === null || projectStore.getState().worldId !== worldId) return null;
  const project = openedProject(opened);
  kept.set(key, project);
  for (const old of kept.keys()) if (kept.size > MOST_KEPT) kept.delete(old);
  return project;
}

/** Lets the server run all logs, or takes that back while it is under way. */
export async function runOnServer(): Promise<void> {
  const { worldId } = projectStore.getState();
  if (worldId === null) return;
  const { server } = proofsStore.getState();
  const state = await told(server?.state === "running" ? cancelProofs(worldId) : askForProofs(worldId));
  if (state !== null) proofsStore.setState({ server: state });
  await readHistory(worldId);
}

/** Looks for the revision that broke a check. */
export async function searchBreak(log: string, check: string): Promise<void> {
  const { worldId } = projectStore.getState();
  if (worldId === null) return;
  if (saveStore.getState().state !== "saved") {
    saveNow();
    notice("What broke it is searched for among stored revisions: wait until this change is saved.", "info");
    return;
  }
  const search = await told(beginSearch(worldId, { log, check }));
  proofsStore.setState({ search });
  if (search !== null) await readSearch(worldId);
}

async function readSearch(world: string): Promise<void> {
  const { search } = proofsStore.getState();
  if (search?.state !== "running") return;
  const read = await quietly(findSearch(world, search.id));
  if (read !== null && proofsStore.getState().search?.id === read.id) proofsStore.setState({ search: read });
}

/** Gives the search up, or puts its answer away. */
export function endSearchBreak(): void {
  const { search } = proofsStore.getState();
  const { worldId } = projectStore.getState();
  if (search?.state === "running" && worldId !== null) void quietly(cancelSearch(worldId, search.id));
  proofsStore.setState({ search: null });
}

async function told<T>(answer: Promise<T>): Promise<T | null> {
  try {
    return await answer;
  } catch (error) {
    if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
    notice(`The server's proofs could not be asked: ${error.message}. Those of this page go on.`);
    return null;
  }
}

/** How many logs hold, of those that were run. */
export function tally({ proofs }: ProofsState): { readonly logs: number; readonly holding: number } {
  const all = [...proofs.values()];
  return { logs: all.length, holding: all.filter(({ holds }) => holds).length };
}
