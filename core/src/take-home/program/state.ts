/** The walker and all that a run remembers, and row 0 (semantics.md section 6). */
export const STATE = `
// The walker and all that a run remembers. A plain object: it can be copied, saved and compared.
export function newState(world, start) {
  return {
    frame: 0,
    status: "playing", // playing, won, lost or escaped
    events: [], // of this frame, in the order in which they happened
    room: start.room, // number in world.rooms
    x: start.cell[0] * TILE, // left upper corner of the walker's square, in units
    y: start.cell[1] * TILE,
    facing: start.facing,
    pose: IDLE_IMAGE, // image number of the walking animation
    poseCounter: 0, stillFrames: 0, //? !poseOff
    moving: false,
    held: 0, // keys, as bits
    pressed: 0, // keys that are held now and were not in the frame before
    pressedAt: [0, 0, 0, 0], // when each direction was pressed: a later press has a greater number //? ranked
    rawX: 0, rawY: 0, // what the keys say: -1, 0 or 1 on each axis
    intentX: 0, intentY: 0, // what is made of it
    secondX: 0, secondY: 0, // the second choice, where the intent is blocked //? ways4&grid&slide
    bumping: false, // wants to move and nothing is free
    wentX: 0, wentY: 0, // direction in which a leg or a hop went in this frame //? grid
    legX: 0, legY: 0, legGone: 0, // the leg that is under way, 0 and 0 for none, and the units gone on it //? glide
    bufferedKey: -1, bufferedFrame: 0, // a press that is remembered until the next choice, -1 for none //? buffer
    keepX: 0, keepY: 0, // direction of the last leg, while it goes on by itself //? keepGoing
    hopTimer: -1, // frame from which a held direction is counted, -1 for none //? repeat
    vx: 0, vy: 0, // units a frame //? drift
    bag: world.items.map(() => 0), // how many of each item //? items
    circuits: world.circuits.map(() => false), //? circuits
    taken: world.fixtures.map(() => false), // by number in world.fixtures //? items
    open: world.fixtures.map(() => false), //? doors
    passed: world.fixtures.map(() => false), // the walker was in this door since it opened //? behind
    touched: world.fixtures.map(() => false), //? touch
    pushed: [], pushedBefore: [], // doors that were in the way in this frame, and in the one before //? push
    lives: world.lives, //? lives
    checkpoint: -1, // the one touched last, -1 for none //? checkpoints
    start: start, //? hazards
    goalTouched: false, //? goalMarker
    saved: null, // what a respawn gives back //? restores
  };
}

// Row 0, before the first frame. What is set up for a test (a bag, an open door) is set between newState and this.
export function begin(state, world) {
  followDoors(state, world, false); //? follows
  save(state); //? restores
  touchPortals(state, world); //? portals
}
`;

/** A frame, in the order of semantics.md section 6. */
export const STEP = `
// One frame. keys: bits of what is held; pointer: null, or [x, y] in units of the room. //? pointer
// One frame. keys: bits of what is held. //? !pointer
export function step(state, keys, world, pointer) { //? pointer
export function step(state, keys, world) { //? !pointer
  state.frame += 1;
  state.events = [];
  state.wentX = 0; //? grid
  state.wentY = 0; //? grid
  state.pushedBefore = state.pushed; //? push
  state.pushed = []; //? push
  const bumpedBefore = state.bumping;
  state.bumping = false;
  const [fromX, fromY] = [state.x, state.y];
  readKeys(state, keys);
  move(state, world);
  if (state.bumping && !bumpedBefore) state.events.push("bump");
  checkEscape(state, world);
  face(state, pointer); //? pointer
  face(state); //? !pointer
  pace(state, Math.abs(state.x - fromX) + Math.abs(state.y - fromY));
  if (state.status !== "playing") return;
  cross(state, world); //? seams
//? touch
  const wasPut = touchFixtures(state, world); //? asked
  touchFixtures(state, world); //? !asked
  if (state.status !== "playing") return;
//.
  closeBehind(state, world); //? behind
  followDoors(state, world, true); //? follows
  if (!wasPut) askDoors(state, world); //? asked&touch
  askDoors(state, world); //? asked&!touch
//? goal
  if (state.goalTouched) { //? goalMarker
  if (isCollected(state, world, world.goal)) { //? goalCollect
    state.status = "won";
    state.events.push("win");
  }
//.
}
`;
