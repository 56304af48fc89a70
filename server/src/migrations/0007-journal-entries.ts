import type { Knex } from "knex";

/** What people write into the Journal by hand. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable("journal_entries", (table) => {
    table.increments("id");
    table.integer("worldId").notNullable().references("worlds.id").onDelete("CASCADE").index();
    table.text("kind").notNullable().checkIn(["reason", "fault", "opinion"]);
    table.text("text").notNullable();
    // The newest one when it was written.
    table.integer("revision").notNullable();
    table.text("log");
    table.integer("frame");
    table.binary("picture");
    table.timestamp("writtenAt").notNullable().defaultTo(db.fn.now());
  });
}

export async function down(): Promise<void> {
  await Promise.reject(new Error("migrations only go forward"));
}
