/** Fixtures, doors and the goal (semantics.md section 8). */
export const FIXTURES = `
//? touch
function isTouched(state, fixture) {
//? bodyTouch|sizes
  const [cx, cy] = fixture.cell;
  const [across, down] = fixture.size;
//? bodyTouch
  if (fixture.touch === "body") return isBodyIn(state, cx * TILE, cy * TILE, (cx + across) * TILE, (cy + down) * TILE);
//.
  const column = occupied(state.x);
  const row = occupied(state.y);
  return column >= cx && column < cx + across && row >= cy && row < cy + down;
//:
  return occupied(state.x) === fixture.cell[0] && occupied(state.y) === fixture.cell[1];
//.
}

// What the walker touches acts once, and again only after a frame in which it was not touched.
// Gives whether the walker was put elsewhere, which ends the round.
function touchFixtures(state, world) {
  state.goalTouched = false; //? goalMarker
  for (let number = 0; number < world.fixtures.length; number++) {
    const fixture = world.fixtures[number];
    if (fixture.room !== state.room || fixture.kind === "door") continue;
    const there = isTouched(state, fixture); //? !items
    const there = !state.taken[number] && isTouched(state, fixture); //? items
    if (there && number === world.goal) state.goalTouched = true; //? goalMarker
    if (!there) state.touched[number] = false;
    if (!there || state.touched[number]) continue;
    if (fixture.kind === "portal" && (state.legX !== 0 || state.legY !== 0)) continue; // waits for the cell //? portals&glide
    state.touched[number] = fixture.kind !== "item"; // an item that returns can be taken at once //? items
    state.touched[number] = true; //? !items
//? items
    if (fixture.kind === "item") {
      state.taken[number] = true;
      state.bag[fixture.item] = Math.min(state.bag[fixture.item] + fixture.count, 999999999);
      state.events.push("take:" + fixture.id);
    }
//.
//? hazards
    if (fixture.kind === "hazard") {
      state.events.push("hurt:" + fixture.id);
//? lives
      state.lives -= 1;
      if (state.lives === 0) {
        state.status = "lost";
        state.events.push("lose");
        return false;
      }
//.
      respawn(state, world);
      return true;
    }
//.
//? checkpoints
    if (fixture.kind === "checkpoint") {
      if (state.checkpoint !== number) state.events.push("checkpoint:" + fixture.id);
      state.checkpoint = number;
      save(state); //? restoresCheckpoint
    }
//.
//? switches
    if (fixture.kind === "switch") {
      state.circuits[fixture.circuit] = !state.circuits[fixture.circuit];
      state.events.push("switch:" + fixture.id);
    }
//.
//? portals
    if (fixture.kind === "portal") {
      state.events.push("portal:" + fixture.id);
      if (fixture.toFacing !== null) state.facing = fixture.toFacing;
      putAt(state, world, fixture.toRoom, fixture.toCell);
      return true;
    }
//.
    if (fixture.kind === "marker") state.events.push("marker:" + fixture.id); //? markers
  }
  return false;
}
//.
//? behind

// Doors that close behind: once the walker was in their cell and is not any more.
function closeBehind(state, world) {
  const cells = cellsOf(state, world, state.x, state.y); //? !edges
  const cells = cellsOf(state, world, state.x, state.y, 0); //? edges
  for (const number of world.doors) {
    const door = world.fixtures[number];
    if (!door.closesBehind || !state.open[number]) continue;
    const isIn = cells.some((cell) => cell !== null && standsIn(door, cell));
    if (!isIn && state.passed[number]) {
      state.open[number] = false;
      state.events.push("close:" + door.id);
    }
    state.passed[number] = isIn || (state.passed[number] && state.open[number]);
  }
}
//.
//? follows

// Doors that follow a circuit, or what was collected, both ways.
function followDoors(state, world, told) {
  for (const number of world.doors) {
    const door = world.fixtures[number];
    let open = state.open[number];
    if (door.lock === "circuit") open = state.circuits[door.circuit] === door.openWhileOn; //? lockCircuit
    if (door.lock === "collected") open = isCollected(state, world, door.item); //? lockCollected
    if (open === state.open[number]) continue;
    state.open[number] = open;
    if (told) state.events.push((open ? "open:" : "close:") + door.id);
  }
}
//.
//? lockCollected|goalCollect

// Whether everything that gives an item was taken; with nothing that gives it, never.
function isCollected(state, world, item) {
  const isMeant = (fixture) => fixture.kind === "item" && fixture.item === item;
  const numbers = [...world.fixtures.keys()].filter((number) => isMeant(world.fixtures[number]));
  return numbers.length > 0 && numbers.every((number) => state.taken[number]);
}
//.
//? asked

// Doors that were pushed, or are used with the A key: they open, or refuse. //? push&use
// Doors that were pushed: they open, or refuse. //? push&!use
// A door that is used with the A key: it opens, or refuses. //? !push&use
function askDoors(state, world) {
  const used = (state.pressed & USE) === 0 ? -1 : doorFaced(state, world); //? use
  for (const number of world.doors) {
    const door = world.fixtures[number];
//? push&use
    const isUsed = number === used;
    const isPushed = !door.opensOnUse && state.pushed.includes(number);
    if (state.open[number] || (!isUsed && !isPushed)) continue;
//.
    if (state.open[number] || door.opensOnUse || !state.pushed.includes(number)) continue; //? push&!use
    if (state.open[number] || number !== used) continue; //? !push&use
    if (!door.isAsked) continue; //? mixed
//? lockedItem
    if (door.lock === "item" && state.bag[door.item] < door.count) {
      // A push that goes on is refused once. //? push
      if (isUsed || !state.pushedBefore.includes(number)) state.events.push("refused:" + door.id); //? push&use
      if (!state.pushedBefore.includes(number)) state.events.push("refused:" + door.id); //? push&!use
      state.events.push("refused:" + door.id); //? !push&use
      continue;
    }
    if (door.lock === "item" && door.spends) state.bag[door.item] -= door.count; //? spends
//.
    state.open[number] = true;
    state.passed[number] = false; //? behind
    state.events.push("open:" + door.id);
  }
}
//.
//? use

// The closed door in the cell that the walker faces, if it opens on use; -1 for none.
function doorFaced(state, world) {
  const facesX = Number(state.facing.includes("right")) - Number(state.facing.includes("left"));
  const facesY = Number(state.facing.includes("down")) - Number(state.facing.includes("up"));
  const cell = cellSeen(world, state.room, occupied(state.x) + facesX, occupied(state.y) + facesY);
  const door = cell === null ? -1 : closedDoorIn(state, world, cell);
  return door >= 0 && world.fixtures[door].opensOnUse ? door : -1;
}
//.
`;
