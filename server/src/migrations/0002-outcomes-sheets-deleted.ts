import type { Knex } from "knex";

export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable("worlds", (table) => {
    table.timestamp("deletedAt");
    table.dropUnique(["slug"]);
  });
  // A deleted world does not keep its id from another one.
  await db.raw(`create unique index worlds_slug_on_shelf on worlds (slug) where "deletedAt" is null`);
  await db.schema.createTable("outcomes", (table) => {
    table.text("worldHash").notNullable();
    table.text("logHash").notNullable();
    table.boolean("holds").notNullable();
    table.text("refused");
    table.text("status");
    table.integer("frames");
    table.text("fingerprint");
    table.jsonb("checks").notNullable();
    table.timestamp("madeAt").notNullable().defaultTo(db.fn.now());
    table.primary(["worldHash", "logHash"]);
  });
  await db.schema.createTable("sheets", (table) => {
    table.integer("worldId").notNullable().references("worlds.id").onDelete("CASCADE");
    table.text("file").notNullable();
    table.binary("png").notNullable();
    table.primary(["worldId", "file"]);
  });
}

export async function down(): Promise<void> {
  await Promise.reject(new Error("migrations only go forward"));
}
