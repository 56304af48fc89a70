import { DOWN, LEFT, RIGHT, SPARE, UP, USE } from "@keen-pebble/core/world";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { Controls, padButtons } from "./controls.ts";

const pad = (held: readonly number[], axes: readonly number[] = [0, 0]): Gamepad =>
  ({
    connected: true,
    axes,
    buttons: Array.from({ length: 17 }, (_, at) => ({ pressed: held.includes(at), touched: false, value: 0 })),
  }) as unknown as Gamepad;

it.each([
  [[12], [0, 0], UP],
  [[13], [0, 0], DOWN],
  [[14], [0, 0], LEFT],
  [[15], [0, 0], RIGHT],
  [[0], [0, 0], USE],
  [[2], [0, 0], USE],
  [[1], [0, 0], SPARE],
  [[], [-0.4, 0.39], LEFT],
  [[], [0.7, -0.7], RIGHT | UP],
  [[9, 16], [0.39, 1], DOWN],
  [[12, 0], [-1, 0], UP | LEFT | USE],
])("a controller's buttons %j and stick %j are held as %i", (held, axes, expected) => {
  expect(padButtons(pad(held, axes))).toBe(expected);
});

it("a controller without a stick has none", () => {
  expect(padButtons(pad([15], []))).toBe(RIGHT);
});

let isPlaying = true;
let controls: Controls;
let stop: () => void;
const key = (kind: "keydown" | "keyup", code: string, more: KeyboardEventInit = {}): KeyboardEvent => {
  const event = new KeyboardEvent(kind, { code, cancelable: true, ...more });
  window.dispatchEvent(event);
  return event;
};
beforeEach(() => {
  isPlaying = true;
  controls = new Controls(() => isPlaying);
  stop = controls.listen();
});
afterEach(() => {
  stop();
  vi.unstubAllGlobals();
});

it("keys, screen and controllers are held together; a tap shorter than a frame counts for one", () => {
  expect(key("keydown", "ArrowRight").defaultPrevented).toBe(true);
  key("keydown", "KeyW");
  key("keyup", "KeyW");
  controls.touched = USE;
  expect(controls.held()).toBe(RIGHT | UP | USE);
  vi.stubGlobal("navigator", { getGamepads: () => [null, pad([13]), { ...pad([14]), connected: false }] });
  expect(controls.held()).toBe(RIGHT | USE | DOWN);
  controls.letGo();
  vi.unstubAllGlobals();
  expect(controls.held()).toBe(0);
});

it("leaves keys that are not the game's, and all of them while one writes", () => {
  for (const [code, more] of [
    ["KeyZ", {}],
    ["ArrowLeft", { ctrlKey: true }],
    ["constructor", {}],
    ["__proto__", {}],
  ] as const)
    expect(key("keydown", code, more).defaultPrevented).toBe(false);
  isPlaying = false;
  expect(key("keydown", "KeyA").defaultPrevented).toBe(false);
  expect(controls.held()).toBe(0);
});

it("a window that is not looked at holds nothing", () => {
  key("keydown", "ArrowDown");
  window.dispatchEvent(new Event("blur"));
  expect(controls.held()).toBe(0);
});
