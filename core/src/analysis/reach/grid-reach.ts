import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import type { ReachAnswer, Way } from "./answer.ts";
import { HERE, NEVER, UNDECIDED } from "./answer.ts";
import { GridSearch } from "./grid-search.ts";
import { LookBack } from "./lost-for-good.ts";
import type { Searched } from "./reach.ts";
import { columnOf, roomOf, rowOf } from "./state-layout.ts";

/** What can be reached under rules that keep to the grid: every play there is, as far as the limit allows. */
export class GridReach implements Searched {
  private readonly search: GridSearch;
  /** By room and cell the nearest state there; -1 where there is none. */
  private readonly firstState: readonly Int32Array[];

  constructor(c: Compiled, start: SimState, limit: number) {
    this.search = new GridSearch(c, start, limit);
    this.firstState = c.rooms.map(({ width, height }) => new Int32Array(width * height).fill(-1));
  }

  get states(): number {
    return this.search.states;
  }

  run(states: number): boolean {
    return this.search.run(states);
  }

  wayToCell(room: number, cell: number): Way | null {
    const state = this.firstState[room]![cell]!;
    return state < 0 ? null : this.wayToState(state);
  }

  wayToFixture(fixture: number): Way | null {
    if (this.search.start.memory.open[fixture] === 1) return HERE;
    const origin = this.search.origins[fixture];
    return origin ? this.wayTo([...this.search.actionsTo(origin.state), origin.action]) : null;
  }

  wayToGoal(): Way | null {
    const { goal } = this.search;
    return goal === null ? null : this.wayTo([...this.search.actionsTo(goal.state), goal.action]);
  }

  conclude(): ReachAnswer {
    const { search } = this;
    const { c } = search;
    const unknown = search.complete ? NEVER : UNDECIDED;
    const movesOf = (origin: { readonly state: number } | null): number =>
      origin === null ? unknown : search.moves[origin.state]! + 1;
    const fixtures = Int32Array.from(search.origins, movesOf);
    for (const door of c.fixtures.doors) if (search.start.memory.open[door] === 1) fixtures[door] = 0;
    const back = search.complete ? new LookBack(search) : null;
    return {
      gait: c.rules.gait,
      unit: "moves",
      exhaustive: search.complete,
      shortest: search.complete,
      states: search.states,
      first: this.firstMoves(unknown),
      fixtures,
      losable:
        back &&
        back
          .losable()
          .map(({ fixture, state }) => ({ fixture: c.fixtures.all[fixture]!.id, ...this.wayToState(state) })),
      alignment: { verdict: "proved", way: null },
      goal: c.world.goal === null ? null : movesOf(search.goal),
      stuck: c.world.goal === null ? null : this.stuck(back),
      unconfirmed: [],
    };
  }

  private stuck(back: LookBack | null): ReachAnswer["stuck"] {
    // Where nobody can win at all, nobody is called stuck.
    if (back === null || this.search.goal === null) return { states: 0, classes: [] };
    const { states, classes } = back.stuck();
    return { states, classes: classes.map(({ state, ...named }) => ({ ...named, ...this.wayToState(state) })) };
  }

  /** By room and cell the moves to the nearest state there. */
  private firstMoves(unknown: number): Int32Array[] {
    const { search } = this;
    const { c } = search;
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
    return first;
  }

  private wayToState(state: number): Way {
    return this.wayTo(this.search.actionsTo(state));
  }

  private wayTo(actions: readonly number[]): Way {
    return this.search.wayOf(actions);
  }
}
