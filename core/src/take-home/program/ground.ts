/** What blocks (semantics.md section 3). */
export const GROUND = `
//? seams
// What a side leads to at a column (north, south) or row (west, east): a span of the room's edges; null for a wall.
function ruleAt(world, room, side, cx, cy) {
  const along = side === "west" || side === "east" ? cy : cx;
  const span = world.rooms[room].edges[side].find(({ from, to }) => along >= from && along <= to);
  return span === undefined ? null : span;
}

// What is added to a column and row to see the same place from the room that a side leads to.
function shiftThrough(world, room, side, rule) {
  if (side === "west") return [world.rooms[rule.room].width, rule.offset];
  if (side === "east") return [-world.rooms[room].width, rule.offset];
  if (side === "north") return [rule.offset, world.rooms[rule.room].height];
  return [rule.offset, -world.rooms[room].height];
}

// The room and cell that are seen at a place, also through sides that lead on, at most two of them; null: wall.
function cellSeen(world, room, cx, cy) {
  for (let crossings = 0; ; crossings++) {
    const { width, height } = world.rooms[room];
    let side = null;
    if (cy < 0) side = "north";
    if (cy >= height) side = "south";
    if (cx < 0) side = "west";
    if (cx >= width) side = "east";
    if (side === null) return { room: room, cx: cx, cy: cy };
    const rule = ruleAt(world, room, side, cx, cy);
    if (rule === null || crossings === 2) return null;
    const [dx, dy] = shiftThrough(world, room, side, rule);
    cx += dx;
    cy += dy;
    room = rule.room;
  }
}
//:
// The cell at a place; null beyond the room, where all is wall.
function cellSeen(world, room, cx, cy) {
  const { width, height } = world.rooms[room];
  if (cx < 0 || cy < 0 || cx >= width || cy >= height) return null;
  return { room: room, cx: cx, cy: cy };
}
//.
//? cellFixtures

function standsIn(fixture, cell) {
  return fixture.room === cell.room && fixture.cell[0] === cell.cx && fixture.cell[1] === cell.cy;
}
//.
//? doors

// Number of the closed door in a cell; -1 for none.
function closedDoorIn(state, world, cell) {
  const found = world.doors.find((number) => !state.open[number] && standsIn(world.fixtures[number], cell));
  return found === undefined ? -1 : found;
}
//.

//? cellsOf
// The cells that the body at x, y is in, as they are seen from the room; null for wall.
function cellsOf(state, world, x, y) { //? !edges
function cellsOf(state, world, x, y, touch) { // touch: 1 where those beside it count too, 0 where not //? edges
  const cells = [];
//? box&!edges
  for (let cy = Math.floor((y + BODY_TOP) / TILE); cy * TILE < y + BODY_BOTTOM; cy++) {
    for (let cx = Math.floor((x + BODY_LEFT) / TILE); cx * TILE < x + BODY_RIGHT; cx++) {
      cells.push(cellSeen(world, state.room, cx, cy));
    }
  }
//.
//? box&edges
  for (let cy = Math.floor((y + BODY_TOP - touch) / TILE); cy * TILE < y + BODY_BOTTOM + touch; cy++) {
    for (let cx = Math.floor((x + BODY_LEFT - touch) / TILE); cx * TILE < x + BODY_RIGHT + touch; cx++) {
      cells.push(cellSeen(world, state.room, cx, cy));
    }
  }
//.
//? probes
  for (const [pointX, pointY] of POINTS) {
    cells.push(cellSeen(world, state.room, Math.floor((x + pointX) / TILE), Math.floor((y + pointY) / TILE)));
  }
//.
  return cells;
}

//.
//? wholeCells
// Whether the body fits at x, y.
function isFree(state, world, x, y) { //? !pushes
// Whether the body fits at x, y. pushes: what is in the way is pushed. //? pushes
function isFree(state, world, x, y, pushes) { //? pushes
  let free = true;
  for (const cell of cellsOf(state, world, x, y)) { //? !edges
  for (const cell of cellsOf(state, world, x, y, 1)) { //? edges
    if (cell === null || world.rooms[cell.room].cells[cell.cy][cell.cx] === 1) free = false;
//? doors
    const door = cell === null ? -1 : closedDoorIn(state, world, cell);
    if (door >= 0) free = false;
    if (door >= 0 && pushes) state.pushed.push(door); //? pushes
//.
  }
  return free;
}
//:
// Every solid shape in the cells that a rectangle (in units) covers or touches.
function shapesIn(state, world, left, top, right, bottom) {
  const shapes = [];
  for (let cy = Math.floor((top - 1) / TILE); cy * TILE <= bottom; cy++) {
    for (let cx = Math.floor((left - 1) / TILE); cx * TILE <= right; cx++) {
      const cell = cellSeen(world, state.room, cx, cy);
      if (cell === null) {
        shapes.push(wholeCell(cx, cy, -1));
        continue;
      }
//? doors
      const door = closedDoorIn(state, world, cell);
      if (door >= 0) shapes.push(wholeCell(cx, cy, door));
//.
      const solid = world.rooms[cell.room].cells[cell.cy][cell.cx];
      if (solid === 1) shapes.push(wholeCell(cx, cy, -1));
//? boxes
      if (solid > 1 && world.shapes[solid].kind === "boxes") {
        for (const [boxLeft, boxTop, width, height] of world.shapes[solid].boxes) {
          const shape = wholeCell(cx, cy, -1);
          shape.left += boxLeft * UNIT;
          shape.top += boxTop * UNIT;
          shape.right = shape.left + width * UNIT;
          shape.bottom = shape.top + height * UNIT;
          shapes.push(shape);
        }
      }
//.
//? polys
      if (solid > 1 && world.shapes[solid].kind === "poly") {
        const shape = wholeCell(cx, cy, -1);
        shape.corners = world.shapes[solid].points.map(([x, y]) => [cx * TILE + x * UNIT, cy * TILE + y * UNIT]);
        shape.left = Math.min(...shape.corners.map(([x]) => x));
        shape.top = Math.min(...shape.corners.map(([, y]) => y));
        shape.right = Math.max(...shape.corners.map(([x]) => x));
        shape.bottom = Math.max(...shape.corners.map(([, y]) => y));
        shapes.push(shape);
      }
//.
    }
  }
  return shapes;
}

function wholeCell(cx, cy, door) {
  return {
    left: cx * TILE,
    top: cy * TILE,
    right: (cx + 1) * TILE,
    bottom: (cy + 1) * TILE,
    corners: null, // of a convex polygon, clockwise //? polys
    cx: cx, //? polys&probes
    cy: cy, //? polys&probes
    door: door, // number of the door that it is, or -1
  };
}

// Every solid shape that the body can meet at x, y when it is moved by up to dx, dy.
function shapesNear(state, world, x, y, dx, dy) {
  const left = x + BODY_LEFT + Math.min(dx, 0);
  const top = y + BODY_TOP + Math.min(dy, 0);
  const right = x + BODY_RIGHT + Math.max(dx, 0);
  const bottom = y + BODY_BOTTOM + Math.max(dy, 0);
  return shapesIn(state, world, left, top, right, bottom);
}

//? box&!edges
// Whether the body at x, y is in a shape; to lie flush against it is not to be in it.
function meets(shape, x, y) {
  return isIn(shape, x, y, 0);
}

//.
//? box&edges
// Whether the body at x, y is in a shape or touches it: edges count.
function meets(shape, x, y) {
  return isIn(shape, x, y, 1);
}

//.
//? box
// touch: 0 where only the inside of the body counts, 1 where its edges count too.
function isIn(shape, x, y, touch) {
  const left = x + BODY_LEFT;
  const top = y + BODY_TOP;
  const right = x + BODY_RIGHT;
  const bottom = y + BODY_BOTTOM;
  if (left >= shape.right + touch || right <= shape.left - touch) return false;
  if (top >= shape.bottom + touch || bottom <= shape.top - touch) return false;
//? polys
  if (shape.corners === null) return true;
  // A convex polygon and a box are apart where one of its edges parts them: where even the corner of the box that is
  // deepest behind the edge is not behind it. The products need more than 32 bits.
  for (let i = 0; i < shape.corners.length; i++) {
    const [ax, ay] = shape.corners[i];
    const [bx, by] = shape.corners[(i + 1) % shape.corners.length];
    const outX = by - ay;
    const outY = ax - bx;
    const depth = outX * ((outX > 0 ? left : right) - ax) + outY * ((outY > 0 ? top : bottom) - ay);
    if (depth >= touch) return false;
  }
//.
  return true;
}

//.
//? probes
// Whether one of the body's points is in a shape.
function meets(shape, x, y) {
  for (const [pointX, pointY] of POINTS) {
    if (isPointIn(shape, x + pointX, y + pointY)) return true;
  }
  return false;
}

function isPointIn(shape, x, y) {
//? polys
  if (shape.corners !== null) {
    // A point looks only at the cell that it is in; the edges of a polygon belong to it.
    if (Math.floor(x / TILE) !== shape.cx || Math.floor(y / TILE) !== shape.cy) return false;
    for (let i = 0; i < shape.corners.length; i++) {
      const [ax, ay] = shape.corners[i];
      const [bx, by] = shape.corners[(i + 1) % shape.corners.length];
      if ((by - ay) * (x - ax) + (ax - bx) * (y - ay) > 0) return false;
    }
    return true;
  }
//.
  return x >= shape.left && x < shape.right && y >= shape.top && y < shape.bottom;
}

//.
//? !snap
function meetsAny(shapes, x, y) {
  return shapes.some((shape) => meets(shape, x, y));
}

//.
//? grid|nudge
// Whether the body fits at x, y.
function isFree(state, world, x, y) { //? !pushes
function isFree(state, world, x, y, pushes) { //? pushes
  const shapes = shapesNear(state, world, x, y, 0, 0);
  if (pushes) push(state, shapes, x, y); //? pushes
  return !meetsAny(shapes, x, y);
}
//.
//? push

// Takes note of the doors that are in the way of the body at x, y.
function push(state, shapes, x, y) {
  for (const shape of shapes) {
    if (shape.door >= 0 && meets(shape, x, y)) state.pushed.push(shape.door);
  }
}
//.
//.
//? bodyTouch

// Whether the body's inside, or one of its points, is in a rectangle of units.
function isBodyIn(state, left, top, right, bottom) {
//? box
  const inX = state.x + BODY_LEFT < right && state.x + BODY_RIGHT > left;
  const inY = state.y + BODY_TOP < bottom && state.y + BODY_BOTTOM > top;
  return inX && inY;
//:
  for (const [pointX, pointY] of POINTS) {
    const x = state.x + pointX;
    const y = state.y + pointY;
    if (x >= left && x < right && y >= top && y < bottom) return true;
  }
  return false;
//.
}
//.
`;
