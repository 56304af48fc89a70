import knex from "knex";
import type { Knex } from "knex";

const unsaid = (): void => undefined;

/** A pool of connections. Asking for one gives up after 3 s, so that a stopped database is told, not waited for. */
export function connect(databaseUrl: string): Knex {
  return knex({
    client: "pg",
    connection: { connectionString: databaseUrl, connectionTimeoutMillis: 2500 },
    pool: { min: 0, max: 8 },
    acquireConnectionTimeout: 3000,
    // Whatever goes wrong is thrown too, and told by whoever asked.
    log: { warn: unsaid, error: unsaid, debug: unsaid },
  });
}
