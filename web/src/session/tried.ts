import type { Rules, SettingValue, Verdict } from "@keen-pebble/core";
import { SETTINGS, settingValue } from "@keen-pebble/core";
import { createStore } from "zustand/vanilla";

/** A value that a setting had in this visit, and what the checks of the shown log said to it. */
export interface Tried {
  readonly value: SettingValue;
  readonly failing: number;
  readonly checks: number;
  readonly stroke: string | null;
}

/** By rule set and setting, such as `main/glide.speed`; oldest first. */
export const triedStore = createStore<ReadonlyMap<string, readonly Tried[]>>(() => new Map());

const MOST_KEPT = 6;

/** What was run last: a run under other rules tells which settings were changed in between. */
let last: { readonly log: string; readonly rules: Rules; readonly failing: number; readonly checks: number } | null = null;

export const triedKey = (rules: string, path: string): string => `${rules}/${path}`;

/** Takes note of a run under a rule set: each setting that differs from the run before keeps both its values. */
export function noteTried(log: string, rules: Rules, verdicts: readonly Verdict[], stroke: string | null): void {
  const failing = verdicts.filter(({ verdict }) => verdict !== "pass").length;
  const now = { log, rules, failing, checks: verdicts.length };
  const before = last;
  last = now;
  if (before === null || before.log !== log || before.rules.id !== rules.id || before.rules === rules) return;
  const changed = SETTINGS.filter(({ path }) => settingValue(before.rules, path) !== settingValue(rules, path));
  if (changed.length === 0) return;
  const state = new Map(triedStore.getState());
  for (const { path } of changed) {
    const key = triedKey(rules.id, path);
    const old = state.get(key) ?? [{ value: settingValue(before.rules, path), failing: before.failing, checks: before.checks, stroke: null }];
    state.set(key, withTried(old, { value: settingValue(rules, path), failing, checks: verdicts.length, stroke }));
  }
  triedStore.setState(state, true);
}

/** A drag leaves one value, the one at which it rests; a value that was tried before keeps its place. */
function withTried(old: readonly Tried[], tried: Tried): readonly Tried[] {
  const same = old.findIndex(({ value }) => value === tried.value);
  if (same >= 0) return old.map((each, i) => (i === same ? { ...tried, stroke: each.stroke } : each));
  const kept = tried.stroke !== null && old.at(-1)?.stroke === tried.stroke ? old.slice(0, -1) : old;
  return [...kept, tried].slice(-MOST_KEPT);
}

/** Forgets everything: another world was opened. */
export function forgetTried(): void {
  last = null;
  triedStore.setState(new Map(), true);
}
