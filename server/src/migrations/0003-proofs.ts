import type { Knex } from "knex";

export async function up(db: Knex): Promise<void> {
  // Kept by contents: whatever is asked for again is run again.
  await db("outcomes").del();
  await db.schema.alterTable("outcomes", (table) => {
    table.bigInteger("pathHash");
    table.boolean("accepted");
    // Number of the process that ran it.
    table.bigInteger("worker");
  });
  await db.schema.createTable("proof_runs", (table) => {
    table.integer("worldId").notNullable().references("worlds.id").onDelete("CASCADE");
    table.integer("revision").notNullable();
    table.text("worldHash").notNullable().index();
    // The hash of each log's text by its id, as the revision has them.
    table.jsonb("logs").notNullable();
    table.integer("total").notNullable();
    table.text("state").notNullable().checkIn(["running", "done", "cancelled", "failed"]);
    table.integer("holds").notNullable().defaultTo(0);
    table.timestamp("startedAt").notNullable().defaultTo(db.fn.now());
    table.timestamp("finishedAt");
    table.primary(["worldId", "revision"]);
  });
  // Logs that a job is to run. A log is in one job at the most, and leaves in the transaction that stores its outcome.
  await db.schema.createTable("pending_proofs", (table) => {
    table.text("worldHash").notNullable();
    table.text("logHash").notNullable();
    table.integer("worldId").notNullable().references("worlds.id").onDelete("CASCADE").index();
    table.uuid("jobId").notNullable().index();
    table.primary(["worldHash", "logHash"]);
  });
  await db.schema.createTable("searches", (table) => {
    table.uuid("id").primary();
    table.integer("worldId").notNullable().references("worlds.id").onDelete("CASCADE").index();
    table.text("log").notNullable();
    table.text("check").notNullable();
    table.text("state").notNullable().checkIn(["running", "found", "never-held", "holds", "cancelled", "failed"]);
    // Between which revisions it still looks, and what it found.
    table.integer("good");
    table.integer("bad");
    table.jsonb("found");
    table.timestamp("startedAt").notNullable().defaultTo(db.fn.now());
  });
  // Which process works on a job: it holds the advisory lock of that number for as long as it lives.
  await db.schema.createTable("taken_jobs", (table) => {
    table.uuid("jobId").primary();
    table.bigInteger("worker").notNullable();
  });
}

export async function down(): Promise<void> {
  await Promise.reject(new Error("migrations only go forward"));
}
