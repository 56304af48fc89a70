import type { EditStep, Project, Proof } from "@keen-pebble/core";
import { changesWorld, fromPlain } from "@keen-pebble/core";
import type { BreakSearch, ProofHistory, ProofState } from "@keen-pebble/server/api";
import { createStore } from "zustand/vanilla";
import type { PathAnswer } from "../workers/proof.worker.ts";
import { OfflineError, ProblemError, askForProofs, beginSearch, cancelProofs, cancelSearch, findSearch, openRevision, worldEventsAddress, worldProofs } from "./api-client.ts";
import { notice, onProject, projectStore } from "./project-store.ts";
import { ProofPool } from "./proof-pool.ts";
import { saveStore } from "./saving.ts";

/** The revision that paths are compared with. */
export interface ComparedRevision {
  readonly revision: number;
  readonly summary: string;
  readonly project: Project;
}

/** What all logs come to, here and on the server. */
export interface ProofsState {
  /** By log, for the open project; while it is being run again what was said before stays. */
  readonly proofs: Readonly<Record<string, Proof>>;
  readonly paths: Readonly<Record<string, PathAnswer>>;
  /** How far the last look at all of them is; `took` ms once it is over. */
  readonly done: number;
  readonly total: number;
  readonly took: number | null;
  readonly compared: ComparedRevision | null;
  /** Whether the server's word comes in; what it said before stays. */
  readonly reached: boolean;
  /** How the server's proofs stand, and what its last runs said, the newest last. */
  readonly server: ProofState | null;
  readonly history: readonly ProofHistory[];
  /** The search for what broke a check. */
  readonly search: BreakSearch | null;
}

const NOTHING: ProofsState = { proofs: {}, paths: {}, done: 0, total: 0, took: null, compared: null, reached: true, server: null, history: [], search: null };

export const proofsStore = createStore<ProofsState>(() => NOTHING);

/** A drag of a number changes the world every few ms: all logs are run again once it rests for so long. */
const REST_MS = 70;
/** A browser tries a broken stream again by itself, but not one that was refused (a stopped database): that is ours. */
const ASK_AGAIN_MS = 1500;

let pool: ProofPool | null = null;
let asked = 0;
let timer: ReturnType<typeof setTimeout> | undefined;
/** Logs that are to be run again. */
let wanted = new Set<string>();
/** A revision that somebody chose to compare with stays; else it is the last one that was proven before the newest. */
let chosen: number | null = null;
let events: EventSource | null = null;
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
  const logs = Object.keys(project.logs);
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
  if (Object.keys(proofs).every((log) => Object.hasOwn(logs, log))) return;
  const here = <T>(all: Readonly<Record<string, T>>): Record<string, T> => Object.fromEntries(Object.entries(all).filter(([log]) => Object.hasOwn(logs, log)));
  proofsStore.setState({ proofs: here(proofs), paths: here(paths) });
}

function look(): void {
  asked++;
  clearTimeout(timer);
  timer = setTimeout(() => void proveWanted(), REST_MS);
}

async function proveWanted(): Promise<void> {
  const mine = asked;
  const logs = [...wanted].filter((log) => projectStore.getState().project?.logs[log] !== undefined);
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
      proofs: { ...proofs, ...Object.fromEntries(proved.map(({ log, proof }) => [log, proof])) },
      paths: { ...paths, ...Object.fromEntries(proved.map(({ log, path }) => [log, path])) },
    });
    return true;
  });
  if (mine === asked) proofsStore.setState({ took: performance.now() - began });
}

/**
 * Follows the server's word while the page is looked at: a browser has few connections to one server, and many tabs
 * would use them all up.
 */
function followServer(world: string): void {
  let again: ReturnType<typeof setTimeout> | undefined;
  const turn = (): void => {
    clearTimeout(again);
    events?.close();
    events = document.visibilityState === "visible" ? listen(world) : null;
    events?.addEventListener("error", ({ target }) => {
      if (target === events && events?.readyState === EventSource.CLOSED) again = setTimeout(turn, ASK_AGAIN_MS);
    });
  };
  document.addEventListener("visibilitychange", turn);
  unfollow = () => {
    document.removeEventListener("visibilitychange", turn);
    clearTimeout(again);
    events?.close();
    events = null;
    unfollow = null;
  };
  turn();
}

function listen(world: string): EventSource {
  const stream = new EventSource(worldEventsAddress(world));
  stream.addEventListener("open", () => {
    // What was said while nobody listened is asked for.
    proofsStore.setState({ reached: true });
    void readHistory(world);
    void readSearch(world);
  });
  stream.addEventListener("error", () => proofsStore.setState({ reached: false }));
  stream.addEventListener("proofs", (event) => {
    const server = JSON.parse(String(event.data)) as ProofState;
    const before = proofsStore.getState().server;
    proofsStore.setState({ server });
    if (server.state !== "running" && (before === null || before.revision !== server.revision || before.state !== server.state)) void readHistory(world);
  });
  stream.addEventListener("search", () => void readSearch(world));
  return stream;
}

async function readHistory(world: string): Promise<void> {
  const read = await quietly(worldProofs(world));
  if (read === null || projectStore.getState().worldId !== world) return;
  proofsStore.setState({ server: read.proofs, history: read.history });
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
  wanted = new Set(Object.keys(projectStore.getState().project?.logs ?? {}));
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
  const project: Project = { world: fromPlain(opened.world), logs: opened.logs };
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

async function quietly<T>(answer: Promise<T>): Promise<T | null> {
  try {
    return await answer;
  } catch (error) {
    if (error instanceof ProblemError || error instanceof OfflineError) return null;
    throw error;
  }
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
  const all = Object.values(proofs);
  return { logs: all.length, holding: all.filter(({ holds }) => holds).length };
}
