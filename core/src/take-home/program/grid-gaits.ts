/** Choosing a direction, and the gaits that go from cell to cell (semantics.md sections 4.1, 4.2 and 4.5). */
export const CHOICE = `
// Tries one direction: whether the body fits a cell further. //? !pushes
// Tries one direction: whether the body fits a cell further. pushes: what is in the way is pushed. //? pushes
function tryDirection(state, world, dx, dy) { //? !pushes
function tryDirection(state, world, dx, dy, pushes) { //? pushes
  if (dx === 0 && dy === 0) return false;
  const x = state.x + dx * TILE;
  const y = state.y + dy * TILE;
  let free = isFree(state, world, x, y); //? !pushes
  let free = isFree(state, world, x, y, pushes); //? pushes
//? diagonals&!cutCorners
  // Round a corner only where both cells beside it are free too; all three are looked at.
  if (dx !== 0 && dy !== 0) {
    const besideX = isFree(state, world, x, state.y); //? !pushes
    const besideY = isFree(state, world, state.x, y); //? !pushes
    const besideX = isFree(state, world, x, state.y, pushes); //? pushes
    const besideY = isFree(state, world, state.x, y, pushes); //? pushes
    free = free && besideX && besideY;
  }
//.
  if (!free) return false;
  state.wentX = dx;
  state.wentY = dy;
  return true;
}

// The first direction that is free: what is wanted, then what else is held. Leaves it in wentX, wentY. //? slide
// Whether the direction that is wanted is free. Leaves it in wentX, wentY. //? !slide
function chooseDirection(state, world) {
//? pushes
  if (tryDirection(state, world, state.intentX, state.intentY, true)) return true;
  if (tryDirection(state, world, state.secondX, state.secondY, true)) return true; //? slide&ways4
//? slide&diagonals
  if (state.intentX === 0 || state.intentY === 0) return false;
  if (tryDirection(state, world, state.intentX, 0, true)) return true;
  if (tryDirection(state, world, 0, state.intentY, true)) return true;
//.
//:
  if (tryDirection(state, world, state.intentX, state.intentY)) return true;
  if (tryDirection(state, world, state.secondX, state.secondY)) return true; //? slide&ways4
//? slide&diagonals
  if (state.intentX === 0 || state.intentY === 0) return false;
  if (tryDirection(state, world, state.intentX, 0)) return true;
  if (tryDirection(state, world, 0, state.intentY)) return true;
//.
//.
  return false;
}
`;

export const HOP = `
// Hop: one cell at a time, at once, for each press. //? !repeat
// Hop: one cell at a time, at once, for each press; a direction that is held repeats. //? repeat
function move(state, world) {
  if (!isTap(state)) return; //? !repeat
  if (!isTap(state) && !isRepeat(state)) return; //? repeat
  if (chooseDirection(state, world)) {
    state.x += state.wentX * TILE;
    state.y += state.wentY * TILE;
  } else {
    state.bumping = state.intentX !== 0 || state.intentY !== 0;
  }
}
//? repeat

function isRepeat(state) {
  if (state.hopTimer < 0) return false;
  const held = state.frame - state.hopTimer;
  if (held === REPEAT_AFTER) return true;
  return held > REPEAT_AFTER && (held - REPEAT_AFTER) % REPEAT_EVERY === 0; //? repeatsOn
  return false; //? !repeatsOn
}
//.
`;

export const GLIDE = `
// Glide: from cell to cell, SPEED units a frame. Nothing is tested while a leg is under way: it was when it began.
function move(state, world) {
  const beganWithLeg = state.legX !== 0 || state.legY !== 0; //? buffer|reverse
  const turned = beganWithLeg && turnBack(state, world); //? reverse
//? buffer
  // A press on the way is remembered: it is the first choice when the leg is over.
  if (beganWithLeg) {
    for (let key = 0; key < 4; key++) {
      if ((state.pressed & (1 << key)) === 0) continue;
//? reverse
      const along = KEY_X[key] === state.legX && KEY_X[key] !== 0 || KEY_Y[key] === state.legY && KEY_Y[key] !== 0;
      if (turned && along) continue;
//.
      state.bufferedKey = key;
      state.bufferedFrame = state.frame;
    }
  }
//.
  let budget = SPEED; //? carry
  for (;;) { //? carry
//? carry
    if (state.legX === 0 && state.legY === 0 && !beginLeg(state, world)) return;
    state.wentX = state.legX;
    state.wentY = state.legY;
    const units = Math.min(budget, TILE - state.legGone);
    state.x += state.legX * units;
    state.y += state.legY * units;
    state.legGone += units;
    if (state.legGone < TILE) return;
    state.legX = 0;
    state.legY = 0;
    state.legGone = 0;
    state.events.push("arrive");
    // What is left of the speed goes into the next leg, so that no frame is shorter than another.
    budget -= units;
    if (budget === 0) return; //? !portals
    if (budget === 0 || isPortalHere(state, world)) return; //? portals
  }
//.
//? !carry
  if (state.legX === 0 && state.legY === 0 && !beginLeg(state, world)) return;
  state.wentX = state.legX;
  state.wentY = state.legY;
  const units = Math.min(SPEED, TILE - state.legGone); // never further than the cell //? land
  const units = SPEED; //? !land
  state.x += state.legX * units;
  state.y += state.legY * units;
  state.legGone += units;
  if (state.legGone !== TILE) return; // also where it is past it: then it never ends //? equal
  if (state.legGone < TILE) return; //? land
  if (state.legGone < TILE) return; // it ends past the cell where the speed does not divide it //? past
  state.legX = 0;
  state.legY = 0;
  state.legGone = 0;
  state.events.push("arrive");
//.
}

// Chooses a direction and begins a leg; a choice that finds nothing free is a bump.
function beginLeg(state, world) {
//? buffer
  const key = state.bufferedKey;
  const inTime = key >= 0 && state.frame - state.bufferedFrame <= BUFFER_FRAMES && (state.held & (1 << key)) === 0;
  state.bufferedKey = -1;
  const early = inTime && tryDirection(state, world, KEY_X[key], KEY_Y[key], false); //? pushes
  const early = inTime && tryDirection(state, world, KEY_X[key], KEY_Y[key]); //? !pushes
  const found = early || chooseDirection(state, world); //? !keepGoing
  let found = early || chooseDirection(state, world); //? keepGoing
//:
  const found = chooseDirection(state, world); //? !keepGoing
  let found = chooseDirection(state, world); //? keepGoing
//.
  if (!found) found = tryDirection(state, world, state.keepX, state.keepY, false); //? keepGoing&pushes
  if (!found) found = tryDirection(state, world, state.keepX, state.keepY); //? keepGoing&!pushes
  state.keepX = found ? state.wentX : 0; //? keepGoing
  state.keepY = found ? state.wentY : 0; //? keepGoing
  if (!found) {
    state.bumping = state.intentX !== 0 || state.intentY !== 0;
    return false;
  }
  state.legX = state.wentX;
  state.legY = state.wentY;
  return true;
}
//? reverse

// Turns back on the way where the keys say the opposite and the place where the leg began is still free.
function turnBack(state, world) {
  if (state.rawX !== 0 - state.legX || state.rawY !== 0 - state.legY) return false;
  const x = state.x - state.legX * state.legGone;
  const y = state.y - state.legY * state.legGone;
  if (!isFree(state, world, x, y)) return false;
  state.legX = 0 - state.legX;
  state.legY = 0 - state.legY;
  state.legGone = TILE - state.legGone;
  state.keepX = 0 - state.keepX; //? keepGoing
  state.keepY = 0 - state.keepY; //? keepGoing
  return true;
}
//.
//? carry&portals

// A portal on the cell that was just reached takes the walker first.
function isPortalHere(state, world) {
  const cell = cellSeen(world, state.room, occupied(state.x), occupied(state.y));
  return cell !== null && world.fixtures.some((fixture) => fixture.kind === "portal" && standsIn(fixture, cell));
}
//.
`;
