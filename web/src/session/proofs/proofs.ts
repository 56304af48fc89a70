import type { ProjectSession } from "../project/project.ts";
import type { ServerStream } from "../project/server-events.ts";
import type { SaveStore } from "../project/saving.ts";
import type { Proof } from "@keen-pebble/core/check";
import type { EditStep, Project } from "@keen-pebble/core/edit";
import { changesWorld } from "@keen-pebble/core/edit";
import type { BreakSearch, ProofHistory, ProofState } from "@keen-pebble/server/api";
import { createStore } from "zustand/vanilla";
import type { PathAnswer } from "../../workers/proofs.ts";
import {
  askForProofs,
  beginSearch,
  cancelProofs,
  cancelSearch,
  findSearch,
  openRevision,
  quietly,
  worldProofs,
} from "../project/api-client.ts";
import { OfflineError, ProblemError } from "../project/server-answer.ts";
import { openedProject } from "../project/opened-project.ts";
import { ProofPool } from "./proof-pool.ts";

/** The revision that paths are compared with. */
export interface ComparedRevision {
  readonly revision: number;
  readonly summary: string;
  readonly project: Project;
}

/** What the logs came to at one revision. */
export type ShownHistory = Omit<ProofHistory, "logs"> & {
  readonly logs: ReadonlyMap<string, "holds" | "breaks" | "refused">;
};

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

const NOTHING: ProofsState = {
  proofs: new Map(),
  paths: new Map(),
  done: 0,
  total: 0,
  took: null,
  compared: null,
  reached: true,
  server: null,
  history: [],
  search: null,
};

/** A drag of a number changes the world every few ms: all logs are run again once it rests for so long. */
const REST_MS = 70;

const MOST_KEPT = 4;

/** How many logs hold, of those that were run. */
export function tally({ proofs }: ProofsState): { readonly logs: number; readonly holding: number } {
  const all = [...proofs.values()];
  return { logs: all.length, holding: all.filter(({ holds }) => holds).length };
}

/** What all logs come to, here and on the server, and against earlier revisions. */
export class Proofs {
  readonly store = createStore<ProofsState>(() => NOTHING);
  private pool: ProofPool | null = null;
  private asked = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** Logs that are to be run again. */
  private wanted = new Set<string>();
  /** A revision that somebody chose to compare with stays; else it is the last one that was proven before the newest. */
  private chosen: number | null = null;
  /** Ends the following of the server. */
  private unfollow: (() => void) | null = null;
  private readonly kept = new Map<string, Project>();

  constructor(
    private readonly project: ProjectSession,
    private readonly serverEvents: ServerStream,
    private readonly saveStore: SaveStore,
  ) {}

  /** Runs all logs of the open project now and after each change, and follows the server's proofs. Gives back what stops it. */
  readonly startProofs = (): (() => void) => {
    this.pool = new ProofPool();
    const stop = this.project.onProject(this.follow);
    return () => {
      stop();
      this.asked++;
      clearTimeout(this.timer);
      this.unfollow?.();
      this.pool?.close();
      this.pool = null;
      this.wanted = new Set();
      this.chosen = null;
      this.store.setState(NOTHING);
    };
  };

  private readonly follow = (project: Project, steps: readonly EditStep[] | null): void => {
    const logs = [...project.logs.keys()];
    if (steps === null) {
      this.pool?.load(project);
      if (this.unfollow === null) this.followServer(project.world.id);
      this.wanted = new Set(logs);
    } else {
      this.pool?.apply(steps);
      if (steps.some(changesWorld)) this.wanted = new Set(logs);
      else for (const step of steps) if ("log" in step) this.wanted.add(step.log);
    }
    this.dropGone(project);
    this.look();
  };

  /** Logs that are gone are forgotten. */
  private readonly dropGone = ({ logs }: Project): void => {
    const { proofs, paths } = this.store.getState();
    if ([...proofs.keys()].every((log) => logs.has(log))) return;
    const here = <T>(all: ReadonlyMap<string, T>): ReadonlyMap<string, T> =>
      new Map([...all].filter(([log]) => logs.has(log)));
    this.store.setState({ proofs: here(proofs), paths: here(paths) });
  };

  private readonly look = (): void => {
    this.asked++;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.proveWanted(), REST_MS);
  };

  private readonly proveWanted = async (): Promise<void> => {
    const mine = this.asked;
    const logs = [...this.wanted].filter((log) => this.project.store.getState().project?.logs.get(log) !== undefined);
    const began = performance.now();
    let done = 0;
    this.store.setState({ done, total: logs.length, took: null });
    await this.pool?.prove(logs, (proved) => {
      if (mine !== this.asked) return false;
      for (const { log } of proved) this.wanted.delete(log);
      done += proved.length;
      const { proofs, paths } = this.store.getState();
      this.store.setState({
        done,
        proofs: new Map([...proofs, ...proved.map(({ log, proof }) => [log, proof] as const)]),
        paths: new Map([...paths, ...proved.map(({ log, path }) => [log, path] as const)]),
      });
      return true;
    });
    if (mine === this.asked) this.store.setState({ took: performance.now() - began });
  };

  /** Follows the server's word of a world. */
  private readonly followServer = (world: string): void => {
    const stop = this.serverEvents.onServerEvent((heard) => {
      if (heard.event === "open") {
        // What was said while nobody listened is asked for.
        this.store.setState({ reached: true });
        void this.readHistory(world);
        void this.readSearch(world);
      } else if (heard.event === "lost") this.store.setState({ reached: false });
      else if (heard.event === "search" && heard.data.world === world) void this.readSearch(world);
      else if (heard.event === "proofs" && heard.data.world === world) {
        const { world: _world, ...server } = heard.data;
        const before = this.store.getState().server;
        this.store.setState({ server });
        if (
          server.state !== "running" &&
          (before === null || before.revision !== server.revision || before.state !== server.state)
        )
          void this.readHistory(world);
      }
    });
    this.unfollow = () => {
      stop();
      this.unfollow = null;
    };
  };

  private readonly readHistory = async (world: string): Promise<void> => {
    const read = await quietly(worldProofs(world));
    if (read === null || this.project.store.getState().worldId !== world) return;
    this.store.setState({
      server: read.proofs,
      history: read.history.map((each) => ({ ...each, logs: new Map(Object.entries(each.logs)) })),
    });
    const newest = this.saveStore.getState().revision;
    const before = read.history.filter(({ revision }) => revision < newest).at(-1);
    if (this.chosen === null && before !== undefined && before.revision !== this.store.getState().compared?.revision)
      await this.compareWith(before.revision, before.summary);
  };

  /** Compares all paths with a revision from now on. */
  readonly compareWithRevision = async (revision: number): Promise<void> => {
    this.chosen = revision;
    const { history } = this.store.getState();
    await this.compareWith(revision, history.find((each) => each.revision === revision)?.summary ?? "");
  };

  private readonly compareWith = async (revision: number, summary: string): Promise<void> => {
    const project = await this.projectAt(revision);
    if (project === null) return;
    this.pool?.compareWith(project);
    this.store.setState({ compared: { revision, summary, project } });
    this.wanted = new Set(this.project.store.getState().project?.logs.keys());
    this.look();
  };

  /** The open world as it was at a revision; null where the server cannot say. */
  readonly projectAt = async (revision: number): Promise<Project | null> => {
    const { worldId } = this.project.store.getState();
    if (worldId === null) return null;
    const key = `${worldId}/${revision}`;
    const known = this.kept.get(key);
    if (known !== undefined) return known;
    const opened = await quietly(openRevision(worldId, revision));
    if (opened === null || this.project.store.getState().worldId !== worldId) return null;
    const project = openedProject(opened);
    this.kept.set(key, project);
    for (const old of this.kept.keys()) if (this.kept.size > MOST_KEPT) this.kept.delete(old);
    return project;
  };

  /** Lets the server run all logs, or takes that back while it is under way. */
  readonly runOnServer = async (): Promise<void> => {
    const { worldId } = this.project.store.getState();
    if (worldId === null) return;
    const { server } = this.store.getState();
    const state = await this.told(server?.state === "running" ? cancelProofs(worldId) : askForProofs(worldId));
    if (state !== null) this.store.setState({ server: state });
    await this.readHistory(worldId);
  };

  /** Looks for the revision that broke a check. */
  readonly searchBreak = async (log: string, check: string): Promise<void> => {
    const { worldId } = this.project.store.getState();
    if (worldId === null) return;
    if (this.saveStore.getState().state !== "saved") {
      this.project.saveNow();
      this.project.notice(
        "What broke it is searched for among stored revisions: wait until this change is saved.",
        "info",
      );
      return;
    }
    const search = await this.told(beginSearch(worldId, { log, check }));
    this.store.setState({ search });
    if (search !== null) await this.readSearch(worldId);
  };

  private readonly readSearch = async (world: string): Promise<void> => {
    const { search } = this.store.getState();
    if (search?.state !== "running") return;
    const read = await quietly(findSearch(world, search.id));
    if (read !== null && this.store.getState().search?.id === read.id) this.store.setState({ search: read });
  };

  /** Gives the search up, or puts its answer away. */
  readonly endSearchBreak = (): void => {
    const { search } = this.store.getState();
    const { worldId } = this.project.store.getState();
    if (search?.state === "running" && worldId !== null) void quietly(cancelSearch(worldId, search.id));
    this.store.setState({ search: null });
  };

  private readonly told = async <T>(answer: Promise<T>): Promise<T | null> => {
    try {
      return await answer;
    } catch (error) {
      if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
      this.project.notice(`The server's proofs could not be asked: ${error.message}. Those of this page go on.`);
      return null;
    }
  };
}
