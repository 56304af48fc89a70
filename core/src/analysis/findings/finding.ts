import type { Pair } from "../../world/world.ts";

/** Something that a half-made world may have: said, never refused (formats.md section 1). */
export interface Finding {
  readonly place: string;
  readonly message: string;
  /** A better place for the start, where that is what is wrong. */
  readonly start?: { readonly room: string; readonly cell: Pair };
}
