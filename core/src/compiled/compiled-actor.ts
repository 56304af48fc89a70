import { LIMITS } from "../world/limits.ts";

/** What a phase does, by number in `PHASE_DOES`. */
export const STAND = 0;
export const PATH = 1;
export const WANDER = 2;
export const TOWARD = 3;
export const AWAY = 4;

/** How a path goes on after its last cell, by number in `PATH_THEN`. */
export const ROUND = 0;
export const STOP = 1;
export const BACK = 2;

/** Places for the phases of each actor in `does`. */
export const MOST_PHASES = LIMITS.phases[1];

/** A phase as the simulation reads it. */
export interface CompiledPhase {
  readonly does: number;
  /** -1: for ever. */
  readonly frames: number;
  readonly then: number;
  /** Column and row of each cell of a path. */
  readonly cells: Int32Array;
}

/** An actor as the simulation reads it; lengths in units. */
export interface CompiledActor {
  readonly id: string;
  /** Among the actors of all rooms, in file order. */
  readonly number: number;
  readonly room: number;
  /** Its first state. */
  readonly cx: number;
  readonly cy: number;
  readonly facing: number;
  readonly speed: number;
  /** By cell of its room 1 where it is shut to it always: by a tile's flag, or by a door to one whom each shuts out. */
  readonly shut: Uint8Array;
  readonly closedDoorsShut: boolean;
  /** It takes back its last leg only where there is no other way. */
  readonly turnsBackLast: boolean;
  readonly hurts: boolean;
  /** Its body, counted from its place. */
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly keeps: number;
  readonly plan: readonly CompiledPhase[];
}

/** All actors of a world, in file order. */
export interface CompiledActors {
  readonly all: readonly CompiledActor[];
  /** By room the number of its first actor; at its end how many there are. Those of a room follow each other. */
  readonly firstOfRoom: Int32Array;
  /**
   * What each frame asks of each actor, side by side for speed: its speed; its body's left, top, width and height; and by
   * `MOST_PHASES` times its number plus the phase what it does in that.
   */
  readonly speeds: Int32Array;
  readonly bodies: Int32Array;
  readonly does: Uint8Array;
}
