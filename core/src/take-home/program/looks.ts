/** Facing and pose (semantics.md section 5). */
export const LOOKS = `
//? pointer
// Faces the pointer, as seen from the middle of the walker's square.
function face(state, pointer) {
  if (pointer === null) return;
  const dx = pointer[0] - (state.x + TILE / 2);
  const dy = pointer[1] - (state.y + TILE / 2);
  if (dx === 0 && dy === 0) return;
  if (Math.abs(dx) >= Math.abs(dy)) state.facing = dx < 0 ? "left" : "right";
  else state.facing = dy < 0 ? "up" : "down";
}
//:
// Faces the way it went; standing, the way that the keys say.
function face(state) {
//? grid
  const went = state.wentX !== 0 || state.wentY !== 0;
  const dx = went ? state.wentX : state.intentX;
  const dy = went ? state.wentY : state.intentY;
//:
  const dx = state.intentX;
  const dy = state.intentY;
//.
  if (dx === 0 && dy === 0) return; //? !idleReset
//? idleReset
  if (dx === 0 && dy === 0) {
    state.facing = REST_FACING;
    return;
  }
//.
  const horizontal = dx < 0 ? "left" : "right";
  const vertical = dy < 0 ? "up" : "down";
  if (dy === 0) state.facing = horizontal;
  else if (dx === 0) state.facing = vertical;
  else state.facing = vertical + "-" + horizontal; //? facing8
  else if (state.facing !== vertical) state.facing = horizontal; // stays where it is one of the two //? tieKeep
  else state.facing = horizontal; //? tieHorizontal
  else state.facing = vertical; //? tieVertical
}
//.

// The image of the walking animation. moved: units that the walker went in this frame, both axes together.
function pace(state, moved) {
  state.moving = moved > 0;
//? !poseOff
  if (state.moving) {
    state.stillFrames = 0;
    state.poseCounter = (state.poseCounter + moved) % (POSE_EVERY * IMAGES); //? poseDistance
    state.poseCounter = (state.poseCounter + 1) % (POSE_EVERY * IMAGES); //? poseFrames
    state.pose = Math.floor(state.poseCounter / POSE_EVERY);
    return;
  }
  state.stillFrames += 1;
  if (state.stillFrames >= IDLE_AFTER) {
    state.pose = IDLE_IMAGE;
    state.poseCounter = 0;
  }
//.
}
`;
