import { undoCommands } from "./undo.ts";
import type { Parts } from "../session.ts";
import { always, following } from "./command.ts";

/** Every command of the Journal. */
export function journalCommands(session: Parts) {
  const chosenRevision = (): number | null => session.journal.store.getState().chosen;
  return following(session.onChange, {
    ...undoCommands(session),
    next: { name: "Next revision", keys: ["ArrowDown"], can: always, act: () => session.journal.stepRevision(1) },
    previous: { name: "Revision before", keys: ["ArrowUp"], can: always, act: () => session.journal.stepRevision(-1) },
    note: {
      name: "Write a note to the chosen revision",
      keys: ["N"],
      can: () => chosenRevision() !== null,
      act: () => document.querySelector<HTMLElement>(`[data-note="${chosenRevision()!}"]`)?.click(),
    },
    compare: {
      name: "Compare the proofs with the chosen revision",
      keys: ["G"],
      can: () => chosenRevision() !== null,
      act: () => void session.proofs.compareWithRevision(chosenRevision()!),
    },
    playtest: {
      name: "Switch the playtest link on or off",
      keys: [],
      can: () => session.playtestLink.store.getState().link !== null,
      act: () => void session.playtestLink.switch(session.playtestLink.store.getState().link?.on !== true),
    },
    restore: {
      name: "Make everything as at the chosen revision",
      keys: ["R"],
      can: () => chosenRevision() !== null,
      act: () => void session.journal.restoreRevision(chosenRevision()!),
    },
  });
}
