import type { InputLog } from "../logs/input-log.ts";
import { readLog } from "../logs/read-log.ts";
import { run } from "../replay/run.ts";
import { compile } from "../simulation/compile.ts";
import type { TraceRows } from "../simulation/trace.ts";
import { emptyWorld } from "../world/empty-world.ts";
import type { Gait } from "../world/gaits.ts";
import { newRules } from "../world/new-rules.ts";
import type { SettingValue } from "../world/setting.ts";
import { FLUSH } from "../world/setting-says.ts";
import { withSetting } from "../world/settings.ts";
import type { Rules, World } from "../world/world.ts";

const CELL = 16;

/** A tiny ground, what is pressed on it, and two values that walk it otherwise. */
interface Shows {
  readonly gait: Gait;
  /** `#` blocks, `S` is the start. */
  readonly ground: readonly string[];
  /** Lines of an input log: frames and keys, such as `12 R`. */
  readonly keys: readonly string[];
  readonly values: readonly [SettingValue, SettingValue];
  /** Settings that it needs beside its own. */
  readonly along?: Readonly<Record<string, SettingValue>>;
}

const HALL = ["#########", "#S      #", "#########"];
const TURN = ["#######", "#S    #", "###.###", "###.###"];
const WALL = ["#######", "#S    #", "####  #", "#######"];
const OPEN = ["########", "#S     #", "#      #", "#      #", "########"];
const CORNER = ["#####", "#S# #", "#   #", "#####"];
const GAP = ["#####", "## ##", "## ##", "#S  #", "#####"];

const FREELY = { "roam.speedX": 2, "roam.speedY": 2, "input.ways": 8 };

/** Of each setting that words alone explain badly. */
const SHOWS: ReadonlyMap<string, Shows> = new Map(
  Object.entries({
    "glide.bufferFrames": {
      gait: "glide",
      ground: TURN,
      keys: ["10 R", "2 RD", "40 R"],
      values: [0, 8],
      along: { "glide.speed": 2, "input.prefer": "latest" },
    },
    "glide.carry": { gait: "glide", ground: HALL, keys: ["36 R"], values: [false, true], along: { "glide.speed": 3 } },
    "glide.arrive": {
      gait: "glide",
      ground: HALL,
      keys: ["30 R", "16 ."],
      values: ["land", "past"],
      along: { "glide.speed": 3 },
    },
    "glide.keepGoing": {
      gait: "glide",
      ground: HALL,
      keys: ["3 R", "50 ."],
      values: [false, true],
      along: { "glide.speed": 2 },
    },
    "glide.reverse": {
      gait: "glide",
      ground: HALL,
      keys: ["13 R", "20 L"],
      values: [false, true],
      along: { "glide.speed": 1 },
    },
    "glide.slide": {
      gait: "glide",
      ground: WALL,
      keys: ["50 RD"],
      values: [false, true],
      along: { "glide.speed": 2, "input.prefer": "vertical" },
    },
    "glide.cutCorners": {
      gait: "glide",
      ground: CORNER,
      keys: ["9 RD", "20 ."],
      values: [false, true],
      along: { "glide.speed": 2, "input.ways": 8 },
    },
    "hop.slide": {
      gait: "hop",
      ground: WALL,
      keys: ["50 RD"],
      values: [false, true],
      along: { "hop.repeatAfter": 8, "hop.repeatEvery": 8, "input.prefer": "vertical" },
    },
    "hop.cutCorners": {
      gait: "hop",
      ground: CORNER,
      keys: ["2 RD", "20 ."],
      values: [false, true],
      along: { "input.ways": 8 },
    },
    "roam.nudge": { gait: "roam", ground: GAP, keys: ["7 R", "34 U"], values: [0, 4], along: FREELY },
    "roam.axisOrder": {
      gait: "roam",
      ground: ["#####", "#S  #", "# # #", "#   #", "#####"],
      keys: ["50 RD"],
      values: ["x-first", "y-first"],
      along: FREELY,
    },
    "roam.diagonal": { gait: "roam", ground: OPEN, keys: ["18 RD", "20 ."], values: ["even", "full"], along: FREELY },
    "roam.response": {
      gait: "roam",
      ground: HALL,
      keys: ["30 R"],
      values: ["contact", "undo-axis"],
      along: { "roam.speedX": 9 },
    },
    "drift.accel": { gait: "drift", ground: HALL, keys: ["44 R"], values: [0.0625, 0.5] },
    "drift.drag": { gait: "drift", ground: HALL, keys: ["26 R", "50 ."], values: [8, 64] },
    "facing.tie": {
      gait: "glide",
      ground: OPEN,
      keys: ["8 R", "30 RD"],
      values: ["keep", "vertical"],
      along: { "glide.speed": 2, "input.ways": 8 },
    },
    "input.prefer": {
      gait: "glide",
      ground: OPEN,
      keys: ["50 RD"],
      values: ["horizontal", "vertical"],
      along: { "glide.speed": 2 },
    },
    "input.ways": { gait: "glide", ground: OPEN, keys: ["26 RD", "10 ."], values: [4, 8], along: { "glide.speed": 2 } },
    [FLUSH]: { gait: "roam", ground: HALL, keys: ["40 R"], values: ["free", "blocks"], along: FREELY },
  } satisfies Record<string, Shows>),
);

/** How a value of a setting walks: the tiny world, what was pressed, and the run of the real rules over it. */
export interface ShownSetting {
  readonly value: SettingValue;
  readonly world: World;
  readonly log: InputLog;
  readonly rows: TraceRows;
}

/** Paths of all settings that are shown moving, that of the body's `flush` among them. */
export const SHOWN_SETTINGS: readonly string[] = [...SHOWS.keys()];

/**
 * Two values of a setting, each walked by the real rules over the same tiny ground; null for settings that words explain
 * well enough (interface.md, Words).
 */
export function settingShown(path: string): readonly [ShownSetting, ShownSetting] | null {
  // What both go by is shown by the one that has no momentum beside.
  const shownBy = path.replace(/^drift\.(?=nudge$|axisOrder$|diagonal$|response$)/, "roam.");
  const shows = SHOWS.get(shownBy);
  if (shows === undefined) return null;
  const log = readLog(`keen-pebble-inputs 1\n---\n${shows.keys.join("\n")}\n`);
  const walked = (value: SettingValue): ShownSetting => {
    const world = groundOf(shows, rulesFor(shows, shownBy, value));
    return { value, world, log, rows: run(compile(world), log, { rows: true }).rows! };
  };
  return [walked(shows.values[0]), walked(shows.values[1])];
}

function rulesFor({ along = {}, gait }: Shows, path: string, value: SettingValue): Rules {
  const base = Object.entries(along).reduce(
    (rules, [other, set]) => withSetting(rules, other, set),
    newRules("main", "Main", gait, CELL),
  );
  if (path !== FLUSH) return withSetting(base, path, value);
  const body = { ...base.walker.body, flush: value as "free" | "blocks" };
  return { ...base, walker: { ...base.walker, body } };
}

function groundOf({ ground }: Shows, rules: Rules): World {
  const [width, height] = [ground[0]!.length, ground.length];
  const base = emptyWorld("shown", "Shown", CELL, [width, height]);
  const wall = base.tiles.findIndex(({ flags }) => flags.includes("solid"));
  const all = ground.join("");
  const start = all.indexOf("S");
  return {
    ...base,
    rules: [rules],
    start: { ...base.start, cell: [start % width, Math.floor(start / width)], facing: "right" },
    rooms: [{ ...base.rooms[0]!, cells: Uint16Array.from(all, (sign) => (sign === "#" ? wall : 1)) }],
  };
}
