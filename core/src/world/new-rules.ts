import type { Gait } from "./gaits.ts";
import { SETTINGS, settingParts } from "./settings.ts";
import type { Rules } from "./world.ts";

/** A rule set with every setting at its default (semantics.md section 11) and a body of the whole frame-square. */
export function newRules(id: string, name: string, gait: Gait, tileSize: number): Rules {
  const groups: Record<string, Record<string, unknown>> = {};
  for (const setting of SETTINGS) {
    const [group, key] = settingParts(setting.path);
    (groups[group] ??= {})[key] = setting.default;
  }
  const body = { kind: "box", box: [0, 0, tileSize, tileSize], flush: "free" } as const;
  const settings = groups as unknown as Omit<Rules, "id" | "name" | "gait">;
  return { ...settings, id, name, gait, walker: { ...settings.walker, blockedBy: ["solid"], body } };
}
