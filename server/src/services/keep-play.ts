import type { Project } from "@keen-pebble/core/edit";
import { readPlayed, writeLog } from "@keen-pebble/core/check";
import { CoreError } from "@keen-pebble/core/world";
import type { Knex } from "knex";
import type { KeptPlay, NewPlay } from "../api.ts";
import { EntryRow } from "../models/entry-row.ts";
import { PlaytestRow } from "../models/playtest-row.ts";
import { RevisionRow } from "../models/revision-row.ts";
import { WorldRow } from "../models/world-row.ts";
import { traceHash } from "./content-hash.ts";
import type { Projects } from "./projects.ts";
import { NotFoundError } from "./service-errors.ts";
import { appendRevision } from "./stored-revisions.ts";

/** Playtests that stand in a world's Journal at one time. */
export const MOST_PLAYS = 200;

/** Bytes of all logs of playtests in a world: they are opened with it, and run again at each change. */
export const MOST_PLAYED_BYTES = 8 * 1024 * 1024;

const ID = "playtest-";

/** The tag of logs that came from a playtest. */
const OUTSIDE = "outside";

/** A world has as many playtests as it takes. */
class TooManyPlaysError extends CoreError {
  constructor() {
    super(
      "refused",
      "this game has as many playtests as it takes until somebody has looked at them; nothing was kept",
      null,
    );
  }
}

/**
 * Keeps what somebody sent from a playtest: its log on top of the newest revision, and an opinion in the Journal, both
 * or neither. What is kept replays to what was played. Nothing else of the world is touched.
 * @param token of the link; {NotFoundError} where that is off
 * @throws {RefusedError} where the log is none that was played there
 */
export async function keepPlay(
  db: Knex,
  projects: Projects,
  token: string,
  play: NewPlay,
): Promise<KeptPlay & { readonly world: string }> {
  const link = await linkedWorld(db, token);
  if (!(await RevisionRow.query(db).select("number").findById([link.id, play.revision])))
    throw new NotFoundError("revision", String(play.revision));
  const { world } = await projects.at(db, link.id, play.revision);
  const played = readPlayed(play.log, play.fingerprint, world, traceHash());
  let kept = "";
  await appendRevision(db, projects, link.slug, async (trx, row, present) => {
    // The link may have been switched off while the run was looked at.
    if (!(await PlaytestRow.query(trx).findOne({ token }))) throw new NotFoundError("playtest", token);
    const before = await RevisionRow.query(trx)
      .select("number", "summary", "steps")
      .findOne({ worldId: row.id, batch: play.batch });
    if (before) {
      const [step] = before.steps;
      if (step?.kind !== "add-log") throw new NotFoundError("playtest", play.batch);
      kept = step.log;
      return { revision: before.number, summary: before.summary };
    }
    const plays = await EntryRow.query(trx).select("log").where("worldId", row.id).whereNotNull("sender");
    if (plays.length >= MOST_PLAYS || playedBytes(present) + play.log.length > MOST_PLAYED_BYTES)
      throw new TooManyPlaysError();
    const number = freeNumber([...present.logs.keys(), ...plays.map(({ log }) => log ?? "")]);
    kept = `${ID}${number}`;
    const text = writeLog({
      ...played.log,
      title: `Playtest ${number}: ${play.name}`,
      tags: [OUTSIDE],
      notes: [`Played from outside at revision ${play.revision}.`, `Its run there: ${played.fingerprint}`],
    });
    const entry = (revision: number) => ({
      worldId: row.id,
      kind: "opinion" as const,
      text: play.opinion.trim() || "Played, and said nothing.",
      revision,
      log: kept,
      frame: played.frames,
      picture: null,
      sender: play.name,
    });
    return {
      batch: play.batch,
      steps: [{ kind: "add-log", log: kept, text }],
      beside: async (within, _row, revision) => {
        await EntryRow.query(within).insert(entry(revision));
      },
    };
  });
  return { log: kept, world: link.slug };
}

/**
 * The world that a link is of.
 * @throws {NotFoundError} where there is no such link, or it is off, or its world was deleted
 */
export async function linkedWorld(db: Knex, token: string): Promise<WorldRow> {
  const row = await WorldRow.onShelf(db)
    .whereIn("id", PlaytestRow.query(db).select("worldId").where({ token }))
    .first();
  if (row === undefined) throw new NotFoundError("playtest", "at this address");
  return row;
}

/** The first number that no log of a playtest has, nor had as long as its opinion is there. */
function freeNumber(logs: readonly string[]): number {
  const taken = new Set(logs);
  let number = 1;
  while (taken.has(`${ID}${number}`)) number++;
  return number;
}

function playedBytes({ logs }: Project): number {
  let bytes = 0;
  for (const [log, text] of logs) if (log.startsWith(ID)) bytes += text.length;
  return bytes;
}
