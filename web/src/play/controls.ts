import { DOWN, LEFT, RIGHT, SPARE, UP, USE } from "@keen-pebble/core/world";
import { KEY_BUTTONS } from "../session/walk/key-buttons.ts";

/** So far from the middle a stick counts as pushed. */
const STICK_FROM = 0.4;
/** Of a controller whose buttons stand as the Gamepad API's standard says. */
const PAD_BUTTONS: readonly (readonly [at: number, button: number])[] = [
  [0, USE],
  [1, SPARE],
  [2, USE],
  [3, SPARE],
  [12, UP],
  [13, DOWN],
  [14, LEFT],
  [15, RIGHT],
];

/** What is held on a game controller, as buttons of a frame. */
export function padButtons({ axes, buttons }: Pick<Gamepad, "axes" | "buttons">): number {
  let held = stickButtons(axes[0] ?? 0, axes[1] ?? 0);
  for (const [at, button] of PAD_BUTTONS) if (buttons[at]?.pressed) held |= button;
  return held;
}

/** The directions in which something is pushed; -1 to 1 on each axis, y down. */
export function stickButtons(x: number, y: number): number {
  let held = 0;
  if (x <= -STICK_FROM) held |= LEFT;
  if (x >= STICK_FROM) held |= RIGHT;
  if (y <= -STICK_FROM) held |= UP;
  if (y >= STICK_FROM) held |= DOWN;
  return held;
}

/** What whoever plays holds, on the keyboard, a game controller and the screen together. */
export class Controls {
  private readonly down = new Set<string>();
  /** Pressed since the last frame: a key that is let go before the next one counts for that one all the same. */
  private readonly tapped = new Set<string>();
  /** Buttons that are held on the screen. */
  touched = 0;

  /** @param isPlaying whether keys are the walker's now */
  constructor(private readonly isPlaying: () => boolean) {}

  /** Listens to the keyboard; gives back what stops that. */
  readonly listen = (): (() => void) => {
    window.addEventListener("keydown", this.keyDown);
    window.addEventListener("keyup", this.keyUp);
    window.addEventListener("blur", this.letGo);
    return () => {
      window.removeEventListener("keydown", this.keyDown);
      window.removeEventListener("keyup", this.keyUp);
      window.removeEventListener("blur", this.letGo);
      this.letGo();
    };
  };

  /** Buttons that are held in this frame. */
  readonly held = (): number => {
    let held = this.touched;
    for (const codes of [this.down, this.tapped]) for (const code of codes) held |= KEY_BUTTONS[code]!;
    this.tapped.clear();
    for (const pad of navigator.getGamepads?.() ?? []) if (pad?.connected) held |= padButtons(pad);
    return held;
  };

  readonly letGo = (): void => {
    this.down.clear();
    this.tapped.clear();
    this.touched = 0;
  };

  private readonly keyDown = (event: KeyboardEvent): void => {
    if (!this.isPlaying() || !Object.hasOwn(KEY_BUTTONS, event.code)) return;
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    this.down.add(event.code);
    this.tapped.add(event.code);
  };

  private readonly keyUp = (event: KeyboardEvent): void => {
    this.down.delete(event.code);
  };
}
