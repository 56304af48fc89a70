/** When a condition must hold (formats.md section 2). */
export type When =
  | { readonly kind: "at"; readonly frame: number }
  | { readonly kind: "by"; readonly frame: number }
  | { readonly kind: "ever" }
  | { readonly kind: "end" }
  | { readonly kind: "always" }
  | { readonly kind: "never" };

/** The words for it, in the order in which they are offered. */
export const WHENS = ["at", "by", "ever", "end", "always", "never"] as const satisfies readonly When["kind"][];
