import type { Knex } from "knex";

export async function up(db: Knex): Promise<void> {
  // Nobody ever read them: whether two runs took the same path is asked where both are run.
  await db.schema.alterTable("outcomes", (table) => {
    table.dropColumn("pathHash");
  });
}

export async function down(): Promise<void> {
  await Promise.reject(new Error("migrations only go forward"));
}
