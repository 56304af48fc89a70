import type {
  AcceptedAt,
  BreakSearch,
  DeletedWorld,
  DeletedWorlds,
  ChangedEntry,
  Imported,
  ImportedFiles,
  JournalEntry,
  NewEntry,
  NewRevision,
  NewSearch,
  PlaytestLink,
  PlaytestSwitch,
  ProofState,
  RevisionList,
  RevisionNote,
  ShelfSummary,
  StaleBase,
  StoredRevision,
  WorldList,
  WorldProofs,
  WorldRevision,
} from "@keen-pebble/server/api";
import { OfflineError, ProblemError, answerOf, jsonBody } from "./server-answer.ts";

const ask = <T>(path: string, init?: RequestInit): Promise<T> => answerOf<T>(`/api${path}`, init);

/** The answer, or null where the server says no or cannot be reached. */
export async function quietly<T>(answer: Promise<T>): Promise<T | null> {
  try {
    return await answer;
  } catch (error) {
    if (error instanceof ProblemError || error instanceof OfflineError) return null;
    throw error;
  }
}

const send = <T>(path: string, body: unknown): Promise<T> => ask<T>(path, jsonBody("POST", body));

/** All worlds on the shelf. */
export const listWorlds = (): Promise<WorldList> => ask("/worlds");

/** All worlds on the shelf with what their logs come to. */
export const shelfSummary = (): Promise<ShelfSummary> => ask("/shelf");

/** A world at its newest revision. */
export const openWorld = (id: string): Promise<WorldRevision> => ask(`/worlds/${encodeURIComponent(id)}`);

/** Stores a batch of steps. */
export const storeBatch = (id: string, batch: NewRevision): Promise<StoredRevision> =>
  send(`/worlds/${encodeURIComponent(id)}/revisions`, batch);

const world = (id: string, more: string): string => `/worlds/${encodeURIComponent(id)}${more}`;

/** How the server's proofs of a world stand, and what its last runs said. */
export const worldProofs = (id: string): Promise<WorldProofs> => ask(world(id, "/proofs"));

/** Asks for the proofs of the newest revision, and takes that back. */
export const askForProofs = (id: string): Promise<ProofState> => ask(world(id, "/proofs"), { method: "POST" });
export const cancelProofs = (id: string): Promise<ProofState> => ask(world(id, "/proofs"), { method: "DELETE" });

/** A world as it was at a revision. */
export const openRevision = (id: string, revision: number): Promise<WorldRevision> =>
  ask(world(id, `/revisions/${revision}`));

/** The revisions of a world, the newest first, or those before one. */
export const listRevisions = (id: string, before: number | null): Promise<RevisionList> =>
  ask(world(id, `/revisions${before === null ? "" : `?before=${before}`}`));

/** Writes what somebody says of a revision. */
export const writeNote = (id: string, revision: number, note: string): Promise<RevisionNote> =>
  ask(world(id, `/revisions/${revision}/note`), jsonBody("PUT", { note }));

/** The link at which others can play a world. */
export const playtestLink = (id: string): Promise<PlaytestLink> => ask(world(id, "/playtest"));
export const switchPlaytest = (id: string, on: boolean): Promise<PlaytestLink> =>
  ask(world(id, "/playtest"), jsonBody("PUT", { on } satisfies PlaytestSwitch));

/** Entries of the Journal that are written by hand. */
export const writeEntry = (id: string, entry: NewEntry): Promise<JournalEntry> => send(world(id, "/entries"), entry);
export const changeEntry = (id: string, entry: number, text: string): Promise<JournalEntry> =>
  ask(world(id, `/entries/${entry}`), jsonBody("PUT", { text } satisfies ChangedEntry));
export const deleteEntry = (id: string, entry: number): Promise<JournalEntry> =>
  ask(world(id, `/entries/${entry}`), { method: "DELETE" });
export const entryPictureAddress = (id: string, entry: number): string =>
  `/api${world(id, `/entries/${entry}/picture`)}`;

/** Searches for the revision that broke a check. */
export const beginSearch = (id: string, search: NewSearch): Promise<BreakSearch> =>
  send(world(id, "/searches"), search);
export const findSearch = (id: string, search: string): Promise<BreakSearch> => ask(world(id, `/searches/${search}`));
export const cancelSearch = (id: string, search: string): Promise<BreakSearch> =>
  ask(world(id, `/searches/${search}`), { method: "DELETE" });

/** The revision at which the walk that is accepted for a log was accepted. */
export const acceptedAt = (id: string, log: string): Promise<AcceptedAt> =>
  ask(world(id, `/logs/${encodeURIComponent(log)}/accepted`));

/** Where the server's events are. */
export const serverEventsAddress = "/api/events";

/** What happened to a world since a revision. */
export const stepsSince = (id: string, revision: number): Promise<StaleBase> =>
  ask(world(id, `/steps?since=${revision}`));

/** Where a world's JUnit XML and its journal are. */
export const junitAddress = (id: string): string => `/api${world(id, "/junit.xml")}`;
export const journalAddress = (id: string): string => `/api${world(id, "/journal.md")}`;

/** Copies a world under a new id. */
export const copyWorld = (id: string): Promise<{ id: string }> => ask(world(id, "/copy"), { method: "POST" });

/** Takes a world off the shelf. */
export const removeWorld = (id: string): Promise<DeletedWorld> => ask(world(id, ""), { method: "DELETE" });

/** Worlds that were taken off the shelf. */
export const deletedWorlds = (): Promise<DeletedWorlds> => ask("/deleted-worlds");

/** Puts a deleted world back. */
export const restoreWorld = (key: number): Promise<{ id: string }> =>
  ask(`/deleted-worlds/${key}/restore`, { method: "POST" });

/** Brings in files as texts. */
export const sendFiles = (files: ImportedFiles): Promise<Imported> => send("/imports", files);

/** Brings in a bundle. */
export const sendBundle = (bundle: Blob): Promise<Imported> =>
  ask("/imports", { method: "POST", headers: { "content-type": "application/zip" }, body: bundle });

/** Addresses of a world as files to keep. */
export const worldFileAddress = (id: string): string => `/api${world(id, "/world.json")}`;
export const bundleAddress = (id: string): string => `/api${world(id, "/bundle.zip")}`;
export const logFileAddress = (id: string, log: string): string =>
  `/api${world(id, `/logs/${encodeURIComponent(log)}`)}`;

/** Where an image sheet of a world is. */
export const sheetAddress = (id: string, file: string): string =>
  `/api${world(id, `/sheets/${encodeURIComponent(file)}`)}`;

/** Stores the picture of an image sheet. */
export const putSheet = (id: string, file: string, png: Uint8Array): Promise<{ file: string }> =>
  ask(world(id, `/sheets/${encodeURIComponent(file)}`), {
    method: "PUT",
    headers: { "content-type": "image/png" },
    body: png.slice(),
  });
