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
import { NearestStates } from "./nearest-states.ts";
import type { Searched } from "./reach.ts";

/** From so many states on a world is also played as a large one; sooner where as many things as this are asked for. */
const LARGE = 60_000;
const LARGE_SOON = 4_000;
const MANY_THINGS = 20;

/** What can be reached under rules that keep to the grid: every play there is, as far as the limit allows. */
export class GridReach implements Searched {
  private readonly search: GridSearch;
  /** What was played where not all could be looked at. */
  private large: { readonly play: LargePlay; readonly superset: GridSuperset } | null = null;
  private nearest: NearestStates | null = null;
  private readonly largeFrom: number;

  constructor(c: Compiled, start: SimState, limit: number) {
    this.search = new GridSearch(c, start, limit);
    this.largeFrom = this.search.layout.askedFixtures.length > MANY_THINGS ? LARGE_SOON : LARGE;
  }

  get states(): number {
    return this.search.states;
  }

  run(points: number): boolean {
    const { search } = this;
    const more = search.run(points);
    if (search.complete) return false;
    if (this.large === null && (!more || search.points.count >= this.largeFrom)) {
      this.large = { play: new LargePlay(search.c, search.start), superset: new GridSuperset(search.c, search.start) };
      // Nothing would be gained by looking at all states but that each way is the shortest.
      if (this.isDecided()) return false;
    }
    return more;
  }

  wayToCell(room: number, cell: number): Way | null {
    const { nearest, search } = this;
    const place = search.places.firstOf[room]! + cell;
    if (nearest !== null && nearest.moves[place]! >= 0) return search.wayOf(nearest.actionsTo(place));
    return this.played(this.large?.play.toCell(room, cell));
  }

  wayToFixture(fixture: number): Way | null {
    if (this.search.start.memory.open[fixture] === 1) return HERE;
    const origin = this.search.origins[fixture];
    if (origin) return this.wayBy(origin);
    return this.played(this.large?.play.fixtures[fixture]);
  }

  wayToGoal(): Way | null {
    const { goal } = this.search;
    if (goal !== null) return this.wayBy(goal);
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
    if (origin !== null) return this.search.points.moves[origin.point]! + 1;
    if (this.search.complete || this.large === null) return NEVER;
    if (played) return this.large.play.actionsOf(played).length;
    return may ? UNDECIDED : NEVER;
  }

  private played(played: Played | null | undefined): Way | null {
    return played ? this.search.wayOf(this.large!.play.actionsOf(played)) : null;
  }

  private losable(back: LookBack): ReachAnswer["losable"] {
    const { all } = this.search.c.fixtures;
    return back.losable().map(({ fixture, node }) => ({ fixture: all[fixture]!.id, ...this.wayToNode(node) }));
  }

  private stuck(back: LookBack | null): ReachAnswer["stuck"] {
    // Where nobody can win at all, nobody is called stuck.
    if (back === null || this.search.goal === null) return { states: 0, classes: [] };
    const { states, classes } = back.stuck();
    return { states, classes: classes.map(({ node, ...named }) => ({ ...named, ...this.wayToNode(node) })) };
  }

  /** By room and cell the moves to the nearest state there. */
  private firstMoves(): Int32Array[] {
    const { search } = this;
    const large = search.complete ? null : this.large;
    const { c } = search;
    const nearest = (this.nearest = new NearestStates(search));
    return c.rooms.map(({ width, height }, room) => {
      const cells = new Int32Array(width * height);
      return cells.map((_, cell) => {
        const met = nearest.moves[search.places.firstOf[room]! + cell]!;
        if (met >= 0 || large === null) return met >= 0 ? met : NEVER;
        const n = large.play.first[room]![cell]!;
        return n >= 0 ? n : large.superset.rests[room]![cell] === 1 ? UNDECIDED : NEVER;
      });
    });
  }

  /** The way to the nearest state of a node. */
  private wayToNode(node: number): Way {
    const { nodes } = this.search;
    return this.search.wayOf(this.search.actionsBy(nodes.parents[node]!, nodes.actions[node]!));
  }

  private wayBy({ point, action }: Origin): Way {
    return this.search.wayOf(this.search.actionsBy(point, action));
  }
}
