/** Keys, raw intent, intent and second choice (semantics.md section 2). */
export const KEYS = `
// What the keys say. state.held is still that of the frame before.
function readKeys(state, keys) {
  state.pressed = keys & ~state.held;
  state.held = keys;
//? ranked
  for (let key = 0; key < 4; key++) {
    if (state.pressed & (1 << key)) state.pressedAt[key] = state.frame * 4 + key;
  }
//.
  const rawXBefore = state.rawX; //? repeat
  const rawYBefore = state.rawY; //? repeat
  state.rawX = alongAxis(state, 0, 1);
  state.rawY = alongAxis(state, 2, 3);
//? repeat
  // A tap and any other change of what the keys say start the timer of a held direction.
  if (isTap(state) || state.rawX !== rawXBefore || state.rawY !== rawYBefore) {
    state.hopTimer = state.rawX === 0 && state.rawY === 0 ? -1 : state.frame;
  }
//.
  state.intentX = state.rawX;
  state.intentY = state.rawY;
//? ways4
//? grid&slide
  state.secondX = 0;
  state.secondY = 0;
//.
  if (state.rawX === 0 || state.rawY === 0) return;
//? hop
  // A tap moves where it points, not where another key is held.
  const tapX = (state.pressed & keyAlongX(state.rawX)) !== 0;
  const tapY = (state.pressed & keyAlongY(state.rawY)) !== 0;
  if (tapX !== tapY) {
    if (tapX) state.intentY = 0;
    else state.intentX = 0;
    return;
  }
//.
//? preferLatest
  // The axis whose key was pressed later is preferred.
  const keyX = state.rawX < 0 ? 0 : 1;
  const keyY = state.rawY < 0 ? 2 : 3;
  const xFirst = state.pressedAt[keyX] > state.pressedAt[keyY];
//.
  const xFirst = true; // left and right are preferred //? preferHorizontal
  const xFirst = false; // up and down are preferred //? preferVertical
  if (xFirst) {
    state.intentY = 0;
    state.secondY = state.rawY; //? grid&slide
  } else {
    state.intentX = 0;
    state.secondX = state.rawX; //? grid&slide
  }
//.
}

// -1, 0 or 1 along an axis, out of its two keys.
function alongAxis(state, lessKey, moreKey) {
  const less = (state.held & (1 << lessKey)) !== 0;
  const more = (state.held & (1 << moreKey)) !== 0;
  return Number(more) - Number(less); // both cancel each other out //? cancel
//? !cancel
  if (!less || !more) return Number(more) - Number(less);
  // Of both the one that was pressed later counts. //? latest
  // Of both the one that was pressed earlier counts. //? earliest
  const moreIsLater = state.pressedAt[moreKey] > state.pressedAt[lessKey];
  return moreIsLater ? 1 : -1; //? latest
  return moreIsLater ? -1 : 1; //? earliest
//.
}
//? hop

function keyAlongX(direction) {
  if (direction === 0) return 0;
  return direction < 0 ? LEFT : RIGHT;
}

function keyAlongY(direction) {
  if (direction === 0) return 0;
  return direction < 0 ? UP : DOWN;
}

// Whether a direction that is part of what the keys say was pressed in this frame.
function isTap(state) {
  return (state.pressed & (keyAlongX(state.rawX) | keyAlongY(state.rawY))) !== 0;
}
//.
`;
