import { PLAYING } from "../world/vocabulary.ts";
import { Memory } from "./memory.ts";
import type { Ground } from "../ground/ground.ts";
import type { Compiled } from "./compiled.ts";

/** Room for a frame with two arrivals and every one of a world's 4,096 fixtures. */
const EVENT_ROOM = 8192;

/** No direction remembered. */
export const NO_BUTTON = -1;

/**
 * Everything that a run remembers from frame to frame, changed in place by `step`. Numbers only, all of them whole;
 * lengths in units, frames counted from 1. Made once a run: nothing is allocated in a frame.
 */
export class SimState {
  frame = 0;
  room = 0;
  x = 0;
  y = 0;
  status = PLAYING;

  /** Buttons held in this frame and in the one before, and those newly pressed. */
  held = 0;
  heldBefore = 0;
  pressed = 0;
  /** Pointer of this frame in units of the room; only meaningful with `hasPointer`. */
  hasPointer = false;
  pointerX = 0;
  pointerY = 0;
  /** Frame at which each of L, R, U, D was pressed last. */
  readonly pressedAt = new Float64Array(4);

  /** Intent before ways were applied, the intent, and the second choice (semantics.md section 2). */
  rawX = 0;
  rawY = 0;
  intentX = 0;
  intentY = 0;
  secondX = 0;
  secondY = 0;

  /** Direction of the leg under way; 0, 0 without one. */
  legX = 0;
  legY = 0;
  legProgress = 0;
  /** The button remembered by `bufferFrames`, 0 to 3 for L, R, U, D, and its frame. */
  bufferedButton = NO_BUTTON;
  bufferedAt = 0;
  /** `keepGoing`'s direction; 0, 0 for none. */
  keepX = 0;
  keepY = 0;

  /** Direction in which this frame moved along a leg or hopped; 0, 0 if it did not. */
  chosenX = 0;
  chosenY = 0;
  bumping = false;
  bumpedBefore = false;

  /** Raw intent of the frame before, and the frame at which hop's repeat timer began. */
  previousRawX = 0;
  previousRawY = 0;
  repeatSince = 0;

  /** Velocity of `drift`. */
  vx = 0;
  vy = 0;
  /** Units travelled along each axis by a free movement of this frame, and whether slope or nudge moved the walker. */
  travelledX = 0;
  travelledY = 0;
  slidOrNudged = false;
  /** `undo-both` took the movement of this frame back. */
  bothUndone = false;

  facing = 0;
  pose = 0;
  poseCounter = 0;
  stillFrames = 0;
  /** The position changed in step 2 of this frame. */
  moving = false;

  /** Where the row before this one was, for checks. */
  previousRoom = 0;
  previousX = 0;
  previousY = 0;

  /** Events of this frame in order: what happened, and to which fixture or room (-1: nothing named). */
  eventCount = 0;
  readonly eventKinds = new Uint8Array(EVENT_ROOM);
  readonly eventSubjects = new Int32Array(EVENT_ROOM);

  /** The goal's marker was touched in this frame. */
  goalTouched = false;

  /** What blocks, as the doors stand now; and what is remembered of fixtures, bag and circuits. */
  readonly ground: Ground;
  readonly memory: Memory;

  constructor(c: Compiled) {
    this.ground = c.ground.withOwn(c.fixtures.doorRooms);
    this.memory = new Memory(c.fixtures, this.ground, c.world.circuits.length);
  }

  /** Adds an event to this frame. */
  emit(kind: number, subject = -1): void {
    this.eventKinds[this.eventCount] = kind;
    this.eventSubjects[this.eventCount] = subject;
    this.eventCount++;
  }

  /** Makes this state equal to another one of the same compiled world. */
  copyFrom(other: SimState): void {
    const { pressedAt, eventKinds, eventSubjects, ground: _ground, memory, ...numbers } = other;
    Object.assign(this, numbers);
    this.pressedAt.set(pressedAt);
    this.eventKinds.set(eventKinds);
    this.eventSubjects.set(eventSubjects);
    this.memory.copyFrom(memory);
  }
}
