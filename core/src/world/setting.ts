import type { Rules } from "./world.ts";

/** The stages that a frame goes through, in order (interface.md, frame anatomy). */
export const STAGES = ["input", "intent", "motion", "contact", "aftermath", "pose"] as const;
export type Stage = (typeof STAGES)[number];

/** Upper bound of a number in px: a fixed one, or so many tile sizes. */
export type PxLimit = { readonly px: number } | { readonly tiles: number };

/**
 * What a setting may be. `px` are decimals that count as whole units, of at least 1 unit;
 * `whole` are whole numbers, both ends included.
 */
export type SettingKind =
  | { readonly kind: "px"; readonly max: PxLimit }
  | {
      readonly kind: "whole";
      readonly min: number;
      readonly max: PxLimit | number;
      readonly unit: "px" | "frames" | "";
    }
  | { readonly kind: "choice"; readonly choices: readonly (string | number)[] }
  | { readonly kind: "switch" };

export type SettingValue = number | string | boolean;

/** All about one setting but where it stands: how it is called, in which stage it acts, what it may be. */
export type SettingSpec<V extends SettingValue = SettingValue> = SettingKind & {
  readonly label: string;
  readonly stage: Stage;
  readonly default: V;
  /** Whether a frame under these rules looks at it at all; always where it is left out. */
  readonly applies?: (rules: Rules) => boolean;
};

/** The settings of one part of a rule set, by name; in the order in which the file has them. */
export type SettingsOf<S> = { readonly [K in keyof S]: SettingSpec<S[K] & SettingValue> };

type When = (rules: Rules) => boolean;

/** `exactOptionalPropertyTypes`: what is left out is not there at all. */
const onlyWhen = (applies: When | undefined): { readonly applies?: When } => (applies === undefined ? {} : { applies });

/** One of some values. */
export function choice<V extends string | number>(
  label: string,
  stage: Stage,
  choices: readonly V[],
  fallback: V,
  applies?: When,
): SettingSpec<V> {
  return { label, stage, kind: "choice", choices, default: fallback, ...onlyWhen(applies) };
}

/** On or off. */
export function toggle(label: string, stage: Stage, fallback: boolean, applies?: When): SettingSpec<boolean> {
  return { label, stage, kind: "switch", default: fallback, ...onlyWhen(applies) };
}

/** Decimal px, up to so many tile sizes. */
export function px(label: string, stage: Stage, tiles: number, fallback: number, applies?: When): SettingSpec<number> {
  return { label, stage, kind: "px", max: { tiles }, default: fallback, ...onlyWhen(applies) };
}

/** Whole frames, 0 to 600. */
export function frames(label: string, stage: Stage, fallback: number, applies?: When): SettingSpec<number> {
  return whole(label, stage, 0, 600, "frames", fallback, applies);
}

/** A whole number, both ends included. */
export function whole(
  label: string,
  stage: Stage,
  min: number,
  max: PxLimit | number,
  unit: "px" | "frames" | "",
  fallback: number,
  applies?: When,
): SettingSpec<number> {
  return { label, stage, kind: "whole", min, max, unit, default: fallback, ...onlyWhen(applies) };
}
