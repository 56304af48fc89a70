import type { Facing } from "../world/facing.ts";
import type { Pair, Start } from "../world/world.ts";

/** State set before row 0 (formats.md section 2). */
export type WithLine =
  | { readonly kind: "holds"; readonly item: string; readonly count: number }
  | { readonly kind: "taken"; readonly fixture: string }
  | { readonly kind: "open"; readonly fixture: string }
  | { readonly kind: "circuit"; readonly circuit: string }
  | { readonly kind: "lives"; readonly lives: number }
  | { readonly kind: "respawn"; readonly fixture: string }
  | { readonly kind: "actor"; readonly actor: string; readonly cell: Pair; readonly facing: Facing | null };

/** How a run begins: where, and with what set up; what a log says of it (formats.md section 2). */
export interface RunStart {
  /** The world's own start where it is null. */
  readonly start: Start | null;
  readonly with: readonly WithLine[];
}
