import { RESPONSES } from "./responses.ts";
import type { ResponseName } from "./responses.ts";
import type { SettingsOf } from "./setting.ts";
import { choice, px, whole } from "./setting.ts";
import type { Rules } from "./world.ts";

/** What `roam` and `drift` have in common (semantics.md sections 4.3 and 4.4). */
export interface FreeMovement {
  readonly diagonal: "even" | "full";
  readonly response: ResponseName;
  readonly axisOrder: "x-first" | "y-first";
  readonly aheadPx: number;
  readonly nudge: number;
  readonly slopes: "slide" | "stop";
}

/** The settings of free movement, for one of the gaits that have them. */
export function freeMovement(settingsOf: (rules: Rules) => FreeMovement): SettingsOf<FreeMovement> {
  const asked = (name: keyof FreeMovement) => (rules: Rules) =>
    RESPONSES[settingsOf(rules).response].settings.includes(name);
  return {
    diagonal: choice("Diagonal", "motion", ["even", "full"], "even", (rules) => rules.input.ways === 8),
    response: choice("Response", "contact", Object.keys(RESPONSES) as ResponseName[], "contact"),
    axisOrder: choice("Axis order", "contact", ["x-first", "y-first"], "x-first", asked("axisOrder")),
    aheadPx: px("Ahead", "contact", 1, 1, asked("aheadPx")),
    nudge: whole("Nudge", "contact", 0, { tiles: 1 }, "px", 0, asked("nudge")),
    slopes: choice("Slopes", "contact", ["slide", "stop"], "slide", asked("slopes")),
  };
}
