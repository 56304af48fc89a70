import type { EditStep } from "@keen-pebble/core";
import { isNothing, merge } from "@keen-pebble/core";
import type { StaleBase } from "@keen-pebble/server/api";
import { createStore } from "zustand/vanilla";
import { OfflineError, ProblemError, storeBatch } from "./api-client.ts";
import type { SentBatch } from "./outbox.ts";
import { writeEntry } from "./outbox.ts";

/** What the top bar says about saving. */
export interface SaveState {
  readonly state: "saved" | "saving" | "offline" | "refused";
  readonly revision: number;
  /** Edits that are kept in this browser only. */
  readonly waiting: number;
  readonly message: string | null;
}

export const saveStore = createStore<SaveState>(() => ({ state: "saved", revision: 0, waiting: 0, message: null }));

/** How long to gather edits before sending them. */
const GATHER_MS = 250;
/** At most this many steps go in one batch; the server takes twice as many. */
const MOST_STEPS = 1000;
const RETRY_MS = [500, 1000, 2000, 4000];

/** What the saver asks of the project when somebody else was faster: puts the own steps on top of theirs. */
export type Rebase = (theirs: readonly EditStep[], own: readonly EditStep[]) => readonly EditStep[];

/**
 * Sends a world's edits to the server in order, one batch at a time; until they are acknowledged they also stand in
 * IndexedDB (architecture.md, flow 4).
 */
export class Saver {
  private sent: SentBatch | null = null;
  private waiting: EditStep[] = [];
  private says: string | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private busy = false;
  private failures = 0;
  private stopped = false;
  private written: Promise<void> = Promise.resolve();
  private readonly wake = () => {
    this.failures = 0;
    this.flush();
  };

  constructor(
    private readonly world: string,
    private revision: number,
    private readonly rebase: Rebase,
    /** Told of each revision that was stored. */
    private readonly saved: (revision: number) => void,
  ) {
    window.addEventListener("online", this.wake);
    this.tell("saved");
  }

  /** Takes edits that the page has made already. */
  add(steps: readonly EditStep[]): void {
    for (const step of steps) this.take(step);
    this.remember();
    if (!this.busy && this.failures === 0) {
      this.tell("saving");
      this.schedule(GATHER_MS);
    } else this.tell(this.failures > 0 ? "offline" : "saving");
  }

  /** Says why of the next batch that is sent. */
  note(text: string): void {
    this.says = text;
  }

  /** A step that goes on with the last one that waits becomes one with it. */
  private take(step: EditStep): void {
    const last = this.waiting.at(-1);
    const merged = last ? merge(last, step) : null;
    if (merged === null) this.waiting.push(step);
    else if (isNothing(merged)) this.waiting.pop();
    else this.waiting[this.waiting.length - 1] = merged;
  }

  /** Stops sending; what was not acknowledged stays in IndexedDB. */
  stop(): void {
    this.stopped = true;
    if (this.timer !== null) clearTimeout(this.timer);
    window.removeEventListener("online", this.wake);
  }

  private schedule(ms: number): void {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = setTimeout(() => this.flush(), ms);
  }

  private flush(): void {
    if (this.busy || this.stopped) return;
    if (this.sent === null && this.waiting.length === 0) {
      // What waited came to nothing.
      this.tell("saved");
      return;
    }
    this.busy = true;
    void this.send().finally(() => {
      this.busy = false;
      if (this.sent !== null || this.waiting.length > 0) {
        if (saveStore.getState().state !== "refused") this.schedule(this.failures === 0 ? GATHER_MS : (RETRY_MS[this.failures - 1] ?? RETRY_MS.at(-1)!));
      }
    });
  }

  private async send(): Promise<void> {
    if (this.sent === null) {
      this.sent = { batch: crypto.randomUUID(), base: this.revision, steps: this.waiting.slice(0, MOST_STEPS), ...(this.says === null ? {} : { note: this.says }) };
      this.says = null;
      this.waiting = this.waiting.slice(MOST_STEPS);
      this.remember();
    }
    const batch = this.sent;
    // Sent only once it also stands in this browser.
    await this.written;
    try {
      const stored = await storeBatch(this.world, batch);
      this.revision = stored.revision;
      this.sent = null;
      this.failures = 0;
      this.remember();
      this.saved(this.revision);
      this.tell(this.waiting.length > 0 ? "saving" : "saved");
    } catch (error) {
      this.failed(error, batch);
    }
  }

  private failed(error: unknown, batch: SentBatch): void {
    if (error instanceof OfflineError) {
      this.failures++;
      this.tell("offline", error.message);
    } else if (error instanceof ProblemError && error.problem.code === "stale-base") {
      const since = error.problem.data as StaleBase;
      this.revision = since.revision;
      this.sent = null;
      this.waiting = [...this.rebase(since.steps, [...batch.steps, ...this.waiting])];
      this.failures = 0;
      this.remember();
      this.tell(this.waiting.length > 0 ? "saving" : "saved");
    } else {
      this.tell("refused", error instanceof Error ? error.message : String(error));
    }
  }

  private remember(): void {
    // The entry may be somebody else's by now: the same tab has opened the world again.
    if (this.stopped) return;
    const entry = { world: this.world, sent: this.sent, waiting: [...this.waiting] };
    this.written = this.written.then(() => writeEntry(entry)).catch(() => undefined);
  }

  private tell(state: SaveState["state"], message: string | null = null): void {
    if (this.stopped) return;
    const waiting = (this.sent?.steps.length ?? 0) + this.waiting.length;
    saveStore.setState({ state, revision: this.revision, waiting, message });
  }
}
