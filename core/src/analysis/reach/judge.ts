import type { ReachCheck, ReachRuling } from "../../checks/reach-check.ts";
import { parseReachCheck } from "../../checks/reach-check.ts";
import type { World } from "../../world/world.ts";
import { allFixtures } from "../../world/queries.ts";
import type { ReachAnswer, Way } from "./answer.ts";
import { NEVER, UNDECIDED } from "./answer.ts";
import { Reach } from "./reach.ts";

/** What a reach check comes to, with what shows it (formats.md section 1). */
export interface ReachVerdict extends ReachRuling {
  /** The play that shows that it fails, where one does. */
  readonly way: Way | null;
}

/**
 * The world's reach checks under its active rules, from its start; none where it has none.
 * @param limit the most states that are looked at
 */
export function judgeReach(world: World, limit?: number): ReachVerdict[] {
  if (world.reachChecks.length === 0) return [];
  const reach = new Reach(world, limit === undefined ? {} : { limit });
  return judgeChecks(world, reach, world.reachChecks);
}

/** Judges reach checks by what a search came to. */
export function judgeChecks(world: World, reach: Reach, checks: readonly string[]): ReachVerdict[] {
  const judge = new Judge(world, reach);
  return checks.map((text) => {
    const check = parseReachCheck(text);
    const ruling = check === null ? fail("this is no reach check") : judge.of(check);
    return {
      check: text
        .split(" ")
        .filter((word) => word !== "")
        .join(" "),
      ...ruling,
    };
  });
}

type Ruling = Omit<ReachVerdict, "check">;

const PASS: Ruling = { verdict: "pass", seen: null, way: null };
const fail = (seen: string, way: Way | null = null): Ruling => ({ verdict: "fail", seen, way });
const open = (seen: string): Ruling => ({ verdict: "open", seen, way: null });

class Judge {
  private readonly answer: ReachAnswer;

  constructor(
    private readonly world: World,
    private readonly reach: Reach,
  ) {
    this.answer = reach.answer();
  }

  of(check: ReachCheck): Ruling {
    switch (check.kind) {
      case "fixture": {
        const number = allFixtures(this.world).findIndex(({ id }) => id === check.fixture);
        if (number < 0) return fail(`there is no fixture ${check.fixture}`);
        const n = this.answer.fixtures[number]!;
        return this.reached(check.fixture, n, check.reachable, () => this.reach.wayToFixture(number));
      }
      case "cell":
        return this.cell(check);
      case "all":
        return this.all(check.item);
      case "never lost":
        return this.neverLost(check.item);
      case "winnable":
        if (this.answer.goal === null) return fail("this world has no goal");
        return this.reached("the goal", this.answer.goal, true, () => null);
      case "never stuck":
        return this.neverStuck();
      case "aligned": {
        const { verdict, way } = this.answer.alignment;
        if (verdict === "proved") return PASS;
        return verdict === "broken"
          ? fail(`rests off the grid after ${this.moves(way!.moves)}`, way)
          : open("no play that rests off the grid is known, and none is ruled out");
      }
    }
  }

  private moves(n: number): string {
    return `${n} ${n === 1 ? this.answer.unit.slice(0, -1) : this.answer.unit}`;
  }

  private reached(what: string, n: number, wanted: boolean, way: () => Way | null): Ruling {
    if (n === UNDECIDED) return open(`no way to ${what} is known, and none is ruled out`);
    if (wanted) return n === NEVER ? fail(`${what} is never reached`) : PASS;
    return n === NEVER ? PASS : fail(`${what} is reached after ${this.moves(n)}`, way());
  }

  private cell({ room: id, cell: [x, y], reachable }: ReachCheck & { readonly kind: "cell" }): Ruling {
    const room = this.world.rooms.findIndex((each) => each.id === id);
    const there = this.world.rooms[room];
    if (there === undefined) return fail(`there is no room ${id}`);
    if (x >= there.width || y >= there.height) return fail(`${id} has no cell ${x} ${y}`);
    const cell = y * there.width + x;
    const n = this.answer.first[room]![cell]!;
    return this.reached(`cell ${x} ${y} in ${id}`, n, reachable, () => this.reach.wayToCell(room, cell));
  }

  private all(item: string): Ruling {
    const giving = allFixtures(this.world).flatMap((fixture, i) =>
      fixture.kind === "item" && fixture.give === item ? [{ id: fixture.id, n: this.answer.fixtures[i]! }] : [],
    );
    if (giving.length === 0) return fail(`no fixture gives ${item}`);
    const never = giving.filter(({ n }) => n === NEVER);
    if (never.length > 0) return fail(`never reached: ${never.map(({ id }) => id).join(", ")}`);
    const unknown = giving.filter(({ n }) => n === UNDECIDED);
    return unknown.length > 0 ? open(`not known of ${unknown.map(({ id }) => id).join(", ")}`) : PASS;
  }

  private neverLost(item: string): Ruling {
    const { losable } = this.answer;
    const fixtures = allFixtures(this.world).filter((each) => each.kind === "item" && each.give === item);
    if (fixtures.length === 0) return fail(`no fixture gives ${item}`);
    if (losable === null) return open("not all play was looked at");
    const lost = losable.find(({ fixture }) => fixtures.some(({ id }) => id === fixture));
    return lost === undefined
      ? PASS
      : fail(`${lost.fixture} can be lost for good after ${this.moves(lost.moves)}`, lost);
  }

  private neverStuck(): Ruling {
    const { goal, stuck, exhaustive } = this.answer;
    if (goal === null || stuck === null) return fail("this world has no goal");
    if (goal === NEVER) return fail("the goal is never reached");
    const [nearest] = stuck.classes;
    if (nearest !== undefined) return fail(`stuck after ${this.moves(nearest.moves)}`, nearest);
    return exhaustive && this.answer.losable !== null ? PASS : open("not all play was looked at");
  }
}
