import { createHash } from "node:crypto";
import { readFileSync, readdirSync, writeFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { compareTraces } from "./analysis/compare-traces.ts";
import { measureFeel } from "./analysis/feel.ts";
import { logFindings } from "./analysis/findings/log-findings.ts";
import { worldFindings } from "./analysis/findings/world-findings.ts";
import { speedFitText } from "./analysis/findings/speed-fit.ts";
import { singleChanges } from "./analysis/fixes/candidates.ts";
import { changeText } from "./analysis/fixes/single-change.ts";
import { beginTrying, tryChange } from "./analysis/fixes/try-change.ts";
import { takeRandomWalks } from "./analysis/random-walks/search.ts";
import { reEntry } from "./analysis/re-entry.ts";
import { checkFault, completeCheck } from "./checks/check-words.ts";
import { differences } from "./edits/differences.ts";
import { copyFixtures, moveFixtures, removeFixtures, renameFixture, threadsOf } from "./edits/fixtures.ts";
import { flagUses, removeFlag, renameFlag } from "./edits/flags.ts";
import { linkSides, openingAt, seamsOf, wallSide, wrapRoom } from "./edits/links.ts";
import type { Project } from "./edits/project.ts";
import { changeRoomId, copyRoom, removeRoom, resizeRoom } from "./edits/rooms.ts";
import { copyRuleSet, removeRuleSet } from "./edits/rule-sets.ts";
import { summary } from "./edits/summary.ts";
import { copyTile, moveTile, removeTiles, tileUses } from "./edits/tiles.ts";
import { junitXml } from "./formats/junit.ts";
import { readRoomTable, writeRoomTable } from "./formats/room-table.ts";
import { coloursOf, writeRoomPixels } from "./formats/room-pixels.ts";
import { readTrace } from "./formats/read-trace.ts";
import { readWorld } from "./formats/read-world.ts";
import { readRoomText } from "./formats/read-room-text.ts";
import { writeRoomText } from "./formats/write-room-text.ts";
import { writeWorld } from "./formats/write-world.ts";
import { clearance } from "./ground/clearance.ts";
import { joinMask, joinTables } from "./ground/joined.ts";
import { asFrames, cutLog, keyRuns } from "./logs/change-lines.ts";
import { flatLog } from "./logs/flat-log.ts";
import type { InputLog } from "./logs/input-log.ts";
import { readLog } from "./logs/read-log.ts";
import { writeLog } from "./logs/write-log.ts";
import { pathDifference } from "./replay/path-difference.ts";
import { explainFrame, run, stateAt } from "./replay/run.ts";
import { checksOfWalk, checksTrueAt } from "./replay/true-at.ts";
import { untilChoices } from "./replay/until-choices.ts";
import { compile } from "./simulation/compile.ts";
import { traceText } from "./simulation/trace.ts";
import { rememberedIn } from "./simulation/explain.ts";
import { withLinesOf } from "./simulation/with-lines.ts";
import { anyFullLogOf } from "./test-support/any-full-log.ts";
import { anyHouse } from "./test-support/any-house.ts";
import { anyWorld } from "./test-support/arbitraries.ts";
import { anyDamaged } from "./test-support/damage.ts";
import { allFixtures } from "./world/queries.ts";
import { SIDES } from "./world/world.ts";
import type { World } from "./world/world.ts";

// What the core answers to many questions about many worlds, recorded: a change that should change no answer changes
// none. Where an answer is meant to change, `RECORD=1 npx vitest run --project core recorded` records it anew.

const ANSWERS = new URL("test-support/recorded-answers.json", import.meta.url);
const SEED = 20_261_128;

/** A world with logs that begin and run in it. */
interface Given {
  readonly name: string;
  readonly world: World;
  readonly logs: readonly InputLog[];
}

const demo = new URL("../../demo/saltglass-cistern/", import.meta.url);
const logsOf = (world: World): InputLog[] => fc.sample(anyFullLogOf(world), { seed: SEED, numRuns: 2 });
const sampled = (name: string, any: fc.Arbitrary<World>, numRuns: number): Given[] =>
  fc.sample(any, { seed: SEED, numRuns }).map((world, i) => ({ name: `${name} ${i}`, world, logs: logsOf(world) }));
const GIVEN: readonly Given[] = [
  {
    name: "demo",
    world: readWorld(readFileSync(new URL("saltglass-cistern.world.json", demo), "utf8")),
    logs: readdirSync(new URL("logs", demo))
      .filter((file) => file.endsWith(".inputs"))
      .sort()
      .map((file) => readLog(readFileSync(new URL(`logs/${file}`, demo), "utf8"))),
  },
  ...sampled("house", anyHouse, 24),
  ...sampled("world", anyWorld, 16),
];

/** The answer, or what is said where it is refused. */
function answered(ask: () => unknown): unknown {
  try {
    return ask();
  } catch (error) {
    return `refused: ${(error as Error).message}`;
  }
}

/** What a project becomes by a change, as the steps and words that a revision of it has. */
function changed(
  before: Project,
  change: (project: Project) => { readonly project: Project; readonly fellAway: readonly string[] } | World | null,
): unknown {
  return answered(() => {
    const made = change(before);
    if (made === null) return null;
    const after = "project" in made ? made.project : { ...before, world: made };
    const steps = differences(before, after);
    return [steps, summary(before.world, steps), "fellAway" in made ? made.fellAway : []];
  });
}

const projectOf = ({ world, logs }: Given): Project => ({
  world,
  logs: new Map(logs.map((log, i) => [`log-${i}`, writeLog(log)])),
});
const eachLog = ({ world, logs }: Given, ask: (log: InputLog, c: ReturnType<typeof compile>) => unknown): unknown =>
  logs.map((log) => answered(() => ask(log, compile(world, log.rules ?? undefined))));
/** Some frames of a run: all of its first ones, and every so many of the rest. */
const someFrames = (frames: number): number[] =>
  Array.from({ length: frames + 1 }, (_, i) => i).filter((i) => i < 12 || i % 23 === 0);

const QUESTIONS: Readonly<Record<string, (given: Given) => unknown>> = {
  "world files": ({ world }) => writeWorld(world),
  "damaged world files": ({ world }) =>
    fc
      .sample(anyDamaged(writeWorld(world)), { seed: SEED, numRuns: 6 })
      .map((text) => answered(() => writeWorld(readWorld(text)))),
  traces: (given) => eachLog(given, (log, c) => [...traceText(c, run(c, log, { rows: true }).rows!)].join("")),
  verdicts: (given) => eachLog(given, (log, c) => run(c, log, { checks: true }).verdicts),
  explanations: (given) =>
    eachLog(given, (log, c) => someFrames(run(c, log).frames).map((frame) => explainFrame(c, log, frame))),
  "checks that are offered": (given) =>
    eachLog(given, (log, c) => [
      checksOfWalk(c, log),
      ...someFrames(run(c, log).frames).map((frame) => checksTrueAt(c, log, stateAt(c, log, frame))),
    ]),
  "until choices": (given) =>
    eachLog(given, (log, c) => log.lines.slice(0, 6).map((_, at) => untilChoices(c, log, at))),
  "what a log sets up": (given) =>
    eachLog(given, (log, c) => withLinesOf(c.world, rememberedIn(c, stateAt(c, log, Infinity)))),
  "logs cut, flat and in runs": (given) =>
    eachLog(given, (log, c) => {
      const { lineEnds, frames } = run(c, log);
      return [
        flatLog(log, lineEnds),
        keyRuns(log, lineEnds),
        keyRuns(log, lineEnds).map(asFrames),
        [0, 1, Math.floor(frames / 2), frames].map((frame) => cutLog(log, lineEnds, frame)),
      ];
    }),
  "paths that part": (given) =>
    eachLog(given, (log, c) =>
      pathDifference(
        c,
        log,
        compile({
          ...c.world,
          rules: c.world.rules.map((rules) => ({ ...rules, glide: { ...rules.glide, speed: rules.glide.speed / 2 } })),
        }),
        log,
      ),
    ),
  "traces compared": (given) => {
    const texts = given.logs.map(
      (log) =>
        answered(() => {
          const c = compile(given.world, log.rules ?? undefined);
          return [...traceText(c, run(c, log, { rows: true }).rows!)].join("");
        }) as string,
    );
    return texts.map((text) => answered(() => compareTraces(readTrace(text), readTrace(texts[0]!))));
  },
  reports: (given) =>
    eachLog(given, (log, c) => {
      const { verdicts, frames } = run(c, log, { checks: true });
      return junitXml(
        [
          { log: "one", frames, checks: verdicts },
          { log: "two", error: "is no log" },
        ],
        c.world.frameRate,
      );
    }),
  "findings of worlds": ({ world }) => worldFindings(world),
  "findings of logs": (given) => eachLog(given, (log, c) => logFindings(c, log)),
  "single changes": ({ world }) =>
    world.rules.map((rules) => singleChanges(world, rules).map((change) => changeText(world, rules, change))),
  "changes tried": ({ world, logs }) => {
    const named = new Map(logs.slice(0, 2).map((log, i) => [`log-${i}`, log]));
    return answered(() => {
      const trying = beginTrying(world, named, "log-0");
      const rules = world.rules.find(({ id }) => id === world.activeRules)!;
      return singleChanges(world, rules, [], trying.stops)
        .filter((_, i) => i % 9 === 0)
        .map((change) => tryChange(trying, change));
    });
  },
  feels: ({ world }) =>
    world.rules.map((rules) => [measureFeel(rules, world.tileSize), speedFitText(world.tileSize, rules.glide.speed)]),
  "random walks": ({ world, name }) =>
    name === "demo"
      ? null
      : answered(() => takeRandomWalks(compile(world), { seed: SEED, runs: 12, frames: 200 }, new Set())),
  "ways out and back": (given) =>
    given.name === "demo"
      ? null
      : eachLog(given, (log, c) => {
          const { frames, lineEnds } = run(c, log);
          return reEntry(c, log, lineEnds, Math.min(frames, 8));
        }),
  "rooms as text, table and picture": ({ world }) =>
    world.rooms.map((room) => [
      answered(() => writeRoomText(world, room)),
      answered(() => readRoomText(writeRoomText(world, room), world, room.id)),
      answered(() => readRoomTable(writeRoomTable(room), world)),
      answered(() => coloursOf(writeRoomPixels(world, room))),
    ]),
  "damaged room texts": ({ world }) =>
    fc
      .sample(anyDamaged(JSON.stringify(writeRoomText(world, world.rooms[0]!))), { seed: SEED, numRuns: 4 })
      .map((text) =>
        answered(() => readRoomText(text.replaceAll("\\n", "\n").replaceAll('"', ""), world, world.rooms[0]!.id)),
      ),
  "damaged logs": ({ logs }) =>
    fc
      .sample(fc.tuple(fc.nat(200), fc.constantFrom("", "x", "9", " ", "\n", "until ", "@")), {
        seed: SEED,
        numRuns: 12,
      })
      .map(([at, put]) =>
        answered(() => {
          const text = writeLog(logs[0]!);
          return readLog(text.slice(0, at % text.length) + put + text.slice((at % text.length) + 1));
        }),
      ),
  "words of checks": ({ world, logs }) =>
    logs
      .flatMap(({ checks }) => checks)
      .slice(0, 8)
      .flatMap((check) => {
        const text = writeLog({ ...logs[0]!, checks: [check] })
          .split("\n")
          .find((line) => line.startsWith("check "))!
          .slice(6);
        return [text, text.slice(0, -2), `${text} x`, text.replace(/\d/, "q")].map((typed) => [
          completeCheck(world, typed),
          checkFault(world, typed),
        ]);
      }),
  "rooms changed": (given) => {
    const project = projectOf(given);
    return given.world.rooms.flatMap(({ id, width }) => [
      changed(project, ({ world }) => copyRoom(world, id)),
      changed(project, (before) => removeRoom(before, id)),
      changed(project, (before) => changeRoomId(before, id, "renamed-room")),
      changed(project, (before) => resizeRoom(before, id, { north: 1, east: 0, south: -1, west: 2 })),
      changed(project, (before) => resizeRoom(before, id, { north: 0, east: 1 - width, south: 0, west: 0 })),
      changed(project, ({ world }) => wrapRoom(world, id, "x")),
      ...SIDES.map((side) => changed(project, ({ world }) => wallSide(world, id, side))),
      ...SIDES.map((side) =>
        changed(project, ({ world }) =>
          linkSides(world, {
            room: id,
            side,
            to: world.rooms.at(-1)!.id,
            offset: 1,
            span: openingAt(
              world,
              world.rooms.find((room) => room.id === id)!,
              side,
              1,
            ),
            oneWay: false,
          }),
        ),
      ),
    ]);
  },
  "fixtures changed": (given) => {
    const project = projectOf(given);
    return allFixtures(given.world)
      .slice(0, 8)
      .flatMap(({ id }) => [
        threadsOf(given.world, id),
        changed(project, ({ world }) => moveFixtures(world, [id], 1, 0)),
        changed(project, ({ world }) => copyFixtures(world, [id]).world),
        changed(project, (before) => removeFixtures(before, [id])),
        changed(project, (before) => renameFixture(before, id, "renamed-fixture")),
      ]);
  },
  "tiles, flags and rule sets changed": (given) => {
    const project = projectOf(given);
    const { world } = given;
    return [
      [...tileUses(world)],
      [...flagUses(world, tileUses(world))],
      ...world.tiles
        .slice(0, 4)
        .flatMap(({ id }) => [
          changed(project, (before) => copyTile(before.world, id)),
          changed(project, (before) => moveTile(before.world, id, 0)),
          changed(project, (before) => removeTiles(before.world, [id], before.world.tiles[0]!.id)),
        ]),
      ...world.flags.flatMap((flag) => [
        changed(project, (before) => renameFlag(before.world, flag, "renamed")),
        changed(project, (before) => removeFlag(before.world, flag)),
      ]),
      ...world.rules.flatMap(({ id }) => [
        changed(project, (before) => copyRuleSet(before.world, id).world),
        changed(project, (before) => removeRuleSet(before, id)),
      ]),
    ];
  },
  seams: ({ world }) => seamsOf(world),
  "where the body does not fit": ({ world }) => world.rooms.map((_, i) => [...clearance(compile(world).ground, i)]),
  "joined tiles": ({ world }) => {
    const tables = joinTables(world.tiles);
    return world.rooms.map(({ cells, width, height }) =>
      Array.from(cells, (tile, at) =>
        tables[tile] ? joinMask(tables[tile], cells, width, height, at % width, Math.floor(at / width)) : null,
      ),
    );
  },
};

/** An answer as plain JSON: typed arrays and maps as lists, keys in order. */
function plain(_: string, value: unknown): unknown {
  if (ArrayBuffer.isView(value)) return [...(value as unknown as Iterable<number>)];
  if (value instanceof Map) return [...(value as Map<unknown, unknown>)];
  if (Object.is(value, -0)) return "-0";
  if (value === null || typeof value !== "object" || Array.isArray(value)) return value;
  return Object.fromEntries(Object.entries(value).sort(([one], [other]) => (one < other ? -1 : 1)));
}

/** A short name for an answer. */
function hashOf(answer: unknown): string {
  return createHash("sha256")
    .update(JSON.stringify(answer, plain) ?? "nothing")
    .digest("hex")
    .slice(0, 8);
}

type Recorded = Record<string, Record<string, string>>;
const before = process.env["RECORD"] === undefined ? (JSON.parse(readFileSync(ANSWERS, "utf8")) as Recorded) : null;
const now: Recorded = {};

describe("what the core answers is what it answered before", () => {
  it.each(Object.entries(QUESTIONS))("%s", (question, ask) => {
    now[question] = Object.fromEntries(GIVEN.map((given) => [given.name, hashOf(ask(given))]));
    if (before !== null) expect(now[question]).toEqual(before[question]);
    else writeFileSync(ANSWERS, `${JSON.stringify(now, null, 1)}\n`);
  });
});
