import { settingByPath, settingValue, withSetting } from "../world/settings.ts";
import type { Body, Gait, Rules, World } from "../world/world.ts";

/** One change of one rule set: a setting of the table, the gait, the body, or the flags that block. */
export type RulesChange =
  | { readonly path: "gait"; readonly value: Gait }
  | { readonly path: "walker.body"; readonly value: Body }
  | { readonly path: "walker.blockedBy"; readonly value: readonly string[] }
  | { readonly path: string; readonly value: number | string | boolean };

/** What stands at a change's path now. */
export function presentValue(rules: Rules, path: string): RulesChange["value"] {
  if (path === "gait") return rules.gait;
  if (path === "walker.body") return rules.walker.body;
  if (path === "walker.blockedBy") return rules.walker.blockedBy;
  return settingValue(rules, path);
}

/** The rule set with that change made. */
export function changedRules(rules: Rules, change: RulesChange): Rules {
  if (change.path === "gait") return { ...rules, gait: change.value as Gait };
  if (change.path === "walker.body") return { ...rules, walker: { ...rules.walker, body: change.value as Body } };
  if (change.path === "walker.blockedBy") return { ...rules, walker: { ...rules.walker, blockedBy: change.value as readonly string[] } };
  return withSetting(rules, change.path, change.value as number | string | boolean);
}

/** The world with that change made in one of its rule sets. */
export function changedWorld(world: World, rulesId: string, change: RulesChange): World {
  return { ...world, rules: world.rules.map((rules) => (rules.id === rulesId ? changedRules(rules, change) : rules)) };
}

/** The change in words, such as `Speed 7 to 8 px` or `Arrive equal to land`. */
export function changeText(rules: Rules, change: RulesChange): string {
  if (change.path === "gait") return `Gait ${rules.gait} to ${String(change.value)}`;
  if (change.path === "walker.body") return bodyChangeText(rules.walker.body, change.value as Body);
  if (change.path === "walker.blockedBy") {
    const after = change.value as readonly string[];
    const more = after.filter((flag) => !rules.walker.blockedBy.includes(flag));
    const fewer = rules.walker.blockedBy.filter((flag) => !after.includes(flag));
    return [...more.map((flag) => `Blocked by ${flag} too`), ...fewer.map((flag) => `Not blocked by ${flag}`)].join(", ");
  }
  const setting = settingByPath(change.path)!;
  if (setting.kind === "switch") return `${setting.label} ${change.value === true ? "on" : "off"}`;
  const unit = setting.kind === "px" ? " px" : setting.kind === "whole" && setting.unit !== "" ? ` ${setting.unit}` : "";
  return `${setting.label} ${settingValue(rules, change.path)} to ${change.value as number | string}${unit}`;
}

function bodyChangeText(before: Body, after: Body): string {
  if (before.kind === "box" && after.kind === "box" && before.box.every((v, i) => v === after.box[i])) return `Flush ${before.flush} to ${after.flush}`;
  return `Body ${bodyText(before)} to ${bodyText(after)}`;
}

/** A body in a few words, such as `12x12 at 2 4` or `3 probes`. */
export function bodyText(body: Body): string {
  if (body.kind === "probes") return `${body.points.length} ${body.points.length === 1 ? "probe" : "probes"}`;
  const [left, top, width, height] = body.box;
  return `${width}x${height} at ${left} ${top}`;
}
