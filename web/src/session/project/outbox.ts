import type { EditStep, History } from "@keen-pebble/core/edit";
import type { DBSchema, IDBPDatabase } from "idb";
import { openDB } from "idb";
import type { KeptWalk } from "../walk/kept-walk.ts";
import { packed, unpacked } from "./packed-steps.ts";

/** A batch that was sent and not yet acknowledged: sent again it is stored once. */
export interface SentBatch {
  readonly batch: string;
  readonly base: number;
  readonly steps: readonly EditStep[];
  /** Why, in the person's words. */
  readonly note?: string;
}

/** An edit that is not stored on the server yet; or one that the server has refused, and why. */
export interface OwnStep {
  readonly step: EditStep;
  readonly refused: string | null;
}

/** Edits of one visit to a world: what was sent, and what waits behind it, on top of a revision. */
export interface OwnEdits {
  /** Null where an older version wrote it, which did not say. */
  readonly base: number | null;
  readonly sent: SentBatch | null;
  readonly waiting: readonly OwnStep[];
}

/** What one tab has not had acknowledged for one world. */
export interface OutboxEntry extends OwnEdits {
  readonly world: string;
  /** What tabs that were closed had not had acknowledged, taken over and not brought back yet. */
  readonly left: readonly OwnEdits[];
}

/** What could be undone in a world when a revision of it was stored. */
export interface KeptHistory {
  readonly revision: number;
  readonly history: History;
}

/** A text that is being typed and is not in order yet. */
export interface Draft {
  readonly world: string;
  readonly text: string;
}

interface OutboxSchema extends DBSchema {
  entries: { key: string; value: OutboxEntry; indexes: { world: string } };
  histories: { key: string; value: KeptHistory };
  walks: { key: string; value: KeptWalk };
  drafts: { key: string; value: Draft };
}

/** A page that was just left, by a reload say, holds its lock for a moment longer. */
const LEAVING_MS = 600;

const lockName = (key: string): string => `keen-pebble/${key}`;
const hasEdits = ({ sent, waiting }: OwnEdits): boolean => sent !== null || waiting.length > 0;

/** Edits as they are kept, as one works with them; older versions wrote bare steps, and no base. */
function read(entry: OutboxEntry): OutboxEntry {
  const waiting = (entry.waiting as readonly (OwnStep | EditStep)[]).map((each): OwnStep =>
    "step" in each ? each : { step: each, refused: null },
  );
  const edits = withSteps({ base: entry.base ?? entry.sent?.base ?? null, sent: entry.sent, waiting }, unpacked);
  return { world: entry.world, ...edits, left: (entry.left ?? []).map((each) => withSteps(each, unpacked)) };
}

/** The entry as it is kept: what a bucket painted is copied at once, not number by number. */
function kept(entry: OutboxEntry): OutboxEntry {
  return { world: entry.world, ...withSteps(entry, packed), left: entry.left.map((each) => withSteps(each, packed)) };
}

function withSteps({ base, sent, waiting }: OwnEdits, how: (step: EditStep) => EditStep): OwnEdits {
  return {
    base,
    sent: sent === null ? null : { ...sent, steps: sent.steps.map(how) },
    waiting: waiting.map(({ step, refused }) => ({ step: how(step), refused })),
  };
}

function historyWith({ done, undone, open }: History, how: (step: EditStep) => EditStep): History {
  return { done: done.map((group) => group.map(how)), undone: undone.map((group) => group.map(how)), open };
}

/**
 * What this browser keeps of a world until the server has it, or until it is done with: edits, what can be undone, a walk
 * that was not kept, texts in work (architecture.md, flow 4). Where the browser refuses to keep anything it all stays in
 * memory, and `keeps` says so.
 */
export class Outbox {
  private readonly opened: Promise<IDBPDatabase<OutboxSchema> | null>;
  private readonly released = new Map<string, () => void>();
  private readonly listeners = new Set<(keeps: boolean) => void>();
  private readonly followers = new Set<() => void>();
  private keeping = true;

  /**
   * @param tab this tab's name among those that have the same world open
   * @param locks null where the browser has none: then closed tabs cannot be told from open ones, and nothing is taken over
   */
  constructor(
    open: () => Promise<IDBPDatabase<OutboxSchema>>,
    private readonly locks: LockManager | null,
    private readonly tab: string,
  ) {
    this.opened = open().catch(() => {
      this.say(false);
      return null;
    });
  }

  /** Whether what is not stored on the server survives this tab. */
  get keeps(): boolean {
    return this.keeping;
  }

  /** Calls the listener when that changes. */
  onKeeps(listener: (keeps: boolean) => void): void {
    this.listeners.add(listener);
  }

  /** Calls the listener when this tab has written or taken away edits that are not stored; gives back what stops that. */
  onWritten(listener: () => void): () => void {
    this.followers.add(listener);
    return () => this.followers.delete(listener);
  }

  /** Marks this tab's entry as somebody's for as long as the tab has the world open, so that other tabs leave it alone. */
  async claim(world: string): Promise<void> {
    const key = this.keyOf(world);
    if (this.locks === null || this.released.has(key)) return;
    await new Promise<void>((granted) => {
      void this.locks!.request(lockName(key), () => {
        granted();
        return new Promise<void>((release) => this.released.set(key, release));
      });
    });
  }

  /** Leaves the entry to whoever opens the world next. */
  release(world: string): void {
    const key = this.keyOf(world);
    this.released.get(key)?.();
    this.released.delete(key);
  }

  /**
   * Takes over what tabs that were closed, or this one's last visit, had not had acknowledged: each whole, in one
   * transaction, under its lock. Claim the world first.
   */
  async takeOver(world: string): Promise<readonly OwnEdits[]> {
    const own = this.keyOf(world);
    const keys = (await this.quietly((db) => db.getAllKeysFromIndex("entries", "world", world))) ?? [];
    await this.move(world, own);
    for (const key of keys) if (key !== own) await this.whenGone(key, () => this.move(world, key));
    return (await this.entry(world)).left;
  }

  /** Moves an entry's edits to what this tab's entry has left over from others. */
  private async move(world: string, key: string): Promise<void> {
    await this.quietly(async (db) => {
      const entries = db.transaction("entries", "readwrite").store;
      const [theirs, own] = [await entries.get(key), await entries.get(this.keyOf(world))];
      if (theirs === undefined) return;
      const { base, sent, waiting, left } = read(theirs);
      const edits = { base, sent, waiting };
      const before = key === this.keyOf(world) || own === undefined ? [] : read(own).left;
      await entries.delete(key);
      await entries.put(
        kept({
          world,
          base: null,
          sent: null,
          waiting: [],
          left: [...before, ...left, ...(hasEdits(edits) ? [edits] : [])],
        }),
        this.keyOf(world),
      );
    });
  }

  private async entry(world: string): Promise<OutboxEntry> {
    const entry = await this.quietly((db) => db.get("entries", this.keyOf(world)));
    return entry === undefined || entry === null
      ? { world, base: null, sent: null, waiting: [], left: [] }
      : read(entry);
  }

  /** Writes what this tab has not had acknowledged; nothing left takes the entry away. Says whether it is kept. */
  async write(entry: OutboxEntry): Promise<boolean> {
    const key = this.keyOf(entry.world);
    const written = await this.quietly(async (db) => {
      if (!hasEdits(entry) && entry.left.length === 0) await db.delete("entries", key);
      else await db.put("entries", kept(entry), key);
      return true;
    });
    for (const follower of this.followers) follower();
    return written === true;
  }

  /** Worlds with edits that are not stored on the server, and how many. */
  async unsaved(): Promise<ReadonlyMap<string, number>> {
    const found = new Map<string, number>();
    for (const raw of (await this.quietly((db) => db.getAll("entries"))) ?? []) {
      const entry = read(raw);
      const count = [entry, ...entry.left].reduce(
        (sum, { sent, waiting }) => sum + (sent?.steps.length ?? 0) + waiting.length,
        0,
      );
      if (count > 0) found.set(entry.world, (found.get(entry.world) ?? 0) + count);
    }
    return found;
  }

  /** Keeps what can be undone over a reload. */
  async keepHistory(world: string, { revision, history }: KeptHistory): Promise<void> {
    await this.quietly((db) => db.put("histories", { revision, history: historyWith(history, packed) }, world));
  }

  /** What could be undone when that revision was stored; null where something else is the newest now. */
  async keptHistory(world: string, revision: number): Promise<History | null> {
    const there = await this.quietly((db) => db.get("histories", world));
    return there?.revision === revision ? historyWith(there.history, unpacked) : null;
  }

  /** Keeps a walk of a world that was not kept as a log, until the next one. */
  async keepWalk(world: string, walk: KeptWalk | null): Promise<void> {
    await this.quietly(
      async (db) => void (walk === null ? await db.delete("walks", world) : await db.put("walks", walk, world)),
    );
  }

  async keptWalk(world: string): Promise<KeptWalk | null> {
    return (await this.quietly((db) => db.get("walks", world))) ?? null;
  }

  /** Keeps a text in work under a name of its own; null forgets it. */
  async keepDraft(world: string, name: string, text: string | null): Promise<void> {
    const key = `${world}/${name}`;
    await this.quietly(
      async (db) =>
        void (text === null ? await db.delete("drafts", key) : await db.put("drafts", { world, text }, key)),
    );
  }

  async keptDraft(world: string, name: string): Promise<string | null> {
    return (await this.quietly((db) => db.get("drafts", `${world}/${name}`)))?.text ?? null;
  }

  private keyOf(world: string): string {
    return `${world}/${this.tab}`;
  }

  /** Does something under the lock of an entry once its tab is gone; one that lives on keeps its lock. */
  private async whenGone(key: string, act: () => Promise<void>): Promise<void> {
    if (this.locks === null) return;
    try {
      await this.locks.request(lockName(key), { signal: AbortSignal.timeout(LEAVING_MS) }, act);
    } catch (error) {
      if (!(error instanceof DOMException)) throw error;
    }
  }

  /** Asks the database; null where it cannot be asked, which is told. */
  private async quietly<T>(ask: (db: IDBPDatabase<OutboxSchema>) => Promise<T>): Promise<T | null> {
    const db = await this.opened;
    if (db === null) return null;
    try {
      const answer = await ask(db);
      this.say(true);
      return answer;
    } catch {
      this.say(false);
      return null;
    }
  }

  private say(keeps: boolean): void {
    if (keeps === this.keeping) return;
    this.keeping = keeps;
    for (const listener of this.listeners) listener(keeps);
  }
}

/** Opens the database of this browser. */
export async function openOutbox(): Promise<IDBPDatabase<OutboxSchema>> {
  return openDB<OutboxSchema>("keen-pebble", 3, {
    upgrade(db, from) {
      if (from < 1) db.createObjectStore("entries").createIndex("world", "world");
      if (from < 2) db.createObjectStore("histories");
      if (from < 3) {
        db.createObjectStore("walks");
        db.createObjectStore("drafts");
      }
    },
    // Another tab has a newer page, and needs this one to let go.
    blocking: (_from, _to, event) => (event.target as IDBDatabase | null)?.close(),
  });
}

/** What this browser keeps for one tab. */
export function makeOutbox(): Outbox {
  const locks = (globalThis.navigator as { locks?: LockManager } | undefined)?.locks ?? null;
  return new Outbox(openOutbox, locks, globalThis.crypto.randomUUID());
}
