import { session } from "./page-session.ts";
import { useStore } from "zustand";
import type { BenchState } from "./session/bench/bench-store.ts";
import type { BoardState } from "./session/proofs/board.ts";
import type { FixesState } from "./session/bench/fixes.ts";
import type { ProofsState } from "./session/proofs/proofs.ts";
import type { ProjectState } from "./session/project/project.ts";
import type { SaveState } from "./session/project/saving.ts";
import type { Tried } from "./session/bench/tried.ts";
import { triedKey } from "./session/bench/tried.ts";

/** A part of what the Bench shows; the component draws again when it changes. */
export const useBench = <T>(select: (state: BenchState) => T): T => useStore(session.benchStore, select);

/** A part of what all logs come to. */
export const useProofs = <T>(select: (state: ProofsState) => T): T => useStore(session.proofs.store, select);

/** A part of what the board of logs shows. */
export const useBoard = <T>(select: (state: BoardState) => T): T => useStore(session.board.store, select);

/** A part of the open project's state. */
export const useProject = <T>(select: (state: ProjectState) => T): T => useStore(session.project.store, select);

/** A part of what is wrong with the shown log and what would mend it. */
export const useFixes = <T>(select: (state: FixesState) => T): T => useStore(session.fixes.store, select);

/** The values that a setting of a rule set had in this visit. */
export const useTried = (rules: string, path: string): readonly Tried[] | undefined =>
  useStore(session.tried.store, (state) => state.get(triedKey(rules, path)));

/** How saving stands. */
export const useSaving = (): SaveState => useStore(session.saveStore);
