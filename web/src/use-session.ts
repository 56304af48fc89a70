import { session } from "./page-session.ts";
import { useEffect, useSyncExternalStore } from "react";
import { useStore } from "zustand";
import type { BenchState } from "./session/bench/bench-store.ts";
import type { BoardState } from "./session/proofs/board.ts";
import type { FixesState } from "./session/bench/fixes.ts";
import type { ProofsState } from "./session/proofs/proofs.ts";
import type { ProjectState } from "./session/project/project.ts";
import type { Command, Commands } from "./session/commands/command.ts";
import { commandFor } from "./session/commands/command.ts";
import { isTyping, keyOf } from "./session/commands/keys.ts";
import type { SaveState } from "./session/project/saving.ts";
import type { ShelfState } from "./session/shelf/shelf.ts";
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

/** A part of what the Shelf shows. */
export const useShelf = <T>(select: (state: ShelfState) => T): T => useStore(session.shelf.store, select);

/** Gives an area's commands their keys, outside of fields, dialogs and walking. */
export function useCommandKeys(commands: Commands): void {
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (isTyping(event) || session.walks.walkTakesKeys() || document.querySelector(".modal.show")) return;
      const key = keyOf(event);
      // A button that has the keyboard is pressed by Space and Enter, but for one that stands for its row; a menu is
      // gone through by arrows.
      if (
        event.target instanceof HTMLElement &&
        (event.target.closest(".dropdown-menu.show") ||
          ((key === "Space" || key === "Enter") && event.target.closest("button:not([data-row]), a, summary")))
      )
        return;
      const command = commandFor(commands, key);
      if (command === null) return;
      event.preventDefault();
      command.act();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [commands]);
}

/** Whether a command can be used now; the component draws again when that changes. */
export const useCan = (command: Command): boolean => useSyncExternalStore(session.onChange, command.can);

/** How saving stands. */
export const useSaving = (): SaveState => useStore(session.saveStore);
