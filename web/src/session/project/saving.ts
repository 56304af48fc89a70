import type { EditStep, Project } from "@keen-pebble/core/edit";
import { isNothing, merge } from "@keen-pebble/core/edit";
import type { StaleBase, StoredRevision } from "@keen-pebble/server/api";
import { createStore } from "zustand/vanilla";
import { OfflineError, ProblemError } from "./server-answer.ts";
import type { Outbox, OwnEdits, OwnStep, SentBatch } from "./outbox.ts";

/** What the top bar says about saving. */
export interface SaveState {
  readonly state: "saved" | "saving" | "offline";
  readonly revision: number;
  /** Edits that are not stored on the server. */
  readonly waiting: number;
  readonly message: string | null;
  /** Edits that the server has refused; all others go on being saved. */
  readonly refused: readonly OwnStep[];
  /** Whether edits that wait survive this tab. */
  readonly keeps: boolean;
}

export const NOTHING_TO_SAVE: SaveState = {
  state: "saved",
  revision: 0,
  waiting: 0,
  message: null,
  refused: [],
  keeps: true,
};

export const makeSaveStore = () => createStore<SaveState>(() => NOTHING_TO_SAVE);

/** How long to gather edits before sending them. */
const GATHER_MS = 250;
/** A number that is tuned, or a log that is typed, is sent once it rests for so long, or after that at the latest: all of it is one revision. */
const TUNING_MS = 2500;
const LONGEST_TUNING_MS = 15_000;
/** At most this many steps go in one batch; the server takes twice as many. */
const MOST_STEPS = 1000;
const RETRY_MS = [500, 1000, 2000, 4000];

/** Problems that ask for patience, not for another batch. */
const PATIENCE = new Set(["too-many-requests", "busy", "no-database", "not-found", "foreign-request"]);

/** What a saver works with. */
export interface SaverTools {
  readonly outbox: Pick<Outbox, "write" | "release" | "keeps">;
  readonly storeBatch: (world: string, batch: SentBatch) => Promise<StoredRevision>;
  readonly stepsSince: (world: string, revision: number) => Promise<StaleBase>;
  /** The world at its newest revision. */
  readonly openWorld: (world: string) => Promise<{ readonly revision: number; readonly project: Project }>;
  /**
   * Puts the own edits on top of what somebody else did, or on top of a whole world.
   * @throws where what was there before the own edits cannot be made out; then it is asked again with the whole world
   */
  readonly rebase: (under: readonly EditStep[] | Project, own: readonly OwnStep[]) => Rebased;
  /** Told of each revision that was stored. */
  readonly saved: (revision: number) => void;
  readonly tell: (state: SaveState) => void;
}

/** What became of own edits that were put on top of something else. */
export interface Rebased {
  /** Those that still fit, as they were applied. */
  readonly kept: readonly OwnStep[];
  /** Tells whether the others were kept elsewhere, once that is done; null where all fit. */
  readonly copied: Promise<boolean> | null;
}

/**
 * Sends a world's edits to the server in order, one batch at a time; until they are acknowledged they also stand in
 * IndexedDB (architecture.md, flow 4). What the server refuses is set aside by itself, and everything else goes on.
 */
export class Saver {
  private sent: SentBatch | null = null;
  /** The steps of the batch that was sent, as they stood in the queue. */
  private sending: Queued[] = [];
  private queue: Queued[] = [];
  private made = 0;
  private left: readonly OwnEdits[] = [];
  /** Copies of edits that fit no more, under way. */
  private readonly copies = new Set<Promise<unknown>>();
  private says: string | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private busy = false;
  private failures = 0;
  private message: string | null = null;
  private phase: "no" | "leaving" | "gone" = "no";
  /** Steps of the next batch: halved when one is refused, to find which of them it is. */
  private max = MOST_STEPS;
  /** The newest revision that the server told of. */
  private heardOf = 0;
  /** Whether others may have saved since what is under way was asked. */
  private looksAgain = false;
  private tuningSince: number | null = null;
  private written: Promise<unknown> = Promise.resolve();
  private readonly wake = (): void => {
    this.failures = 0;
    this.flush();
  };

  constructor(
    private readonly world: string,
    private revision: number,
    private readonly tools: SaverTools,
  ) {
    globalThis.addEventListener?.("online", this.wake);
    this.tell();
  }

  /** Takes edits that the page has made already. */
  add(steps: readonly EditStep[]): void {
    for (const step of steps) this.take(step);
    this.remember();
    this.tell();
    if (!this.busy && this.failures === 0) this.schedule(this.patience());
  }

  /** Takes edits that an earlier visit had made; `left` are those of visits that could not be brought back yet. */
  adopt(own: readonly OwnStep[], left: readonly OwnEdits[]): void {
    this.left = left;
    this.queue.push(...own.map((each) => this.queued(each)));
    this.remember();
    this.tell();
    if (this.queue.some(isWaiting)) this.schedule(0);
  }

  /** Says why of the next batch that is sent. */
  note(text: string): void {
    this.says = text;
  }

  /** Sends what waits now, without waiting for more. */
  sendNow(): void {
    if (this.failures === 0) this.flush();
  }

  /** The server has told of a new revision: one that is not this tab's own is taken in below its edits. */
  heard(revision: number): void {
    this.heardOf = Math.max(this.heardOf, revision);
    if (!this.busy && this.sent === null && this.heardOf > this.revision) void this.busily(() => this.catchUp(null));
  }

  /** Asks whether others have saved meanwhile. */
  look(): void {
    // What is under way may have been answered before that was saved: it is asked behind it.
    if (this.busy || this.sent !== null) this.looksAgain = true;
    else void this.busily(() => this.catchUp(null));
  }

  private get isBehind(): boolean {
    return this.looksAgain || this.heardOf > this.revision;
  }

  /** Own edits that the server has not stored. */
  private inOrder(): Queued[] {
    return [...this.sending, ...this.queue].sort((a, b) => a.order - b.order);
  }

  private queued({ step, refused }: OwnStep): Queued {
    return { step, refused, order: this.made++ };
  }

  /**
   * Forgets what was refused, once what is under way is answered: all other own edits go on top of the world as the server
   * has it.
   * @throws {OfflineError | ProblemError} where the server cannot be asked; then nothing is forgotten
   */
  async discardRefused(): Promise<void> {
    while (this.busy) await aMoment();
    if (this.phase !== "no") return;
    await this.busily(async () => {
      // Whether that was stored decides what the others stand on.
      if (this.sent !== null) await this.send();
      if (this.sent !== null) throw new OfflineError(this.message ?? "what was sent is not answered");
      const { revision, project } = await this.tools.openWorld(this.world);
      this.queue = this.inOrder().filter(isWaiting);
      this.put(revision, project);
    });
  }

  /**
   * Leaves the world: what waits is sent at once, and what is not acknowledged then stays in IndexedDB for whoever opens
   * the world next.
   */
  async leave(): Promise<void> {
    if (this.phase !== "no") return;
    this.phase = "leaving";
    globalThis.removeEventListener?.("online", this.wake);
    while (this.busy) await aMoment();
    await Promise.all(this.copies);
    while (this.failures === 0 && (this.sent !== null || this.queue.some(isWaiting))) {
      // Each time one is stored, set aside or put on top of more, or it is not answered.
      await this.busily(() => this.send());
    }
    await this.written;
    this.phase = "gone";
    this.tools.outbox.release(this.world);
  }

  /** A step that goes on with one that waits, or corrects one that was refused, becomes one with it. */
  private take(step: EditStep): void {
    for (let at = this.queue.length - 1; at >= 0; at--) {
      const there = this.queue[at]!;
      const merged = merge(there.step, step);
      if (merged !== null && (at === this.queue.length - 1 || there.refused !== null)) {
        if (isNothing(merged)) this.queue.splice(at, 1);
        else this.queue[at] = { step: merged, refused: null, order: there.order };
        // What was refused only because of it is tried again.
        this.queue = this.queue.map((each, i) => (i >= at ? { ...each, refused: null } : each));
        return;
      }
      // Something of the same kind and place stands in between.
      if (merged !== null) break;
    }
    this.queue.push(this.queued({ step, refused: null }));
  }

  /** How long the next batch waits for more: a number that is tuned is left to rest. */
  private patience(): number {
    const waiting = this.queue.filter(isWaiting);
    // A log's text as it is typed is one that is not whole yet.
    if (waiting.length !== 1 || (waiting[0]!.step.kind !== "change-rules" && waiting[0]!.step.kind !== "change-log")) {
      this.tuningSince = null;
      return GATHER_MS;
    }
    this.tuningSince ??= Date.now();
    return Math.max(0, Math.min(TUNING_MS, this.tuningSince + LONGEST_TUNING_MS - Date.now()));
  }

  private schedule(ms: number): void {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = setTimeout(() => this.flush(), ms);
  }

  private flush(): void {
    if (this.busy || this.phase !== "no") return;
    if (this.sent === null && !this.queue.some(isWaiting)) {
      this.tell();
      if (this.isBehind) void this.busily(() => this.catchUp(null));
      return;
    }
    void this.busily(() => this.send());
  }

  /** Does one thing at a time, and goes on with what is left. */
  private async busily(what: () => Promise<void>): Promise<void> {
    this.busy = true;
    try {
      await what();
    } finally {
      this.busy = false;
      this.goOn();
    }
  }

  private goOn(): void {
    if (this.phase !== "no") return;
    if (this.sent !== null || this.queue.some(isWaiting))
      this.schedule(
        this.failures === 0
          ? this.max < MOST_STEPS
            ? 0
            : this.patience()
          : (RETRY_MS[this.failures - 1] ?? RETRY_MS.at(-1)!),
      );
    else if (this.failures === 0 && this.isBehind) this.schedule(0);
  }

  private async send(): Promise<void> {
    this.tuningSince = null;
    if (this.sent === null) {
      const waiting = this.queue.filter(isWaiting).slice(0, this.max);
      this.sent = {
        batch: crypto.randomUUID(),
        base: this.revision,
        steps: waiting.map(({ step }) => step),
        ...(this.says === null ? {} : { note: this.says }),
      };
      this.sending = waiting;
      this.queue = this.queue.filter((each) => !waiting.includes(each));
      this.remember();
    }
    const batch = this.sent;
    // Sent only once it also stands in this browser, where that keeps anything.
    await this.written;
    this.tell();
    try {
      const stored = await this.tools.storeBatch(this.world, batch);
      this.revision = Math.max(this.revision, stored.revision);
      this.sent = null;
      this.sending = [];
      this.says = this.says === batch.note ? null : this.says;
      this.failures = 0;
      this.message = null;
      if (this.max < MOST_STEPS && !this.queue.some(isWaiting)) this.max = MOST_STEPS;
      this.remember();
      this.tools.saved(this.revision);
      this.tell();
    } catch (error) {
      await this.failed(error, batch);
    }
  }

  private async failed(error: unknown, batch: SentBatch): Promise<void> {
    if (error instanceof OfflineError || (error instanceof ProblemError && PATIENCE.has(error.problem.code))) {
      this.failures++;
      this.message =
        error instanceof ProblemError && error.problem.code === "not-found"
          ? "this world is not on the shelf any more; its edits go on being kept, and are saved once it is put back"
          : error.message;
      this.tell();
      return;
    }
    if (error instanceof ProblemError && error.problem.code === "stale-base") {
      await this.catchUp(error.problem.data as StaleBase);
      return;
    }
    // Refused: which of its steps it is shows by halves; the one that is left is set aside with what the server said.
    const one = this.sending.length === 1;
    const message = error instanceof Error ? error.message : String(error);
    if (one) this.sending = this.sending.map((each) => ({ ...each, refused: message }));
    this.max = one ? MOST_STEPS : Math.ceil(batch.steps.length / 2);
    this.queue = this.inOrder();
    this.sending = [];
    this.sent = null;
    this.failures = 0;
    this.remember();
    this.tell();
  }

  /** Takes in what others did since this tab's revision, below its own edits. */
  private async catchUp(told: StaleBase | null): Promise<void> {
    // What was told with a refusal is as old as the batch: others may have saved since.
    if (told === null) this.looksAgain = false;
    try {
      const since = told ?? (await this.tools.stepsSince(this.world, this.revision));
      if (since.steps !== null && this.put(since.revision, since.steps)) return;
      // What stood below the own edits is not known any more: they go on top of the whole world.
      const { revision, project } = await this.tools.openWorld(this.world);
      this.put(revision, project);
    } catch (error) {
      if (!(error instanceof OfflineError || error instanceof ProblemError)) throw error;
      // Nobody waits for it: it is asked for again when there is word of it, or something to save.
      if (told === null) {
        this.heardOf = this.revision;
        return;
      }
      this.failures++;
      this.message = error.message;
      this.tell();
    }
  }

  /** Puts the own edits on top; says whether that could be done. Nothing is dropped where it cannot. */
  private put(revision: number, under: readonly EditStep[] | Project): boolean {
    const own = this.inOrder();
    try {
      const { kept, copied } = this.tools.rebase(under, own);
      this.queue = kept.map((each) => this.queued(each));
      if (copied !== null)
        this.keepUntil(copied, {
          base: this.revision,
          sent: null,
          waiting: own.map(({ step, refused }) => ({ step, refused })),
        });
    } catch (error) {
      if (!Array.isArray(under)) throw error;
      return false;
    }
    this.sent = null;
    this.sending = [];
    this.revision = revision;
    this.failures = 0;
    this.message = null;
    this.remember();
    this.tell();
    return true;
  }

  /** Edits that fit no more stay in this browser, and nothing is called saved, until they are kept elsewhere. */
  private keepUntil(copied: Promise<boolean>, edits: OwnEdits): void {
    this.left = [...this.left, edits];
    const done = copied.then((kept) => {
      if (kept) this.left = this.left.filter((each) => each !== edits);
      this.copies.delete(done);
      this.remember();
      this.tell();
    });
    this.copies.add(done);
  }

  private remember(): void {
    // The entry is somebody else's by then.
    if (this.phase === "gone") return;
    const entry = {
      world: this.world,
      base: this.revision,
      sent: this.sent,
      waiting: this.queue.map(({ step, refused }) => ({ step, refused })),
      left: this.left,
    };
    this.written = this.written.then(() => this.tools.outbox.write(entry)).then(() => this.tell());
  }

  private tell(): void {
    if (this.phase !== "no") return;
    const refused = this.queue
      .filter((each) => !isWaiting(each))
      .map(({ step, refused: why }) => ({ step, refused: why }));
    const waiting = (this.sent?.steps.length ?? 0) + this.queue.length;
    const state = this.failures > 0 ? "offline" : waiting > refused.length || this.copies.size > 0 ? "saving" : "saved";
    this.tools.tell({
      state,
      revision: this.revision,
      waiting,
      message: this.message,
      refused,
      keeps: this.tools.outbox.keeps,
    });
  }
}

/** An own edit with its place among all of them. */
interface Queued extends OwnStep {
  readonly order: number;
}

/** Between two looks at whether something is under way still: nothing may come between the last look and what it allows. */
const aMoment = (): Promise<unknown> => new Promise((resolve) => setTimeout(resolve, 5));

const isWaiting = ({ refused }: OwnStep): boolean => refused === null;

/** What `makeSaveStore` makes. */
export type SaveStore = ReturnType<typeof makeSaveStore>;
