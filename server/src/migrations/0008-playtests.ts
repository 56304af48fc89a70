import type { Knex } from "knex";

/** Links at which worlds can be played from outside, and who sent an entry of the Journal from there. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable("playtests", (table) => {
    // A world has a row as long as its link is on.
    table.integer("worldId").primary().references("worlds.id").onDelete("CASCADE");
    table.text("token").notNullable().unique();
    table.timestamp("switchedOnAt").notNullable().defaultTo(db.fn.now());
  });
  await db.schema.alterTable("journal_entries", (table) => {
    // Null for what was written by hand.
    table.text("sender");
  });
}

export async function down(): Promise<void> {
  await Promise.reject(new Error("migrations only go forward"));
}
