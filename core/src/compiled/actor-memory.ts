import type { CompiledActors } from "./compiled-actor.ts";

/** Of each actor so many numbers, and what each of them is. */
export const ACTOR_NUMBERS = 11;
export const AT_X = 0;
export const AT_Y = 1;
export const FACING = 2;
/** Direction of the leg under way, 0, 0 without one, and the units gone along it. */
export const LEG_X = 3;
export const LEG_Y = 4;
export const GONE = 5;
/** Direction of the last leg, 0 for none, else 1 to 4 for L, R, U, D. */
export const LAST = 6;
/** The phase, and the frames spent in it; 0 always where it lasts for ever. */
export const PHASE = 7;
export const SPENT = 8;
/** The place on a path and the way along it, as one number: place times 2, and 1 where the way leads back. */
export const ON_PATH = 9;
/** Choices made by chance. */
export const CHOICES = 10;

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
    const { cx, cy, facing } = this.actors.all[actor]!;
    this.numbers.fill(0, actor * ACTOR_NUMBERS, (actor + 1) * ACTOR_NUMBERS);
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
