import type { RevisionEntry } from "@keen-pebble/server/api";
import { createStore } from "zustand/vanilla";
import { OfflineError, ProblemError, listRevisions, writeNote } from "../project/api-client.ts";
import { change, notice, noteNextRevision, projectStore } from "../project/project.ts";
import { projectAt } from "../proofs/proofs.ts";

/** The revisions of the open world, the newest first. */
export interface JournalState {
  readonly world: string | null;
  /** Null until they were asked for. */
  readonly revisions: readonly RevisionEntry[] | null;
  /** There are older ones: ask before this one. */
  readonly before: number | null;
  readonly fault: string | null;
  /** The revision that is looked at. */
  readonly chosen: number | null;
}

const NOTHING: JournalState = { world: null, revisions: null, before: null, fault: null, chosen: null };

export const journalStore = createStore<JournalState>(() => NOTHING);

/** Asks for the newest revisions; older ones that were read already stay. */
export async function readJournal(): Promise<void> {
  const { worldId } = projectStore.getState();
  if (worldId === null) return;
  if (journalStore.getState().world !== worldId) journalStore.setState({ ...NOTHING, world: worldId });
  await read(worldId, null, ({ revisions: newest, before }, old) => {
    const last = newest.at(-1)?.revision ?? 1;
    const older = (old.revisions ?? []).filter(({ revision }) => revision < last);
    return { revisions: [...newest, ...older], before: older.length > 0 ? old.before : before };
  });
}

/** Asks for older revisions. */
export async function readOlder(): Promise<void> {
  const { world, before } = journalStore.getState();
  if (world !== null && before !== null) await read(world, before, (answer, old) => ({ revisions: [...(old.revisions ?? []), ...answer.revisions], before: answer.before }));
}

type Answer = Awaited<ReturnType<typeof listRevisions>>;

async function read(world: string, before: number | null, with_: (answer: Answer, old: JournalState) => Pick<JournalState, "revisions" | "before">): Promise<void> {
  try {
    const answer = await listRevisions(world, before);
    if (journalStore.getState().world === world) journalStore.setState((old) => ({ ...with_(answer, old), fault: null }));
  } catch (error) {
    if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
    journalStore.setState({ fault: error.message });
  }
}

export function chooseRevision(chosen: number): void {
  journalStore.setState({ chosen });
}

/** Goes through the revisions. */
export function stepRevision(by: 1 | -1): void {
  const { revisions, chosen } = journalStore.getState();
  if (revisions === null || revisions.length === 0) return;
  const at = revisions.findIndex(({ revision }) => revision === chosen);
  chooseRevision(revisions[at < 0 ? 0 : Math.max(0, Math.min(revisions.length - 1, at + by))]!.revision);
}

/** Writes what somebody says of a revision; what was typed stays where the server cannot be reached. */
export async function noteRevision(revision: number, text: string): Promise<boolean> {
  const { world } = journalStore.getState();
  if (world === null) return false;
  try {
    const { note } = await writeNote(world, revision, text);
    journalStore.setState(({ revisions }) => ({ revisions: revisions?.map((each) => (each.revision === revision ? { ...each, note: note === "" ? null : note } : each)) ?? null }));
    return true;
  } catch (error) {
    if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
    notice(`The note could not be kept: ${error.message}. It stands in its field still.`);
    return false;
  }
}

/** Makes the world what it was at a revision, as a new revision; undo takes it back. */
export async function restoreRevision(revision: number): Promise<void> {
  const older = await projectAt(revision);
  if (older === null) {
    notice(`Revision ${revision} cannot be read now; nothing was changed.`);
    return;
  }
  noteNextRevision(`Back to revision ${revision}.`);
  if (change(() => older)) notice(`Everything is as it was at revision ${revision}. Undo takes that back.`, "info");
}
