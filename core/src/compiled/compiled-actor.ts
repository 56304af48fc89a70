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

/** Which doors are shut to an actor, by number in `ACTOR_DOORS`: closed ones, none, every one. */
export const CLOSED_SHUT = 0;
export const NO_DOOR_SHUT = 1;
export const DOORS_SHUT = 2;

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
  /** By tile number 1 where its flags shut a cell to it. */
  readonly shutTiles: Uint8Array;
  readonly doors: number;
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
  /** By room the numbers of its actors. */
  readonly ofRoom: readonly Int32Array[];
  /** By room and cell the tile. */
  readonly tiles: readonly Uint16Array[];
}
