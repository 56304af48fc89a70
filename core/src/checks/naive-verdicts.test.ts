import fc from "fast-check";
import { expect, it } from "vitest";
import type { SimState } from "../compiled/state.ts";
import { compile } from "../simulation/compile.ts";
import { run, stateAt } from "../replay/run.ts";
import { traceText } from "../simulation/trace.ts";
import { anyCheckOf, anyFullLogOf } from "../test-support/any-full-log.ts";
import { anyHouse } from "../test-support/any-house.ts";
import { FIXED } from "../test-support/arbitraries.ts";
import { told } from "../test-support/told.ts";
import type { World } from "../world/world.ts";
import type { Check } from "./check.ts";
import type { Condition } from "./condition.ts";

type Row = Readonly<Record<"room" | "facing" | "status" | "events", string>> &
  Readonly<Record<"frame" | "x" | "y" | "cx" | "cy" | "moving", number>>;

/** The rows of a trace as anybody reads them out of the file. */
function rowsOf(text: string): Row[] {
  const [head, ...lines] = text.trim().split("\r\n");
  const names = head!.split(",");
  return lines.map((line) => {
    const values = line.split(",");
    const of = (name: string): string => values[names.indexOf(name)]!;
    return {
      frame: Number(of("frame")),
      room: of("room"),
      x: Number(of("x")),
      y: Number(of("y")),
      cx: Number(of("cx")),
      cy: Number(of("cy")),
      facing: of("facing"),
      status: of("status"),
      events: of("events"),
      moving: Number(of("moving")),
    };
  });
}

/** Whether a WHAT holds in a row, as formats.md section 2 says it; null for one that a trace does not tell. */
function holdsIn(world: World, what: Condition, row: Row, before: Row, state: () => SimState): boolean | null {
  const fixtures = world.rooms.flatMap((room) => room.fixtures.map((fixture) => ({ ...fixture, room: room.id })));
  const at = (id: string): number => fixtures.findIndex((fixture) => fixture.id === id);
  switch (what.kind) {
    case "room":
      return row.room === what.room;
    case "cell":
      return row.cx === what.x && row.cy === what.y && (what.room === null || row.room === what.room);
    case "on": {
      const { room, cell } = fixtures[at(what.fixture)]!;
      return row.room === room && row.cx === cell[0] && row.cy === cell[1];
    }
    case "aligned":
      return what.strictly ? row.x % 4096 === 0 && row.y % 4096 === 0 : null;
    case "still":
      return row.room === before.room && row.x === before.x && row.y === before.y;
    case "facing":
      return row.facing === what.facing;
    case "status":
      return row.status === what.status;
    case "event":
      return row.events
        .split(";")
        .some((event) =>
          what.subject === null ? event.split(":")[0] === what.event : event === `${what.event}:${what.subject}`,
        );
    case "pixel":
      return row.x === what.x * 256 && row.y === what.y * 256;
    case "holds":
      return state().memory.bag[world.items.findIndex(({ id }) => id === what.item)]! >= (what.count ?? 1);
    case "taken":
      return state().memory.taken[at(what.fixture)] === 1;
    case "open":
      return state().memory.open[at(what.fixture)] === 1;
    case "circuit":
      return (state().memory.on[world.circuits.indexOf(what.circuit)] === 1) === what.on;
    case "lives":
      return world.lives !== null && state().memory.lives === what.lives;
    default:
      return null;
  }
}

/** How a check ends over rows of which each holds or does not: verdict and deciding frame. */
function verdictOver({ when }: Check, holds: readonly boolean[]): string {
  const last = holds.length - 1;
  const first = holds.indexOf(true);
  const broken = holds.indexOf(false);
  switch (when.kind) {
    case "at":
      return when.frame > last ? `unreached ${last}` : `${holds[when.frame] ? "pass" : "fail"} ${when.frame}`;
    case "by":
      if (first >= 0 && first <= when.frame) return `pass ${first}`;
      return `fail ${Math.min(when.frame, last)}`;
    case "ever":
      return first >= 0 ? `pass ${first}` : `fail ${last}`;
    case "end":
      return `${holds[last] ? "pass" : "fail"} ${last}`;
    case "always":
      return broken >= 0 ? `fail ${broken}` : `pass ${last}`;
    case "never":
      return first >= 0 ? `fail ${first}` : `pass ${last}`;
  }
}

it("a check ends as the rows of the trace say, read one by one", () => {
  const seen = { pass: 0, fail: 0, unreached: 0 };
  const whats = new Set<string>();
  fc.assert(
    fc.property(
      anyHouse.chain((world) =>
        fc.tuple(fc.constant(world), anyFullLogOf(world), fc.array(anyCheckOf(world), { minLength: 6, maxLength: 6 })),
      ),
      ([world, log, checks]) => {
        const c = compile(world);
        const watched = { ...log, checks };
        const { verdicts, rows } = run(c, watched, { rows: true, checks: true });
        const read = rowsOf([...traceText(c, rows!)].join(""));
        checks.forEach((check, i) => {
          const holds: (boolean | null)[] = read.map((row, n) =>
            holdsIn(world, check.what, row, read[Math.max(n - 1, 0)]!, () => stateAt(c, log, row.frame)),
          );
          if (holds.includes(null)) return;
          const { verdict, frame, check: text } = verdicts[i]!;
          expect(`${text}: ${verdict} ${frame}`).toBe(`${text}: ${verdictOver(check, holds as boolean[])}`);
          seen[verdict]++;
          whats.add(check.what.kind);
        });
      },
    ),
    { ...FIXED, numRuns: 120 },
  );
  told("checks against the rows", seen);
  expect(whats.size).toBeGreaterThanOrEqual(14);
  expect(Math.min(...Object.values(seen))).toBeGreaterThan(20);
});
