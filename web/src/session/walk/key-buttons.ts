import { DOWN, LEFT, RIGHT, SPARE, UP, USE } from "@keen-pebble/core/world";

/** Which key of the keyboard is which button while one walks, by its place on the keyboard. */
export const KEY_BUTTONS: Readonly<Record<string, number>> = {
  ArrowLeft: LEFT,
  KeyA: LEFT,
  ArrowRight: RIGHT,
  KeyD: RIGHT,
  ArrowUp: UP,
  KeyW: UP,
  ArrowDown: DOWN,
  KeyS: DOWN,
  KeyE: USE,
  Space: USE,
  KeyQ: SPARE,
};

/** At most this many frames are made up for after the page stood still. */
export const MOST_CATCH_UP = 6;
