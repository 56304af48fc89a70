import type { Knex } from "knex";

/** Outcomes hold what the reach checks of a world come to. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable("outcomes", (table) => {
    table.jsonb("reach");
  });
}

export async function down(): Promise<void> {
  await Promise.reject(new Error("migrations only go forward"));
}
