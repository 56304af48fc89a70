import type { Facing } from "./facing.ts";
import type { FixtureBase } from "./fixtures.ts";
import { UNITS_PER_PX } from "../base/units.ts";
import { px } from "./setting.ts";
import type { Setting } from "./settings.ts";
import type { Box, Figure, Look, Pair, World } from "./world.ts";

/** A setting of an actor that is a number; what else it has is a choice. In px a frame. */
export const ACTOR_SPEED: Setting = { ...px("Speed", "motion", 1, 1), path: "actor.speed" };

/** What its speed may be in a world of that tile size, in px a frame. */
export const actorSpeedRange = (tileSize: number) => ({ min: 1 / UNITS_PER_PX, max: tileSize, whole: false });

/** Whose doors are shut to an actor: closed ones, none, or every one. */
export const ACTOR_DOORS = ["open", "all", "none"] as const;
/** Whether an actor may take back its last leg: whenever it likes, or only where there is no other way. */
export const TURNS_BACK = ["freely", "last"] as const;
/** What an actor does to whom it meets. */
export const ACTOR_TOUCHES = ["none", "hurt"] as const;
/** What an actor does in a phase. */
export const PHASE_DOES = ["stand", "path", "wander", "toward", "away"] as const;
/** What each of them is called. */
export const PHASE_SAYS: Readonly<Record<(typeof PHASE_DOES)[number], string>> = {
  stand: "stands",
  path: "walks a path",
  wander: "wanders",
  toward: "comes nearer",
  away: "goes away",
};
/** How a path goes on after its last cell. */
export const PATH_THEN = ["round", "stop", "back"] as const;

/** One phase of an actor's plan (semantics.md section 9). `frames` null: for ever. */
export type Phase = { readonly frames: number | null } & (
  | { readonly do: Exclude<(typeof PHASE_DOES)[number], "path"> }
  | { readonly do: "path"; readonly then: (typeof PATH_THEN)[number]; readonly cells: readonly Pair[] }
);

/** An actor with everything at its default, which stands for ever. */
export function newActor(id: string, cell: Pair, { flags, tileSize }: Pick<World, "flags" | "tileSize">): Actor {
  return {
    id,
    cell,
    facing: "down",
    speed: 1,
    blockedBy: flags.includes("solid") ? ["solid"] : flags.slice(0, 1),
    doors: "open",
    turnsBack: "freely",
    touch: "none",
    body: [0, 0, tileSize, tileSize],
    keeps: "run",
    plan: [{ frames: null, do: "stand" }],
  };
}

/** What moves by itself, from cell to cell, in one room (semantics.md section 9). */
export interface Actor {
  /** Unique among fixtures and actors. */
  readonly id: string;
  readonly name?: string;
  readonly cell: Pair;
  readonly facing: Facing;
  /** In px a frame, at most a tile's size. */
  readonly speed: number;
  readonly blockedBy: readonly string[];
  readonly doors: (typeof ACTOR_DOORS)[number];
  readonly turnsBack: (typeof TURNS_BACK)[number];
  readonly touch: (typeof ACTOR_TOUCHES)[number];
  /** In its frame-square. */
  readonly body: Box;
  readonly keeps: FixtureBase["keeps"];
  readonly plan: readonly Phase[];
  readonly look?: Look | Figure;
}
