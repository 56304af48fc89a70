import type { Gait } from "./gaits.ts";
import { SETTINGS } from "./settings.ts";
import type { Rules } from "./world.ts";

/** A rule set with every setting at its default (semantics.md section 11) and a body of the whole frame-square. */
export function newRules(id: string, name: string, gait: Gait, tileSize: number): Rules {
  const groups: Record<string, Record<string, unknown>> = {};
  for (const setting of SETTINGS) {
    const [group, key] = setting.path.split(".") as [string, string];
    (groups[group] ??= {})[key] = setting.default;
  }
  const { input, hop, glide, roam, drift, facing, pose } = groups as unknown as Rules;
  const body = { kind: "box", box: [0, 0, tileSize, tileSize], flush: "free" } as const;
  return { id, name, gait, input, walker: { blockedBy: ["solid"], body }, hop, glide, roam, drift, facing, pose };
}
