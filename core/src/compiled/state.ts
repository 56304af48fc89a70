import { ActorMemory } from "./actor-memory.ts";
import { PLAYING } from "../world/vocabulary.ts";
import { Memory } from "./memory.ts";
import type { Ground } from "../ground/ground.ts";
import type { Compiled } from "./compiled.ts";

/** Room for a frame with two arrivals, every one of a world's 4,096 fixtures and a room's actors. */
const EVENT_ROOM = 8192;

/** No direction remembered. */
export const NO_BUTTON = -1;

/**
 * What a run carries from frame to frame, changed in place by `step`. Numbers only, all of them whole; lengths in units.
 * What counts time counts its age, never the frame in which it began, so that equal situations are equal whenever they
 * come (`situation.ts`).
 */
export class CarriedState {
  room = 0;
  x = 0;
  y = 0;
  status = PLAYING;

  /** Buttons held in the last frame, and those that were newly pressed in it. */
  held = 0;
  pressed = 0;
  /** Of L, R, U, D while they are held: how many later presses of held ones there were; 0 for the latest and for what is not held. */
  readonly pressRank = new Uint8Array(4);

  /** Intent before ways were applied, the intent, and the second choice (semantics.md section 2). */
  rawX = 0;
  rawY = 0;
  intentX = 0;
  intentY = 0;
  secondX = 0;
  secondY = 0;

  /** Direction of the leg under way, 0, 0 without one, and the units gone along it. */
  legX = 0;
  legY = 0;
  legProgress = 0;
  /** The button remembered by `bufferFrames`, 0 to 3 for L, R, U, D, and how many frames ago it was pressed. */
  bufferedButton = NO_BUTTON;
  bufferedAge = 0;
  /** `keepGoing`'s direction; 0, 0 for none. */
  keepX = 0;
  keepY = 0;

  bumping = false;
  /** Frames since hop's repeat timer began; one that repeats stays within one round. */
  repeatAge = 0;

  /** Velocity of `drift`. */
  vx = 0;
  vy = 0;

  facing = 0;
  pose = 0;
  poseCounter = 0;
  /** Frames in a row without moving. */
  stillFrames = 0;

  /** What chance begins with, in this run. */
  seed: number;

  /** What blocks, as the doors stand now; and what is remembered of fixtures, bag and circuits. */
  readonly ground: Ground;
  readonly memory: Memory;

  constructor(c: Compiled) {
    this.ground = c.ground.withOwn(c.fixtures.doorRooms);
    this.memory = new Memory(
      c.fixtures,
      this.ground,
      c.world.circuits.length,
      c.world.respawnRestores !== "keeps",
      c.actors && new ActorMemory(c.actors, c.tileUnits),
    );
    this.seed = c.world.seed;
  }

  /** Carries what another state of the same compiled world carries. Allocates nothing. */
  copyCarried(other: CarriedState): void {
    this.room = other.room;
    this.x = other.x;
    this.y = other.y;
    this.status = other.status;
    this.held = other.held;
    this.pressed = other.pressed;
    for (let button = 0; button < 4; button++) this.pressRank[button] = other.pressRank[button]!;
    this.rawX = other.rawX;
    this.rawY = other.rawY;
    this.intentX = other.intentX;
    this.intentY = other.intentY;
    this.secondX = other.secondX;
    this.secondY = other.secondY;
    this.legX = other.legX;
    this.legY = other.legY;
    this.legProgress = other.legProgress;
    this.bufferedButton = other.bufferedButton;
    this.bufferedAge = other.bufferedAge;
    this.keepX = other.keepX;
    this.keepY = other.keepY;
    this.bumping = other.bumping;
    this.repeatAge = other.repeatAge;
    this.vx = other.vx;
    this.vy = other.vy;
    this.facing = other.facing;
    this.pose = other.pose;
    this.poseCounter = other.poseCounter;
    this.stillFrames = other.stillFrames;
    this.seed = other.seed;
    this.memory.copyFrom(other.memory);
  }
}

/**
 * The state of a run with what its last frame reports: its number, what it was given and did, its events. Made once a
 * run: nothing is allocated in a frame.
 */
export class SimState extends CarriedState {
  /** Number of the frame, counted from 1; row 0 is the start. */
  frame = 0;
  /** Buttons held in the frame before. */
  heldBefore = this.held;
  /** Pointer of this frame in units of the room; only meaningful with `hasPointer`. */
  hasPointer = false;
  pointerX = 0;
  pointerY = 0;
  /** Raw intent of the frame before. */
  previousRawX = 0;
  previousRawY = 0;
  bumpedBefore = false;

  /** Direction in which this frame moved along a leg or hopped; 0, 0 if it did not. */
  chosenX = 0;
  chosenY = 0;
  /** Units travelled along each axis by a free movement of this frame, and whether slope or nudge moved the walker. */
  travelledX = 0;
  travelledY = 0;
  slidOrNudged = false;
  /** `undo-both` took the movement of this frame back. */
  bothUndone = false;
  /** The position changed in step 2 of this frame. */
  moving = false;

  /** Where the row before this one was, for checks. */
  previousRoom = 0;
  previousX = 0;
  previousY = 0;

  /** Events of this frame in order: what happened, and to which fixture, actor (numbered after the fixtures) or room (-1: nothing named). */
  eventCount = 0;
  readonly eventKinds = new Uint8Array(EVENT_ROOM);
  readonly eventSubjects = new Int32Array(EVENT_ROOM);

  /** The goal's marker was touched in this frame. */
  goalTouched = false;

  /** Adds an event to this frame. */
  emit(kind: number, subject = -1): void {
    this.eventKinds[this.eventCount] = kind;
    this.eventSubjects[this.eventCount] = subject;
    this.eventCount++;
  }

  /** Makes this state equal to another one of the same compiled world, its last frame's report too. */
  copyFrom(other: SimState): void {
    this.copyCarried(other);
    this.frame = other.frame;
    this.heldBefore = other.heldBefore;
    this.hasPointer = other.hasPointer;
    this.pointerX = other.pointerX;
    this.pointerY = other.pointerY;
    this.previousRawX = other.previousRawX;
    this.previousRawY = other.previousRawY;
    this.bumpedBefore = other.bumpedBefore;
    this.chosenX = other.chosenX;
    this.chosenY = other.chosenY;
    this.travelledX = other.travelledX;
    this.travelledY = other.travelledY;
    this.slidOrNudged = other.slidOrNudged;
    this.bothUndone = other.bothUndone;
    this.moving = other.moving;
    this.previousRoom = other.previousRoom;
    this.previousX = other.previousX;
    this.previousY = other.previousY;
    this.goalTouched = other.goalTouched;
    this.eventCount = other.eventCount;
    for (let i = 0; i < other.eventCount; i++) {
      this.eventKinds[i] = other.eventKinds[i]!;
      this.eventSubjects[i] = other.eventSubjects[i]!;
    }
  }
}
