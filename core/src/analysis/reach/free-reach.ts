import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import { occupiedX, occupiedY } from "../../ground/occupied.ts";
import type { ReachAnswer, Way } from "./answer.ts";
import { HERE, NEVER, UNDECIDED } from "./answer.ts";
import { FreeSuperset } from "./free-superset.ts";
import { FreeSearch } from "./free-search.ts";
import type { Searched } from "./reach.ts";

/** What can be reached under rules that leave the grid: what some play was found for; never what no play can reach; the rest is open. */
export class FreeReach implements Searched {
  private readonly search: FreeSearch;

  constructor(c: Compiled, start: SimState, limit: number) {
    this.search = new FreeSearch(c, start, limit);
  }

  get states(): number {
    return this.search.states;
  }

  run(states: number): boolean {
    return this.search.run(states);
  }

  /** What leaves the grid is never looked at whole. */
  readonly complete = false;

  wayInto(fits: (room: number) => boolean): Way | null {
    const seen = this.search.cells
      .flatMap((cells, room) => (fits(room) ? cells : []))
      .reduce((best, each) => (each !== null && (best === null || each.frames < best.frames) ? each : best), null);
    return seen === null ? null : this.search.way(seen);
  }

  wayToCell(room: number, cell: number): Way | null {
    const seen = this.search.cells[room]![cell];
    if (seen) return this.search.way(seen);
    return this.isStart(room, cell) ? HERE : null;
  }

  wayToFixture(fixture: number): Way | null {
    if (this.search.start.memory.open[fixture] === 1) return HERE;
    const seen = this.search.fixtures[fixture];
    return seen ? this.search.way(seen) : null;
  }

  wayToGoal(): Way | null {
    return this.search.goal === null ? null : this.search.way(this.search.goal);
  }

  conclude(): ReachAnswer {
    const { search } = this;
    const { c, start } = search;
    const superset = FreeSuperset.applies(c) ? new FreeSuperset(c, start) : null;
    const isBound = superset?.sound === true;
    const framesOf = (seen: { readonly frames: number } | null, may: boolean): number =>
      seen?.frames ?? (isBound && !may ? NEVER : UNDECIDED);
    const first = search.cells.map((cells, room) =>
      Int32Array.from(cells, (seen, cell) =>
        this.isStart(room, cell) ? 0 : framesOf(seen, superset?.comes[room]![cell] === 1),
      ),
    );
    const fixtures = Int32Array.from(search.fixtures, (seen, i) => framesOf(seen, superset?.fixtures[i] === 1));
    for (const door of c.fixtures.doors) if (start.memory.open[door] === 1) fixtures[door] = 0;
    const goal = c.world.goal === null ? null : framesOf(search.goal, superset?.goal === true);
    const open = goal === UNDECIDED || fixtures.includes(UNDECIDED) || first.some((cells) => cells.includes(UNDECIDED));
    return {
      gait: c.rules.gait,
      unit: "frames",
      exhaustive: !open,
      shortest: false,
      states: search.states,
      first,
      fixtures,
      losable: null,
      alignment: {
        verdict: search.offGrid === null ? "open" : "broken",
        way: search.offGrid && search.way(search.offGrid),
      },
      goal,
      stuck: goal === null ? null : { states: 0, classes: [] },
      unconfirmed: [],
    };
  }

  private isStart(room: number, cell: number): boolean {
    const { c, start } = this.search;
    const { width } = c.rooms[room]!;
    const t = c.tileUnits;
    return room === start.room && cell === occupiedY(t, start.y) * width + occupiedX(t, start.x);
  }
}
