/** The gaits that move freely (semantics.md sections 4.3 and 4.4). */
export const ROAM = `
// Roam: as many units a frame as the keys say.
function move(state, world) {
  let dx = state.intentX * SPEED_X;
  let dy = state.intentY * SPEED_Y;
//? evenDiagonal
  // A slanting way is as fast as a straight one: 181 / 256 is about 1 / sqrt(2).
  if (dx !== 0 && dy !== 0) {
    dx = Math.trunc((dx * 181) / 256);
    dy = Math.trunc((dy * 181) / 256);
  }
//.
  moveFreely(state, world, dx, dy);
}
`;

export const DRIFT = `
// Drift: the keys push, the ground brakes.
function move(state, world) {
  let pushX = state.intentX * ACCEL;
  let pushY = state.intentY * ACCEL;
//? evenDiagonal
  // A slanting push is as strong as a straight one: 181 / 256 is about 1 / sqrt(2).
  if (pushX !== 0 && pushY !== 0) {
    pushX = Math.trunc((pushX * 181) / 256);
    pushY = Math.trunc((pushY * 181) / 256);
  }
//.
  state.vx = driven(state.vx, pushX);
  state.vy = driven(state.vy, pushY);
  const gone = moveFreely(state, world, state.vx, state.vy);
  // What stopped an axis takes its speed.
//? undoBoth
  if (gone.undone) {
    state.vx = 0;
    state.vy = 0;
  }
//:
  if (gone.x < Math.abs(state.vx)) state.vx = 0;
  if (gone.y < Math.abs(state.vy)) state.vy = 0;
//.
}

// Rounds toward zero: slow enough, it stands still.
function driven(speed, push) {
  const dragged = Math.trunc(((speed + push) * (256 - DRAG)) / 256) + 0;
  return Math.min(Math.max(dragged, -MAX_SPEED), MAX_SPEED);
}
`;

export const FREE = `
// Moves by dx, dy as far as what blocks allows. Gives the units gone along each axis, without their sign.
function moveFreely(state, world, dx, dy) {
  const gone = { x: 0, y: 0, helped: false };
//? undoBoth
  // Both axes, or none where that is not free: it sticks to walls instead of sliding along them.
  const x = state.x + dx;
  const y = state.y + dy;
  const shapes = shapesNear(state, world, x, y, 0, 0);
  gone.undone = (dx !== 0 || dy !== 0) && meetsAny(shapes, x, y);
//? push
  if (gone.undone && (state.intentX * dx > 0 || state.intentY * dy > 0)) push(state, shapes, x, y);
//.
  if (!gone.undone) {
    gone.x = Math.abs(dx);
    gone.y = Math.abs(dy);
    state.x = x;
    state.y = y;
  }
//:
  if (dx !== 0) gone.x = moveAlong(state, world, dx, 0, gone); //? xFirst
  if (dy !== 0) gone.y = moveAlong(state, world, 0, dy, gone);
  if (dx !== 0) gone.x = moveAlong(state, world, dx, 0, gone); //? !xFirst
  if (state.intentY === 0 && state.intentX * dx > 0 && gone.x === 0) nudge(state, world, dx, 0, gone); //? nudge
  if (state.intentX === 0 && state.intentY * dy > 0 && gone.y === 0) nudge(state, world, 0, dy, gone); //? nudge
//.
  const shortX = state.intentX * dx > 0 && gone.x < Math.abs(dx);
  const shortY = state.intentY * dy > 0 && gone.y < Math.abs(dy);
  state.bumping = (shortX || shortY) && !gone.helped;
  return gone;
}
//? contact

// The shapes on the way along one axis that count: not those that the body is in already.
function shapesAhead(state, world, dx, dy) {
  const near = shapesNear(state, world, state.x, state.y, dx, dy);
  return near.filter((shape) => !meets(shape, state.x, state.y)); //? !edges
  return near.filter((shape) => !isIn(shape, state.x, state.y, 0)); //? edges
}

// Goes along one axis, unit by unit, until the next unit would be in something. Gives the units gone.
function travel(state, shapes, dx, dy) {
  const signX = Math.sign(dx);
  const signY = Math.sign(dy);
  const distance = Math.abs(dx + dy);
  let gone = 0;
  if (shapes.length === 0) gone = distance;
  while (gone < distance && !meetsAny(shapes, state.x + signX * (gone + 1), state.y + signY * (gone + 1))) gone += 1;
  state.x += signX * gone;
  state.y += signY * gone;
  return gone;
}

// One axis, until the body touches; one of dx and dy is 0. //? !slopes
// One axis, until the body touches, and then up a slope; one of dx and dy is 0. //? slopes
function moveAlong(state, world, dx, dy, gone) {
  const signX = Math.sign(dx);
  const signY = Math.sign(dy);
  const distance = Math.abs(dx + dy);
  const shapes = shapesAhead(state, world, dx, dy);
  let travelled = travel(state, shapes, dx, dy);
  if (travelled === distance) return travelled;
//? push
  const wanted = state.intentX * dx > 0 || state.intentY * dy > 0;
  if (wanted) push(state, shapes, state.x + signX, state.y + signY);
//.
//? slopes
  const isSlope = shapes.some((shape) => shape.corners !== null && meets(shape, state.x + signX, state.y + signY));
  if (!isSlope) return travelled;
  // What is left goes on in steps of at most a px, each with the smallest shift aside that is free.
  while (travelled < distance) {
    const stride = Math.min(UNIT, distance - travelled);
    const aside = smallestShift(state, world, signX * stride, signY * stride, stride);
    if (aside === null) break;
    state.x += signX * stride + (dx === 0 ? aside : 0);
    state.y += signY * stride + (dy === 0 ? aside : 0);
    travelled += stride;
    gone.helped = true;
  }
//.
  return travelled;
}
//? slopes

// The smallest shift across the way with which a step is free, up to so many units; null for none.
function smallestShift(state, world, dx, dy, most) {
  const x = state.x + dx;
  const y = state.y + dy;
  const acrossX = dx === 0 ? 1 : 0;
  const acrossY = dy === 0 ? 1 : 0;
  const shapes = shapesIn(
    state,
    world,
    x + BODY_LEFT - acrossX * most,
    y + BODY_TOP - acrossY * most,
    x + BODY_RIGHT + acrossX * most,
    y + BODY_BOTTOM + acrossY * most,
  );
  for (let k = 0; k <= most; k++) {
    if (!meetsAny(shapes, x - acrossX * k, y - acrossY * k)) return 0 - k;
    if (!meetsAny(shapes, x + acrossX * k, y + acrossY * k)) return k;
  }
  return null;
}
//.
//? nudge

// Round a corner that is caught with less than NUDGE px: aside, as far as it takes to get past.
function nudge(state, world, dx, dy, gone) {
  const distance = Math.abs(dx + dy);
  const aheadX = Math.sign(dx) * Math.min(UNIT, distance);
  const aheadY = Math.sign(dy) * Math.min(UNIT, distance);
  for (let k = 1; k <= NUDGE; k++) {
    for (const side of [-k, k]) {
      const asideX = dx === 0 ? side * UNIT : 0;
      const asideY = dy === 0 ? side * UNIT : 0;
      if (!isFree(state, world, state.x + aheadX + asideX, state.y + aheadY + asideY)) continue;
      const most = Math.min(distance, k * UNIT);
      const wayX = Math.sign(asideX) * most;
      const wayY = Math.sign(asideY) * most;
      if (travel(state, shapesAhead(state, world, wayX, wayY), wayX, wayY) > 0) gone.helped = true;
      return;
    }
  }
}
//.
//.
//? snap

// One axis by all of it, then back to the edge of what it ended in; what lies between is jumped over.
function moveAlong(state, world, dx, dy) {
  const signX = Math.sign(dx);
  const signY = Math.sign(dy);
  const near = shapesNear(state, world, state.x, state.y, dx, dy);
  // Shapes that the body is in already do not count.
  const ahead = near.filter((shape) => !meets(shape, state.x, state.y)); //? !edges
  const ahead = near.filter((shape) => !isIn(shape, state.x, state.y, 0)); //? edges
  const met = ahead.filter((shape) => meets(shape, state.x + dx, state.y + dy));
//? push
  const wanted = state.intentX * dx > 0 || state.intentY * dy > 0;
  if (wanted) push(state, met, state.x + dx, state.y + dy);
//.
  let gone = Math.abs(dx + dy);
  while (gone > 0 && met.some((shape) => meetsBoxOf(shape, state.x + signX * gone, state.y + signY * gone))) gone -= 1;
  state.x += signX * gone;
  state.y += signY * gone;
  return gone;
}

// Whether the body meets the box round a shape: a slope counts as its box.
function meetsBoxOf(shape, x, y) {
//? polys&box
  return meets({ left: shape.left, top: shape.top, right: shape.right, bottom: shape.bottom, corners: null }, x, y);
//.
//? polys&probes
  if (shape.corners === null) return meets(shape, x, y);
  // All four edges of a polygon's box count, also for a point in the next cell.
  return POINTS.some(([pointX, pointY]) => {
    const inX = x + pointX >= shape.left && x + pointX <= shape.right;
    const inY = y + pointY >= shape.top && y + pointY <= shape.bottom;
    return inX && inY;
  });
//.
  return meets(shape, x, y); //? !polys
}
//.
//? undoAxis

// One axis by all of it, and back where that is not free: it leaves a gap before walls.
function moveAlong(state, world, dx, dy) {
  return moveWhole(state, world, dx, dy, dx, dy);
}
//.
//? ahead

// One axis by all of it where the body would be free AHEAD units on: it sinks into walls at greater speeds.
function moveAlong(state, world, dx, dy) {
  return moveWhole(state, world, dx, dy, Math.sign(dx) * AHEAD, Math.sign(dy) * AHEAD);
}
//.
//? undoAxis|ahead

// Moves by dx, dy where the body is free at the tested place.
function moveWhole(state, world, dx, dy, testX, testY) {
  const x = state.x + testX;
  const y = state.y + testY;
  const shapes = shapesNear(state, world, x, y, 0, 0);
  if (meetsAny(shapes, x, y)) {
    if (state.intentX * dx > 0 || state.intentY * dy > 0) push(state, shapes, x, y); //? push
    return 0;
  }
  state.x += dx;
  state.y += dy;
  return Math.abs(dx + dy);
}
//.
`;
