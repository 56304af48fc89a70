import type { EditStep } from "./step.ts";
import { invert } from "./step.ts";
import { isNothing, merge } from "./merge.ts";

/** What can be undone and redone: groups of steps, newest last. A value (architecture.md, flow 2). */
export interface History {
  readonly done: readonly (readonly EditStep[])[];
  readonly undone: readonly (readonly EditStep[])[];
  /** The stroke that may still take in further steps, or null once it is closed. */
  readonly open: string | null;
}

export const EMPTY_HISTORY: History = { done: [], undone: [], open: null };

/**
 * The history after a step was made.
 * @param stroke name of the stroke that it belongs to: steps of one stroke are undone together. Null: one of its own.
 */
export function record(history: History, step: EditStep, stroke: string | null = null): History {
  const last = history.done.at(-1);
  if (stroke !== null && history.open === stroke && last) {
    const before = last.at(-1);
    const merged = before ? merge(before, step) : null;
    const group = merged ? [...last.slice(0, -1), ...(isNothing(merged) ? [] : [merged])] : [...last, step];
    const earlier = history.done.slice(0, -1);
    // A stroke that came to nothing leaves nothing to undo.
    return group.length === 0
      ? { done: earlier, undone: [], open: null }
      : { done: [...earlier, group], undone: [], open: stroke };
  }
  return { done: [...history.done, [step]], undone: [], open: stroke };
}

/** Closes the stroke under way, so that the next step is undone on its own. */
export function close(history: History): History {
  return history.open === null ? history : { ...history, open: null };
}

/** The steps that take back the last group, and the history after that; null where there is nothing to undo. */
export function undo(history: History): { readonly steps: readonly EditStep[]; readonly history: History } | null {
  const group = history.done.at(-1);
  if (!group) return null;
  return {
    steps: [...group].reverse().map(invert),
    history: { done: history.done.slice(0, -1), undone: [...history.undone, group], open: null },
  };
}

/** The steps that do the last undone group again, and the history after that; null where there is none. */
export function redo(history: History): { readonly steps: readonly EditStep[]; readonly history: History } | null {
  const group = history.undone.at(-1);
  if (!group) return null;
  return { steps: group, history: { done: [...history.done, group], undone: history.undone.slice(0, -1), open: null } };
}

/** The last so many groups that can be undone and redone, for keeping over a reload. */
export function recent(history: History, max: number): History {
  return { done: history.done.slice(-max), undone: history.undone.slice(-max), open: null };
}
