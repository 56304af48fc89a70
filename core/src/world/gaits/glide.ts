import type { GaitKind } from "../gait-kind.ts";
import { choice, frames, px, toggle } from "../setting.ts";

/** How a leg ends: landed on the cell, where it comes out equal, or where it has gone past. */
export type Arrive = "land" | "equal" | "past";

/** Cell to cell at a speed (semantics.md section 4.2). */
export interface GlideSettings {
  /** Px a frame. */
  readonly speed: number;
  readonly arrive: Arrive;
  readonly carry: boolean;
  readonly slide: boolean;
  readonly bufferFrames: number;
  readonly keepGoing: boolean;
  readonly reverse: boolean;
  readonly cutCorners: boolean;
}

export const glide: GaitKind<GlideSettings> = {
  label: "Glide",
  onGrid: true,
  tapCounts: false,
  settings: {
    speed: px("Speed", "motion", 1, 1),
    arrive: choice("Arrive", "motion", ["land", "equal", "past"], "land"),
    carry: toggle("Carry", "motion", true, (rules) => rules.glide.arrive === "land"),
    slide: toggle("Slide", "intent", true),
    bufferFrames: frames("Buffer", "intent", 0),
    keepGoing: toggle("Keep going", "motion", false),
    reverse: toggle("Reverse", "motion", false, (rules) => rules.glide.arrive === "land"),
    cutCorners: toggle("Cut corners", "motion", false, (rules) => rules.input.ways === 8),
  },
};
