import type { GaitKind } from "../gait-kind.ts";
import { frames, toggle } from "../setting.ts";

/** One cell at a time, at once (semantics.md section 4.1). */
export interface HopSettings {
  /** Frames until a held direction repeats, and from then on; 0: it does not. */
  readonly repeatAfter: number;
  readonly repeatEvery: number;
  readonly slide: boolean;
  readonly cutCorners: boolean;
}

export const hop: GaitKind<HopSettings> = {
  label: "Hop",
  onGrid: true,
  tapCounts: true,
  settings: {
    repeatAfter: frames("Repeat after", "motion", 20),
    repeatEvery: frames("Repeat every", "motion", 5, (rules) => rules.hop.repeatAfter > 0),
    slide: toggle("Slide", "motion", true),
    cutCorners: toggle("Cut corners", "motion", false, (rules) => rules.input.ways === 8),
  },
};
