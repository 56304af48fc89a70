import type { Compiled } from "../../compiled/compiled.ts";
import { SimState } from "../../compiled/state.ts";
import { compile } from "../../simulation/compile.ts";
import type { RunStart } from "../../simulation/run-start.ts";
import { startState } from "../../simulation/start-state.ts";
import type { World } from "../../world/world.ts";
import type { ReachAnswer, Way } from "./answer.ts";
import { FreeReach } from "./free-reach.ts";
import { GridReach } from "./grid-reach.ts";

/** What is asked: from where, under which rules, and how much may be looked at. */
export interface ReachQuestion {
  /** The active rules where it is left out. */
  readonly rules?: string;
  /** The world's own start where it is left out. */
  readonly from?: RunStart;
  /** The most states that are looked at one by one: of a region with the same memory only its exits are. */
  readonly limit?: number;
}

/** So many are looked at where nothing else is said. */
export const STATE_LIMIT = 1_000_000;
/** And where the walker leaves the grid: each of them is played. */
const FREE_LIMIT = 30_000;

/** A search that can be asked for its answer and its ways once it is done. */
export interface Searched {
  readonly states: number;
  /** Looks at some more states; false once it is done. */
  readonly run: (states: number) => boolean;
  readonly conclude: () => ReachAnswer;
  /** Whether all play was looked at. */
  readonly complete: boolean;
  /** The nearest way into one of some rooms that was met so far; null for none. */
  readonly wayInto: (fits: (room: number) => boolean) => Way | null;
  readonly wayToCell: (room: number, cell: number) => Way | null;
  readonly wayToFixture: (fixture: number) => Way | null;
  readonly wayToGoal: () => Way | null;
}

/** A question about what can be reached, answered bit by bit: `work` until it says that it is done. */
export class Reach {
  private readonly search: Searched;
  private readonly atOnce: number;
  private made: ReachAnswer | null = null;

  /** @throws {CoreError} where the world has no such rules or no such start */
  constructor(world: World, { rules = world.activeRules, from, limit = STATE_LIMIT }: ReachQuestion = {}) {
    // What moves by itself is left out: it depends on when one comes.
    const c: Compiled = { ...compile(world, rules), actors: null };
    this.search = searchFrom(c, startState(c, from?.start ?? undefined, from?.with), limit);
    this.atOnce = keepsToGrid(c) ? 4_000 : 200;
  }

  /** States that were met so far. */
  get states(): number {
    return this.search.states;
  }

  /** Looks at some more states; true once the answer is there. */
  work(): boolean {
    if (this.made !== null) return true;
    if (this.search.run(this.atOnce)) return false;
    this.made = this.search.conclude();
    return true;
  }

  /** The answer, worked out to its end. */
  answer(): ReachAnswer {
    while (!this.work());
    return this.made!;
  }

  /** The nearest known way onto a cell; null where none is known. */
  wayToCell(room: number, cell: number): Way | null {
    return this.search.wayToCell(room, cell);
  }

  /** The nearest known way to what a fixture does; null where none is known. */
  wayToFixture(fixture: number): Way | null {
    return this.search.wayToFixture(fixture);
  }

  /** The nearest known way to the goal; null where none is known. */
  wayToGoal(): Way | null {
    return this.search.wayToGoal();
  }
}

/** The search of all play from a state. */
export function searchFrom(c: Compiled, s: SimState, limit: number): Searched {
  if (!keepsToGrid(c)) return new FreeReach(c, s, Math.min(limit, FREE_LIMIT));
  const { gait, glide, id } = c.rules;
  if (gait !== "glide" || !glide.keepGoing || !glide.carry) return new GridReach(c, s, limit);
  const plain = compile(withoutCarry(c.world, id), id);
  const start = new SimState(plain);
  start.copyFrom(s);
  return new GridReach(plain, start, limit, { c, start: s });
}

/** Whether every leg ends exactly on a cell, whatever is pressed. */
function keepsToGrid({ rules, glide, tileUnits }: Compiled): boolean {
  if (rules.gait === "hop") return true;
  return rules.gait === "glide" && (glide.arrive === "land" || tileUnits % glide.speed === 0);
}

/** The world with rules by which what keeps going does not carry over inside a frame. */
function withoutCarry(world: World, id: string): World {
  const rules = world.rules.map((each) =>
    each.id === id && each.glide.keepGoing ? { ...each, glide: { ...each.glide, carry: false } } : each,
  );
  return { ...world, rules };
}
