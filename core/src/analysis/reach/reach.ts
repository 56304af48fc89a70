import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import type { RunStart } from "../../simulation/run-start.ts";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import type { World } from "../../world/world.ts";
import type { ReachAnswer, Way } from "./answer.ts";
import { NEVER, UNDECIDED } from "./answer.ts";
import { GridSearch } from "./grid-search.ts";
import { LookBack } from "./lost-for-good.ts";
import { columnOf, roomOf, rowOf } from "./state-layout.ts";

/** What is asked: from where, under which rules, and how much may be looked at. */
export interface ReachQuestion {
  /** The active rules where it is left out. */
  readonly rules?: string;
  /** The world's own start where it is left out. */
  readonly from?: RunStart;
  /** The most states that are looked at. */
  readonly limit?: number;
}

/** So many states are looked at where nothing else is said. */
export const STATE_LIMIT = 1_000_000;
/** States that are looked at before one is asked whether to go on. */
const AT_ONCE = 20_000;

/** A question about what can be reached, answered bit by bit: `work` until it says that it is done. */
export class Reach {
  private readonly search: GridSearch;
  /** By room and cell the nearest state there; -1 where there is none. */
  private readonly firstState: readonly Int32Array[];
  private made: ReachAnswer | null = null;

  /** @throws {CoreError} where the world has no such rules or no such start */
  constructor(world: World, { rules = world.activeRules, from, limit = STATE_LIMIT }: ReachQuestion = {}) {
    const c = compile(withoutCarry(world, rules), rules);
    const start: SimState = startState(c, from?.start ?? undefined, from?.with);
    this.search = new GridSearch(c, start, limit);
    this.firstState = c.rooms.map(({ width, height }) => new Int32Array(width * height).fill(-1));
  }

  /** States that were met so far. */
  get states(): number {
    return this.search.states;
  }

  /** Looks at some more states; true once the answer is there. */
  work(): boolean {
    if (this.made !== null) return true;
    if (this.search.run(AT_ONCE)) return false;
    this.made = this.conclude();
    return true;
  }

  /** The answer, worked out to its end. */
  answer(): ReachAnswer {
    while (!this.work());
    return this.made!;
  }

  /** The nearest way onto a cell; null where none is known. */
  wayToCell(room: number, cell: number): Way | null {
    const state = this.firstState[room]![cell]!;
    return state < 0 ? null : this.wayTo(this.search.actionsTo(state));
  }

  /** The nearest way to what a fixture does; null where none is known. */
  wayToFixture(fixture: number): Way | null {
    const origin = this.search.origins[fixture];
    return origin ? this.wayTo([...this.search.actionsTo(origin.state), origin.action]) : null;
  }

  /** The nearest way to the goal; null where none is known. */
  wayToGoal(): Way | null {
    const { goal } = this.search;
    return goal === null ? null : this.wayTo([...this.search.actionsTo(goal.state), goal.action]);
  }

  private wayTo(actions: readonly number[]): Way {
    return { moves: actions.length, lines: this.search.lines(actions) };
  }

  private conclude(): ReachAnswer {
    const { search } = this;
    const { c } = search;
    const unknown = search.complete ? NEVER : UNDECIDED;
    const first = c.rooms.map(({ width, height }) => new Int32Array(width * height).fill(unknown));
    for (let state = 0; state < search.states; state++) {
      const position = search.table.words[state * search.layout.words]!;
      const [room, cx, cy] = [roomOf(position), columnOf(position), rowOf(position)];
      const { width, height } = c.rooms[room]!;
      if (cx < 0 || cy < 0 || cx >= width || cy >= height) continue;
      const cell = cy * width + cx;
      if (this.firstState[room]![cell]! >= 0) continue;
      this.firstState[room]![cell] = state;
      first[room]![cell] = search.moves[state]!;
    }
    const movesOf = (origin: { readonly state: number } | null): number =>
      origin === null ? unknown : search.moves[origin.state]! + 1;
    const fixtures = Int32Array.from(search.origins, movesOf);
    c.fixtures.doors.forEach((door) => {
      if (search.start.memory.open[door] === 1) fixtures[door] = 0;
    });
    const hasGoal = c.world.goal !== null;
    const back = search.complete ? new LookBack(search) : null;
    const wayToState = (state: number): Way => this.wayTo(search.actionsTo(state));
    const stuck = hasGoal && search.goal !== null && back !== null ? back.stuck() : { states: 0, classes: [] };
    return {
      gait: c.rules.gait,
      unit: "moves",
      exhaustive: search.complete,
      shortest: search.complete,
      states: search.states,
      first,
      fixtures,
      losable:
        back === null
          ? null
          : back
              .losable()
              .map(({ fixture, state }) => ({ fixture: c.fixtures.all[fixture]!.id, ...wayToState(state) })),
      alignment: { verdict: "proved", way: null },
      goal: hasGoal ? movesOf(search.goal) : null,
      stuck: hasGoal
        ? {
            states: stuck.states,
            classes: stuck.classes.map(({ state, ...named }) => ({ ...named, ...wayToState(state) })),
          }
        : null,
      unconfirmed: [],
    };
  }
}

/** The world with the rules as the search plays them: what keeps going does not carry over inside a frame. */
function withoutCarry(world: World, id: string): World {
  const rules = world.rules.map((each) =>
    each.id === id && each.glide.keepGoing ? { ...each, glide: { ...each.glide, carry: false } } : each,
  );
  return { ...world, rules };
}

/** The search as plain numbers for a compiled world; for tests that compare two ways of looking. */
export function searchGrid(c: Compiled, limit: number, asks: boolean): GridSearch {
  const search = new GridSearch(c, startState(c), limit, asks);
  while (search.run(AT_ONCE));
  return search;
}
