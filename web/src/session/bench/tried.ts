import type { Verdict } from "@keen-pebble/core/check";
import type { Room, Rules, SettingValue, World } from "@keen-pebble/core/world";
import { SETTINGS, settingValue } from "@keen-pebble/core/world";
import { createStore } from "zustand/vanilla";

/** A value that a setting had in this visit, and what the checks of the shown log said to it. */
export interface Tried {
  readonly value: SettingValue;
  readonly failing: number;
  readonly checks: number;
  readonly stroke: string | null;
  /** Whether all else was as it is now: what the checks said is true of the value still. */
  readonly holdsNow: boolean;
  /** What it was tried under. */
  readonly under: Under;
}

/** All that a run's verdicts come from. */
interface Under {
  readonly log: string;
  readonly text: string;
  readonly world: World;
  readonly rules: Rules;
}

const MOST_KEPT = 6;

export const triedKey = (rules: string, path: string): string => `${rules}/${path}`;

/** Whether two runs differ in one setting at the most. */
function sameBut(path: string, one: Under, other: Under): boolean {
  return (
    one.log === other.log &&
    one.text === other.text &&
    one.rules.id === other.rules.id &&
    sameGround(one.world, other.world) &&
    sameRules(path, one.rules, other.rules)
  );
}

/** What a run looks at in a world, its rules left out; parts that no edit has touched are the same ones. */
function sameGround(one: World, other: World): boolean {
  if (one === other) return true;
  return (
    (
      ["tileSize", "seed", "tiles", "items", "circuits", "lives", "respawnRestores", "start", "goal", "laws"] as const
    ).every((part) => same(one[part], other[part])) &&
    one.rooms.length === other.rooms.length &&
    one.rooms.every((room, i) => sameRoom(room, other.rooms[i]!))
  );
}

function sameRoom(one: Room, other: Room): boolean {
  if (one === other) return true;
  const { cells, ...rest } = one;
  const { cells: others, ...othersRest } = other;
  return cells.length === others.length && cells.every((tile, i) => tile === others[i]) && same(rest, othersRest);
}

const same = (one: unknown, other: unknown): boolean => one === other || JSON.stringify(one) === JSON.stringify(other);

function sameRules(but: string, one: Rules, other: Rules): boolean {
  if (one === other) return true;
  return (
    one.gait === other.gait &&
    same(one.walker, other.walker) &&
    SETTINGS.every(({ path }) => path === but || settingValue(one, path) === settingValue(other, path))
  );
}

/** A drag leaves one value, the one at which it rests; a value that was tried before keeps its place. */
function withTried(old: readonly Tried[], tried: Tried): readonly Tried[] {
  const same = old.findIndex(({ value }) => value === tried.value);
  if (same >= 0) return old.map((each, i) => (i === same ? { ...tried, stroke: each.stroke } : each));
  const kept = tried.stroke !== null && old.at(-1)?.stroke === tried.stroke ? old.slice(0, -1) : old;
  return [...kept, tried].slice(-MOST_KEPT);
}

/** The values that settings had in this visit, and what the checks said to them. */
export class TriedValues {
  /** By rule set and setting, such as `main/glide.speed`; oldest first. */
  readonly store = createStore<ReadonlyMap<string, readonly Tried[]>>(() => new Map());
  /** What was run last: a run under other rules tells which settings were changed in between. */
  private last: (Under & { readonly failing: number; readonly checks: number }) | null = null;

  /** Takes note of a run under a rule set: each setting that differs from the run before keeps both its values. */
  readonly noteTried = (under: Under, verdicts: readonly Verdict[], stroke: string | null): void => {
    const { log, rules } = under;
    const failing = verdicts.filter(({ verdict }) => verdict !== "pass").length;
    const before = this.last;
    this.last = { ...under, failing, checks: verdicts.length };
    const state = new Map(this.store.getState());
    if (before !== null && before.log === log && before.rules.id === rules.id && before.rules !== rules) {
      for (const { path } of SETTINGS.filter(
        (each) => settingValue(before.rules, each.path) !== settingValue(rules, each.path),
      )) {
        const key = triedKey(rules.id, path);
        const old = state.get(key) ?? [
          {
            value: settingValue(before.rules, path),
            failing: before.failing,
            checks: before.checks,
            stroke: null,
            holdsNow: true,
            under: before,
          },
        ];
        state.set(
          key,
          withTried(old, {
            value: settingValue(rules, path),
            failing,
            checks: verdicts.length,
            stroke,
            holdsNow: true,
            under,
          }),
        );
      }
    }
    if (state.size === 0) return;
    for (const [key, tried] of state) {
      const path = key.slice(key.indexOf("/") + 1);
      state.set(
        key,
        tried.map((each) => ({ ...each, holdsNow: sameBut(path, each.under, under) })),
      );
    }
    this.store.setState(state, true);
  };

  /** Forgets everything: another world was opened. */
  readonly forgetTried = (): void => {
    this.last = null;
    this.store.setState(new Map(), true);
  };
}
