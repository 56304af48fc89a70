import { UNITS_PER_PX, unitsFromPx } from "../base/units.ts";
import { compileBody } from "../ground/body.ts";
import type { Rules, World } from "../world/world.ts";

/** A number at the top of the program. */
export interface Constant {
  readonly name: string;
  /** As the program has it. */
  readonly value: string;
  /** What it is, in a few words; empty where the one before says it. */
  readonly what: string;
  /** The setting that it comes from; null where it is the same for all. */
  readonly setting: string | null;
}

/** All numbers that the program may name, out of a rule set; in units where they are lengths. */
export function constantsOf(world: World, rules: Rules): readonly Constant[] {
  const all: Constant[] = [];
  const add = (setting: string | null, name: string, value: number | string, what: string): void => {
    all.push({ name, value: String(value), what, setting });
  };
  add(null, "UNIT", UNITS_PER_PX, "units in a px: all lengths are whole units");
  add(null, "TILE", unitsFromPx(world.tileSize), `${world.tileSize} px, the side of a cell`);
  add(null, "LEFT", 1, "bits of the keys");
  add(null, "RIGHT", 2, "");
  add(null, "UP", 4, "");
  add(null, "DOWN", 8, "");
  add(null, "USE", 16, "bit of the key that uses");
  bodyConstants(rules, add);
  gridConstants(rules, add);
  freeConstants(rules, add);
  looksConstants(rules, add);
  return all;
}

type Add = (setting: string | null, name: string, value: number | string, what: string) => void;

function bodyConstants({ walker }: Rules, add: Add): void {
  const body = compileBody(walker.body);
  const isBox = walker.body.kind === "box";
  const collides = "what collides, from the corner of the walker's square";
  add("walker.body", "BODY_LEFT", body.left, isBox ? collides : "the box round the points");
  add("walker.body", "BODY_TOP", body.top, "");
  add("walker.body", "BODY_RIGHT", body.right, "");
  add("walker.body", "BODY_BOTTOM", body.bottom, "");
  const points = isBox ? [] : body.probes;
  const pairs = Array.from({ length: points.length / 2 }, (_, i) => `[${points[2 * i]!}, ${points[2 * i + 1]!}]`);
  add("walker.body", "POINTS", `[${pairs.join(", ")}]`, collides);
}

function gridConstants({ hop, glide }: Rules, add: Add): void {
  add("hop.repeatAfter", "REPEAT_AFTER", hop.repeatAfter, "frames until a held direction repeats");
  add("hop.repeatEvery", "REPEAT_EVERY", hop.repeatEvery, "frames from one repeat to the next");
  add("glide.speed", "SPEED", unitsFromPx(glide.speed), `${glide.speed} px a frame`);
  add("glide.bufferFrames", "BUFFER_FRAMES", glide.bufferFrames, "so long a press is remembered");
  add("glide.bufferFrames", "KEY_X", "[-1, 1, 0, 0]", "direction of left, right, up, down");
  add("glide.bufferFrames", "KEY_Y", "[0, 0, -1, 1]", "");
}

function freeConstants({ gait, roam, drift }: Rules, add: Add): void {
  add("roam.speedX", "SPEED_X", unitsFromPx(roam.speedX), `${roam.speedX} px a frame`);
  add("roam.speedY", "SPEED_Y", unitsFromPx(roam.speedY), `${roam.speedY} px a frame`);
  add("drift.accel", "ACCEL", unitsFromPx(drift.accel), `${drift.accel} px a frame more, each frame`);
  add("drift.drag", "DRAG", drift.drag, "out of 256: the part of the speed that the ground takes");
  add("drift.maxSpeed", "MAX_SPEED", unitsFromPx(drift.maxSpeed), `${drift.maxSpeed} px a frame`);
  const free = gait === "drift" ? drift : roam;
  add(`${gait}.nudge`, "NUDGE", free.nudge, "px that a corner may be caught with");
  add(`${gait}.aheadPx`, "AHEAD", unitsFromPx(free.aheadPx), `${free.aheadPx} px`);
}

function looksConstants({ facing, pose }: Rules, add: Add): void {
  add("facing.rest", "REST_FACING", JSON.stringify(facing.rest), "facing where no key is held");
  add("pose.idleImage", "IDLE_IMAGE", pose.idleImage, "image of the walking animation while standing");
  add("pose.images", "IMAGES", pose.images, "of the walking animation");
  const byDistance = pose.advance === "distance";
  const every = byDistance ? unitsFromPx(pose.every) : pose.every;
  add("pose.every", "POSE_EVERY", every, `${byDistance ? `${pose.every} px` : "frames"} from one image to the next`);
  add("pose.idleAfter", "IDLE_AFTER", Math.max(pose.idleAfter, 1), "frames without moving until it stands");
}
