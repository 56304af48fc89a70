import type { DeletedWorld, DeletedWorlds, Imported, ImportedFiles, NewRevision, Problem, StoredRevision, WorldList, WorldOutcomes, WorldRevision } from "@keen-pebble/server/api";

/** The server said no: its problem details. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
    this.name = "ProblemError";
  }
}

/** The server was not reached, or its database does not answer: asking again later may help. */
export class OfflineError extends Error {
  constructor(message: string) {
    super(message);
    this.name = "OfflineError";
  }
}

async function ask<T>(path: string, init: RequestInit = {}): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, { ...init, headers: { accept: "application/json", ...init.headers } });
  } catch {
    throw new OfflineError("the server does not answer");
  }
  if (response.ok) return (await response.json()) as T;
  const problem = (await response.json().catch(() => null)) as Problem | null;
  if (problem === null || response.status >= 500) throw new OfflineError(problem?.detail ?? `the server answered ${response.status}`);
  throw new ProblemError(problem);
}

const send = <T>(path: string, body: unknown): Promise<T> =>
  ask<T>(path, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) });

/** All worlds on the shelf. */
export const listWorlds = (): Promise<WorldList> => ask("/worlds");

/** A world at its newest revision. */
export const openWorld = (id: string): Promise<WorldRevision> => ask(`/worlds/${encodeURIComponent(id)}`);

/** Stores a batch of steps. */
export const storeBatch = (id: string, batch: NewRevision): Promise<StoredRevision> => send(`/worlds/${encodeURIComponent(id)}/revisions`, batch);

const world = (id: string, more: string): string => `/worlds/${encodeURIComponent(id)}${more}`;

/** What each log of a world comes to at its newest revision. */
export const worldOutcomes = (id: string): Promise<WorldOutcomes> => ask(world(id, "/outcomes"));

/** Copies a world under a new id. */
export const copyWorld = (id: string): Promise<{ id: string }> => ask(world(id, "/copy"), { method: "POST" });

/** Takes a world off the shelf. */
export const removeWorld = (id: string): Promise<DeletedWorld> => ask(world(id, ""), { method: "DELETE" });

/** Worlds that were taken off the shelf. */
export const deletedWorlds = (): Promise<DeletedWorlds> => ask("/deleted-worlds");

/** Puts a deleted world back. */
export const restoreWorld = (key: number): Promise<{ id: string }> => ask(`/deleted-worlds/${key}/restore`, { method: "POST" });

/** Brings in files as texts. */
export const sendFiles = (files: ImportedFiles): Promise<Imported> => send("/imports", files);

/** Brings in a bundle. */
export const sendBundle = (bundle: Blob): Promise<Imported> => ask("/imports", { method: "POST", headers: { "content-type": "application/zip" }, body: bundle });

/** Addresses of a world as files to keep. */
export const worldFileAddress = (id: string): string => `/api${world(id, "/world.json")}`;
export const bundleAddress = (id: string): string => `/api${world(id, "/bundle.zip")}`;
export const logFileAddress = (id: string, log: string): string => `/api${world(id, `/logs/${encodeURIComponent(log)}`)}`;

/** Where an image sheet of a world is. */
export const sheetAddress = (id: string, file: string): string => `/api${world(id, `/sheets/${encodeURIComponent(file)}`)}`;

/** Stores the picture of an image sheet. */
export const putSheet = (id: string, file: string, png: Uint8Array): Promise<{ file: string }> =>
  ask(world(id, `/sheets/${encodeURIComponent(file)}`), { method: "PUT", headers: { "content-type": "image/png" }, body: png.slice() });
