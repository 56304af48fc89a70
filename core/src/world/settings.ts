import type { FreeMovement, Rules } from "./world.ts";

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
  | { readonly kind: "px"; readonly most: PxLimit }
  | { readonly kind: "whole"; readonly least: number; readonly most: PxLimit | number; readonly unit: "px" | "frames" | "" }
  | { readonly kind: "choice"; readonly choices: readonly (string | number)[] }
  | { readonly kind: "switch" };

export type SettingValue = number | string | boolean;

export type Setting = SettingKind & {
  /** Where it stands in a rule set, such as `glide.speed`. */
  readonly path: string;
  readonly label: string;
  readonly stage: Stage;
  readonly default: SettingValue;
};

const choice = (path: string, label: string, stage: Stage, choices: readonly (string | number)[], fallback: string | number): Setting => ({
  path,
  label,
  stage,
  kind: "choice",
  choices,
  default: fallback,
});
const toggle = (path: string, label: string, stage: Stage, fallback: boolean): Setting => ({ path, label, stage, kind: "switch", default: fallback });
const px = (path: string, label: string, tiles: number, fallback: number): Setting => ({
  path,
  label,
  stage: "motion",
  kind: "px",
  most: { tiles },
  default: fallback,
});
const frames = (path: string, label: string, stage: Stage, fallback: number): Setting => ({
  path,
  label,
  stage,
  kind: "whole",
  least: 0,
  most: 600,
  unit: "frames",
  default: fallback,
});

function freeMovement(gait: "roam" | "drift"): Setting[] {
  const at = (name: keyof FreeMovement) => `${gait}.${name}`;
  return [
    choice(at("diagonal"), "Diagonal", "motion", ["even", "full"], "even"),
    choice(at("response"), "Response", "contact", ["contact", "undo-axis", "undo-both", "snap", "ahead"], "contact"),
    choice(at("axisOrder"), "Axis order", "contact", ["x-first", "y-first"], "x-first"),
    { path: at("aheadPx"), label: "Ahead", stage: "contact", kind: "px", most: { tiles: 1 }, default: 1 },
    { path: at("nudge"), label: "Nudge", stage: "contact", kind: "whole", least: 0, most: { tiles: 1 }, unit: "px", default: 0 },
    choice(at("slopes"), "Slopes", "contact", ["slide", "stop"], "slide"),
  ];
}

/**
 * Every setting of a rule set but `gait` and `walker`, with its range and default (semantics.md section 11,
 * formats.md section 1). The reader's schema, the edits' checks and the frame anatomy's fields are all made from this
 * one table, in the order in which the file has them.
 */
export const SETTINGS: readonly Setting[] = [
  choice("input.opposites", "Opposites", "input", ["cancel", "latest", "earliest"], "cancel"),
  choice("input.ways", "Ways", "input", [4, 8], 4),
  choice("input.prefer", "Prefer", "intent", ["latest", "horizontal", "vertical"], "latest"),
  frames("hop.repeatAfter", "Repeat after", "motion", 20),
  frames("hop.repeatEvery", "Repeat every", "motion", 5),
  toggle("hop.slide", "Slide", "motion", true),
  toggle("hop.cutCorners", "Cut corners", "motion", false),
  px("glide.speed", "Speed", 1, 1),
  choice("glide.arrive", "Arrive", "motion", ["land", "equal", "past"], "land"),
  toggle("glide.carry", "Carry", "motion", true),
  toggle("glide.slide", "Slide", "intent", true),
  frames("glide.bufferFrames", "Buffer", "intent", 0),
  toggle("glide.keepGoing", "Keep going", "motion", false),
  toggle("glide.reverse", "Reverse", "motion", false),
  toggle("glide.cutCorners", "Cut corners", "motion", false),
  px("roam.speedX", "Speed x", 4, 1),
  px("roam.speedY", "Speed y", 4, 1),
  ...freeMovement("roam"),
  px("drift.accel", "Accel", 4, 0.25),
  { path: "drift.drag", label: "Drag", stage: "motion", kind: "whole", least: 0, most: 256, unit: "", default: 16 },
  px("drift.maxSpeed", "Max speed", 4, 3),
  ...freeMovement("drift"),
  choice("facing.source", "Facing", "pose", ["intent", "pointer"], "intent"),
  choice("facing.ways", "Facings", "pose", [4, 8], 4),
  choice("facing.tie", "Tie", "pose", ["keep", "horizontal", "vertical"], "keep"),
  choice("facing.idle", "Idle", "pose", ["keep", "reset"], "keep"),
  choice("facing.rest", "Rest", "pose", ["up", "up-right", "right", "down-right", "down", "down-left", "left", "up-left"], "down"),
  { path: "pose.images", label: "Images", stage: "pose", kind: "whole", least: 1, most: 64, unit: "", default: 1 },
  choice("pose.advance", "Advance", "pose", ["distance", "frames", "off"], "distance"),
  { path: "pose.every", label: "Every", stage: "pose", kind: "whole", least: 1, most: 1024, unit: "", default: 8 },
  { path: "pose.idleImage", label: "Idle image", stage: "pose", kind: "whole", least: 0, most: 63, unit: "", default: 0 },
  frames("pose.idleAfter", "Idle after", "pose", 0),
];

const BY_PATH = new Map(SETTINGS.map((setting) => [setting.path, setting]));

/** The setting with that path, or undefined. */
export function settingByPath(path: string): Setting | undefined {
  return BY_PATH.get(path);
}

/** Largest value of a number setting in a world of that tile size, in the setting's own unit. */
export function settingMost(most: PxLimit | number, tileSize: number): number {
  return typeof most === "number" ? most : "px" in most ? most.px : most.tiles * tileSize;
}

/** What a number setting may be in a world of that tile size, both ends included. */
export function settingRange(setting: Setting & { readonly kind: "px" | "whole" }, tileSize: number): { readonly least: number; readonly most: number; readonly whole: boolean } {
  const most = settingMost(setting.most, tileSize);
  return setting.kind === "px" ? { least: 1 / 256, most, whole: false } : { least: setting.least, most, whole: true };
}

/**
 * Whether a frame under these rules looks at the setting at all: those of other gaits do nothing, nor do those that
 * another setting turns off (semantics.md sections 2, 4 and 5 say which).
 */
export function settingApplies(rules: Rules, path: string): boolean {
  const [group, name] = path.split(".") as [string, string];
  const { input, glide, hop, facing, pose } = rules;
  switch (group) {
    case "input":
      return name !== "prefer" || input.ways === 4;
    case "facing":
      if (name === "source") return true;
      return facing.source === "intent" && (name !== "tie" || facing.ways === 4) && (name !== "rest" || facing.idle === "reset");
    case "pose":
      return name === "advance" || name === "idleImage" || pose.advance !== "off";
  }
  if (group !== rules.gait) return false;
  switch (path) {
    case "hop.repeatEvery":
      return hop.repeatAfter > 0;
    case "glide.carry":
    case "glide.reverse":
      return glide.arrive === "land";
    case "hop.cutCorners":
    case "glide.cutCorners":
      return input.ways === 8;
  }
  const free = rules.gait === "roam" ? rules.roam : rules.gait === "drift" ? rules.drift : null;
  if (free === null) return true;
  switch (name) {
    case "diagonal":
      return input.ways === 8;
    case "axisOrder":
      return free.response !== "undo-both";
    case "aheadPx":
      return free.response === "ahead";
    case "nudge":
    case "slopes":
      return free.response === "contact";
  }
  return true;
}

/** The value of the setting in a rule set; for `path`s of the table only. */
export function settingValue(rules: Rules, path: string): SettingValue {
  const [group, name] = path.split(".") as [keyof Rules, string];
  return (rules[group] as unknown as Record<string, SettingValue>)[name]!;
}

/** A copy of the rule set with that one setting changed. */
export function withSetting(rules: Rules, path: string, value: SettingValue): Rules {
  const [group, name] = path.split(".") as [keyof Rules, string];
  return { ...rules, [group]: { ...(rules[group] as object), [name]: value } };
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
      const most = settingMost(setting.most, tileSize);
      const fits = typeof value === "number" && Number.isInteger(value) && value >= setting.least && value <= most;
      return fits ? null : `must be a whole number from ${setting.least} to ${most}`;
    }
    case "px": {
      const most = settingMost(setting.most, tileSize);
      const fits = typeof value === "number" && value <= most && Math.floor(value * 256 + 0.5) >= 1;
      return fits ? null : `must be px, at least 1/256 and at most ${most}`;
    }
  }
}
