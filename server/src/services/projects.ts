import { readWorld } from "@keen-pebble/core/reading";
import type { Project } from "@keen-pebble/core/edit";
import { applyAll } from "@keen-pebble/core/edit";
import { writeWorld } from "@keen-pebble/core/formats";
import type { Transaction } from "objection";
import type { Knex } from "knex";
import { RevisionRow } from "../models/revision-row.ts";
import type { Snapshot } from "../models/revision-row.ts";
import { storedSteps } from "./stored-steps.ts";

/** A revision holds a whole snapshot at least this often. */
export const SNAPSHOT_EVERY = 50;

/** Worlds that are edited at the same time, each with the last revisions that somebody may ask for. */
const MOST_KEPT = 160;
const MOST_OF_WORLD = 3;
/** About so many bytes are kept at the most: the newest one always is. */
const MOST_BYTES = 64 * 1024 * 1024;
/** What a small world takes besides its cells and logs. */
const LEAST_BYTES = 200 * 1024;

/**
 * Projects as they are at a revision: the last snapshot before it with the steps since then applied. The last few are
 * kept in memory, by world and revision, so that a row of edits does not start from the snapshot each time.
 */
export class Projects {
  private readonly kept = new Map<string, Project>();

  /** The project at a revision of a world that has it. `db` may be a transaction. */
  async at(db: Knex | Transaction, worldId: number, revision: number): Promise<Project> {
    const kept = this.kept.get(`${worldId}/${revision}`);
    if (kept) return kept;
    const from = (await this.keptBefore(db, worldId, revision)) ?? (await lastSnapshot(db, worldId, revision));
    const since = await RevisionRow.query(db)
      .select("steps")
      .where("worldId", worldId)
      .whereBetween("number", [from.number + 1, revision])
      .orderBy("number");
    const project = applyAll(
      from.project,
      since.flatMap((each) => storedSteps(each.steps)),
    );
    this.keep(worldId, revision, project);
    return project;
  }

  /** The newest project in memory that the steps since then lead on from; null where a stored snapshot is nearer. */
  private async keptBefore(db: Knex | Transaction, worldId: number, revision: number): Promise<NumberedProject | null> {
    const numbers = this.keysOf(worldId).map((key) => Number(key.slice(key.indexOf("/") + 1)));
    const number = Math.max(0, ...numbers.filter((each) => each < revision));
    const project = this.kept.get(`${worldId}/${number}`);
    if (project === undefined) return null;
    // Revisions may have been made one meanwhile, and the one in memory be none any more.
    const still = await RevisionRow.query(db).select("number").findById([worldId, number]);
    const nearer = await RevisionRow.query(db)
      .select("number")
      .where("worldId", worldId)
      .where("number", ">", number)
      .where("number", "<=", revision)
      .whereNotNull("snapshot")
      .first();
    return still && !nearer ? { number, project } : null;
  }

  /** What is kept of a world, the one kept last at the end. */
  private keysOf(worldId: number): string[] {
    return [...this.kept.keys()].filter((key) => key.startsWith(`${worldId}/`));
  }

  /** Keeps a project that was just stored. Call it only once its transaction is through. */
  keep(worldId: number, revision: number, project: Project): void {
    const key = `${worldId}/${revision}`;
    this.kept.delete(key);
    this.kept.set(key, project);
    const ofWorld = this.keysOf(worldId);
    for (const old of ofWorld.slice(0, Math.max(0, ofWorld.length - MOST_OF_WORLD))) this.kept.delete(old);
    let bytes = 0;
    for (const each of this.kept.values()) bytes += weightOf(each);
    for (const [old, each] of this.kept) {
      if (old === key || (this.kept.size <= MOST_KEPT && bytes <= MOST_BYTES)) break;
      this.kept.delete(old);
      bytes -= weightOf(each);
    }
  }
}

interface NumberedProject {
  readonly number: number;
  readonly project: Project;
}

async function lastSnapshot(db: Knex | Transaction, worldId: number, revision: number): Promise<NumberedProject> {
  const { number, snapshot } = await RevisionRow.query(db)
    .where("worldId", worldId)
    .where("number", "<=", revision)
    .whereNotNull("snapshot")
    .orderBy("number", "desc")
    .first()
    .throwIfNotFound();
  return { number, project: fromSnapshot(snapshot!) };
}

/** About the bytes of its cells and logs. */
function weightOf({ world, logs }: Project): number {
  let bytes = LEAST_BYTES;
  for (const room of world.rooms) bytes += room.cells.byteLength;
  for (const text of logs.values()) bytes += text.length;
  return bytes;
}

/** A project as a snapshot stores it. */
export function toSnapshot(project: Project): Snapshot {
  return { world: writeWorld(project.world), logs: Object.fromEntries(project.logs) };
}

function fromSnapshot(snapshot: Snapshot): Project {
  return { world: readWorld(snapshot.world, "a stored snapshot"), logs: new Map(Object.entries(snapshot.logs)) };
}
