import type { CompiledActors } from "./compiled-actor.ts";
import type { CompiledFixtures } from "./compiled-fixture.ts";
import type { CompiledBody } from "../ground/body.ts";
import type { CompiledRoom } from "../ground/compiled-room.ts";
import type { Ground } from "../ground/ground.ts";
import type { SimState } from "./state.ts";
import type { Account } from "./account.ts";
import type { GlideSettings } from "../world/gaits/glide.ts";
import type { ResponseName } from "../world/responses.ts";
import type { Rules, World } from "../world/world.ts";

/** A world under one rule set, made ready for `step`: numbers and typed arrays only where a frame looks. */
export interface Compiled {
  /** What blocks with every door open: each run has its own, with its doors. */
  readonly ground: Ground;
  readonly tileUnits: number;
  readonly rooms: readonly CompiledRoom[];
  readonly body: CompiledBody;
  readonly fixtures: CompiledFixtures;
  readonly hasFixtures: boolean;
  /** What moves by itself; null where nothing does, or where actors are left out (semantics.md section 10). */
  readonly actors: CompiledActors | null;
  readonly countsLives: boolean;
  /** The marker that is the goal, or -1; and the item to be collected, or -1. */
  readonly goalFixture: number;
  readonly goalItem: number;
  readonly world: World;
  readonly rules: Rules;
  /** The gait in use keeps to the grid; a tap counts for its frame. */
  readonly onGrid: boolean;
  readonly tapCounts: boolean;
  /** `walker.crossesAt: "whole"`. */
  readonly crossesWhole: boolean;
  /** One frame's movement under the gait in use. */
  readonly move: (c: Compiled, s: SimState, account: Account | null) => void;
  /** The settings of `glide`, its speed in units. */
  readonly glide: GlideSettings;
  /** The settings of `roam` or `drift`, whichever is in use, in units. */
  readonly free: {
    readonly speedX: number;
    readonly speedY: number;
    readonly accel: number;
    readonly drag: number;
    readonly maxSpeed: number;
    readonly evenDiagonal: boolean;
    readonly response: ResponseName;
    /** Moves by a displacement under that response. */
    readonly respond: (c: Compiled, s: SimState, dx: number, dy: number, account: Account | null) => void;
    readonly xFirst: boolean;
    readonly aheadUnits: number;
    readonly nudgePx: number;
    /** `slopes: "slide"`. */
    readonly slide: boolean;
  };
  /** `pose.every` in what the counter counts: units or frames. */
  readonly poseEvery: number;
  /** What the counter counts in one round of all images. */
  readonly poseRound: number;
  /** Number of `facing.rest`. */
  readonly restFacing: number;
}
