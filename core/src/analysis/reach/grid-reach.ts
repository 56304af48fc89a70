import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import { WON } from "../../world/vocabulary.ts";
import type { ReachAnswer, Way } from "./answer.ts";
import { HERE, NEVER, UNDECIDED } from "./answer.ts";
import { CarriedWays } from "./carried-ways.ts";
import { isDoing } from "./doings.ts";
import type { Origin } from "./grid-search.ts";
import { GridSearch } from "./grid-search.ts";
import type { Played } from "./large-play.ts";
import { LargePlay, movesOf } from "./large-play.ts";
import { LookBack } from "./lost-for-good.ts";
import { isLossless } from "./lossless.ts";
import { GridSuperset } from "./grid-superset.ts";
import { roomOf } from "./state-layout.ts";
import { NearestStates } from "./nearest-states.ts";
import type { Unseen } from "./unseen-frames.ts";
import { unseenFrames } from "./unseen-frames.ts";
import type { Searched } from "./reach.ts";

/** From so many states on a world is also played as a large one; sooner where as many things as this are asked for. */
const LARGE = 60_000;
const LARGE_SOON = 4_000;
const MANY_THINGS = 20;

/** So many frames are played to confirm claims; what is left then is open. */
const MOST_TRIED = 20_000_000;

/** What can be reached under rules that keep to the grid: every play there is, as far as the limit allows. */
export class GridReach implements Searched {
  private readonly search: GridSearch;
  /** What was played where not all could be looked at. */
  private large: { readonly play: LargePlay; readonly superset: GridSuperset } | null = null;
  private nearest: NearestStates | null = null;
  private readonly largeFrom: number;

  /** Plays ways under the true rules, where the search leaves out what is carried. */
  private readonly carried: CarriedWays | null;
  /** What bounds all play, where the search does not see each frame that there can be; null where it does. */
  private readonly unseen: Unseen | null;
  /** The rules as they are. */
  private readonly rules: Compiled;
  /** Claims that no log of ours arrives at. */
  private readonly unconfirmed: string[] = [];

  /** @param played the rules with what is carried from leg to leg, and the start under them, where it matters */
  constructor(
    c: Compiled,
    start: SimState,
    limit: number,
    played: { readonly c: Compiled; readonly start: SimState } | null = null,
  ) {
    this.rules = played?.c ?? c;
    this.unseen = unseenFrames(this.rules, start);
    this.carried = played && new CarriedWays(played.c, played.start);
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
      this.large = {
        play: new LargePlay(search.c, search.start),
        superset: new GridSuperset(this.rules, search.start),
      };
      // Nothing would be gained by looking at all states but that each way is the shortest.
      if (this.isDecided()) return false;
    }
    return more;
  }

  get complete(): boolean {
    return this.search.complete;
  }

  wayInto(fits: (room: number) => boolean): Way | null {
    const { places, roomsMet } = this.search;
    if (!roomsMet.some((met, room) => met === 1 && fits(room))) return null;
    const nearest = new NearestStates(this.search);
    let [best, found] = [Infinity, -1];
    for (let place = 0; place < places.cells; place++) {
      const n = nearest.moves[place]!;
      if (n >= 0 && n < best && fits(roomOf(places.words[place]!))) [best, found] = [n, place];
    }
    return found < 0 ? null : this.toPlace(nearest.actionsTo(found), found);
  }

  wayToCell(room: number, cell: number): Way | null {
    const { nearest, search } = this;
    const place = search.places.firstOf[room]! + cell;
    if (nearest !== null && nearest.moves[place]! >= 0) return this.toPlace(nearest.actionsTo(place), place);
    const played = this.large?.play.toCell(room, cell);
    return played ? this.toPlace(this.large!.play.actionsOf(played), place) : null;
  }

  wayToFixture(fixture: number): Way | null {
    if (this.search.start.memory.open[fixture] === 1) return HERE;
    const origin = this.search.origins[fixture];
    if (origin) return this.doing(this.actionsOf(origin), (s) => does(s, fixture));
    return this.played(this.large?.play.fixtures[fixture], (s) => does(s, fixture));
  }

  wayToGoal(): Way | null {
    const { goal } = this.search;
    if (goal !== null) return this.doing(this.actionsOf(goal), hasWon);
    return this.played(this.large?.play.goal, hasWon);
  }

  conclude(): ReachAnswer {
    const { search } = this;
    const { c } = search;
    const large = search.complete ? null : this.large;
    // Where all was looked at, nothing else may be so, unless there are frames that the search does not see.
    const bound = large?.superset ?? this.unseen?.bound ?? null;
    const first = this.firstMoves(bound);
    const fixtures = Int32Array.from(search.origins, (origin, i) =>
      this.confirmed(this.known(origin, large?.play.fixtures[i], bound?.fixtures[i] === 1), c.fixtures.all[i]!.id, () =>
        this.wayToFixture(i),
      ),
    );
    for (const door of c.fixtures.doors) if (search.start.memory.open[door] === 1) fixtures[door] = 0;
    const back = search.complete && this.unseen?.rests !== true ? new LookBack(search) : null;
    const goal =
      c.world.goal === null
        ? null
        : this.confirmed(this.known(search.goal, large?.play.goal, bound?.goal === true), "the goal", () =>
            this.wayToGoal(),
          );
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
      unconfirmed: this.unconfirmed,
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
    if (played) return movesOf(played);
    return may ? UNDECIDED : NEVER;
  }

  private played(played: Played | null | undefined, did: (s: SimState) => boolean): Way | null {
    return played ? this.doing(this.large!.play.actionsOf(played), did) : null;
  }

  /** The way of some actions in one of whose frames something happens; null where no log of ours does it. */
  private doing(actions: readonly number[], did: (s: SimState) => boolean): Way | null {
    if (this.carried === null) return this.search.wayOf(actions);
    let done = false;
    const way = this.carried.play(actions, (s) => (done ||= did(s)));
    return done ? way : null;
  }

  /** The way of some actions to a place, with a memory where that is named; null where no log of ours arrives. */
  private toPlace(actions: readonly number[], place: number, memory: number | null = null): Way | null {
    const { carried, search } = this;
    if (carried === null) return search.wayOf(actions);
    const way = carried.play(actions, () => undefined);
    return way !== null && search.isAt(carried.s, place, memory) ? way : null;
  }

  /** A claim's number, or that it is open where no log of ours shows it. */
  private confirmed(n: number, what: string, way: () => Way | null): number {
    if (this.carried === null || n < 0) return n;
    if (this.carried.frames < MOST_TRIED && way() !== null) return n;
    this.unconfirmed.push(what);
    return UNDECIDED;
  }

  private losable(back: LookBack): ReachAnswer["losable"] {
    const { all } = this.search.c.fixtures;
    return back.losable().flatMap(({ fixture, node }) => {
      const way = this.wayToNode(node);
      if (way !== null) return [{ fixture: all[fixture]!.id, ...way }];
      this.unconfirmed.push(`${all[fixture]!.id} is lost for good`);
      return [];
    });
  }

  private stuck(back: LookBack | null): ReachAnswer["stuck"] {
    // Where nobody can win at all, nobody is called stuck.
    if (back === null || this.search.goal === null) return { states: 0, classes: [] };
    const { states, classes } = back.stuck();
    return {
      states,
      classes: classes.flatMap(({ node, ...named }) => {
        const way = this.wayToNode(node);
        if (way !== null) return [{ ...named, ...way }];
        this.unconfirmed.push(`stuck with ${[...named.taken, ...named.open, ...named.on].join(", ") || "nothing"}`);
        return [];
      }),
    };
  }

  /** By room and cell the moves to the nearest state there. */
  private firstMoves(bound: GridSuperset | null): Int32Array[] {
    const { search } = this;
    const large = search.complete ? null : this.large;
    const { c } = search;
    const nearest = (this.nearest = new NearestStates(search));
    return c.rooms.map(({ width, height }, room) => {
      const cells = new Int32Array(width * height);
      const first = search.places.firstOf[room]!;
      for (let cell = 0; cell < cells.length; cell++) {
        const met = nearest.moves[first + cell]!;
        const n = met >= 0 || large === null ? met : large.play.first[room]![cell]!;
        if (n < 0) cells[cell] = bound?.rests[room]![cell] === 1 ? UNDECIDED : NEVER;
        else if (this.carried === null) cells[cell] = n;
        else
          cells[cell] = this.confirmed(n, `${c.rooms[room]!.id} ${cell % width},${Math.floor(cell / width)}`, () =>
            this.wayToCell(room, cell),
          );
      }
      return cells;
    });
  }

  /** The way to the nearest state of a node. */
  private wayToNode(node: number): Way | null {
    const { nodes } = this.search;
    const actions = this.search.actionsBy(nodes.parents[node]!, nodes.actions[node]!);
    return this.toPlace(actions, nodes.nearestPlace[node]!, nodes.memoryOf[node]);
  }

  private actionsOf({ point, action }: Origin): number[] {
    return this.search.actionsBy(point, action);
  }
}

const hasWon = (s: SimState): boolean => s.status === WON;

/** Whether a frame did what a fixture is there for. */
function does(s: SimState, fixture: number): boolean {
  for (let i = 0; i < s.eventCount; i++) if (s.eventSubjects[i] === fixture && isDoing(s.eventKinds[i]!)) return true;
  return false;
}
