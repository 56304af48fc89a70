import type { Problem } from "@keen-pebble/server/api";

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

/**
 * Asks the server that the page came from.
 * @throws {ProblemError} where it says no; {OfflineError} where it cannot do it now
 */
export async function answerOf<T>(address: string, init: RequestInit = {}): Promise<T> {
  let response: Response;
  try {
    response = await fetch(address, { ...init, headers: { accept: "application/json", ...init.headers } });
  } catch {
    throw new OfflineError("the server does not answer");
  }
  if (response.ok) return (await response.json()) as T;
  const problem = (await response.json().catch(() => null)) as Problem | null;
  if (problem === null || response.status >= 500 || response.status === 429)
    throw new OfflineError(problem?.detail ?? `the server answered ${response.status}`);
  throw new ProblemError(problem);
}

/** A request with a body in JSON. */
export const jsonBody = (method: "POST" | "PUT", body: unknown): RequestInit => ({
  method,
  headers: { "content-type": "application/json" },
  body: JSON.stringify(body),
});
