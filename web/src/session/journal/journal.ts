import type { ProjectSession } from "../project/project.ts";
import type { Proofs } from "../proofs/proofs.ts";
import type { JournalEntry, RevisionEntry } from "@keen-pebble/server/api";
import { createStore } from "zustand/vanilla";
import { listRevisions, writeNote } from "../project/api-client.ts";
import { OfflineError, ProblemError } from "../project/server-answer.ts";

/** The revisions of the open world, the newest first. */
export interface JournalState {
  readonly world: string | null;
  /** Null until they were asked for. */
  readonly revisions: readonly RevisionEntry[] | null;
  /** What was written by hand at these revisions, the newest first. */
  readonly entries: readonly JournalEntry[];
  /** There are older ones: ask before this one. */
  readonly before: number | null;
  readonly fault: string | null;
  /** The revision that is looked at. */
  readonly chosen: number | null;
}

const NOTHING: JournalState = { world: null, revisions: null, entries: [], before: null, fault: null, chosen: null };

type Answer = Awaited<ReturnType<typeof listRevisions>>;

/** Revisions of the open world. */
export class JournalSession {
  readonly store = createStore<JournalState>(() => NOTHING);

  constructor(
    private readonly project: ProjectSession,
    private readonly proofs: Proofs,
  ) {}

  /** Asks for the newest revisions; older ones that were read already stay. */
  readonly readJournal = async (): Promise<void> => {
    const { worldId } = this.project.store.getState();
    if (worldId === null) return;
    if (this.store.getState().world !== worldId) this.store.setState({ ...NOTHING, world: worldId });
    await this.read(worldId, null, ({ revisions: newest, entries, before }, old) => {
      const last = newest.at(-1)?.revision ?? 1;
      const older = (old.revisions ?? []).filter(({ revision }) => revision < last);
      const olderEntries = older.length > 0 ? old.entries.filter(({ revision }) => revision < last) : [];
      return {
        revisions: [...newest, ...older],
        entries: [...entries, ...olderEntries],
        before: older.length > 0 ? old.before : before,
      };
    });
  };

  /** Asks for older revisions. */
  readonly readOlder = async (): Promise<void> => {
    const { world, before } = this.store.getState();
    if (world !== null && before !== null)
      await this.read(world, before, (answer, old) => ({
        revisions: [...(old.revisions ?? []), ...answer.revisions],
        entries: [...old.entries, ...answer.entries],
        before: answer.before,
      }));
  };

  private readonly read = async (
    world: string,
    before: number | null,
    with_: (answer: Answer, old: JournalState) => Pick<JournalState, "revisions" | "entries" | "before">,
  ): Promise<void> => {
    try {
      const answer = await listRevisions(world, before);
      if (this.store.getState().world === world) this.store.setState((old) => ({ ...with_(answer, old), fault: null }));
    } catch (error) {
      if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
      this.store.setState({ fault: error.message });
    }
  };

  /** Puts what was written, changed or deleted where the others are. */
  readonly putEntries = (how: (entries: readonly JournalEntry[]) => readonly JournalEntry[]): void => {
    this.store.setState(({ entries }) => ({ entries: how(entries) }));
  };

  readonly chooseRevision = (chosen: number): void => {
    this.store.setState({ chosen });
  };

  /** Goes through the revisions. */
  readonly stepRevision = (by: 1 | -1): void => {
    const { revisions, chosen } = this.store.getState();
    if (revisions === null || revisions.length === 0) return;
    const at = revisions.findIndex(({ revision }) => revision === chosen);
    this.chooseRevision(revisions[at < 0 ? 0 : Math.max(0, Math.min(revisions.length - 1, at + by))]!.revision);
  };

  /** Writes what somebody says of a revision; what was typed stays where the server cannot be reached. */
  readonly noteRevision = async (revision: number, text: string): Promise<boolean> => {
    const { world } = this.store.getState();
    if (world === null) return false;
    try {
      const { note } = await writeNote(world, revision, text);
      this.store.setState(({ revisions }) => ({
        revisions:
          revisions?.map((each) =>
            each.revision === revision ? { ...each, note: note === "" ? null : note } : each,
          ) ?? null,
      }));
      return true;
    } catch (error) {
      if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
      this.project.notice(`The note could not be kept: ${error.message}. It stands in its field still.`);
      return false;
    }
  };

  /** Makes the world what it was at a revision, as a new revision; undo takes it back. */
  readonly restoreRevision = async (revision: number): Promise<void> => {
    const older = await this.proofs.projectAt(revision);
    if (older === null) {
      this.project.notice(`Revision ${revision} cannot be read now; nothing was changed.`);
      return;
    }
    this.project.noteNextRevision(`Back to revision ${revision}.`);
    if (this.project.change(() => older))
      this.project.notice(`Everything is as it was at revision ${revision}. Undo reverts that.`, "info");
  };
}
