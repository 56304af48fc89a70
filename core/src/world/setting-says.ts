import type { Setting } from "./settings.ts";
import { settingRange } from "./settings.ts";
import type { SettingValue } from "./setting.ts";

/** What the edges of the walker's body do; it stands with the body and not in the table of settings. */
export const FLUSH = "walker.body.flush";

/** What a setting does, in one sentence; and what each of its values does where they are words. */
interface Says {
  readonly says: string;
  readonly values?: Readonly<Record<string, string>>;
}

const SLIDE: Says = {
  says: "Where the wanted way is blocked and a second direction is held, the walker goes along the wall instead.",
};
const CUT_CORNERS: Says = { says: "A slanting step may pass a corner although a cell beside it blocks." };

/** For `roam` and `drift` alike. */
const FREE: Readonly<Record<string, Says>> = {
  diagonal: {
    says: "How fast a slanting way is.",
    values: { even: "as fast as a straight one", full: "full speed on both axes, 1.41 times as fast" },
  },
  response: {
    says: "What happens to an axis whose way is blocked.",
    values: {
      contact: "stops exactly at what blocks, at any speed",
      "undo-axis": "takes the axis back: it leaves a gap before walls",
      "undo-both": "takes both axes back: it sticks to walls instead of sliding",
      snap: "draws back to the edge of what it ended in; thin things are jumped over",
      ahead: "looks so many px ahead only, and may sink in",
    },
  },
  axisOrder: {
    says: "Which axis moves first: at corners it decides where the walker ends.",
    values: { "x-first": "left and right first", "y-first": "up and down first" },
  },
  aheadPx: { says: "How far before the body it is looked whether an axis may move." },
  nudge: { says: "A corner that is caught with at most so many px is walked round by itself; 0 is off." },
  slopes: {
    says: "What a slanting edge does to a walker that runs against it.",
    values: { slide: "it is led along the slope", stop: "it is stopped as by a wall" },
  },
};

const SAYS: ReadonlyMap<string, Says> = new Map(
  Object.entries({
    "input.opposites": {
      says: "What counts when both keys of an axis are held.",
      values: {
        cancel: "neither: they cancel each other out",
        latest: "the one pressed later",
        earliest: "the one pressed earlier",
      },
    },
    "input.ways": {
      says: "Whether the walker goes straight only, or aslant too.",
      values: { "4": "left, right, up and down", "8": "the slanting ways too" },
    },
    "input.prefer": {
      says: "With four ways and keys of both axes held: which axis is tried first.",
      values: {
        latest: "the one pressed later",
        horizontal: "left and right",
        vertical: "up and down",
      },
    },
    "walker.crossesAt": {
      says: "When the walker is in the next room.",
      values: { centre: "as soon as its centre is past the side", whole: "only when all of it is" },
    },
    [FLUSH]: {
      says: "Whether a body that only touches what blocks is stopped by it.",
      values: {
        free: "no: it slides along walls and fits a gap as wide as itself",
        blocks: "yes: it cannot move along a wall that it lies against",
      },
    },
    "hop.repeatAfter": { says: "So long a direction is held until the hop repeats; 0: one hop for each press." },
    "hop.repeatEvery": { says: "From then on it repeats after each so many frames; 0: it repeats once." },
    "hop.slide": SLIDE,
    "hop.cutCorners": CUT_CORNERS,
    "glide.speed": { says: "How far the walker goes in a frame, from cell to cell." },
    "glide.arrive": {
      says: "How a leg from cell to cell ends.",
      values: {
        land: "exactly on the cell",
        equal: "only where the speed comes out equal; else it never ends",
        past: "past the cell, where the speed does not divide it",
      },
    },
    "glide.carry": {
      says: "What is left of the speed on arriving goes into the next leg, so that no frame is shorter than others.",
    },
    "glide.slide": SLIDE,
    "glide.bufferFrames": {
      says: "A direction pressed while a leg is under way is remembered so long, and tried first at the next cell; 0 is off.",
    },
    "glide.keepGoing": { says: "The walker goes on in its last direction with no key held, until something blocks." },
    "glide.reverse": { says: "The opposite direction turns the walker round in the middle of a leg." },
    "glide.cutCorners": CUT_CORNERS,
    "roam.speedX": { says: "How far the walker goes to the left or right in a frame." },
    "roam.speedY": { says: "How far the walker goes up or down in a frame." },
    "drift.accel": { says: "So much faster a held direction makes the walker each frame." },
    "drift.drag": { says: "The part of the speed, out of 256, that the ground takes each frame." },
    "drift.maxSpeed": { says: "Nothing makes an axis faster than this." },
    "facing.source": {
      says: "What the walker looks at.",
      values: { intent: "the way that it goes or wants to go", pointer: "the pointer" },
    },
    "facing.ways": {
      says: "How many directions it can look in.",
      values: { "4": "left, right, up and down", "8": "the slanting ones too" },
    },
    "facing.tie": {
      says: "Which of four facings a slanting way shows.",
      values: {
        keep: "the present one where it is one of the two, else left or right",
        horizontal: "left or right",
        vertical: "up or down",
      },
    },
    "facing.idle": {
      says: "Where it looks with no key held.",
      values: { keep: "where it looked last", reset: "to its rest facing" },
    },
    "facing.rest": { says: "The facing that it goes back to." },
    "pose.images": { says: "Images of the walking animation." },
    "pose.advance": {
      says: "What moves the walking animation on.",
      values: {
        distance: "the px walked",
        frames: "the frames in which it moves",
        off: "nothing: it stays as standing",
      },
    },
    "pose.every": { says: "So many px, or frames, one image lasts." },
    "pose.idleImage": { says: "The image shown while standing." },
    "pose.idleAfter": { says: "So many frames without moving until the standing image is shown." },
    ...Object.fromEntries(
      ["roam", "drift"].flatMap((gait) => Object.entries(FREE).map(([name, says]) => [`${gait}.${name}`, says])),
    ),
  } satisfies Record<string, Says>),
);

/** What a setting does, in one sentence. */
export function settingSays(path: string): string {
  return SAYS.get(path)?.says ?? "";
}

/** What a value of a setting does, in a few words; null where the value says it itself. */
export function valueSays(path: string, value: SettingValue): string | null {
  const values = SAYS.get(path)?.values;
  return values !== undefined && Object.hasOwn(values, String(value)) ? values[String(value)]! : null;
}

/** What a setting may be, in words: its range with the unit; null where its values are listed. */
export function rangeSays(setting: Setting, tileSize: number): string | null {
  if (setting.kind === "switch") return "on or off";
  if (setting.kind === "choice") return null;
  const { min, max } = settingRange(setting, tileSize);
  if (setting.kind === "px")
    return `up to ${max} px a frame`.replace(/ a frame$/, isAFrame(setting.path) ? " a frame" : "");
  return `${min} to ${max}${setting.unit === "" ? "" : ` ${setting.unit}`}`;
}

/** Whether a length is gone in each frame. */
function isAFrame(path: string): boolean {
  return !path.endsWith(".aheadPx");
}
