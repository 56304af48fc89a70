import knex from "knex";
import type { Knex } from "knex";
import { provePasswordsOnly } from "./scram-only.ts";

provePasswordsOnly();

const unsaid = (): void => undefined;

/** No statement of a request takes so long; a database that answers none of them hangs. */
const STATEMENT_MS = 15_000;
const ANSWER_MS = 18_000;

/**
 * A pool of connections. Asking for one gives up after 6 s and a statement after 15 s, so that a stopped or hung database
 * is told, not waited for; a machine that has much else to do is given that long.
 */
export function connect(databaseUrl: string, max = 8): Knex {
  return made(databaseUrl, max, {
    statement_timeout: STATEMENT_MS,
    query_timeout: ANSWER_MS,
    idle_in_transaction_session_timeout: 60_000,
  });
}

/** Connections for what may take its time: bringing the tables to a new version. */
export function connectPatiently(databaseUrl: string): Knex {
  return made(databaseUrl, 2, {});
}

function made(databaseUrl: string, max: number, timeouts: object): Knex {
  return knex({
    client: "pg",
    connection: { connectionString: databaseUrl, connectionTimeoutMillis: 5000, keepAlive: true, ...timeouts },
    pool: { min: 0, max: max },
    acquireConnectionTimeout: 6000,
    // Whatever goes wrong is thrown too, and told by whoever asked.
    log: { warn: unsaid, error: unsaid, debug: unsaid },
  });
}
