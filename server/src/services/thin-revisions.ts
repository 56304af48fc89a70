import { differences, summary } from "@keen-pebble/core/edit";
import type { Knex } from "knex";
import { RevisionRow } from "../models/revision-row.ts";
import { contentHash } from "./content-hash.ts";
import { Projects, toSnapshot } from "./projects.ts";

/**
 * Makes one revision of all that a world got on one day, for days before a moment: the last one stays, with what the
 * day changed as a whole. The first, the newest, and whatever somebody has said something of stay as they are.
 * @returns how many revisions went
 */
export async function thinRevisions(db: Knex, worldId: number, before: Date): Promise<number> {
  const projects = new Projects();
  return db.transaction(async (trx) => {
    // No revision is added meanwhile.
    const world = await trx("worlds")
      .where({ id: worldId })
      .forUpdate()
      .first<{ revision: number } | undefined>("revision");
    if (world === undefined) return 0;
    const rows = await RevisionRow.query(trx)
      .select("number", "savedAt", "note")
      .where("worldId", worldId)
      .where("savedAt", "<", before)
      .orderBy("number");
    const stays = (row: Pick<RevisionRow, "number" | "note">): boolean =>
      row.number === 1 || row.number === world.revision || row.note !== null;
    const day = (row: Pick<RevisionRow, "savedAt">): string => row.savedAt.toISOString().slice(0, 10);
    let went = 0;
    let group: typeof rows = [];
    const close = async (): Promise<void> => {
      const [first, last] = [group[0], group.at(-1)];
      group = [];
      if (first === undefined || last === undefined || first === last) return;
      const previous = await RevisionRow.query(trx)
        .select("number")
        .where("worldId", worldId)
        .where("number", "<", first.number)
        .orderBy("number", "desc")
        .first()
        .throwIfNotFound();
      const [was, is] = [
        await projects.at(trx, worldId, previous.number),
        await projects.at(trx, worldId, last.number),
      ];
      const steps = differences(was, is);
      const snapshot = toSnapshot(is);
      went += await RevisionRow.query(trx)
        .delete()
        .where("worldId", worldId)
        .whereBetween("number", [first.number, last.number - 1]);
      // Whole, because one of those that went may have been the snapshot that later ones begin from.
      await RevisionRow.query(trx)
        .findById([worldId, last.number])
        .patch({
          steps: [...steps],
          snapshot,
          summary: steps.length === 0 ? "nothing changed in the end" : summary(is.world, steps),
          contentHash: contentHash(snapshot.world),
        });
    };
    for (const row of rows) {
      if (group.length > 0 && day(row) !== day(group[0]!)) await close();
      if (stays(row)) await close();
      else group.push(row);
    }
    await close();
    return went;
  });
}
