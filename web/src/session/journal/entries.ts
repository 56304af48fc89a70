import type { JournalEntry, NewEntry } from "@keen-pebble/server/api";
import { createStore } from "zustand/vanilla";
import type { BenchStore } from "../bench/bench-store.ts";
import { changeEntry, deleteEntry, writeEntry } from "../project/api-client.ts";
import { OfflineError, ProblemError } from "../project/server-answer.ts";
import type { ProjectSession } from "../project/project.ts";
import type { JournalSession } from "./journal.ts";

/** The shown frame as a fault that is being written down: its log, if there is one, its number, and a picture of the field. */
export interface FaultUnderWay {
  readonly log: string | null;
  readonly frame: number;
  /** A PNG in base64; null where none could be made. */
  readonly picture: string | null;
}

/** What is written into the Journal by hand. What was typed stays in its field where the server cannot be reached. */
export class Entries {
  /** The fault that is written down on the Bench; null while there is none. */
  readonly store = createStore<{ readonly fault: FaultUnderWay | null }>(() => ({ fault: null }));

  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
    private readonly journal: JournalSession,
  ) {}

  /** Begins to write down what is wrong in the shown frame. */
  readonly beginFault = (picture: string | null): void => {
    const { frame, log } = this.benchStore.getState();
    this.store.setState({ fault: { log, frame, picture } });
  };

  readonly cancelFault = (): void => {
    this.store.setState({ fault: null });
  };

  /** Keeps the fault that is written down. */
  readonly keepFault = async (text: string): Promise<void> => {
    const { fault } = this.store.getState();
    if (fault === null || text.trim() === "") return;
    if (!(await this.write({ kind: "fault", text, ...fault }))) return;
    this.store.setState({ fault: null });
    this.project.notice(`The fault in frame ${fault.frame} is in the Journal.`, "info");
  };

  /** Writes an entry; says whether it is kept. */
  readonly write = async (entry: NewEntry): Promise<boolean> =>
    this.asked("The entry could not be kept", async (world) => {
      const made = await writeEntry(world, entry);
      this.journal.putEntries((entries) => [made, ...entries]);
    });

  /** Writes another text in the place of an entry's. */
  readonly change = async ({ id }: JournalEntry, text: string): Promise<boolean> =>
    this.asked("The entry could not be changed", async (world) => {
      const made = await changeEntry(world, id, text);
      this.journal.putEntries((entries) => entries.map((each) => (each.id === id ? made : each)));
    });

  readonly remove = async ({ id }: JournalEntry): Promise<boolean> =>
    this.asked("The entry could not be deleted", async (world) => {
      await deleteEntry(world, id);
      this.journal.putEntries((entries) => entries.filter((each) => each.id !== id));
    });

  private async asked(refusal: string, act: (world: string) => Promise<void>): Promise<boolean> {
    const { worldId } = this.project.store.getState();
    if (worldId === null) return false;
    try {
      await act(worldId);
      return true;
    } catch (error) {
      if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
      this.project.notice(`${refusal}: ${error.message}. What you typed stands in its field still.`);
      return false;
    }
  }
}
