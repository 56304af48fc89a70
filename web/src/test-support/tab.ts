import { AsyncLocalStorage } from "node:async_hooks";
import { vi } from "vitest";
import type { Session } from "../session/session.ts";
import { makeSession } from "../session/session.ts";
import { FakeEventSource } from "./fake-event-source.ts";
import type { FakeLocks } from "./fake-locks.ts";
import { FakeWorker } from "./fake-worker.ts";

/** Which tab asks: what a tab does goes on to be that tab's, over promises and timers. */
const asking = new AsyncLocalStorage<Tab>();

/**
 * A tab of a browser with a session of its own, apart from every other one: the browser's IndexedDB
 * and locks, and a line to the server that can be cut.
 */
export class Tab {
  /** Nothing gets through to the server. */
  offline = false;
  /** Its timers never come: what it would send after a while, it does not begin to send, however slow the machine. */
  neverSends = false;
  /** So many answers get lost on their way; what was asked for is done. */
  losesAnswers = 0;
  private killed = false;
  /** What its browser is writing: a crash ends before it or after it, never with it going on behind. */
  private writing: Promise<unknown> = Promise.resolve();
  private source: FakeEventSource | null = null;

  private constructor(
    readonly name: string,
    private readonly locks: FakeLocks,
    readonly session: Session,
  ) {}

  /** Opens a tab. @param address of the server */
  static async open(name: string, locks: FakeLocks, address: string): Promise<Tab> {
    vi.stubGlobal("Worker", FakeWorker);
    FakeWorker.ownModules = true;
    vi.stubGlobal("EventSource", FakeEventSource);
    // Each tab listens for itself: tabs of one thread would hear each other twice.
    vi.stubGlobal("BroadcastChannel", undefined);
    vi.stubGlobal("navigator", { locks: locks.of(name), hardwareConcurrency: 2 });
    vi.stubGlobal("setTimeout", (act: (...what: unknown[]) => void, ms?: number, ...what: unknown[]) =>
      realTimeout(asking.getStore()?.neverSends === true ? () => undefined : act, ms, ...what),
    );
    vi.stubGlobal("fetch", (path: string, init?: RequestInit) => fetchFor(address, path, init));
    const session = makeSession();
    const { outbox } = session;
    const tab = new Tab(name, locks, session);
    const write = outbox.write.bind(outbox);
    outbox.write = (entry) => {
      if (tab.killed) return FOR_EVER;
      const written = write(entry);
      tab.writing = Promise.all([tab.writing, written]);
      return written;
    };
    return tab;
  }

  /** Does something in this tab. */
  in<T>(act: () => T): T {
    return asking.run(this, act);
  }

  /** Opens a world, and waits until it is there or cannot be. */
  async openWorld(world: string): Promise<void> {
    await this.in(() => this.session.project.openProject(world));
    this.source = FakeEventSource.all.at(-1) ?? null;
  }

  /** Hears that the stream of events is open: it then asks for what it missed. */
  hear(): void {
    this.in(() => this.source?.say("open"));
  }

  /** Waits until all is saved, or for something else. */
  async until(fits: () => boolean = () => this.session.saveStore.getState().state === "saved"): Promise<void> {
    await vi.waitFor(
      () => {
        if (!fits()) throw new Error(`${this.name} stayed at ${JSON.stringify(this.session.saveStore.getState())}`);
      },
      { timeout: 20_000, interval: 10 },
    );
  }

  /** Waits until the browser has written all that it was given. */
  async isKept(): Promise<void> {
    let seen: unknown = null;
    while (seen !== this.writing) {
      seen = this.writing;
      await seen;
      // The saver writes one entry after the other.
      await new Promise((resolve) => setTimeout(resolve, 1));
    }
  }

  /** Waits until so many edits of a world stand in the browser. */
  async keeps(world: string, edits: number): Promise<void> {
    await vi.waitFor(
      async () => {
        const kept = (await this.session.outbox.unsaved()).get(world) ?? 0;
        if (kept !== edits) throw new Error(`${this.name} keeps ${kept} edits of ${world}`);
      },
      { timeout: 20_000, interval: 10 },
    );
  }

  /** Ends the tab as a crash does: nothing that is under way goes on. */
  async kill(): Promise<void> {
    this.killed = true;
    await this.writing;
    this.locks.close(this.name);
  }

  /** Whether the tab is there no more: what it waits for never comes. */
  get isGone(): boolean {
    return this.killed;
  }
}

const FOR_EVER = new Promise<never>(() => undefined);
const real = globalThis.fetch;
const realTimeout = globalThis.setTimeout;

async function fetchFor(address: string, path: string, init?: RequestInit): Promise<Response> {
  const tab = asking.getStore();
  if (tab?.isGone) return FOR_EVER;
  if (tab?.offline) throw new TypeError("no connection");
  const answer = await real(`${address}${path}`, init);
  if (tab?.isGone) return FOR_EVER;
  if (tab !== undefined && tab.losesAnswers > 0) {
    tab.losesAnswers--;
    throw new TypeError("the answer was lost");
  }
  return answer;
}
