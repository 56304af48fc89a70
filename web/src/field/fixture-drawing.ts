import type { Remembered } from "@keen-pebble/core/simulate";
import type { Fixture, Item, World } from "@keen-pebble/core/world";
import type { Context } from "./fixtures/pixels.ts";

/** How a fixture looks now. */
export interface FixtureLook {
  readonly kind: Fixture["kind"];
  /** An open door, a switch whose circuit is on, a checkpoint that is the respawn place. */
  readonly on: boolean;
  /** Colour and role of the item that it gives or asks for. */
  readonly item: Pick<Item, "colour" | "role"> | null;
}

/** Colour of what is of no item. */
export const ITEM_COLOUR = "#8d7f6f";

/** How a kind of fixture is drawn, and what is said of its state; one file each in `fixtures/`. */
export interface FixtureDrawing<F> {
  /** Draws it, 16 by 16. */
  readonly draw: (c: Context, look: FixtureLook) => void;
  /** Whether it is drawn as on where it is offered. */
  readonly shownOn?: boolean;
  /** Whether it is on with what is remembered; as at the start where nothing is. */
  readonly isOn: (world: World, fixture: F, remembered: Remembered | null, number: number) => boolean;
  /** What it is, in a word; null for kinds that a run cannot change. */
  readonly state: ((on: boolean, taken: boolean) => string) | null;
}

/** Kinds that look the same all the time. */
export const NO_STATE = { isOn: () => false, state: null } as const;
