import type { EditStep, History } from "@keen-pebble/core";
import type { DBSchema, IDBPDatabase } from "idb";
import { openDB } from "idb";

/** A batch that was sent and not yet acknowledged: sent again it is stored once. */
export interface SentBatch {
  readonly batch: string;
  readonly base: number;
  readonly steps: readonly EditStep[];
  /** Why, in the person's words. */
  readonly note?: string;
}

/** What one tab has not had acknowledged for one world. */
export interface OutboxEntry {
  readonly world: string;
  readonly sent: SentBatch | null;
  readonly waiting: readonly EditStep[];
}

/** What could be undone in a world when a revision of it was stored. */
export interface KeptHistory {
  readonly revision: number;
  readonly history: History;
}

interface OutboxSchema extends DBSchema {
  entries: { key: string; value: OutboxEntry; indexes: { world: string } };
  histories: { key: string; value: KeptHistory };
}

let opened: Promise<IDBPDatabase<OutboxSchema>> | null = null;

function database(): Promise<IDBPDatabase<OutboxSchema>> {
  opened ??= openDB<OutboxSchema>("keen-pebble", 2, {
    upgrade(db, from) {
      if (from < 1) db.createObjectStore("entries").createIndex("world", "world");
      if (from < 2) db.createObjectStore("histories");
    },
  });
  return opened;
}

/** This tab's name among those that have the same world open. */
const TAB = crypto.randomUUID();

const lockName = (key: string): string => `keen-pebble/${key}`;
const keyOf = (world: string): string => `${world}/${TAB}`;

/**
 * Marks this tab's entry as somebody's for as long as the tab lives, so that other tabs leave it alone.
 * The lock goes with the tab, however it ends.
 */
export function claimEntry(world: string): void {
  void navigator.locks.request(lockName(keyOf(world)), () => new Promise(() => undefined));
}

/** Writes what this tab has not had acknowledged; nothing left takes the entry away. */
export async function writeEntry(entry: OutboxEntry): Promise<void> {
  const db = await database();
  if (entry.sent === null && entry.waiting.length === 0) await db.delete("entries", keyOf(entry.world));
  else await db.put("entries", entry, keyOf(entry.world));
}

/** What was left behind, with what takes it away; `own`: by this very tab. */
export interface LeftBehind {
  readonly entry: OutboxEntry;
  readonly own: boolean;
  readonly remove: () => Promise<void>;
}

/** Entries of the world that closed tabs, or this tab's last visit, left behind. */
export async function leftBehind(world: string): Promise<LeftBehind[]> {
  const db = await database();
  const keys = await db.getAllKeysFromIndex("entries", "world", world);
  const found: LeftBehind[] = [];
  for (const key of keys) {
    // This tab's own is from its last visit to the world: whoever asks has it not open.
    const own = key === keyOf(world);
    if (!own && !(await hasGone(key))) continue;
    const entry = await db.get("entries", key);
    if (entry) found.push({ entry, own, remove: () => db.delete("entries", key) });
  }
  return found;
}

/** A page that was just left, by a reload say, holds its lock for a moment longer. */
const LEAVING_MS = 600;

/** Whether the tab with that entry is gone. One that lives on keeps its lock. */
async function hasGone(key: string): Promise<boolean> {
  try {
    return await navigator.locks.request(lockName(key), { signal: AbortSignal.timeout(LEAVING_MS) }, () => true);
  } catch {
    return false;
  }
}

/** Keeps what can be undone over a reload. */
export async function keepHistory(world: string, kept: KeptHistory): Promise<void> {
  await (await database()).put("histories", kept, world);
}

/** What could be undone when that revision was stored; null where something else is the newest now. */
export async function keptHistory(world: string, revision: number): Promise<History | null> {
  const kept = await (await database()).get("histories", world);
  return kept?.revision === revision ? kept.history : null;
}
