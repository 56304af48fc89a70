/**
 * One field of a fixture besides those that every fixture has: what it may be, and how it is called in the page. The
 * reader's schema, the writer, what renames follow and the settings of the page are all made from these tables.
 */
export type Field = { readonly label: string } & (
  | { readonly type: "reference"; readonly to: "item" | "circuit" }
  | { readonly type: "whole"; readonly range: readonly [number, number]; readonly default: number }
  | { readonly type: "switch"; readonly default: boolean }
  | { readonly type: "choice"; readonly choices: readonly string[]; readonly default: string }
  | { readonly type: "name" }
  /** A cell of a room, and perhaps a facing: `{ room, cell, facing }`. */
  | { readonly type: "place" }
  /** Cells across and down, of which its own is the top left one; left out where it is one cell. */
  | { readonly type: "size" }
  /** One of some kinds, each with fields of its own: `{ kind, ... }`. */
  | { readonly type: "kinds"; readonly kinds: Readonly<Record<string, Fields>> }
);

/** Fields by name, in the order in which a file has them. */
export type Fields = Readonly<Record<string, Field>>;

/** A table with a field for each of a value's own keys. */
export type FieldsOf<T> = { readonly [K in Exclude<keyof T, "kind">]-?: Field };

/** Names an item or a circuit of the world. */
export const reference = (label: string, to: "item" | "circuit"): Field => ({ label, type: "reference", to });

/** A whole number, both ends included. */
export const count = (label: string, range: readonly [number, number], fallback: number): Field => ({
  label,
  type: "whole",
  range,
  default: fallback,
});

/** That a kind may cover a rectangle of cells. */
export const SIZE: Field = { label: "Size", type: "size" };

/** One of some words. */
export const oneOfWords = (label: string, choices: readonly string[], fallback: string): Field => ({
  label,
  type: "choice",
  choices,
  default: fallback,
});
