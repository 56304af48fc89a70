import { settingByPath, SETTINGS, settingApplies, settingValue } from "../../world/settings.ts";
import { GAITS } from "../../world/gaits.ts";
import type { Rules } from "../../world/world.ts";
import { bodyText } from "../fixes/single-change.ts";

/** What a rule set does at walls and on the way that people often do by mistake, in words; empty where nothing is. */
export function mistakesIn(rules: Rules): readonly string[] {
  const said: string[] = [];
  const { gait, walker, glide, input } = rules;
  if (gait === "glide" && glide.arrive === "equal") said.push("a leg ends only where it comes out equal");
  if (gait === "glide" && glide.arrive === "past") said.push("goes past the cell");
  if (gait === "roam" || gait === "drift") {
    const { response, diagonal } = rules[gait];
    if (response === "undo-both") said.push("takes back both axes");
    if (response === "undo-axis") said.push("takes back the axis");
    if (response === "snap") said.push("jumps over what lies between");
    if (response === "ahead") said.push("looks ahead only");
    if (diagonal === "full" && input.ways === 8) said.push("slanting ways are faster");
  }
  if (walker.body.kind === "box" && walker.body.flush === "blocks") said.push("sticks where it lies flush");
  return said;
}

/** A setting in which a rule set differs from another one, both values in words. */
export interface SettingDifference {
  readonly label: string;
  readonly here: string;
  readonly there: string;
}

/** The settings that count for a walk's way in which two rule sets differ. */
export function rulesDifferences(here: Rules, there: Rules): readonly SettingDifference[] {
  const made: SettingDifference[] = [];
  if (here.gait !== there.gait)
    made.push({ label: "Gait", here: GAITS[here.gait].label, there: GAITS[there.gait].label });
  for (const { path } of SETTINGS) {
    if (path.startsWith("pose.") || path.startsWith("facing.")) continue;
    if (!settingApplies(there, path)) continue;
    const [one, other] = [settingValue(here, path), settingValue(there, path)];
    if (one !== other && (here.gait === there.gait || !isOfGait(path)))
      made.push({ label: settingByPath(path)!.label, here: String(one), there: String(other) });
  }
  const bodies = [bodyText(here.walker.body), bodyText(there.walker.body)] as const;
  if (bodies[0] !== bodies[1]) made.push({ label: "Body", here: bodies[0], there: bodies[1] });
  const blocks = [here.walker.blockedBy.join(", "), there.walker.blockedBy.join(", ")] as const;
  if (blocks[0] !== blocks[1]) made.push({ label: "Blocked by", here: blocks[0], there: blocks[1] });
  return made;
}

function isOfGait(path: string): boolean {
  return Object.hasOwn(GAITS, path.split(".")[0]!);
}
