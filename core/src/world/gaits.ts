import type { GaitKind } from "./gait-kind.ts";
import { drift } from "./gaits/drift.ts";
import { glide } from "./gaits/glide.ts";
import { hop } from "./gaits/hop.ts";
import { roam } from "./gaits/roam.ts";

/** Every gait (semantics.md section 4), in the order in which they are offered. How they move says `movement/gaits`. */
export const GAITS = { hop, glide, roam, drift };

export type Gait = keyof typeof GAITS;

/** The settings of every gait: a rule set has them all, and goes by those of the gait in use. */
export type GaitSettings = { readonly [G in Gait]: (typeof GAITS)[G] extends GaitKind<infer S> ? S : never };

export const GAIT_NAMES = Object.keys(GAITS) as readonly Gait[];
