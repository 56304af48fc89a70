import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { ACTOR_NUMBERS, AT_X, AT_Y } from "../compiled/actor-memory.ts";
import { newAccount } from "../compiled/account.ts";
import { sameSituation, situationHash } from "../compiled/situation.ts";
import { SimState } from "../compiled/state.ts";
import type { InputLog } from "../logs/input-log.ts";
import { explainFrame, run, stateAt } from "../replay/run.ts";
import { actorTraceText } from "../simulation/actor-rows.ts";
import { compile } from "../simulation/compile.ts";
import { startState } from "../simulation/start-state.ts";
import { step } from "../simulation/step.ts";
import { traceText } from "../simulation/trace.ts";
import { anyActorOf, anyHouseWithActors } from "../test-support/any-actors.ts";
import { FIXED, anyLog } from "../test-support/arbitraries.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { told } from "../test-support/told.ts";
import type { Actor } from "../world/actors.ts";
import { newActor } from "../world/actors.ts";
import { PLAYING } from "../world/vocabulary.ts";
import type { World } from "../world/world.ts";
import { same } from "../test-support/same.ts";

/** Both traces of a run, as text. */
function traces(world: World, log: InputLog): string {
  const c = compile(world);
  const { rows } = run(c, log, { rows: true });
  return [...traceText(c, rows!), ...actorTraceText(c, rows!)].join("");
}

/** A log pressed frame by frame: the buttons of each frame. */
function framesOf(log: InputLog): number[] {
  return log.lines.flatMap((line) => (line.kind === "keys" ? Array.from({ length: line.count }, () => line.keys) : []));
}

/** One room with one actor in it. */
function worldWith(rows: readonly string[], actor: Partial<Actor>, more: Partial<World> = {}): World {
  const base = tinyWorld(rows);
  const made: Actor = { ...newActor("crab-1", [0, 0], base), speed: 16, ...actor };
  return { ...base, rooms: [{ ...base.rooms[0]!, actors: [made] }], ...more };
}

/** The cells in which the actor is after each frame, the walker standing still. */
function walked(world: World, frames: number): string {
  const { rows } = run(compile(world), tinyLog(`${frames} .`), { rows: true });
  const { x, y } = rows!.actors!;
  return Array.from(x, (each, i) => `${each / 4096},${y[i]! / 4096}`).join(" ");
}

describe("actors of any house", () => {
  it("stay in their rooms, and never begin a leg into what is shut to them then", () => {
    const seen = { legs: 0, met: 0 };
    fc.assert(
      fc.property(anyHouseWithActors, anyLog, (world, log) => {
        const c = compile(world);
        const s = startState(c);
        const fixtures = world.rooms.flatMap((room, number) =>
          room.fixtures.map((fixture) => ({ ...fixture, number })),
        );
        for (const held of framesOf(log)) {
          if (s.status !== PLAYING) break;
          const account = newAccount();
          const wasOpen = [...s.memory.open];
          step(c, s, held, account);
          for (const { actor: number, chose, directions } of account.actors) {
            const { cells, height, width } = world.rooms[c.actors!.all[number]!.room]!;
            if (chose === null || chose < 0) continue;
            seen.legs++;
            const actor = world.rooms.flatMap(({ actors }) => actors)[number]!;
            const [dx, dy] = [directions[chose]!.dx, directions[chose]!.dy];
            const at = s.memory.actors!.numbers;
            // It has gone one frame of its leg: the cell before it is the one that it leaves.
            const gone = Math.min(c.actors!.all[number]!.speed, c.tileUnits);
            const cx = (at[number * ACTOR_NUMBERS + AT_X]! - dx * gone) / c.tileUnits + dx;
            const cy = (at[number * ACTOR_NUMBERS + AT_Y]! - dy * gone) / c.tileUnits + dy;
            // A respawn or the end of a visit has put it back since.
            if (!Number.isInteger(cx) || !Number.isInteger(cy)) continue;
            same(cx >= 0 && cy >= 0 && cx < width && cy < height, true);
            const tile = world.tiles[cells[cy * width + cx]!]!;
            const door = fixtures.findIndex(
              (each) =>
                each.kind === "door" &&
                each.number === c.actors!.all[number]!.room &&
                each.cell[0] === cx &&
                each.cell[1] === cy,
            );
            if (s.eventCount > 0) continue;
            same(
              tile.flags.some((flag) => actor.blockedBy.includes(flag)),
              false,
            );
            if (door >= 0) same(actor.doors === "all" || (actor.doors === "open" && wasOpen[door] === 1), true);
          }
          seen.met += s.memory.actors!.met.includes(1) ? 1 : 0;
        }
      }),
      { ...FIXED, numRuns: 200 },
    );
    told("legs begun, frames in which somebody is met", seen);
    expect(Math.min(seen.legs, seen.met)).toBeGreaterThan(500);
  });

  it("walk the same for the same seed; another seed changes nothing where none of them wanders", () => {
    const seen = { other: 0 };
    fc.assert(
      fc.property(anyHouseWithActors, anyLog, fc.integer({ min: 0, max: 0xffffffff }), (world, log, seed) => {
        const seeded = { ...log, seed };
        const walks = traces(world, seeded);
        expect(traces(world, seeded)).toBe(walks);
        if (traces(world, { ...log, seed: (seed ^ 0x5bd1e995) >>> 0 }) === walks) return;
        seen.other++;
        same(
          world.rooms.some(({ actors }) => actors.some(({ plan }) => plan.some((phase) => phase.do === "wander"))),
          true,
        );
      }),
      { ...FIXED, numRuns: 150 },
    );
    told("runs that another seed changed", seen);
    expect(seen.other).toBeGreaterThan(20);
  });

  it("are explained as they are stepped, and a run goes on from a copy as from where it was taken", () => {
    fc.assert(
      fc.property(anyHouseWithActors, anyLog, fc.nat(80), (world, log, n) => {
        const c = compile(world);
        const { rows } = run(c, log, { rows: true });
        const frame = Math.min(n, rows!.count - 1);
        const { actors } = explainFrame(c, log, frame);
        const at = rows!.actors!;
        const told = Array.from({ length: at.from[frame + 1]! - at.from[frame]! }, (_, i) => {
          const place = at.from[frame]! + i;
          return [c.actors!.all[at.actor[place]!]!.id, at.x[place]!, at.y[place]!, at.facing[place]!, at.phase[place]!];
        });
        // What happened to them in the frame itself (a visit's end) is told of the room in which the walker is then.
        same(
          actors.map((each) => [each.id, ...each.at, each.facing]),
          told.map((each) => each.slice(0, 4)),
        );
        const s = stateAt(c, log, frame);
        const copy = new SimState(c);
        copy.copyFrom(s);
        same([sameSituation(c, s, copy), situationHash(c, copy)], [true, situationHash(c, s)]);
        for (const held of framesOf(log).slice(0, 40)) {
          if (s.status !== PLAYING) break;
          step(c, s, held, null);
          step(c, copy, held, null);
        }
        same(sameSituation(c, s, copy), true);
        same([...copy.memory.actors!.numbers], [...s.memory.actors!.numbers]);
      }),
      { ...FIXED, numRuns: 150 },
    );
  });

  it("walk mirrored in a mirrored room, where no tie was broken and nothing is left to chance", () => {
    const seen = { frames: 0, tied: 0 };
    const [width, height] = [7, 5];
    const anyWalls = fc.array(fc.constantFrom<string>(" ", " ", " ", "#"), {
      minLength: width * height,
      maxLength: width * height,
    });
    fc.assert(
      fc.property(anyWalls, anyActorOf(width, height), (walls, any) => {
        walls[0] = "S";
        const rows = Array.from({ length: height }, (_, y) => walls.slice(y * width, (y + 1) * width).join(""));
        const actor: Actor = { ...any, id: "crab-1", touch: "none" };
        const mirror = ([x, y]: readonly [number, number]) => [width - 1 - x, y] as const;
        const world = worldWith(rows, actor);
        const turned = worldWith(
          rows.map((row) => [...row].reverse().join("")),
          {
            ...actor,
            cell: mirror(actor.cell),
            plan: actor.plan.map((phase) =>
              phase.do === "path" ? { ...phase, cells: phase.cells.map(mirror) } : phase,
            ),
          },
        );
        const [c, other] = [compile(world), compile(turned)];
        const [s, t] = [startState(c), startState(other)];
        for (let frame = 0; frame < 120; frame++) {
          const account = newAccount();
          step(c, s, 0, account);
          step(other, t, 0, null);
          const [{ chose, directions, phase }] = account.actors as [(typeof account.actors)[number]];
          const ties =
            (chose ?? -1) >= 0 &&
            directions.filter((each) => each.is === "open" && each.distance === directions[chose!]!.distance);
          const plan = actor.plan[phase]!;
          if (plan.do === "wander" || (plan.do !== "path" && ties !== false && ties.length > 1)) {
            seen.tied++;
            return;
          }
          seen.frames++;
          const [one, two] = [s.memory.actors!.numbers, t.memory.actors!.numbers];
          same([two[0], two[1]], [(width - 1) * c.tileUnits - one[0]!, one[1]]);
        }
      }),
      { ...FIXED, numRuns: 300 },
    );
    told("frames that mirrored, runs that ended at a tie", seen);
    expect(seen.frames).toBeGreaterThan(5000);
  });
});

describe("an actor", () => {
  const path = (then: "round" | "stop" | "back"): Partial<Actor> => ({
    cell: [0, 0],
    plan: [
      {
        frames: null,
        do: "path",
        then,
        cells: [
          [0, 0],
          [2, 0],
          [2, 1],
        ],
      },
    ],
  });
  it.each([
    ["round", "0,0 1,0 2,0 2,1 1,1 0,1 0,0 1,0"],
    ["stop", "0,0 1,0 2,0 2,1 2,1 2,1 2,1 2,1"],
    ["back", "0,0 1,0 2,0 2,1 2,0 1,0 0,0 1,0"],
  ] as const)("on a path goes on %s after its last cell", (then, cells) => {
    expect(walked(worldWith(["   S", "    "], path(then)), 7)).toBe(cells);
  });

  it("stands where its path leads into what is shut to it, and goes into closed doors where no door is shut to it", () => {
    const door = {
      id: "gate",
      kind: "door",
      cell: [1, 0],
      lock: { kind: "none" },
      opensOn: "use",
      closes: "never",
      touch: "cell",
      keeps: "run",
    } as const;
    const behind = (doors: Actor["doors"]): World => {
      const world = worldWith(["   S", "    "], { ...path("back"), doors });
      return { ...world, rooms: [{ ...world.rooms[0]!, fixtures: [door] }] };
    };
    expect(walked(behind("open"), 3)).toBe("0,0 0,0 0,0 0,0");
    expect(walked(behind("none"), 3)).toBe("0,0 0,0 0,0 0,0");
    expect(walked(behind("all"), 3)).toBe("0,0 1,0 2,0 2,1");
  });

  it("goes through its phases, with a leg that goes on when one changes under way", () => {
    const plan: Actor["plan"] = [
      { frames: 2, do: "stand" },
      { frames: 3, do: "path", then: "stop", cells: [[2, 0]] },
    ];
    expect(walked(worldWith(["   S"], { speed: 8, plan }), 9)).toBe("0,0 0,0 0,0 0.5,0 1,0 1.5,0 2,0 2,0 2,0 2,0");
  });

  it("hurts whom it meets, once, and is given back where it stood at the start", () => {
    const plan: Actor["plan"] = [{ frames: null, do: "toward" }];
    const world = worldWith(["   S"], { plan, touch: "hurt" }, { lives: 2, respawnRestores: "start" });
    const c = compile(world);
    const { rows, status } = run(c, tinyLog("6 ."), { rows: true });
    const [, ...lines] = [...traceText(c, rows!)].join("").trim().split("\r\n");
    expect(lines.map((line) => line.split(",").at(-1))).toEqual([
      "",
      "",
      "",
      "meet:crab-1;hurt:crab-1;respawn",
      "",
      "",
      "meet:crab-1;hurt:crab-1;lose",
    ]);
    expect(status).toBe(2);
  });

  it("says of each direction whether it is open, and how far the walker is then, shut, or left out because it turns back", () => {
    const plan: Actor["plan"] = [{ frames: null, do: "toward" }];
    const world = worldWith(["     S", " #    ", "      "], { cell: [0, 0], plan, turnsBack: "last" });
    const told = (frame: number): string[] =>
      explainFrame(compile(world), tinyLog("4 ."), frame).actors[0]!.directions.map(
        ({ distance, is }) => `${is} ${distance}`,
      );
    expect(told(1)).toEqual(["shut null", "open 4", "shut null", "open 6"]);
    expect(told(2)).toEqual(["back null", "open 3", "shut null", "shut null"]);
  });

  it("begins where a log puts it, and looks as its cell's first state does where no facing is said", () => {
    const world = worldWith(["   S"], { facing: "left" });
    const log = tinyLog("1 .", { with: [{ kind: "actor", actor: "crab-1", cell: [1, 0], facing: null }] });
    expect(traces(world, log)).toContain("0,crab-1,4096,0,left,0");
    const gone = { ...log, with: [{ kind: "actor", actor: "crab-2", cell: [1, 0], facing: null }] } as const;
    expect(() => traces(world, gone)).toThrow("names actor crab-2, which this world does not have");
    const outside = { ...log, with: [{ kind: "actor", actor: "crab-1", cell: [4, 0], facing: "up" }] } as const;
    expect(() => traces(world, outside)).toThrow("puts crab-1 on 4 0, which lies outside room a (4x1)");
  });
});

it("a new actor stops at what is solid, or at the world's first flag where it has none of that name", () => {
  const blockedBy = (...flags: string[]): readonly string[] =>
    newActor("crab-1", [0, 0], { flags, tileSize: 16 }).blockedBy;
  expect([blockedBy("water", "solid"), blockedBy("water", "ice"), blockedBy()]).toEqual([["solid"], ["water"], []]);
});
