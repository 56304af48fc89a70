import { sideCommand } from "./sides.ts";
import { undoCommands } from "./undo.ts";
import type { Parts } from "../session.ts";
import { always, following } from "./command.ts";

/** Every command of Proofs. */
export function proofsCommands(session: Parts) {
  const chosenCheck = (): { readonly log: string; readonly check: string } | null => {
    const { log } = session.benchStore.getState();
    const { check } = session.board.store.getState();
    const verdict =
      log === null || check === null ? undefined : session.proofs.store.getState().proofs.get(log)?.checks[check];
    return log === null || verdict === undefined || verdict.verdict === "pass" ? null : { log, check: verdict.check };
  };
  const hasLog = (): boolean => session.benchStore.getState().log !== null;
  function toggleGhost(): void {
    const { beside } = session.benchStore.getState();
    const { compared } = session.proofs.store.getState();
    if (beside?.where.kind === "revision") session.beside.layBeside(null);
    else if (compared !== null) void session.beside.layRevisionBeside(compared.revision);
  }
  return following(session.onChange, {
    ...undoCommands(session),
    rightSide: sideCommand(session, "detail"),
    open: {
      name: "Open the shown frame on the Bench",
      keys: ["Enter"],
      can: hasLog,
      act: () => session.asked.openOnBench.ask(),
    },
    next: { name: "Next log", keys: ["ArrowDown"], can: always, act: () => session.board.stepRow(1) },
    previous: { name: "Log before", keys: ["ArrowUp"], can: always, act: () => session.board.stepRow(-1) },
    first: { name: "First log", keys: ["Home"], can: always, act: () => session.board.stepRow(-Infinity) },
    last: { name: "Last log", keys: ["End"], can: always, act: () => session.board.stepRow(Infinity) },
    nextCheck: { name: "Next check", keys: ["ArrowRight", "."], can: hasLog, act: () => session.board.stepCheck(1) },
    previousCheck: {
      name: "Check before",
      keys: ["ArrowLeft", ","],
      can: hasLog,
      act: () => session.board.stepCheck(-1),
    },
    all: { name: "Show all logs", keys: ["1"], can: always, act: () => session.board.chooseFilter("all") },
    failing: {
      name: "Show failing logs",
      keys: ["2", "F"],
      can: always,
      act: () => session.board.chooseFilter("failing"),
    },
    path: {
      name: "Show logs whose path differs",
      keys: ["3", "P"],
      can: always,
      act: () => session.board.chooseFilter("path"),
    },
    search: { name: "Search", keys: ["/"], can: always, act: () => session.asked.searchLogs.ask() },
    ghost: {
      name: "Ghost of the compared revision",
      keys: ["G"],
      can: () => hasLog() && session.proofs.store.getState().compared !== null,
      act: toggleGhost,
    },
    whatBroke: {
      name: "What broke it",
      keys: ["B"],
      can: () => chosenCheck() !== null,
      act: () => {
        const chosen = chosenCheck();
        if (chosen !== null) void session.proofs.searchBreak(chosen.log, chosen.check);
      },
    },
    server: {
      name: "Run all on the server, or cancel that",
      keys: ["S"],
      can: always,
      act: () => void session.proofs.runOnServer(),
    },
    randomWalks: {
      name: "Random walks",
      keys: ["W"],
      can: always,
      act: () => session.board.store.setState(({ beside }) => ({ beside: beside === "wander" ? "log" : "wander" })),
    },
    chooseAll: {
      name: "Choose all logs that are shown",
      keys: ["Ctrl+A"],
      can: always,
      act: session.board.chooseAll,
    },
    chooseNone: {
      name: "Choose the shown log alone",
      keys: ["Escape"],
      can: () => session.board.store.getState().chosen.size > 0,
      act: session.board.chooseNone,
    },
    byTag: { name: "Group the logs by tag", keys: ["T"], can: always, act: session.board.toggleByTag },
    takeAway: {
      name: "Delete the log, or all that are chosen",
      keys: ["Delete"],
      can: hasLog,
      act: () => {
        if (session.board.store.getState().chosen.size > 0) {
          session.manyLogs.deleteAll();
          return;
        }
        const { log } = session.benchStore.getState();
        if (log !== null) session.logEdits.takeLogAway(log);
      },
    },
  });
}
