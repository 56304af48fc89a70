import fc from "fast-check";
import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { readLog } from "../logs/read-log.ts";
import type { InputLog } from "../logs/input-log.ts";
import { readWorld } from "../formats/read-world.ts";
import { anyFullLogOf } from "../test-support/any-full-log.ts";
import { anyHouseWithActors } from "../test-support/any-actors.ts";
import { anyHouse } from "../test-support/any-house.ts";
import { FIXED, anyLog } from "../test-support/arbitraries.ts";
import { EFFORT } from "../test-support/effort.ts";
import { told } from "../test-support/told.ts";
import type { Fixture } from "../world/fixtures.ts";
import type { Rules, World } from "../world/world.ts";
import { movementLines } from "./movement-file.ts";
import type { TakenFile } from "./take-home.ts";
import { movementText, takeHome } from "./take-home.ts";

let folder = "";
beforeAll(() => {
  folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-home-"));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const demo = "demo/saltglass-cistern";
const cistern = readWorld(readFileSync(`${demo}/saltglass-cistern.world.json`, "utf8"));
const cisternLogs = new Map(
  readdirSync(`${demo}/logs`).map((file): [string, InputLog] => [
    file.replace(".inputs", ""),
    readLog(readFileSync(`${demo}/logs/${file}`, "utf8")),
  ]),
);

function write(name: string, files: readonly TakenFile[]): string {
  const home = path.join(folder, name);
  for (const { path: file, text } of files) {
    mkdirSync(path.dirname(path.join(home, file)), { recursive: true });
    writeFileSync(path.join(home, file), text);
  }
  return home;
}

const conform = (home: string, ...args: string[]) =>
  spawnSync(process.execPath, [path.join(home, "conform.js"), ...args], { encoding: "utf8", cwd: os.tmpdir() });

/** A house with all shapes, pictures and facings, and fixtures of more than one cell. */
const anyWholeWorld: fc.Arbitrary<World> = fc
  .record({
    house: fc.oneof({ arbitrary: anyHouse, weight: 3 }, anyHouseWithActors),
    shapes: fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 7, maxLength: 7 }),
    whole: fc.boolean(),
    size: fc.constantFrom<[number, number]>([1, 1], [1, 1], [2, 1], [2, 2]),
    source: fc.constantFrom("intent" as const, "intent" as const, "pointer" as const),
    pose: fc.record({
      images: fc.integer({ min: 1, max: 4 }),
      advance: fc.constantFrom("distance" as const, "frames" as const, "off" as const),
      every: fc.integer({ min: 1, max: 9 }),
      idleImage: fc.integer({ min: 0, max: 5 }),
      idleAfter: fc.integer({ min: 0, max: 9 }),
    }),
    goal: fc.option(fc.constantFrom("key", "bead", "marker")),
  })
  .map(({ house, shapes, whole, size, source, pose, goal }) => {
    const rooms = house.rooms.map((room) => {
      const fits = ({ cell }: Fixture): boolean => cell[0] + size[0] <= room.width && cell[1] + size[1] <= room.height;
      return {
        ...room,
        cells: whole ? room.cells : room.cells.map((tile, i) => (tile === 0 ? 0 : shapes[i % shapes.length]!)),
        fixtures: room.fixtures.map((each) => (each.kind === "hazard" && fits(each) ? { ...each, size } : each)),
      };
    });
    const marker = rooms.flatMap((room) => room.fixtures).find(({ kind }) => kind === "marker");
    const rules = house.rules.map((each): Rules => ({ ...each, pose, facing: { ...each.facing, source } }));
    return {
      ...house,
      rooms,
      rules,
      goal:
        goal === null
          ? null
          : goal !== "marker"
            ? { kind: "collect", item: goal }
            : marker
              ? { kind: "marker", fixture: marker.id }
              : null,
    };
  });

const anyWorldWithLogs = anyWholeWorld.chain((world) =>
  fc.record({ world: fc.constant(world), logs: fc.tuple(anyFullLogOf(world), anyFullLogOf(world), anyLog) }),
);

describe("the rules taken home", () => {
  it("walk as ours in worlds of all kinds, in a plain Node process", () => {
    // All folders first, then one process that runs the conform.js of each: it takes what it finds beside it.
    const homes: string[] = [];
    let frames = 0;
    fc.assert(
      fc.property(anyWorldWithLogs, ({ world, logs }) => {
        const files = takeHome(world, world.activeRules, new Map(logs.map((log, i) => [`log-${i}`, log])));
        frames += files.reduce(
          (sum, { text, path: file }) => sum + (file.endsWith(".csv") ? text.split("\n").length - 2 : 0),
          0,
        );
        homes.push(write(`any-${homes.length}`, files));
      }),
      { ...FIXED, numRuns: 200 * EFFORT },
    );
    const runner = path.join(folder, "run-all.mjs");
    writeFileSync(runner, homes.map((home) => `await import(${JSON.stringify(`${home}/conform.js`)});\n`).join(""));
    const { stdout: shown } = spawnSync(process.execPath, [runner], { encoding: "utf8", maxBuffer: 2 ** 28 });
    const said = shown.trim().split("\n");
    expect(said.filter((line) => !/^(\d+) of \1$/.test(line))).toEqual([]);
    expect(said).toHaveLength(homes.length);
    told("rules taken home", { worlds: homes.length, frames });
  });

  it("can be carried over from PORTING.md alone: a port to Python walks as ours in all logs of the demo that are taken", () => {
    const files = takeHome(cistern, "main", cisternLogs);
    const home = write("python", files);
    const taken = [...cisternLogs.keys()].filter((id) => files.some((file) => file.path === `golden/${id}.inputs`));
    expect(taken).toHaveLength(22);
    const port = path.join(import.meta.dirname, "port/cistern.py");
    const { stdout, stderr } = spawnSync("python3", [port, home, ...taken], { encoding: "utf8", maxBuffer: 2 ** 26 });
    expect(stderr).toBe("");
    const traces = stdout.split(/^(?=frame,keys,)/m);
    expect(traces).toHaveLength(taken.length);
    for (const [i, id] of taken.entries())
      expect(traces[i], id).toBe(readFileSync(path.join(home, `golden/${id}.trace.csv`), "utf8"));
  });

  it("say which row differs, and end with 1", () => {
    const files = takeHome(cistern, "main", cisternLogs);
    const faster = files.map((file) =>
      file.path === "movement.js"
        ? { ...file, text: file.text.replace("const SPEED = 512;", "const SPEED = 513;") }
        : file,
    );
    const { status, stdout } = conform(write("faster", faster));
    expect(status).toBe(1);
    expect(stdout).toContain("01-the-whole-way: row 1 differs\n");
    expect(stdout).toContain("expected 1,U,intake-hall,16384,48640,");
    expect(stdout).toContain("found    1,U,intake-hall,16384,48639,");
    expect(stdout).toMatch(/\n\d of 22\n$/);
  });

  it("compare a trace of another program, in its own columns and units", () => {
    const hall = readWorld(readFileSync("demo/stand-in-game/hall.world.json", "utf8"));
    const log = readLog(readFileSync("demo/stand-in-game/round-the-hall.inputs", "utf8"));
    const home = write("hall", takeHome(hall, "main", new Map([["round", log]])));
    const trace = (name: string): string => path.resolve("demo/stand-in-game", name);
    expect(conform(home).stdout).toBe("1 of 1\n");
    const good = conform(home, "round", trace("trace.csv"));
    expect(good.stdout).toMatch(/^within 0 px in all \d+ frames that both have\n$/);
    expect(good.status).toBe(0);
    const bad = conform(home, "round", trace("trace-both-back.csv"));
    expect(bad.stdout).toContain("round: frame ");
    expect(bad.status).toBe(1);
    const ours = conform(home, "round", path.join(home, "golden/round.trace.csv"));
    expect([ours.status, ours.stderr]).toEqual([0, ""]);
    const none = conform(home, "elsewhere", trace("trace.csv"));
    expect([none.status, none.stderr]).toEqual([2, "no log elsewhere; golden/ has round\n"]);
  });

  it("are at most 500 lines for the demo, without a mark or a function that nobody calls", () => {
    const text = movementText(cistern, "main");
    expect(text.trimEnd().split("\n").length).toBeLessThanOrEqual(500);
    expect(text).not.toMatch(/\/\/[?:.]/);
  });

  it("hold no function and no number that is not used, whatever the world", () => {
    fc.assert(
      fc.property(anyWholeWorld, (world) => {
        const text = movementText(world, world.activeRules).replace(/\/\/.*/g, "");
        const names = [...text.matchAll(/^(?:function|const) ([A-Za-z_]+)/gm)].map((match) => match[1]!);
        const unused = names.filter((name) => text.match(new RegExp(`\\b${name}\\b`, "g"))!.length < 2);
        expect(unused).toEqual([]);
        const undefinedCalls = [...text.matchAll(/(?<![.\w])([a-z]\w*)\(/g)]
          .map((match) => match[1]!)
          .filter((name) => !["if", "for", "while", "function", "step", "begin", "return"].includes(name));
        expect(
          undefinedCalls.filter((name) => !new RegExp(`(function|const) ${name}\\b|, ${name}\\)`).test(text)),
        ).toEqual([]);
      }),
      FIXED,
    );
  });

  it("are the same bytes each time, and follow the rule set", () => {
    const files = takeHome(cistern, "main", cisternLogs);
    expect(takeHome(cistern, "main", new Map([...cisternLogs].reverse()))).toEqual(files);
    const rules = cistern.rules.map((each) => ({ ...each, glide: { ...each.glide, bufferFrames: 0 } }));
    const without = movementText({ ...cistern, rules }, "main");
    expect(without).not.toContain("buffered");
    expect(movementText(cistern, "main")).toContain("const BUFFER_FRAMES = 8;");
  });

  it("say of each line which setting it stands there for", () => {
    const lines = movementLines(cistern, "main");
    const about = (part: string): readonly string[] => lines.find(({ text }) => text.includes(part))!.settings;
    expect(about("const SPEED")).toEqual(["glide.speed"]);
    expect(about("state.bufferedKey = key")).toEqual(["glide.bufferFrames"]);
    expect(about("budget -= units")).toEqual(["glide.carry"]);
    expect(about("let budget = SPEED")).toEqual(["glide.carry", "glide.speed"]);
    expect(about("state.frame += 1")).toEqual([]);
  });

  it("keep names from outside within their comments", () => {
    const name = "A\u2028process.exit(3)\nprocess.exit(4) // */ `${x}`";
    const named = { ...cistern, name, rules: cistern.rules.map((each) => ({ ...each, name })) };
    const files = takeHome(named, "main", new Map([...cisternLogs].slice(0, 1)));
    expect(conform(write("named", files)).stdout).toBe("1 of 1\n");
  });
});
