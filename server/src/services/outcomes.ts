import { createHash } from "node:crypto";
import { setImmediate } from "node:timers/promises";
import type { Compiled, World } from "@keen-pebble/core";
import { CoreError, STATUS_NAMES, compile, logHolds, readLog, run, traceText } from "@keen-pebble/core";
import type { Knex } from "knex";
import type { Model } from "objection";
import type { LogOutcome, WorldOutcomes } from "../api.ts";
import { LogRow } from "../models/log-row.ts";
import { OutcomeRow } from "../models/outcome-row.ts";
import { RevisionRow } from "../models/revision-row.ts";
import type { Shelf } from "./shelf.ts";

type Outcome = Omit<OutcomeRow, keyof Model>;

/**
 * What each log of a world comes to. Kept by the contents of world and log, so that a log is run once for both; here it
 * is run in the server's own process.
 */
export class Outcomes {
  constructor(
    private readonly db: Knex,
    private readonly shelf: Shelf,
  ) {}

  /** The outcomes of all logs at the world's newest revision, in order of their ids. */
  async ofWorld(slug: string): Promise<WorldOutcomes> {
    const { row, project } = await this.shelf.project(slug);
    const { contentHash } = await RevisionRow.query(this.db).select("contentHash").findById([row.id, row.revision]).throwIfNotFound();
    const logs = await LogRow.query(this.db).where("worldId", row.id).orderBy("log");
    const known = await OutcomeRow.query(this.db)
      .where("worldHash", contentHash)
      .whereIn("logHash", logs.map((log) => log.hash));
    const byHash = new Map<string, Outcome>(known.map((outcome) => [outcome.logHash, outcome]));
    const compiled = new Map<string, Compiled>();
    const outcomes: LogOutcome[] = [];
    for (const log of logs) {
      let outcome = byHash.get(log.hash);
      if (!outcome) {
        outcome = { worldHash: contentHash, logHash: log.hash, ...(await runLog(project.world, log.text, compiled)) };
        byHash.set(log.hash, outcome);
        await OutcomeRow.query(this.db).insert(outcome).onConflict(["worldHash", "logHash"]).ignore();
      }
      const { holds, refused, status, frames, fingerprint: printed, checks } = outcome;
      outcomes.push({ log: log.log, holds, refused, status, frames, fingerprint: printed, checks });
    }
    return { revision: row.revision, outcomes };
  }
}

async function runLog(world: World, text: string, known: Map<string, Compiled>): Promise<Omit<Outcome, "worldHash" | "logHash">> {
  try {
    const log = readLog(text);
    const rules = log.rules ?? world.activeRules;
    const compiled = known.get(rules) ?? compile(world, rules);
    known.set(rules, compiled);
    const result = run(compiled, log, { rows: true, checks: true });
    // A long trace takes longer to print than to run: others get their turn in between.
    const hash = createHash("sha256");
    for (const piece of traceText(compiled, result.rows!)) {
      hash.update(piece, "latin1");
      await setImmediate();
    }
    return { holds: logHolds(result.verdicts), refused: null, status: STATUS_NAMES[result.status]!, frames: result.frames, fingerprint: hash.digest("hex"), checks: [...result.verdicts] };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { holds: false, refused: error.message, status: null, frames: null, fingerprint: null, checks: [] };
  }
}
