import fc from "fast-check";
import { readFileSync, readdirSync } from "node:fs";
import { checkText } from "../../checks/check.ts";
import { differences } from "../../edits/differences.ts";
import type { Project } from "../../edits/project.ts";
import { summary } from "../../edits/summary.ts";
import { readWorld } from "../../formats/read-world.ts";
import type { InputLog } from "../../logs/input-log.ts";
import { readLog } from "../../logs/read-log.ts";
import { writeLog } from "../../logs/write-log.ts";
import { compile } from "../../simulation/compile.ts";
import { anyFullLogOf } from "../any-full-log.ts";
import { anyHouseWithActors } from "../any-actors.ts";
import { anyHouse } from "../any-house.ts";
import { tinyWorld } from "../tiny-world.ts";
import { anyGait, anyLog, anyRows, anyWorld } from "../arbitraries.ts";
import type { Fixture } from "../../world/fixtures.ts";
import { allFixtures } from "../../world/queries.ts";
import type { Pair, Shape, Tile, World } from "../../world/world.ts";

/** Of everything that is made at random for them. */
export const SEED = 20_261_128;

/** A world with logs that begin and run in it. */
export interface Given {
  readonly name: string;
  readonly world: World;
  readonly logs: readonly InputLog[];
}

const demo = new URL("../../../../demo/saltglass-cistern/", import.meta.url);
const logsOf = (world: World): InputLog[] => fc.sample(anyFullLogOf(world), { seed: SEED, numRuns: 2 });
/** Shapes with no two edges alike. */
const SHAPES: readonly Shape[] = [
  { kind: "boxes", boxes: [[3, 9, 8, 4]] },
  {
    kind: "boxes",
    boxes: [
      [0, 1, 5, 15],
      [9, 2, 4, 3],
    ],
  },
  {
    kind: "poly",
    points: [
      [2, 0],
      [16, 5],
      [9, 16],
    ],
  },
  {
    kind: "poly",
    points: [
      [1, 3],
      [12, 2],
      [15, 14],
      [4, 11],
    ],
  },
  {
    kind: "poly",
    points: [
      [0, 16],
      [16, 0],
      [16, 16],
    ],
  },
];
/** Rooms without anything in them, under any gait, walked by random keys. */
const anyWalked = fc
  .record({
    rows: anyRows,
    options: anyGait,
    shapes: fc.tuple(fc.constantFrom(...SHAPES), fc.constantFrom(...SHAPES)),
    logs: fc.array(anyLog, { minLength: 2, maxLength: 2 }),
  })
  .map(({ rows, options, shapes: [slope, ledge], logs }) => {
    const world = tinyWorld(rows, options);
    const shapeOf = ({ id, shape }: Tile): Shape => (id === "slope" ? slope : id === "ledge" ? ledge : shape);
    return { world: { ...world, tiles: world.tiles.map((tile) => ({ ...tile, shape: shapeOf(tile) })) }, logs };
  });
const sampled = (name: string, any: fc.Arbitrary<World>, numRuns: number): Given[] =>
  fc.sample(any, { seed: SEED, numRuns }).map((world, i) => ({ name: `${name} ${i}`, world, logs: logsOf(world) }));

/** Niches behind locks that spend what one has, with a goal: one may get stuck in many of them, or lose something for good. */
const anyVault: fc.Arbitrary<World> = fc
  .record({
    gait: fc.constantFrom("hop" as const, "glide" as const),
    onWay: fc.array(fc.constantFrom("key", "key", "ruby"), { minLength: 2, maxLength: 3 }),
    niches: fc.tuple(...Array.from({ length: 4 }, () => fc.constantFrom("key", "ruby", "goal", "nothing"))),
    locks: fc.tuple(
      ...Array.from({ length: 4 }, () =>
        fc.record({
          item: fc.constantFrom("key", "key", "ruby"),
          count: fc.constantFrom(1, 1, 2),
          spends: fc.boolean(),
        }),
      ),
    ),
    collects: fc.boolean(),
  })
  .map(({ gait, onWay, niches, locks, collects }) => {
    const base = tinyWorld(["# # # # #", "# # # # #", "S        "], { gait });
    const common = { touch: "cell", keeps: "run" } as const;
    const had = (id: string, give: string, cell: Pair): Fixture => ({
      ...common,
      id,
      cell,
      kind: "item",
      give,
      count: 1,
    });
    const fixtures = [
      ...onWay.map((give, i) => had(`way-${i}`, give, [2 * i + 2, 2])),
      ...locks.map((lock, i): Fixture => ({
        ...common,
        id: `door-${i}`,
        cell: [2 * i + 1, 1],
        kind: "door",
        lock: { kind: "item", ...lock },
        opensOn: "push",
        closes: "never",
      })),
      ...niches.flatMap((what, i): Fixture[] => {
        const [id, cell]: [string, Pair] = [`niche-${i}`, [2 * i + 1, 0]];
        if (what === "nothing") return [];
        return [what === "goal" ? { ...common, id, cell, kind: "marker", name: id } : had(id, what, cell)];
      }),
    ];
    const item = (id: string) => ({ id, name: id, role: "key", colour: "#cc9933" }) as const;
    const goal = niches.indexOf("goal");
    return {
      ...base,
      items: [item("key"), item("ruby")],
      goal: goal < 0 || collects ? { kind: "collect", item: "ruby" } : { kind: "marker", fixture: `niche-${goal}` },
      rooms: [{ ...base.rooms[0]!, fixtures }],
    };
  });
/** The worlds that are asked about. */
export const GIVEN: readonly Given[] = [
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
  ...sampled("vault", anyVault, 20),
  ...sampled("crowd", anyHouseWithActors, 8),
  ...fc.sample(anyWalked, { seed: SEED, numRuns: 36 }).map((given, i) => ({ name: `walk ${i}`, ...given })),
];

/** The answer, or what is said where it is refused. */
export function answered(ask: () => unknown): unknown {
  try {
    return ask();
  } catch (error) {
    return `refused: ${(error as Error).message}`;
  }
}

/** What a project becomes by a change, as the steps and words that a revision of it has. */
export function changed(
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

/** Checks about all play that name as much of a world as there is. */
export function playChecks(world: World): string[] {
  const [room] = world.rooms;
  return [
    "winnable",
    "never stuck",
    "aligned",
    `reachable cell 1 0 in ${room!.id}`,
    `unreachable cell 0 ${room!.height - 1} in ${room!.id}`,
    ...allFixtures(world)
      .slice(0, 3)
      .flatMap(({ id }) => [`reachable ${id}`, `unreachable ${id}`]),
    ...world.items.slice(0, 2).flatMap(({ id }) => [`reachable all ${id}`, `never lost ${id}`]),
  ];
}

/** The world with laws and checks about all play: changes have to follow them. */
function withLaws({ world, logs }: Given): World {
  const laws = logs.flatMap(({ checks }) => checks.map(({ what }) => checkText({ when: { kind: "never" }, what })));
  return { ...world, laws: [...new Set([...world.laws, ...laws])].slice(0, 12), reachChecks: playChecks(world) };
}

export const projectOf = (given: Given): Project => ({
  world: withLaws(given),
  logs: new Map(given.logs.map((log, i) => [`log-${i}`, writeLog(log)])),
});
/** What is asked of each log of a world. */
export const eachLog = (
  { world, logs }: Given,
  ask: (log: InputLog, c: ReturnType<typeof compile>) => unknown,
): unknown => logs.map((log) => answered(() => ask(log, compile(world, log.rules ?? undefined))));
/** Some frames of a run: all of its first ones, and every so many of the rest. */
export const someFrames = (frames: number): number[] =>
  Array.from({ length: frames + 1 }, (_, i) => i).filter((i) => i < 12 || i % 23 === 0);

/** Questions by name. */
export type Questions = Readonly<Record<string, (given: Given) => unknown>>;
