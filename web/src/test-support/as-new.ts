import "fake-indexeddb/auto";
import { indexedDB as inMemory } from "fake-indexeddb";
import { vi } from "vitest";
import "./own-channels.ts";
import { session } from "../page-session.ts";

/** What a store of the session offers to be set back. */
interface Store {
  readonly getInitialState: () => unknown;
  readonly setState: (state: unknown, replace: true) => void;
}
const isStore = (part: unknown): part is Store =>
  typeof part === "object" && part !== null && "getInitialState" in part;

/** Every store of the session as it is when a page is loaded. */
function resetStores(): void {
  for (const part of Object.values<unknown>({ ...session }))
    for (const store of [part, (part as { readonly store?: unknown }).store])
      if (isStore(store)) store.setState(store.getInitialState(), true);
}

/** Takes away all that the browser kept. */
async function emptyOutbox(): Promise<void> {
  const db = await new Promise<IDBDatabase>((resolve, reject) => {
    const asks = inMemory.open("keen-pebble");
    asks.onsuccess = () => resolve(asks.result);
    asks.onerror = () => reject(new Error("the database in memory does not open", { cause: asks.error }));
  });
  const names = [...db.objectStoreNames];
  const clearing = db.transaction(names, "readwrite");
  for (const name of names) clearing.objectStore(name).clear();
  await new Promise((resolve) => {
    clearing.oncomplete = resolve;
  });
  db.close();
}

/**
 * Files of tests share a page and its session, which are loaded once: each begins as one does who has just loaded it.
 * Vitest runs this anew before each file.
 */
async function asNew(): Promise<void> {
  vi.useRealTimers();
  vi.unstubAllGlobals();
  globalThis.indexedDB = inMemory;
  // Nothing that was left answers any more; what the last file left open is left once another world is asked for.
  vi.stubGlobal("fetch", () => Promise.reject(new TypeError("no server")));
  await session.project.openProject("nowhere");
  session.project.closeProject();
  resetStores();
  await emptyOutbox();
  localStorage.clear();
  sessionStorage.clear();
  document.body.replaceChildren();
}

await asNew();
