import { session } from "../page-session.ts";
import type { World } from "@keen-pebble/core/world";
import { toPlain } from "@keen-pebble/core/formats";
import { vi } from "vitest";
import { FakeEventSource } from "./fake-event-source.ts";
import { FakeLocks } from "./fake-locks.ts";
import { FakeWorker } from "./fake-worker.ts";
import { PATIENCE } from "./patience.ts";

/** What a server in memory answers, by method and path, or what makes it of what was sent; what is not said here is not found. */
export type Answers = Map<string, unknown>;
/** An answer that is made of what was sent. */
export type Answering = (body: unknown) => Response | Promise<Response>;

/** The server's answer where it says no. */
export const problem = (status: number, code: string, detail: string): Response =>
  Response.json({ type: "", title: "", status, detail, code }, { status });

/** A world that is open in this session, with a server in memory behind it. */
export interface Opened {
  readonly answers: Answers;
  /** What was sent, such as `POST /worlds/hall/revisions`. */
  readonly asked: string[];
  readonly close: () => void;
}

/**
 * Opens a world as the page does, with workers in this thread, IndexedDB in memory, and a server that stores every batch.
 * @param more what else the server answers
 * @param starts what else follows the project
 */
export async function openHere(
  world: World,
  logs: Readonly<Record<string, string>>,
  more: readonly (readonly [string, unknown])[] = [],
  starts: readonly (() => () => void)[] = [],
): Promise<Opened> {
  let revision = 1;
  const asked: string[] = [];
  const answers: Answers = new Map<string, unknown>([
    [`GET /worlds/${world.id}`, { revision, world: toPlain(world), logs }],
    ...more,
  ]);
  FakeWorker.ownModules = false;
  FakeWorker.holdsBack = false;
  vi.stubGlobal("Worker", FakeWorker);
  vi.stubGlobal("EventSource", FakeEventSource);
  Object.defineProperty(navigator, "locks", { configurable: true, value: new FakeLocks().of("this") });
  Object.defineProperty(navigator, "hardwareConcurrency", { configurable: true, value: 2 });
  vi.stubGlobal("fetch", (path: string, init: RequestInit = {}) => {
    const name = `${init.method ?? "GET"} ${path.replace(/^\/api/, "")}`;
    asked.push(name);
    const told = answers.get(name);
    if (typeof told === "function")
      return Promise.resolve((told as Answering)(typeof init.body === "string" ? JSON.parse(init.body) : null));
    const stores = name === `POST /worlds/${world.id}/revisions`;
    const answer = stores && !answers.has(name) ? { revision: ++revision, summary: "" } : told;
    if (answer instanceof Error) return Promise.reject(answer);
    return Promise.resolve(answer === undefined ? problem(404, "not-found", `no ${name}`) : Response.json(answer));
  });
  const stops = [session.shownLog.startBench, ...starts].map((start) => start());
  await session.project.openProject(world.id);
  session.benchStore.setState({ room: world.start.room });
  const close = (): void => {
    for (const stop of stops) stop();
    session.project.closeProject();
    for (const worker of FakeWorker.all.splice(0)) worker.terminate();
    session.project.store.setState({ phase: "none", project: null, worldId: null, notice: null });
    session.benchStore.setState({
      log: null,
      parsed: null,
      run: null,
      walk: null,
      writing: null,
      beside: null,
      frame: 0,
      explanation: null,
      ghost: null,
      refused: null,
    });
    // What was edited may still be sent.
  };
  return { answers, asked, close };
}

/** Waits until something is so; it is looked at often. */
export const until = (fits: () => unknown, what = "it did not come about"): Promise<void> =>
  vi.waitFor(async () => {
    if (!(await fits())) throw new Error(what);
  }, PATIENCE);
