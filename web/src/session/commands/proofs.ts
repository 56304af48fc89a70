import { asked } from "./asked.ts";
import { layBeside, layRevisionBeside } from "../bench/beside.ts";
import { benchStore } from "../bench/bench-store.ts";
import { boardStore, chooseFilter, stepCheck, stepRow } from "../proofs/board.ts";
import { takeLogAway } from "../log/log-edits.ts";
import { proofsStore, runOnServer, searchBreak } from "../proofs/proofs.ts";
import type { Commands } from "./command.ts";
import { always } from "./command.ts";
import { UNDO } from "./undo.ts";

const chosenCheck = (): { readonly log: string; readonly check: string } | null => {
  const { log } = benchStore.getState();
  const { check } = boardStore.getState();
  const verdict = log === null || check === null ? undefined : proofsStore.getState().proofs.get(log)?.checks[check];
  return log === null || verdict === undefined || verdict.verdict === "pass" ? null : { log, check: verdict.check };
};
const hasLog = (): boolean => benchStore.getState().log !== null;

/** Every command of Proofs. */
export const PROOFS = {
  ...UNDO,
  open: { name: "Open the shown frame on the Bench", keys: ["Enter"], can: hasLog, act: () => asked.openOnBench.ask() },
  next: { name: "Next log", keys: ["ArrowDown"], can: always, act: () => stepRow(1) },
  previous: { name: "Log before", keys: ["ArrowUp"], can: always, act: () => stepRow(-1) },
  first: { name: "First log", keys: ["Home"], can: always, act: () => stepRow(-Infinity) },
  last: { name: "Last log", keys: ["End"], can: always, act: () => stepRow(Infinity) },
  nextCheck: { name: "Next check", keys: ["ArrowRight", "."], can: hasLog, act: () => stepCheck(1) },
  previousCheck: { name: "Check before", keys: ["ArrowLeft", ","], can: hasLog, act: () => stepCheck(-1) },
  all: { name: "Show all logs", keys: ["1"], can: always, act: () => chooseFilter("all") },
  failing: { name: "Show failing logs", keys: ["2", "F"], can: always, act: () => chooseFilter("failing") },
  path: { name: "Show logs whose path differs", keys: ["3", "P"], can: always, act: () => chooseFilter("path") },
  search: { name: "Search", keys: ["/"], can: always, act: () => asked.searchLogs.ask() },
  ghost: { name: "Ghost of the compared revision", keys: ["G"], can: () => hasLog() && proofsStore.getState().compared !== null, act: toggleGhost },
  whatBroke: {
    name: "What broke it",
    keys: ["B"],
    can: () => chosenCheck() !== null,
    act: () => {
      const chosen = chosenCheck();
      if (chosen !== null) void searchBreak(chosen.log, chosen.check);
    },
  },
  server: { name: "Run all on the server, or take that back", keys: ["S"], can: always, act: () => void runOnServer() },
  randomWalks: { name: "Random walks", keys: ["W"], can: always, act: () => boardStore.setState(({ beside }) => ({ beside: beside === "wander" ? "log" : "wander" })) },
  takeAway: {
    name: "Take the log away",
    keys: ["Delete"],
    can: hasLog,
    act: () => {
      const { log } = benchStore.getState();
      if (log !== null) takeLogAway(log);
    },
  },
} satisfies Commands;

function toggleGhost(): void {
  const { beside } = benchStore.getState();
  const { compared } = proofsStore.getState();
  if (beside?.where.kind === "revision") layBeside(null);
  else if (compared !== null) void layRevisionBeside(compared.revision);
}
