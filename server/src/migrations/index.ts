import type { Knex } from "knex";
import { connectPatiently } from "../database/connect.ts";
import * as firstTables from "./0001-first-tables.ts";
import * as outcomesSheetsDeleted from "./0002-outcomes-sheets-deleted.ts";
import * as proofs from "./0003-proofs.ts";
import * as namesAndCosts from "./0004-names-and-costs.ts";
import * as noPathHashes from "./0005-no-path-hashes.ts";
import * as allPlay from "./0006-all-play.ts";
import * as journalEntries from "./0007-journal-entries.ts";
import * as playtests from "./0008-playtests.ts";

interface Named {
  readonly name: string;
  readonly migration: Knex.Migration;
}

/** Every migration in order, by names without an ending: `.ts` and `.js` are the same one. They only go forward. */
const MIGRATIONS: readonly Named[] = [
  { name: "0001-first-tables", migration: firstTables },
  { name: "0002-outcomes-sheets-deleted", migration: outcomesSheetsDeleted },
  { name: "0003-proofs", migration: proofs },
  { name: "0004-names-and-costs", migration: namesAndCosts },
  { name: "0005-no-path-hashes", migration: noPathHashes },
  { name: "0006-all-play", migration: allPlay },
  { name: "0007-journal-entries", migration: journalEntries },
  { name: "0008-playtests", migration: playtests },
];

/** Names of all versions, the oldest first. */
export const VERSIONS: readonly string[] = MIGRATIONS.map(({ name }) => name);

/**
 * Brings the database to a version, all pending migrations in one transaction.
 * @param version one of `VERSIONS`; the newest where none is named
 */
export async function migrate(databaseUrl: string, version = VERSIONS.at(-1)!): Promise<void> {
  const source: Knex.MigrationSource<Named> = {
    getMigrations: () => Promise.resolve(MIGRATIONS.slice(0, VERSIONS.indexOf(version) + 1)),
    getMigrationName: (named) => named.name,
    getMigration: (named) => Promise.resolve(named.migration),
  };
  const db = connectPatiently(databaseUrl);
  try {
    await db.migrate.latest({ migrationSource: source });
  } finally {
    await db.destroy();
  }
}
