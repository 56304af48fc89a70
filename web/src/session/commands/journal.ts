import { journalStore, restoreRevision, stepRevision } from "../journal/journal.ts";
import { compareWithRevision } from "../proofs/proofs.ts";
import type { Commands } from "./command.ts";
import { always } from "./command.ts";
import { UNDO } from "./undo.ts";

const chosenRevision = (): number | null => journalStore.getState().chosen;

/** Every command of the Journal. */
export const JOURNAL = {
  ...UNDO,
  next: { name: "Next revision", keys: ["ArrowDown"], can: always, act: () => stepRevision(1) },
  previous: { name: "Revision before", keys: ["ArrowUp"], can: always, act: () => stepRevision(-1) },
  note: { name: "Write a note to the chosen revision", keys: ["N"], can: () => chosenRevision() !== null, act: () => document.querySelector<HTMLElement>(`[data-note="${chosenRevision()!}"]`)?.click() },
  compare: {
    name: "Compare the proofs with the chosen revision",
    keys: ["G"],
    can: () => chosenRevision() !== null,
    act: () => void compareWithRevision(chosenRevision()!),
  },
  restore: { name: "Make everything as at the chosen revision", keys: ["R"], can: () => chosenRevision() !== null, act: () => void restoreRevision(chosenRevision()!) },
} satisfies Commands;
