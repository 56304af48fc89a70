import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { compile } from "../../simulation/compile.ts";
import { EMPTY_LOG } from "../../logs/input-log.ts";
import { run } from "../../replay/run.ts";
import { traceText } from "../../simulation/trace.ts";
import { startState } from "../../simulation/start-state.ts";
import { step } from "../../simulation/step.ts";
import { occupiedX, occupiedY } from "../../ground/occupied.ts";
import { anyHouse } from "../../test-support/any-house.ts";
import { FIXED, anyBody } from "../../test-support/arbitraries.ts";
import { EFFORT } from "../../test-support/effort.ts";
import { told } from "../../test-support/told.ts";
import { door, item, plain } from "../../test-support/row-fixtures.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import type { Lock } from "../../world/fixtures/door.ts";
import type { Fixture } from "../../world/fixtures.ts";
import type { World } from "../../world/world.ts";
import { NEVER } from "./answer.ts";
import { isDoing } from "./doings.ts";
import { FreeSuperset } from "./free-superset.ts";
import { judgeReach } from "./judge.ts";
import type { Target } from "./openings.ts";
import { openingChanges, tryOpening } from "./openings.ts";
import type { Loss } from "./loss-fixes.ts";
import { lossFixText, lossFixes, tryLossFix } from "./loss-fixes.ts";
import { Reach } from "./reach.ts";
import { reachSentence } from "./sentence.ts";
import { WhyNot, reasonText } from "./why-not.ts";
import { changeText } from "../fixes/single-change.ts";

const key = (id: string, x: number): Fixture => item(id, x, "key");
const doorFor = (id: string, x: number, count: number, spends: boolean): Fixture =>
  door(id, x, { kind: "item", item: "key", count, spends });
const lamp = (x: number): Fixture => ({ ...plain, id: "lamp", kind: "marker", cell: [x, 0], name: "Lamp" });

/** One row with fixtures in it, to be hopped along; the lamp is the goal. */
function row(cells: string, fixtures: readonly Fixture[], more: Partial<World> = {}): World {
  const base = tinyWorld([cells], { gait: "hop" });
  return {
    ...base,
    items: [{ id: "key", name: "Key", role: "key", colour: "#c89b3c" }],
    goal: fixtures.some(({ id }) => id === "lamp") ? { kind: "marker", fixture: "lamp" } : null,
    rooms: [{ ...base.rooms[0]!, fixtures }],
    ...more,
  };
}

function why(world: World, id: string): string {
  const answer = new Reach(world).answer();
  const number = world.rooms[0]!.fixtures.findIndex((each) => each.id === id);
  expect([id, answer.fixtures[number]]).toEqual([id, NEVER]);
  return reasonText(new WhyNot(world, "main", answer).ofFixture(number));
}

/** The changes that open the way to a fixture, or to a cell of the row, in words. */
function openings(world: World, what: string | number): string[] {
  const answer = new Reach(world).answer();
  const target: Target =
    typeof what === "number"
      ? { kind: "cell", room: 0, cell: what }
      : { kind: "fixture", fixture: world.rooms[0]!.fixtures.findIndex((each) => each.id === what) };
  return openingChanges(world, "main", new WhyNot(world, "main", answer), target)
    .filter((change) => tryOpening(world, "main", undefined, target, change) !== null)
    .map((change) => changeText(world, world.rules[0]!, change));
}

/** The single changes that fix a loss, with what is left then. */
function fixesOf(world: World, loss: Loss): string[] {
  return lossFixes(world, "main").flatMap((change) => {
    const fix = tryLossFix(world, "main", undefined, loss, change);
    return fix === null ? [] : [`${changeText(world, world.rules[0]!, change)}: ${lossFixText(fix)}`];
  });
}

describe("why something is never reached", () => {
  const tooFew = row("S       ", [key("key-1", 1), doorFor("gate", 4, 2, true), lamp(7)]);

  it("one spent key too few: the door says so, what lies behind names it, and the changes that mend it are found", () => {
    expect(why(tooFew, "gate")).toBe("needs 2 key, 1 can be had");
    expect(why(tooFew, "lamp")).toBe("behind gate");
    const mends = ["key-1 gives 1 to 2", "gate asks for 2 to 1"];
    for (const what of ["lamp", "gate", 6]) expect(openings(tooFew, what)).toEqual(mends);
  });

  it("a change says in how many moves it opens the way: none where one stands already", () => {
    const answer = new Reach(tooFew).answer();
    const gate = { kind: "fixture", fixture: 1 } as const;
    const change = openingChanges(tooFew, "main", new WhyNot(tooFew, "main", answer), gate).find(
      (each) => tryOpening(tooFew, "main", undefined, gate, each) !== null,
    )!;
    const moves = (target: Target): number | undefined => tryOpening(tooFew, "main", undefined, target, change)?.moves;
    const start = answer.first[0]!.indexOf(0);
    expect([0, 1, 3].map((far) => moves({ kind: "cell", room: 0, cell: start + far }))).toEqual([0, 1, 3]);
    expect(moves(gate)).toBeGreaterThan(0);
  });

  it("a door that wants all of something names what of it is never had, one that wants a switch the switch's circuit", () => {
    const locked = (lock: Lock): Fixture => ({ ...doorFor("gate", 4, 1, false), lock }) as Fixture;
    const beads = row("S      # ", [
      key("key-1", 1),
      key("key-2", 2),
      key("key-3", 8),
      locked({ kind: "collected", item: "key" }),
    ]);
    expect(why(beads, "gate")).toBe("waits for every key; key-3 cannot be reached");
    const pump = row("S      ", [locked({ kind: "circuit", circuit: "pump", open: "on" }), lamp(6)], {
      circuits: ["pump"],
    });
    expect(why(pump, "gate")).toBe("follows pump, which nothing that can be reached switches");
    expect(why(pump, "lamp")).toBe("behind gate");
    const none = row("S      ", [locked({ kind: "collected", item: "key" })]);
    expect(why(none, "gate")).toBe("waits for every key, and there is none");
  });

  it("closed in by one cell, which is opened", () => {
    const world = row("S  #    ", [lamp(6)]);
    expect(why(world, "lamp")).toBe("closed in");
    for (const what of ["lamp", 5]) expect(openings(world, what)).toEqual(["A 3,0 to empty"]);
  });

  it("over one hazard, or over more, each of which takes the walker back", () => {
    const pit = (id: string, x: number): Fixture => ({ ...plain, id, kind: "hazard", cell: [x, 0] });
    expect(why(row("S      ", [pit("pit", 3), lamp(6)]), "lamp")).toBe("only over pit");
    expect(why(row("S      ", [pit("pit", 3), pit("spikes", 4), lamp(6)]), "lamp")).toBe("only over spikes, pit");
  });

  it("a gap of 14 px for a body of 16 px; at 16 px it is reached", () => {
    const through = (gap: number): World => {
      const base = row("S   ", [lamp(3)]);
      const [room] = base.rooms;
      const edge = (16 - gap) / 2;
      const boxes = edge === 0 ? [] : [[0, 0, 16, edge] as const, [0, 16 - edge, 16, edge] as const];
      const gate = { ...base.tiles[1]!, id: "gate", shape: { kind: "boxes" as const, boxes } };
      const cells = room!.cells.slice();
      cells[2] = base.tiles.length;
      return {
        ...base,
        rules: base.rules.map((each) => ({ ...each, gait: "roam" as const })),
        tiles: [...base.tiles, gate],
        rooms: [{ ...room!, cells }],
      };
    };
    expect(why(through(14), "lamp")).toBe("the body does not fit: 14 px gap, 16 px body");
    expect(new Reach(through(16)).answer().goal).toBeGreaterThan(0);
  });
});

describe("what can be lost", () => {
  it("spending at the wrong door locks one in, told with the log that shows it", () => {
    const world = row("  S     ", [key("key-1", 3), doorFor("side", 1, 1, true), doorFor("gate", 5, 1, true), lamp(7)]);
    const answer = new Reach(world).answer();
    expect(answer.goal).toBeGreaterThan(0);
    expect(answer.stuck!.classes.map(({ taken, open }) => [taken, open])).toEqual([[["key-1"], ["side"]]]);
    expect(reachSentence(world, answer)).toContain("one can get stuck in 1 way, first after");
    expect(fixesOf(world, { kind: "stuck", taken: ["key-1"], open: ["side"], on: [] })).toEqual([
      "key-1 gives 1 to 2: then nobody can get stuck",
      "side does not spend key: then nobody can get stuck",
      "side asks for 1 to 2: then nobody can get stuck",
    ]);
    expect(judgeReach({ ...world, reachChecks: ["winnable", "never stuck", "unreachable lamp"] })).toMatchObject([
      { verdict: "pass" },
      { verdict: "fail", seen: expect.stringContaining("stuck after") as string },
      { verdict: "fail", seen: expect.stringContaining("lamp is reached after") as string },
    ]);
  });

  it("a way that leads only there locks one in, until its other side leads back", () => {
    const world = row("  S   ", [lamp(0)]);
    const [room] = world.rooms;
    const east = { kind: "link", room: "b", offset: 0 } as const;
    const pit = { ...room!, id: "b", name: "Pit", fixtures: [] };
    const trap: World = { ...world, rooms: [{ ...room!, edges: { ...room!.edges, east } }, pit] };
    const [stuck] = new Reach(trap).answer().stuck!.classes;
    expect(fixesOf(trap, { kind: "stuck", taken: [], open: [], on: [] })).toEqual([
      "Pit's west side leads back to A: then nobody can get stuck",
    ]);
    expect(stuck!.moves).toBe(4);
  });

  it("a death that puts the key out of reach, and what lets it come back", () => {
    // A death shuts the gate again and puts the ruby back behind it; the key that opened it is spent.
    const ruby = { ...key("ruby-1", 4), give: "ruby", keeps: "life" } as Fixture;
    const gate: Fixture = { ...doorFor("gate", 3, 1, true), keeps: "life" };
    const vent: Fixture = { ...plain, id: "vent", kind: "hazard", cell: [6, 0] };
    const safe = doorFor("safe", 0, 1, false);
    const asksRuby = { ...safe, lock: { kind: "item", item: "ruby", count: 1, spends: false } } as Fixture;
    const world = row(" S      ", [key("key-1", 2), gate, ruby, vent, asksRuby]);
    const items = [...world.items, { ...world.items[0]!, id: "ruby", name: "Ruby" }];
    const found = new Reach({ ...world, items }).answer().losable!;
    expect(found.map(({ fixture }) => fixture)).toEqual(["ruby-1"]);
    expect(judgeReach({ ...world, items, reachChecks: ["never lost ruby", "never lost key"] })).toMatchObject([
      { verdict: "fail", seen: `ruby-1 can be lost for good after ${found[0]!.moves} moves` },
      { verdict: "pass" },
    ]);
    const played = run(compile({ ...world, items }), { ...EMPTY_LOG, lines: found[0]!.lines }, { rows: true });
    expect([...traceText(compile({ ...world, items }), played.rows!)].join("")).toContain("respawn");
    expect(new Reach({ ...world, items, respawnRestores: "start" }).answer().losable).toEqual([]);
    expect(fixesOf({ ...world, items }, { kind: "lost", id: "ruby-1", fixture: 2 })).toEqual(
      expect.arrayContaining(["ruby-1 keeps life to run: then nobody can get stuck"]),
    );
  });
});

it("no random play under rules that leave the grid comes to a place or thing that is called never", () => {
  const seen = { never: 0, walked: 0, contact: 0, "undo-axis": 0, "undo-both": 0 };
  fc.assert(
    fc.property(
      anyHouse,
      anyBody,
      fc.constantFrom("roam" as const, "drift" as const),
      fc.constantFrom("contact" as const, "undo-axis" as const, "undo-both" as const),
      fc.constantFrom(1, 2.5, 6),
      fc.array(fc.nat(31), { minLength: 60, maxLength: 60 }),
      (house, body, gait, response, speed, keys) => {
        const world = {
          ...house,
          rules: house.rules.map((each) => ({
            ...each,
            gait,
            walker: { ...each.walker, body },
            roam: { ...each.roam, response, speedX: speed, speedY: speed },
            drift: { ...each.drift, response, accel: speed / 4, maxSpeed: speed },
          })),
        };
        const c = compile(world);
        if (!FreeSuperset.applies(c)) return;
        const superset = new FreeSuperset(c, startState(c));
        if (!superset.sound) return;
        seen[response]++;
        const s = startState(c);
        seen.never += superset.comes.reduce((sum, cells) => sum + cells.filter((may) => may === 0).length, 0);
        for (let i = 0; i < 1200 * EFFORT && s.status === 0; i++) {
          step(c, s, keys[Math.floor(i / 7) % keys.length]!, null);
          for (let e = 0; e < s.eventCount; e++)
            if (isDoing(s.eventKinds[e]!) && superset.fixtures[s.eventSubjects[e]!] === 0)
              expect.fail(`frame ${i} comes to ${c.fixtures.all[s.eventSubjects[e]!]!.id}, which is called never`);
          const [cx, cy] = [occupiedX(c.tileUnits, s.x), occupiedY(c.tileUnits, s.y)];
          const { width, height } = c.rooms[s.room]!;
          if (s.status !== 0 || cx < 0 || cy < 0 || cx >= width || cy >= height) continue;
          if (superset.comes[s.room]![cy * width + cx] === 0)
            expect.fail(`frame ${i} is in ${cx},${cy}, which is called never`);
          seen.walked++;
        }
      },
    ),
    { ...FIXED, numRuns: 200 * EFFORT },
  );
  told("cells", seen);
  expect(Math.min(seen.never, seen.walked)).toBeGreaterThan(100);
  expect(Math.min(seen.contact, seen["undo-axis"], seen["undo-both"])).toBeGreaterThan(4);
});

it("what is left of losses is counted in words", () => {
  const change = { path: "gait", value: 1 };
  expect(
    [
      [0, 0],
      [1, 0],
      [2, 0],
      [0, 1],
      [3, 2],
    ].map(([stuck, losable]) => lossFixText({ change, stuck: stuck!, losable: losable! })),
  ).toEqual([
    "then nobody can get stuck",
    "then still 1 way to get stuck",
    "then still 2 ways to get stuck",
    "then still 1 item to lose",
    "then still 3 ways to get stuck, 2 items to lose",
  ]);
});
