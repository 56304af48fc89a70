import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import type { ReachAnswer, Way } from "./answer.ts";
import { HERE, NEVER, UNDECIDED } from "./answer.ts";
import type { Origin } from "./grid-search.ts";
import { GridSearch } from "./grid-search.ts";
import type { Played } from "./large-play.ts";
import { LargePlay } from "./large-play.ts";
import { LookBack } from "./lost-for-good.ts";
import { isLossless } from "./lossless.ts";
import { GridSuperset } from "./grid-superset.ts";
import type { Searched } from "./reach.ts";
import { columnOf, roomOf, rowOf } from "./state-layout.ts";

/** From so many states on a world is also played as a large one; sooner where as many things as this are asked for. */
const LARGE = 60_000;
const LARGE_SOON = 4_000;
const MANY_THINGS = 20;

/** What can be reached under rules that keep to the grid: every play there is, as far as the limit allows. */
export class GridReach implements Searched {
  private readonly search: GridSearch;
  /** What was played where not all could be looked at. */
  private large: { readonly play: LargePlay; readonly superset: GridSuperset } | null = null;
  /** By room and cell the nearest state there; -1 where there is none. */
  private readonly firstState: readonly Int32Array[];

  private readonly largeFrom: number;

  constructor(c: Compiled, start: SimState, limit: number) {
    this.search = new GridSearch(c, start, limit);
    this.largeFrom = this.search.layout.askedFixtures.length > MANY_THINGS ? LARGE_SOON : LARGE;
    this.firstState = c.rooms.map(({ width, height }) => new Int32Array(width * height).fill(-1));
  }

  get states(): number {
    return this.search.states;
  }

  run(states: number): boolean {
    const { search } = this;
    const more = search.run(states);
    if (search.complete) return false;
    if (this.large === null && (!more || search.states >= this.largeFrom)) {
      this.large = { play: new LargePlay(search.c, search.start), superset: new GridSuperset(search.c, search.start) };
      // Nothing would be gained by looking at all states but that each way is the shortest.
      if (this.isDecided()) return false;
    }
    return more;
  }

  wayToCell(room: number, cell: number): Way | null {
    const state = this.firstState[room]![cell]!;
    if (state >= 0) return this.wayToState(state);
    return this.played(this.large?.play.toCell(room, cell));
  }

  wayToFixture(fixture: number): Way | null {
    if (this.search.start.memory.open[fixture] === 1) return HERE;
    const origin = this.search.origins[fixture];
    if (origin) return this.wayTo([...this.search.actionsTo(origin.state), origin.action]);
    return this.played(this.large?.play.fixtures[fixture]);
  }

  wayToGoal(): Way | null {
    const { goal } = this.search;
    if (goal !== null) return this.wayTo([...this.search.actionsTo(goal.state), goal.action]);
    return this.played(this.large?.play.goal);
  }

  conclude(): ReachAnswer {
    const { search } = this;
    const { c } = search;
    const large = search.complete ? null : this.large;
    const first = this.firstMoves();
    const fixtures = Int32Array.from(search.origins, (origin, i) =>
      this.known(origin, large?.play.fixtures[i], large?.superset.fixtures[i] === 1),
    );
    for (const door of c.fixtures.doors) if (search.start.memory.open[door] === 1) fixtures[door] = 0;
    const back = search.complete ? new LookBack(search) : null;
    const goal =
      c.world.goal === null ? null : this.known(search.goal, large?.play.goal, large?.superset.goal === true);
    const open = goal === UNDECIDED || fixtures.includes(UNDECIDED) || first.some((cells) => cells.includes(UNDECIDED));
    return {
      gait: c.rules.gait,
      unit: "moves",
      exhaustive: !open,
      shortest: search.complete,
      states: search.states,
      first,
      fixtures,
      losable: back === null ? (this.isDecided() ? [] : null) : this.losable(back),
      alignment: { verdict: "proved", way: null },
      goal,
      stuck: goal === null ? null : this.stuck(back),
      unconfirmed: [],
    };
  }

  /** Whether play does all that the superset may do, in a world in which nothing can be lost. */
  private isDecided(): boolean {
    const { large, search } = this;
    if (large === null || !isLossless(search.c, large.superset)) return false;
    const { play, superset } = large;
    return (
      superset.fixtures.every(
        (may, i) => may === 0 || play.fixtures[i] !== null || search.start.memory.open[i] === 1,
      ) && superset.rests.every((cells, room) => cells.every((may, cell) => may === 0 || play.first[room]![cell]! >= 0))
    );
  }

  /** The moves to something: by the search, by play, or else never or open. */
  private known(origin: Origin | null, played: Played | null | undefined, may: boolean): number {
    if (origin !== null) return this.search.moves[origin.state]! + 1;
    if (this.search.complete || this.large === null) return NEVER;
    if (played) return this.large.play.actionsOf(played).length;
    return may ? UNDECIDED : NEVER;
  }

  private played(played: Played | null | undefined): Way | null {
    return played ? this.wayTo(this.large!.play.actionsOf(played)) : null;
  }

  private losable(back: LookBack): ReachAnswer["losable"] {
    const { all } = this.search.c.fixtures;
    return back.losable().map(({ fixture, state }) => ({ fixture: all[fixture]!.id, ...this.wayToState(state) }));
  }

  private stuck(back: LookBack | null): ReachAnswer["stuck"] {
    // Where nobody can win at all, nobody is called stuck.
    if (back === null || this.search.goal === null) return { states: 0, classes: [] };
    const { states, classes } = back.stuck();
    return { states, classes: classes.map(({ state, ...named }) => ({ ...named, ...this.wayToState(state) })) };
  }

  /** By room and cell the moves to the nearest state there. */
  private firstMoves(): Int32Array[] {
    const { search } = this;
    const large = search.complete ? null : this.large;
    const { c } = search;
    const first = c.rooms.map(({ width, height }, room) => {
      const cells = new Int32Array(width * height).fill(NEVER);
      if (large === null) return cells;
      return cells.map((_, cell) => {
        const n = large.play.first[room]![cell]!;
        return n >= 0 ? n : large.superset.rests[room]![cell] === 1 ? UNDECIDED : NEVER;
      });
    });
    for (let state = 0; state < search.states; state++) {
      const position = search.places.words[search.placeOf[state]!]!;
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
