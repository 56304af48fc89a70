/** Leaving a room, portals, respawn and what a room remembers (semantics.md sections 4.7 and 7). */
export const ROOMS = `
// Column or row of the cell that the middle of the walker's square is in.
function occupied(at) {
  return Math.floor((at + TILE / 2) / TILE);
}

// The sides that the walker lies beyond, x before y: low units out on the west and north, high before east and south.
function sidesBeyond(state, world, low, high) {
  const { width, height } = world.rooms[state.room];
  const sides = [];
  if (state.x <= -low) sides.push("west");
  if (state.x >= width * TILE - high) sides.push("east");
  if (state.y <= -low) sides.push("north");
  if (state.y >= height * TILE - high) sides.push("south");
  return sides;
}

//? seams
// What a side leads to at the walker's row or column; null for a wall.
function ruleHere(state, world, side) {
  return ruleAt(world, state.room, side, occupied(state.x), occupied(state.y));
}

//.
// The run ends where the square lies wholly beyond a wall: something is wrong then.
function checkEscape(state, world) {
  const walls = sidesBeyond(state, world, TILE, 0); //? !seams
  const walls = sidesBeyond(state, world, TILE, 0).filter((side) => ruleHere(state, world, side) === null); //? seams
  if (walls.length === 0) return;
  state.status = "escaped";
  state.events.push("escape");
}
//? seams

// Takes the walker across sides that lead on, at most twice a frame. A leg goes on across a seam.
function cross(state, world) {
  for (let times = 0; times < 2; times++) {
    const beyond = sidesBeyond(state, world, TILE, 0); // all of the square is beyond it //? crossesWhole
    const beyond = sidesBeyond(state, world, TILE / 2 + 1, TILE / 2); // its middle is beyond it //? !crossesWhole
    const side = beyond.find((each) => ruleHere(state, world, each) !== null);
    if (side === undefined) return;
    const rule = ruleHere(state, world, side);
    const [dx, dy] = shiftThrough(world, state.room, side, rule);
    state.x += dx * TILE;
    state.y += dy * TILE;
    if (rule.wraps) state.events.push("wrap"); //? wrap&links
    else changeRoom(state, world, rule.room); //? wrap&links
    state.events.push("wrap"); //? wrap&!links
    changeRoom(state, world, rule.room); //? !wrap&links
  }
}
//.
//? changes

// Touches end with the room, and what a room keeps only for a visit returns. //? visit
// Touches end with the room. //? !visit&touch
function changeRoom(state, world, room) {
  state.events.push("leave:" + world.rooms[state.room].id);
  state.touched = world.fixtures.map(() => false); //? touch
  giveBackAll(state, world, (fixture) => fixture.keeps === "visit" && fixture.room === state.room); //? visit
  state.room = room;
  state.events.push("enter:" + world.rooms[room].id);
}
//.
//? visit|life

// Puts fixtures back as they were at first.
function giveBackAll(state, world, isMeant) {
  for (let number = 0; number < world.fixtures.length; number++) {
    const fixture = world.fixtures[number];
    if (!isMeant(fixture)) continue;
    if (fixture.kind === "item") state.taken[number] = false; //? items
    if (fixture.kind === "switch") state.circuits[fixture.circuit] = false; //? switches
//? asked
    if (fixture.kind === "door" && fixture.isAsked) { //? mixed
    if (fixture.kind === "door") { //? !mixed
      state.open[number] = false;
      state.passed[number] = false; //? behind
    }
//.
  }
}
//.
//? restores

// What a respawn gives back, as it is now.
function save(state) {
  state.saved = {
    bag: state.bag.slice(), //? items
    circuits: state.circuits.slice(), //? circuits
    taken: state.taken.slice(), //? items
    open: state.open.slice(), //? doors
    passed: state.passed.slice(), //? behind
  };
}

function restore(state, world) {
  state.bag = state.saved.bag.slice(); //? items
  state.circuits = state.saved.circuits.slice(); //? circuits
  state.taken = state.saved.taken.slice(); //? items
//? asked
  // Doors that follow a circuit or what was collected do so by themselves. //? mixed
  for (const number of world.doors) {
    if (!world.fixtures[number].isAsked) continue; //? mixed
    state.open[number] = state.saved.open[number];
    state.passed[number] = state.saved.passed[number]; //? behind
  }
//.
}
//.
//? hazards

// Back at the last checkpoint, or at the start. //? checkpoints
// Back at the start. //? !checkpoints
function respawn(state, world) {
  restore(state, world); //? restores
  giveBackAll(state, world, (fixture) => fixture.keeps === "life"); //? life
  state.events.push("respawn");
  state.bufferedKey = -1; //? buffer
  state.keepX = 0; //? keepGoing
  state.keepY = 0; //? keepGoing
//? checkpoints
  const place = state.checkpoint < 0 ? state.start : world.fixtures[state.checkpoint];
  putAt(state, world, place.room, place.cell);
//:
  putAt(state, world, state.start.room, state.start.cell);
//.
}
//.
//? hazards|portals

// Exactly on a cell, standing still.
function putAt(state, world, room, cell) {
  state.x = cell[0] * TILE;
  state.y = cell[1] * TILE;
  state.vx = 0; //? drift
  state.vy = 0; //? drift
  state.legX = 0; //? glide
  state.legY = 0; //? glide
  state.legGone = 0; //? glide
  if (room !== state.room) changeRoom(state, world, room); //? changes
  touchPortals(state, world); //? portals
}
//.
//? portals

// A portal that the walker is put on does not take it on at once.
function touchPortals(state, world) {
  for (let number = 0; number < world.fixtures.length; number++) {
    const fixture = world.fixtures[number];
    const isHere = fixture.kind === "portal" && fixture.room === state.room;
    if (isHere && isTouched(state, fixture)) state.touched[number] = true;
  }
}
//.
`;
