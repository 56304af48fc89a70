/** `PORTING.md`: the rules in words, marked as the program is; `{NAME}` stands for a number (formats.md section 10). */
export const PORTING = `# {WORLD}: the rules {RULES}, to be carried over

\`movement.js\` is the rules as a program: one plain module, whole numbers only, to be carried over line by line to any language. This page says the same in words, so that either is enough. \`golden/\` holds runs that your port has to match row by row, and \`conform.js\` compares.

## Numbers

- All lengths are whole **units**; 256 units are a px. A cell is {TILE} units wide and high ({TILE_PX} px). x grows to the right, y **down**; the corner of a room is 0, 0.
- The walker's place is the left upper corner of its **square**, which is as large as a cell. Its **occupied cell** is the one that the middle of the square is in: column \`floor((x + {HALF}) / {TILE})\`, row \`floor((y + {HALF}) / {TILE})\`, with \`floor\` toward minus infinity.
- \`trunc\` rounds toward zero. //? evenDiagonal&!grid|drift
- Nothing depends on time, chance or fractions.
- What moves by itself ({ACTORS}) is not carried over. It blocks nobody: a run in which nobody meets it is the same without it, and only such runs are golden ones. //? actors

## world.json

Things are named by their **number**, from 0, in the lists: rooms in \`rooms\`, items in \`items\`, circuits in \`circuits\`, fixtures in \`fixtures\`.

- \`start\`: room, \`cell\` (column, row) and facing. \`goal\`: {GOAL}. \`lives\`: {LIVES}.
- \`rooms\`: \`width\` and \`height\` in cells; \`cells\`: a list for each row, with the number of a shape for each cell: 0 nothing, 1 the whole cell is solid, others stand in \`shapes\` (in px of the cell). What is not solid for this walker is 0.
- \`edges\`: for each side what leads on beyond it, as spans of rows (west, east) or columns (north, south), \`from\` and \`to\` included. A row or column that is in no span is **wall**.{EDGES}
- \`fixtures\`: in the order in which they are handled. \`doors\`: the numbers of those that are doors.

## A frame

A run begins with row 0: the walker stands on the cell of its start (x = column times {TILE}), with the start's facing, image {IDLE_IMAGE}, and nothing held.{ROW_ZERO} Then each frame does, in this order:

1. keys
2. movement; then, where the walker *bumps* and did not in the frame before, event \`bump\`
3. if the square lies wholly beyond a wall side: status \`escaped\`, event \`escape\` (see *Rooms*)
4. facing, then the image; with status \`escaped\` the frame ends here
5. crossing into another room //? seams
6. fixtures that are touched; where the status is final afterwards the frame ends here //? touch
7. doors, in three steps: close behind, follow, asked (those of *Doors* that there are) //? doors
8. the goal //? goal

The events of a frame are written in the order in which they happen. With a status other than \`playing\` the run is over.

## Keys

Held keys are L (left), R (right), U (up), D (down), A (use), B (spare, does nothing). **Pressed** is what is held now and was not in the frame before (before frame 1 nothing is held).

For each axis: with one of its keys held the raw intent is -1 (L, U) or 1 (R, D); with none 0. With both held it is 0: they cancel each other out. //? cancel
For each axis: with one of its keys held the raw intent is -1 (L, U) or 1 (R, D); with none 0. With both held the one counts that was pressed **later** (of two pressed in one frame the later in the order L, R, U, D). //? latest
For each axis: with one of its keys held the raw intent is -1 (L, U) or 1 (R, D); with none 0. With both held the one counts that was pressed **earlier** (of two pressed in one frame the earlier in the order L, R, U, D). //? earliest

//? ways4
There are four ways. Where both axes of the raw intent are not 0, one is preferred, and the **intent** is that axis alone; the other axis alone is the **second choice**. Else the intent is the raw intent, and there is no second choice.
//:
There are eight ways: the **intent** is the raw intent.
//.
//? ways4&preferLatest
Preferred is the axis whose key (the one that the raw intent goes by) was pressed later; of two pressed in one frame the later in the order L, R, U, D.
//.
//? ways4&preferHorizontal
Preferred is left and right.
//.
//? ways4&preferVertical
Preferred is up and down.
//.
//? ways4&hop
But in a frame in which exactly one of the two directions of the raw intent was pressed, the intent is that direction, without a second choice: a tap moves where it points.
//.

## What blocks

//? box
The body is a box in the walker's square: from {BODY_LEFT}, {BODY_TOP} to {BODY_RIGHT}, {BODY_BOTTOM} units, counted from the place.
//:
The body is points, in units from the place: {POINTS}.
//.
//? box&!edges
The body is **in** a shape where their insides overlap; to lie flush against it is not to be in it.
//.
//? box&edges
The body is **in** a shape where they overlap or touch, also only at an edge or a corner.
//.
//? probes
A point is **in** a box or a whole cell where \`left <= x < right\` and \`top <= y < bottom\`. The body is in a shape where one of its points is.
//.
//? polys&probes
A point is in a polygon where it is inside or on an edge; it looks only at the cell that it is in itself.
//.
//? polys&box
Corners of a polygon are in clockwise order as seen on the screen, and it is convex.
//.

Shapes are: the solid shape of each cell (each box of a shape is one of its own){DOOR_SHAPES}; and a whole cell for each cell that lies beyond a wall. A place is **free** where the body, put there, is in none of them.

//? seams
A cell beyond a side that leads on is read through it: beyond x if the column is outside, else beyond y if the row is. Take the side (west, east, north, south) and its span for the row (west, east) or column (north, south). Through west, column becomes \`column + width of the span's room\`, through east \`column - width of this room\`, and the row becomes \`row + offset\`; through north, row becomes \`row + height of the span's room\`, through south \`row - height of this room\`, and the column becomes \`column + offset\`. Then look again from the span's room. After two such steps a cell that is still outside is wall.
//:
All cells beyond the room are wall.
//.

## Movement

//? hop
**Hop.** Movement is tried in a frame in which a direction that is part of the raw intent was pressed (a tap).
//.
//? hop&repeat
A timer starts in a frame with a tap, and in one in which the raw intent is another than in the frame before (to 0: the timer stops). Movement is also tried when the timer is {REPEAT_AFTER} frames old. //? !repeatsOn
A timer starts in a frame with a tap, and in one in which the raw intent is another than in the frame before (to 0: the timer stops). Movement is also tried when the timer is {REPEAT_AFTER} frames old, and every {REPEAT_EVERY} frames after that. //? repeatsOn
//.
//? hop
In a frame in which it is tried a direction is chosen (below) and the walker is at once {TILE} units further that way. If none is free it bumps where the intent is not 0.
//.
//? glide
**Glide.** The walker goes on legs from cell to cell, {SPEED} units a frame. A leg has a direction and the units gone on it. Each frame:

//? reverse
- First, with a leg under way, where the raw intent is exactly opposite to it and the place where it began (place minus direction times units gone) is free: it turns back. Its direction is reversed, gone becomes {TILE} minus gone{KEEP_TURNS}.
//.
//? buffer
- If the frame began with a leg: the last direction pressed in this frame (in the order L, R, U, D) is **remembered** with the frame's number, in place of what was remembered before.{BUFFER_REVERSE}
//.
- Without a leg a direction is chosen (below). None: nothing moves in this frame, and the walker bumps where the intent is not 0. Else a leg begins, with 0 gone.
//? carry
- With a budget of {SPEED} units: move \`min(budget, {TILE} - gone)\` units along the leg and take them from the budget. When gone reaches {TILE} the leg is over: event \`arrive\`. With budget left{CARRY_PORTAL} go to the choice again in the same frame, with what is left of it.
//.
//? land&!carry
- Move \`min({SPEED}, {TILE} - gone)\` units along the leg. When gone reaches {TILE} the leg is over: event \`arrive\`.
//.
//? equal
- Move {SPEED} units along the leg. When gone is exactly {TILE} the leg is over: event \`arrive\`; else it goes on, also further.
//.
//? past
- Move {SPEED} units along the leg. When gone is {TILE} or more the leg is over: event \`arrive\`.
//.
(On a slanting leg both axes move by these units.) //? diagonals

Nothing is tested while a leg is under way.
//.
//? grid
**Choosing a direction.** The first of these whose place {TILE} units further is free:

//? buffer
1. the remembered direction, if it was pressed at most {BUFFER_FRAMES} frames ago (the frame's number minus the remembered one) and its key is not held now. It is forgotten at each choice, whether it was used or not.
//.
2. the intent
3. the second choice //? slide&ways4
3. with an intent on both axes: its x alone, then its y alone //? slide&diagonals
4. the direction of the last leg, also with nothing held. It is forgotten when a choice finds nothing. //? keepGoing

A slanting direction is free only where both its parts alone are free too. //? diagonals&!cutCorners
What was tested under 2 and 3 and was not free is **pushed**, in all tested places. //? push
//.
//? roam
**Roam.** The way of a frame is the intent times {SPEED_X} units on x and {SPEED_Y} units on y.
//.
//? roam&evenDiagonal
With both axes, each becomes \`trunc(way * 181 / 256)\`.
//.
//? drift
**Drift.** The walker has a speed on each axis, 0 at first. Each frame, for each axis: the push is the intent times {ACCEL}{DRIFT_EVEN}; the speed becomes \`trunc((speed + push) * (256 - {DRAG}) / 256)\`, and then at most {MAX_SPEED} either way. The way of the frame is the speed.
//.
//? undoBoth
Both axes move by the way, and both not at all where that place is not free.
//.
//? undoAxis
First {FIRST_AXIS}, then the other: it moves by all of its way where that place is free, else not at all.
//.
//? ahead
First {FIRST_AXIS}, then the other: where the place {AHEAD} units further in that direction is free it moves by all of its way, else not at all.
//.
//? snap
First {FIRST_AXIS}, then the other: of the shapes that the body is not in already (insides only), take those that it is in when moved by all of the way. It moves by the largest number of units, up to the way, at which it is in the box round none of them.
//.
//? contact
First {FIRST_AXIS}, then the other: it moves by the largest number of units, up to the way, for which the body is free at every unit from 1 to there. Shapes that it is in already (insides only) before this axis moves do not count.
//.
//? contact&slopes
**Slopes.** Where an axis was stopped, and one unit further the body would be in a polygon that counts: what is left of the way goes on in steps of at most 256 units along this axis. For each step find the smallest k from 0 up to the step, for which the place one step further and k units less, or else k units more, on the other axis is free (all shapes count); go there. No such k: the rest is lost.
//.
//? nudge
**Round corners.** With an intent on exactly one axis, a way of the same sign and no unit gone on it: for k from 1 to {NUDGE} px, first minus then plus: where the place k px aside and a px (or the way, if that is shorter) ahead is free, move aside by up to k px (at most as many units as the way), as far as the body is free at every unit; that is all.
//.
//? drift
An axis that went less than its speed has speed 0 afterwards (steps on a slope count along their axis). //? !undoBoth
Where both were not moved both speeds are 0 afterwards. //? undoBoth
//.
//? !grid
The walker **bumps** where an axis with an intent and a way of the same sign went less than all of it, and neither slope nor corner moved it in this frame.
//.
//? !grid&push
Doors that the body would be in where such an axis was stopped are **pushed**: {PUSHED_AT}.
//.

## Facing and image

//? pointer
Facing follows the pointer: dx and dy from the middle of the square to it. Horizontal where \`|dx| >= |dy|\`, else vertical; without a pointer, or with both 0, it stays.
//:
Facing follows the direction in which the walker went in this frame (of several legs the last), or, if it did not, the intent. //? grid
Facing follows the intent. //? !grid
With neither it stays. //? !idleReset
With neither it is {REST_FACING}. //? idleReset
On a slanting direction it is that direction (\`up-left\` and so on). //? facing8
On a slanting direction it stays where it is one of the two, else it is the horizontal one. //? tieKeep
On a slanting direction it is the horizontal one. //? tieHorizontal
On a slanting direction it is the vertical one. //? tieVertical
//.

**Moving** is whether the place after step 2 is another than before it.
//? poseOff
The image is always {IDLE_IMAGE}.
//:
A moving frame adds the units gone on both axes (\`|dx| + |dy|\`) to a counter; the image is \`floor(counter / {POSE_EVERY}) mod {IMAGES}\`. //? poseDistance
A moving frame adds 1 to a counter; the image is \`floor(counter / {POSE_EVERY}) mod {IMAGES}\`. //? poseFrames
After {IDLE_AFTER} frames in a row without moving the image is {IDLE_IMAGE} and the counter 0; until then both stay.
//.

## Rooms

**Escaped**: \`x <= -{TILE}\`, \`x >= width * {TILE}\`, or the same for y, where that side is wall at the row (for x) or column (for y) of the occupied cell.
//? seams

//? crossesWhole
**Crossing.** The walker lies beyond a side where all of its square does: \`x <= -{TILE}\` or \`x >= width * {TILE}\`, the same for y.
//:
**Crossing.** The walker lies beyond a side where the middle of its square does: \`x < -{HALF}\` or \`x >= width * {TILE} - {HALF}\`, the same for y.
//.
At most twice a frame: take the first axis, x before y, that lies beyond a side with a span at the occupied cell's row (x) or column (y). The walker is then in the span's room, at the same place as seen from there: west \`x += width of that room\`, east \`x -= width of the left room\` (times {TILE}), and \`y += offset * {TILE}\`; for north and south the same with height, and \`x += offset * {TILE}\`. A leg goes on. A span with \`wraps\` writes the event \`wrap\`; another one changes the room.
//.
//? changes

**Changing the room**: event \`leave:ROOM\`; all touches end; what keeps \`visit\` in the room that is left is as at first again; event \`enter:ROOM\`. //? visit
**Changing the room**: event \`leave:ROOM\`; all touches end; event \`enter:ROOM\`. //? !visit
//.
//? visit|life

**As at first** means: an item is there again, a switch has its circuit off, a door with lock \`none\` or \`item\` is closed. No event is written for it.
//.
//? hazards|portals

**Put on a cell** means: place exactly on it, no speed and no leg; into another room it changes the room; then portals that are touched there count as touched already.
//.
//? hazards

**Respawn**: {RESPAWN_RETURNS}event \`respawn\`; {RESPAWN_FORGETS}put on {RESPAWN_PLACE}. Facing stays.
//.
//? touch

## Fixtures

In each frame the fixtures of the walker's room, but for doors, are looked at in their order. A fixture is touched where the occupied cell is one of its cells: columns from \`cell[0]\` on, \`size[0]\` of them, and rows likewise.{BODY_TOUCH} One that is touched acts once, and again only after a frame in which it was not touched.

//? items
- \`item\`, unless it was taken: \`count\` of its item go into the bag, it is taken (and not touched). Event \`take:ID\`.
//.
//? portals
- \`portal\`: event \`portal:ID\`; facing becomes \`toFacing\` unless that is null; put on \`toCell\` of \`toRoom\`. This ends the round.{PORTAL_WAITS}
//.
//? hazards
- \`hazard\`: event \`hurt:ID\`; {HAZARD_LIVES}respawn. This ends the round: fixtures after it stay touched or not as they were.
//.
//? checkpoints
- \`checkpoint\`: its \`cell\` is where a respawn leads from now on. Event \`checkpoint:ID\`, unless it was the one touched last.{CHECKPOINT_SAVES}
//.
//? switches
- \`switch\`: its circuit is turned over (all are off at first). Event \`switch:ID\`.
//.
//? markers
- \`marker\`: event \`marker:ID\`.
//.
//.
//? doors

## Doors

A closed door is solid as a whole cell, besides the tile under it; all are closed at first. Each frame, in the order of \`doors\`:

//? behind
1. **Close behind.** For each open door with \`closesBehind\`: where the inside of the body is in the door's cell (also as it is seen through a side that leads on) that is noted; where it was noted since the door opened and is not so now, the door closes: event \`close:ID\`.
//.
//? follows
2. **Follow.** Doors with lock \`circuit\` are open while the circuit is on (\`openWhileOn\` false: while it is off). //? lockCircuit
2. **Follow.** Doors with lock \`collected\` are open once every fixture that gives their item is taken (never, if there is none). //? lockCollected
Where that changes: event \`open:ID\` or \`close:ID\`. Before row 0 the same, without events.
//.
//? asked
3. **Asked.** {NOT_WHEN_PUT}Closed doors with lock \`none\` or \`item\` are asked in the order of \`doors\`:
//? push
   - one without \`opensOnUse\` that was pushed in this frame;
//.
//? use
   - one with \`opensOnUse\` where A was pressed in this frame and the door's cell is the neighbour of the occupied cell in the direction of the facing (also through a side that leads on).
//.

   Lock \`none\`: it opens. Lock \`item\`: with \`count\` of the item in the bag it opens, and \`spends\` takes them out of it; with fewer: event \`refused:ID\`{REFUSED_ONCE}. Opening is the event \`open:ID\`; the way is free from the next frame on.
//.
//.
//? goal

## The goal

//? goalMarker
Won where the fixture number {GOAL_NUMBER} is touched in this frame (each frame in which it is, not only the first; a respawn in the same frame does not undo that): status \`won\`, event \`win\`.
//:
Won where every fixture that gives item number {GOAL_NUMBER} is taken: status \`won\`, event \`win\`.
//.
//.

## golden/

\`LOG.inputs\`: a head up to the line \`---\`, of which a port reads two kinds of lines: \`start ROOM COLUMN ROW FACING\` (in place of the world's start), and \`with ...\`, which is set up before row 0: \`holds ITEM [COUNT]\`, \`taken ID\`, \`open ID\`, \`circuit NAME on\`, \`lives N\`, \`respawn ID\` (that checkpoint was touched last). Then lines \`COUNT KEYS [@X,Y]\`: so many frames with these keys held (\`.\` for none), and the pointer in px (times 256, rounded to the nearest).

\`LOG.trace.csv\`: a header, then a row for row 0 and for each frame, lines ended by CR LF. The columns stand in \`golden/README.md\`.

### {FIRST_LOG}, the first rows

To check a first port by hand; the keys of the frame are in the second column.

{FIRST_ROWS}

## Your game beside it

Let the game read the keys of a log, and write a row a frame of where its walker is. A CSV file with the columns \`frame,room,x,y\` (frame 0 is the start; x and y in units) is read as it is:

\`\`\`
node conform.js {FIRST_LOG_ID} trace-of-my-game.csv
\`\`\`

A game with px, cells, y up or other names is described once in Keen Pebble (drop a trace on the Bench); \`conform.js\` then has it among its \`GAMES\`. In CI run \`node conform.js\` for the port and a line as above for each log that the game plays: it ends with 0 where all agrees, with 1 where a row differs, with 2 where a file could not be read.
`;
