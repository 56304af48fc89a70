import { randomUUID } from "node:crypto";
import { checkText, parseCheck, parseCondition, conditionText } from "@keen-pebble/core/check";
import { RefusedError } from "@keen-pebble/core/world";
import type { Knex } from "knex";
import type { BreakSearch } from "../api.ts";
import type { Queue } from "../jobs/queue.ts";
import type { Signals } from "../jobs/signals.ts";
import { SearchRow } from "../models/search-row.ts";
import { NotFoundError } from "./service-errors.ts";
import type { Shelf } from "./shelf.ts";

/** A check's text with single blanks; `until WHAT` stands for a line of the log that ran out. */
function canonical(check: string): string {
  const words = check.split(" ").filter((word) => word !== "");
  const parsed = words[0] === "until" ? parseCondition(words.slice(1)) : parseCheck(words);
  if ("fault" in parsed)
    throw new RefusedError("the search", [{ place: "check", line: null, column: null, message: parsed.fault }]);
  return "condition" in parsed ? `until ${conditionText(parsed.condition)}` : checkText(parsed.check);
}

/** Searches for the revision that broke a check: "what broke it". */
export class Searches {
  constructor(
    private readonly db: Knex,
    private readonly shelf: Shelf,
    private readonly queue: Queue,
    private readonly signals: Signals,
  ) {}

  /** Begins a search for the revision at which a check of a log broke. */
  async begin(slug: string, log: string, check: string): Promise<BreakSearch> {
    const row = await this.shelf.row(slug);
    await this.shelf.log(slug, log);
    const said = canonical(check);
    const id = randomUUID();
    await this.db.transaction(async (trx) => {
      await SearchRow.query(trx).insert({
        id,
        worldId: row.id,
        log,
        check: said,
        state: "running",
        good: null,
        bad: row.revision,
        found: null,
      });
      await this.queue.put(trx, "search", [{ id, data: { search: id }, priority: 10 }]);
    });
    await this.signals.tell("jobs");
    return this.find(slug, id);
  }

  /** How a search stands. */
  async find(slug: string, id: string): Promise<BreakSearch> {
    const row = await this.shelf.row(slug);
    const search = await SearchRow.query(this.db).findById(id).where({ worldId: row.id });
    if (!search) throw new NotFoundError("search", id);
    const { log, check, state, good, bad, found } = search;
    return { id, log, check, state, good, bad, found };
  }

  /** Gives a search up. */
  async cancel(slug: string, id: string): Promise<BreakSearch> {
    await this.find(slug, id);
    await this.db.transaction(async (trx) => {
      await SearchRow.query(trx).patch({ state: "cancelled" }).where({ id, state: "running" });
      await this.queue.cancel(trx, "search", [id]);
    });
    await this.signals.tellCancelled([id]);
    await this.signals.tell("search", (await this.shelf.row(slug)).id, id);
    return this.find(slug, id);
  }
}
