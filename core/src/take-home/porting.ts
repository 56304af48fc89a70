import { unitsFromPx } from "../base/units.ts";
import { compileBody } from "../ground/body.ts";
import { allActors, rulesById } from "../world/queries.ts";
import type { Rules, World } from "../world/world.ts";
import { GAITS } from "../world/gaits.ts";
import type { GoldenLog } from "./golden.ts";
import type { Uses } from "./marked-parts.ts";
import { usedLines } from "./marked-parts.ts";
import { oneLine } from "./one-line.ts";
import { PORTING } from "./program/porting.ts";
import { usedNames, usesOf } from "./uses.ts";

/** Rows of the log that is shown for checking by hand. */
const FIRST_ROWS = 20;

/** `PORTING.md`: the rules in words with their numbers (formats.md section 10). */
export function portingText(world: World, rulesId: string, golden: readonly GoldenLog[]): string {
  const rules = rulesById(world, rulesId)!;
  const uses = usedNames(usesOf(world, rules));
  const values = new Map([
    ...Object.entries(numbers(world, rules)),
    ...Object.entries(phrases(world, rules, uses)),
    ...Object.entries(firstRows(golden)),
    [
      "ACTORS",
      allActors(world)
        .map(({ id }) => id)
        .join(", "),
    ],
  ]);
  const lines = usedLines(PORTING, uses).map(({ text }) => text);
  return lines
    .filter((line, i) => line !== "" || lines[i - 1] !== "")
    .join("\n")
    .replace(/\{([A-Z_]+)\}/g, (_, name: string) => values.get(name)!);
}

function numbers(world: World, { walker, hop, glide, roam, drift, gait, pose, facing }: Rules): Record<string, string> {
  const body = compileBody(walker.body);
  const tile = unitsFromPx(world.tileSize);
  const free = gait === "drift" ? drift : roam;
  const points = walker.body.kind === "probes" ? walker.body.points.map(([x, y]) => `(${x * 256}, ${y * 256})`) : [];
  const all = {
    TILE: tile,
    TILE_PX: world.tileSize,
    HALF: tile / 2,
    BODY_LEFT: body.left,
    BODY_TOP: body.top,
    BODY_RIGHT: body.right,
    BODY_BOTTOM: body.bottom,
    POINTS: points.join(", "),
    REPEAT_AFTER: hop.repeatAfter,
    REPEAT_EVERY: hop.repeatEvery,
    SPEED: unitsFromPx(glide.speed),
    BUFFER_FRAMES: glide.bufferFrames,
    SPEED_X: unitsFromPx(roam.speedX),
    SPEED_Y: unitsFromPx(roam.speedY),
    ACCEL: unitsFromPx(drift.accel),
    DRAG: drift.drag,
    MAX_SPEED: unitsFromPx(drift.maxSpeed),
    AHEAD: unitsFromPx(free.aheadPx),
    NUDGE: free.nudge,
    FIRST_AXIS: free.axisOrder === "x-first" ? "x" : "y",
    REST_FACING: facing.rest,
    IDLE_IMAGE: pose.idleImage,
    IMAGES: pose.images,
    IDLE_AFTER: Math.max(pose.idleAfter, 1),
    POSE_EVERY: pose.advance === "distance" ? unitsFromPx(pose.every) : pose.every,
  };
  return Object.fromEntries(Object.entries(all).map(([name, value]) => [name, String(value)]));
}

/** Half sentences that depend on more than one use. */
function phrases(world: World, rules: Rules, uses: Uses): Record<string, string> {
  const when = (name: string, text: string): string => (uses.has(name) ? text : "");
  const { goal, lives } = world;
  const forgets = [
    ...(uses.has("buffer") ? ["the remembered direction"] : []),
    ...(uses.has("keepGoing") ? ["the last leg's direction"] : []),
  ];
  return {
    WORLD: oneLine(world.name),
    RULES: oneLine(rules.name),
    GAIT: GAITS[rules.gait].label,
    GOAL:
      goal === null
        ? "null, there is none"
        : goal.kind === "marker"
          ? "the number of a fixture"
          : "the number of an item",
    GOAL_NUMBER: goalNumber(world),
    LIVES: lives === null ? "null, they are not counted" : "how many there are at the start",
    EDGES: when(
      "seams",
      " Each span has the number of the `room` that it leads to and an `offset` in cells; `wraps` says that it leads round, into the same room.",
    ),
    ROW_ZERO:
      when("follows", " Doors that follow something are set before it (see *Doors*).") +
      when("portals", " Portals that are touched there count as touched already."),
    DOOR_SHAPES: when("doors", "; each closed door, as a whole cell of its own"),
    KEEP_TURNS: when("keepGoing", ", and so is the direction that it keeps"),
    BUFFER_REVERSE: when("reverse", " (Not a press along the new direction of a leg that has just turned back.)"),
    CARRY_PORTAL: when("portals", ", and no portal on the cell that was reached,"),
    DRIFT_EVEN: when("evenDiagonal", "; with an intent on both axes it is `trunc(push * 181 / 256)`"),
    PUSHED_AT: pushedAt(uses),
    RESPAWN_RETURNS: returns(uses),
    RESPAWN_FORGETS: forgets.length === 0 ? "" : `${forgets.join(" and ")} is forgotten; `,
    RESPAWN_PLACE: uses.has("checkpoints")
      ? "the cell of the checkpoint touched last, or of the start"
      : "the cell of the start",
    BODY_TOUCH: when(
      "bodyTouch",
      ' One with `touch` "body" is touched where the inside of the body (or one of its points) is in one of its cells.',
    ),
    PORTAL_WAITS: when(
      "glide",
      " It waits while a leg is under way, and acts in the first frame without one if it is still touched.",
    ),
    HAZARD_LIVES: when("lives", "one life less; with none left status `lost`, event `lose`, and the frame ends; else "),
    CHECKPOINT_SAVES: when("restoresCheckpoint", " What a respawn gives back is saved, each time that it is touched."),
    NOT_WHEN_PUT:
      uses.has("portals") || uses.has("hazards")
        ? "Not in a frame in which a portal or a respawn put the walker. "
        : "",
    REFUSED_ONCE: when("push", " (for a push only if it was not pushed in the frame before)"),
  };
}

function goalNumber({ goal, rooms, items }: World): string {
  if (goal === null) return "";
  if (goal.kind === "collect") return String(items.findIndex(({ id }) => id === goal.item));
  return String(rooms.flatMap((room) => room.fixtures).findIndex(({ id }) => id === goal.fixture));
}

function pushedAt(uses: Uses): string {
  if (uses.has("contact")) return "at the place one unit beyond where it stopped, of the shapes that count";
  if (uses.has("snap")) return "at the end of the way, of the shapes that count";
  return uses.has("ahead") ? "at the place that was tested" : "at the end of the way";
}

function returns(uses: Uses): string {
  if (uses.has("life")) return "what keeps `life` is as at first again, in all rooms; ";
  if (!uses.has("restores")) return "";
  const since = uses.has("restoresCheckpoint") ? "when a checkpoint last acted, or else in row 0" : "in row 0";
  return `bag, circuits, items taken, and doors with lock \`none\` or \`item\` (with what was noted of those that close behind) are as they were ${since}; `;
}

function firstRows(golden: readonly GoldenLog[]): Record<string, string> {
  const [first] = golden;
  if (first === undefined) return { FIRST_LOG: "No log", FIRST_LOG_ID: "LOG", FIRST_ROWS: "No log was taken along." };
  const [header, ...rows] = first.trace.split("\r\n").slice(0, FIRST_ROWS + 1);
  const row = (text: string): string => `| ${text.split(",").join(" | ")} |`;
  const rule = row(header!.replace(/[^,]+/g, "---"));
  const table = [row(header!), rule, ...rows.map(row)].join("\n");
  return { FIRST_LOG: first.id, FIRST_LOG_ID: first.id, FIRST_ROWS: table };
}

/** `golden/README.md`: what the columns are. */
export function goldenReadme(): string {
  return `# Golden runs

For each log what was pressed (\`LOG.inputs\`, as PORTING.md says) and where the walker was (\`LOG.trace.csv\`): a row for the start and for each frame.

| column | what |
|---|---|
| \`frame\` | 0 is the start, before any frame |
| \`keys\` | held in this frame: letters of LRUDAB, \`.\` for none |
| \`room\` | its id |
| \`x\`, \`y\` | left upper corner of the walker's square, in units (256 a px) |
| \`cx\`, \`cy\` | the occupied cell: column and row |
| \`facing\` | left, right, up, down, or two of them: up-left |
| \`pose\` | image number of the walking animation |
| \`moving\` | 1 where the walker moved by itself in this frame |
| \`aligned\` | 1 where it lies exactly on a cell |
| \`status\` | playing, won, lost or escaped |
| \`events\` | parted by semicolons, in order: \`take:ID\`, \`open:ID\` ... |
`;
}
