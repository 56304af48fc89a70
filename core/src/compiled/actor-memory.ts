import type { CompiledActors } from "./compiled-actor.ts";

/** Of each actor so many numbers, and what each of them is. */
export const ACTOR_NUMBERS = 10;
export const AT_X = 0;
export const AT_Y = 1;
export const FACING = 2;
/** Direction of the leg under way, 0 for none, else 1 to 4 for L, R, U, D, and the units gone along it. */
export const LEG = 3;
export const GONE = 4;
/** Direction of the last leg, as of `LEG`. */
export const LAST = 5;
/** The phase, and the frames left of it: its frames before the first one; -1 always where it lasts for ever. */
export const PHASE = 6;
export const FRAMES_LEFT = 7;
/** The place on a path and the way along it, as one number: place times 2, and 1 where the way leads back. */
export const ON_PATH = 8;
/** Choices made by chance. */
export const CHOICES = 9;

/** What a run remembers of its actors (semantics.md section 9); changed in place, made once a run. */
export class ActorMemory {
  /** `ACTOR_NUMBERS` of each, in file order; lengths in units. */
  readonly numbers: Int32Array;
  /** By actor 1 while the walker meets it. */
  readonly met: Uint8Array;

  constructor(
    private readonly actors: CompiledActors,
    private readonly tileUnits: number,
  ) {
    this.numbers = new Int32Array(actors.all.length * ACTOR_NUMBERS);
    this.met = new Uint8Array(actors.all.length);
    for (let i = 0; i < actors.all.length; i++) this.reset(i);
  }

  /** Puts an actor back to its first state. */
  reset(actor: number): void {
    const { cx, cy, facing, plan } = this.actors.all[actor]!;
    this.numbers.fill(0, actor * ACTOR_NUMBERS, (actor + 1) * ACTOR_NUMBERS);
    this.numbers[actor * ACTOR_NUMBERS + FRAMES_LEFT] = plan[0]!.frames;
    this.place(actor, cx, cy, facing);
  }

  /** Puts an actor on a cell of its room. */
  place(actor: number, cx: number, cy: number, facing: number): void {
    const at = actor * ACTOR_NUMBERS;
    this.numbers[at + AT_X] = cx * this.tileUnits;
    this.numbers[at + AT_Y] = cy * this.tileUnits;
    this.numbers[at + FACING] = facing;
  }

  /** Puts the actors of some room, or of all (-1), back that keep no longer than that: a number in `KEEPS`. */
  resetKept(keeps: number, room = -1): void {
    const { all } = this.actors;
    for (let i = 0; i < all.length; i++)
      if (all[i]!.keeps === keeps && (room < 0 || all[i]!.room === room)) this.reset(i);
  }

  /** Nobody counts as met: the walker leaves the room. */
  letGo(): void {
    this.met.fill(0);
  }

  copyFrom(other: ActorMemory): void {
    this.numbers.set(other.numbers);
    this.met.set(other.met);
  }
}
