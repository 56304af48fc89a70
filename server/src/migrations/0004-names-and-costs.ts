import type { Knex } from "knex";

export async function up(db: Knex): Promise<void> {
  // What the Shelf says of a world without reading it.
  await db.schema.alterTable("worlds", (table) => {
    table.jsonb("roomNames");
  });
  await db.schema.alterTable("logs", (table) => {
    table.text("title");
    table.integer("checks").notNullable().defaultTo(0);
  });
  await db.raw(`
    update logs set
      title = substring(head from E'\\ntitle ([^\\n]*)'),
      checks = (length(head) - length(replace(head, E'\\ncheck ', ''))) / 7
    from (select "worldId" as w, log as l, split_part(text, E'\\n---\\n', 1) as head from logs) as heads
    where logs."worldId" = w and logs.log = l`);
  // Runs whose job ended between two transactions are asked for again.
  await db.raw(`
    update proof_runs set state = 'failed', "finishedAt" = now()
    where state = 'running' and not exists (select 1 from pending_proofs p where p."worldHash" = proof_runs."worldHash")`);
}

export async function down(): Promise<void> {
  await Promise.reject(new Error("migrations only go forward"));
}
