import type { Knex } from "knex";

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable("worlds", (table) => {
    table.increments("id");
    table.text("slug").notNullable().unique();
    table.text("name").notNullable();
    table.integer("revision").notNullable();
    table.integer("rooms").notNullable();
    table.timestamp("savedAt").notNullable().defaultTo(db.fn.now());
  });
  await db.schema.createTable("revisions", (table) => {
    table.integer("worldId").notNullable().references("worlds.id").onDelete("CASCADE");
    table.integer("number").notNullable();
    table.uuid("batch").notNullable();
    table.jsonb("steps").notNullable();
    table.jsonb("snapshot");
    table.text("summary").notNullable();
    table.text("note");
    table.text("contentHash").notNullable();
    table.timestamp("savedAt").notNullable().defaultTo(db.fn.now());
    table.primary(["worldId", "number"]);
    table.unique(["worldId", "batch"]);
  });
  await db.schema.createTable("logs", (table) => {
    table.integer("worldId").notNullable().references("worlds.id").onDelete("CASCADE");
    table.text("log").notNullable();
    table.text("text").notNullable();
    table.integer("frames").notNullable();
    table.text("hash").notNullable();
    table.primary(["worldId", "log"]);
  });
  await db.schema.createTable("facts", (table) => {
    table.text("name").primary();
    table.jsonb("value").notNullable();
  });
}

export async function down(): Promise<void> {
  await Promise.reject(new Error("migrations only go forward"));
}
