import { UNITS_PER_PX } from "../base/units.ts";
import { FACINGS } from "./facing.ts";
import type { Gait } from "./gaits.ts";
import { GAITS } from "./gaits.ts";
import type { PxLimit, SettingSpec, SettingValue, SettingsOf } from "./setting.ts";
import { choice, frames, whole } from "./setting.ts";
import type { Rules } from "./world.ts";

/** A setting and where it stands in a rule set, such as `glide.speed`. */
export type Setting = SettingSpec & { readonly path: string };

const INPUT: SettingsOf<Rules["input"]> = {
  opposites: choice("Opposites", "input", ["cancel", "latest", "earliest"], "cancel"),
  ways: choice("Ways", "input", [4, 8], 4),
  prefer: choice("Prefer", "intent", ["latest", "horizontal", "vertical"], "latest", (rules) => rules.input.ways === 4),
};

/** Of `walker` only what is a plain choice: what blocks and the body have editors of their own. */
const WALKER: SettingsOf<Pick<Rules["walker"], "crossesAt">> = {
  crossesAt: choice("Crosses at", "aftermath", ["centre", "whole"], "centre"),
};

const byIntent = (rules: Rules): boolean => rules.facing.source === "intent";

const FACING: SettingsOf<Rules["facing"]> = {
  source: choice("Facing", "pose", ["intent", "pointer"], "intent"),
  ways: choice("Facings", "pose", [4, 8], 4, byIntent),
  tie: choice(
    "Tie",
    "pose",
    ["keep", "horizontal", "vertical"],
    "keep",
    (rules) => byIntent(rules) && rules.facing.ways === 4,
  ),
  idle: choice("Idle", "pose", ["keep", "reset"], "keep", byIntent),
  rest: choice("Rest", "pose", FACINGS, "down", (rules) => byIntent(rules) && rules.facing.idle === "reset"),
};

const isAnimated = (rules: Rules): boolean => rules.pose.advance !== "off";

const POSE: SettingsOf<Rules["pose"]> = {
  images: whole("Images", "pose", 1, 64, "", 1, isAnimated),
  advance: choice("Advance", "pose", ["distance", "frames", "off"], "distance"),
  every: whole("Every", "pose", 1, 1024, "", 8, isAnimated),
  idleImage: whole("Idle image", "pose", 0, 63, "", 0),
  idleAfter: frames("Idle after", "pose", 0, isAnimated),
};

/** The parts of a rule set that are settings, in the order in which the file has them. */
const GROUPS: readonly (readonly [string, Readonly<Record<string, SettingSpec>>])[] = [
  ["input", INPUT],
  ["walker", WALKER],
  ...Object.entries(GAITS).map(
    ([gait, { settings }]) => [gait, settings as Readonly<Record<string, SettingSpec>>] as const,
  ),
  ["facing", FACING],
  ["pose", POSE],
];

/**
 * Every setting of a rule set but `gait`, `walker.blockedBy` and `walker.body`, with its range and default (semantics.md section 11,
 * formats.md section 1). The reader's schema, the edits' checks and the frame anatomy's fields are all made from this
 * one table, in the order in which the file has them.
 */
export const SETTINGS: readonly Setting[] = GROUPS.flatMap(([group, specs]) =>
  Object.entries(specs).map(([name, spec]): Setting => ({ ...spec, path: `${group}.${name}` })),
);

const BY_PATH = new Map(SETTINGS.map((setting) => [setting.path, setting]));
const PARTS = new Map(SETTINGS.map(({ path }) => [path, path.split(".") as [group: string, name: string]]));

/** The group and the name of which a setting's path is made; for paths of the table only. */
export function settingParts(path: string): readonly [group: string, name: string] {
  return PARTS.get(path)!;
}

/** The setting with that path, or undefined. */
export function settingByPath(path: string): Setting | undefined {
  return BY_PATH.get(path);
}

/** Largest value of a number setting in a world of that tile size, in the setting's own unit. */
export function settingMax(max: PxLimit | number, tileSize: number): number {
  return typeof max === "number" ? max : "px" in max ? max.px : max.tiles * tileSize;
}

/** What a number setting may be in a world of that tile size, both ends included. */
export function settingRange(
  setting: Setting & { readonly kind: "px" | "whole" },
  tileSize: number,
): { readonly min: number; readonly max: number; readonly whole: boolean } {
  const max = settingMax(setting.max, tileSize);
  return setting.kind === "px" ? { min: 1 / UNITS_PER_PX, max, whole: false } : { min: setting.min, max, whole: true };
}

/**
 * Whether a frame under these rules looks at the setting at all: those of other gaits do nothing, nor do those that
 * another setting turns off (semantics.md sections 2, 4 and 5 say which).
 */
export function settingApplies(rules: Rules, path: string): boolean {
  const [group] = path.split(".") as [string];
  if (Object.hasOwn(GAITS, group) && (group as Gait) !== rules.gait) return false;
  return BY_PATH.get(path)?.applies?.(rules) ?? true;
}

/** The value of the setting in a rule set; for `path`s of the table only. */
export function settingValue(rules: Rules, path: string): SettingValue {
  const [group, name] = settingParts(path);
  return (rules[group as keyof Rules] as unknown as Record<string, SettingValue>)[name]!;
}

/** A copy of the rule set with that one setting changed. */
export function withSetting(rules: Rules, path: string, value: SettingValue): Rules {
  const [group, name] = settingParts(path);
  return { ...rules, [group]: { ...(rules[group as keyof Rules] as object), [name]: value } };
}

/**
 * Says what is wrong with a value for a setting, or null where it may stand.
 * @param tileSize px per cell side of the world
 */
export function settingFault(setting: Setting, value: unknown, tileSize: number): string | null {
  switch (setting.kind) {
    case "switch":
      return typeof value === "boolean" ? null : "must be true or false";
    case "choice":
      return setting.choices.includes(value as string | number) ? null : `must be one of ${setting.choices.join(", ")}`;
    case "whole": {
      const max = settingMax(setting.max, tileSize);
      const fits = typeof value === "number" && Number.isInteger(value) && value >= setting.min && value <= max;
      return fits ? null : `must be a whole number from ${setting.min} to ${max}`;
    }
    case "px": {
      const max = settingMax(setting.max, tileSize);
      const fits = typeof value === "number" && value <= max && Math.floor(value * UNITS_PER_PX + 0.5) >= 1;
      return fits ? null : `must be px, at least 1/256 and at most ${max}`;
    }
  }
}
