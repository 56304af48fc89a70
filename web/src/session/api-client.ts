import type { NewRevision, Problem, StoredRevision, WorldList, WorldRevision } from "@keen-pebble/server/api";

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
