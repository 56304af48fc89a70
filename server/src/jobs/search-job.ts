import type { Proof } from "@keen-pebble/core/check";
import { firstFailing } from "@keen-pebble/core/check";
import type { Knex } from "knex";
import { RevisionRow } from "../models/revision-row.ts";
import { SearchRow } from "../models/search-row.ts";
import { TakenJobRow } from "../models/taken-job-row.ts";
import { contentHash } from "../services/content-hash.ts";
import type { JobHandler } from "./job-worker.ts";
import type { JobTools } from "./prove-job.ts";

/** What a revision says to a check: it holds, it fails, or there is nothing to ask it of. */
type Answer = "holds" | "fails" | "absent";

/**
 * Looks for the first revision at which a check fails, by halves, from the last one known to hold (architecture.md,
 * flow 5). Log and world are taken as each revision has them; where a revision's log lacks the check, it is asked all
 * the same.
 */
export function searchJob({ db, desk, queue, signals, pool }: JobTools): JobHandler<"search"> {
  return async ({ id, data }, signal) => {
    const search = await SearchRow.query(db).findById(data.search);
    const end = async (patch: Partial<Pick<SearchRow, "state" | "good" | "bad" | "found">>): Promise<void> => {
      await db.transaction(async (trx) => {
        await SearchRow.query(trx).patch(patch).where({ id: data.search, state: "running" });
        await TakenJobRow.query(trx).deleteById(id);
        await queue.complete(trx, "search", id);
      });
      if (search) await signals.tell("search", search.worldId, data.search);
    };
    if (search?.state !== "running") return end({});
    const { worldId, log, check } = search;
    const proofs = new Map<number, Proof | null>();
    const ask = async (revision: number): Promise<Answer> => {
      if (!proofs.has(revision)) {
        const { world, logs } = await desk.ask("texts", { worldId, revision, ids: [log] });
        const text = logs.get(log);
        proofs.set(
          revision,
          text === undefined
            ? null
            : (await pool.prove({ worldHash: contentHash(world), world, logs: [text], check }, signal))[0]!,
        );
      }
      const proof = proofs.get(revision)!;
      return proof === null ? "absent" : proof.holds ? "holds" : "fails";
    };
    const tell = async (good: number | null, bad: number): Promise<void> => {
      await SearchRow.query(db).patch({ good, bad }).where({ id: data.search, state: "running" });
      if (search) await signals.tell("search", search.worldId, data.search);
    };

    const newest = search.bad!;
    if ((await ask(newest)) === "holds") return end({ state: "holds", good: newest });
    const good =
      (await lastRunThatHeld(db, search)) ?? (await lastHolding(newest, ask, (revision) => tell(null, revision)));
    if (good === null) return end({ state: "never-held" });
    let [lo, hi] = [good, newest];
    const bad = await firstFailing(good, newest, async (revision) => {
      const holds = (await ask(revision)) === "holds";
      if (holds) lo = revision;
      else hi = revision;
      await tell(lo, hi);
      return holds;
    });
    await ask(bad);
    const broken = proofs.get(bad);
    const verdict = broken?.checks.find(({ verdict: said }) => said !== "pass");
    const { summary } = await RevisionRow.query(db).select("summary").findById([worldId, bad]).throwIfNotFound();
    return end({
      state: "found",
      good: bad - 1,
      bad,
      found: { revision: bad, summary, frame: verdict?.frame ?? 0, seen: verdict?.seen ?? broken?.refused ?? null },
    });
  };
}

/** The newest revision before the failing one at which a proof of this very check passed; null where none is kept. */
async function lastRunThatHeld(db: Knex, { worldId, log, check, bad }: SearchRow): Promise<number | null> {
  const { rows } = await db.raw<{ rows: { revision: number }[] }>(
    `select r.revision from proof_runs r join outcomes o on o."worldHash" = r."worldHash" and o."logHash" = r.logs ->> ?
      where r."worldId" = ? and r.revision < ? and o.checks @> ?::jsonb order by r.revision desc limit 1`,
    [log, worldId, bad, JSON.stringify([{ check, verdict: "pass" }])],
  );
  return rows[0]?.revision ?? null;
}

/**
 * A revision at which the check holds: looked for in ever larger steps back, for most faults are young; then where the
 * log came in.
 */
async function lastHolding(
  newest: number,
  ask: (revision: number) => Promise<Answer>,
  tell: (revision: number) => Promise<void>,
): Promise<number | null> {
  let present = newest;
  for (let back = 1; present > 1; back *= 2) {
    const revision = Math.max(1, newest - back);
    const answer = await ask(revision);
    await tell(revision);
    if (answer === "holds") return revision;
    if (answer === "absent") {
      const first = await firstFailing(revision, present, async (each) => (await ask(each)) === "absent");
      return (await ask(first)) === "holds" ? first : null;
    }
    present = revision;
  }
  return null;
}
