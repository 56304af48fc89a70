import type { Compiled } from "../compiled/compiled.ts";
import type { Rules } from "../world/world.ts";
import type { SimState } from "../compiled/state.ts";
import { DOWN, LEFT, RIGHT, UP } from "../world/keys.ts";

/**
 * Reads this frame's buttons into `pressed`, raw intent, intent and second choice (semantics.md section 2).
 * Expects `held`, `heldBefore` and `frame` of the state to be this frame's.
 */
export function readIntent(c: Compiled, state: SimState): void {
  // The same buttons say the same as in the frame before; only what was made of a tap counts for its own frame alone.
  if (state.held === state.heldBefore && (state.pressed === 0 || !c.tapCounts)) {
    state.pressed = 0;
    return;
  }
  const { opposites, ways, prefer } = c.rules.input;
  const pressed = state.held & ~state.heldBefore;
  state.pressed = pressed;
  rankPresses(state, pressed);

  const horizontal = winningButton(state, 0, opposites);
  const vertical = winningButton(state, 2, opposites);
  state.rawX = horizontal < 0 ? 0 : horizontal === 0 ? -1 : 1;
  state.rawY = vertical < 0 ? 0 : vertical === 2 ? -1 : 1;
  state.intentX = state.rawX;
  state.intentY = state.rawY;
  state.secondX = 0;
  state.secondY = 0;
  if (ways === 8 || horizontal < 0 || vertical < 0) return;
  if (c.tapCounts && oneOf(pressed, horizontal, vertical)) {
    // A tap moves where it points, not where another key is held.
    if (pressed & (1 << horizontal)) state.intentY = 0;
    else state.intentX = 0;
    return;
  }

  const horizontalFirst =
    prefer === "latest" ? state.pressRank[horizontal]! < state.pressRank[vertical]! : prefer === "horizontal";
  if (horizontalFirst) {
    state.intentY = 0;
    state.secondY = state.rawY;
  } else {
    state.intentX = 0;
    state.secondX = state.rawX;
  }
}

/** Ranks what is held by when it was pressed, the latest first; what was pressed in the same frame has the same rank. */
function rankPresses(state: SimState, pressed: number): void {
  const { held, pressRank } = state;
  // Five: more than any rank. What was released takes no part any more.
  for (let button = 0; button < 4; button++)
    pressRank[button] = (held & (1 << button)) === 0 ? 5 : (pressed & (1 << button)) !== 0 ? 0 : pressRank[button]! + 1;
  // Ranks close up from 0 on.
  let next = 0;
  for (let rank = 0; rank <= 4; rank++) {
    let met = false;
    for (let button = 0; button < 4; button++) {
      if (pressRank[button] !== rank) continue;
      pressRank[button] = next;
      met = true;
    }
    if (met) next++;
  }
  for (let button = 0; button < 4; button++) if (pressRank[button] === 5) pressRank[button] = 0;
}

function oneOf(pressed: number, a: number, b: number): boolean {
  return ((pressed & (1 << a)) !== 0) !== ((pressed & (1 << b)) !== 0);
}

/** Of the two buttons of an axis (`first` and the next one) the one that counts, or -1. Later of L, R, U, D wins ties. */
function winningButton(state: SimState, first: number, opposites: Rules["input"]["opposites"]): number {
  const one = state.held & (1 << first);
  const other = state.held & (1 << (first + 1));
  if (one === 0) return other === 0 ? -1 : first + 1;
  if (other === 0) return first;
  if (opposites === "cancel") return -1;
  const secondIsLater = state.pressRank[first + 1]! <= state.pressRank[first]!;
  return secondIsLater === (opposites === "latest") ? first + 1 : first;
}

/** dx of a direction button, 0 to 3 for L, R, U, D. */
export function buttonX(button: number): number {
  return button === 0 ? -1 : button === 1 ? 1 : 0;
}

/** dy of a direction button, 0 to 3 for L, R, U, D. */
export function buttonY(button: number): number {
  return button === 2 ? -1 : button === 3 ? 1 : 0;
}

/** The buttons, as bits, that point along a direction. */
export function buttonsAlong(dx: number, dy: number): number {
  return (dx < 0 ? LEFT : dx > 0 ? RIGHT : 0) | (dy < 0 ? UP : dy > 0 ? DOWN : 0);
}
