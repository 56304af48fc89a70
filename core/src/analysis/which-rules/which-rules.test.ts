import fc from "fast-check";
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { gameLog } from "../../formats/game-log.ts";
import { readGameTable } from "../../formats/game-table.ts";
import { gameTrace } from "../../formats/game-trace.ts";
import { readWorld } from "../../formats/read-world.ts";
import type { InputLog } from "../../logs/input-log.ts";
import { EMPTY_LOG } from "../../logs/input-log.ts";
import { run } from "../../replay/run.ts";
import { compile } from "../../simulation/compile.ts";
import { EFFORT } from "../../test-support/effort.ts";
import { told } from "../../test-support/told.ts";
import { tinyLog, tinyWorld } from "../../test-support/tiny-world.ts";
import type { TinyOptions } from "../../test-support/tiny-world.ts";
import type { World } from "../../world/world.ts";
import { agreementOf } from "./agreement.ts";
import { FAMILIES, FAMILY_SHARES } from "./dimensions.ts";
import { observed } from "./observed.ts";
import { mistakesIn, rulesDifferences } from "./rule-words.ts";
import type { SearchState } from "./which-rules.ts";
import { RuleSearch } from "./which-rules.ts";

/** What a game would have written whose walker goes as a world's does. */
function seenOf(world: World, log: InputLog) {
  const rows = run(compile(world), log, { rows: true }).rows!;
  const frames = Int32Array.from({ length: rows.count }, (_, frame) => frame);
  return observed(log, { count: rows.count, frames, rooms: rows.room, x: rows.x, y: rows.y });
}

function searched(search: Generator<SearchState, void>): SearchState {
  let last: SearchState = { tried: 0, found: [] };
  for (last of search);
  return last;
}

/** The world as somebody has it who knows nothing of a game's rules yet. */
function unknowing(world: World): World {
  const { rules } = tinyWorld(["S"]);
  return { ...world, rules, activeRules: rules[0]!.id };
}

const at = "demo/stand-in-game";
const hall = readWorld(readFileSync(`${at}/hall.world.json`, "utf8"));
const standIn = (file: string) => {
  const table = readGameTable(readFileSync(`${at}/${file}`, "utf8"));
  const [game] = hall.games;
  return observed(gameLog(table, game!), gameTrace(table, game!, hall, hall.rules[0]!));
};

describe("which rules a game goes by", () => {
  it("is found exactly for the stand-in game, also by who knows nothing of it", () => {
    const [best] = searched(new RuleSearch(hall, hall.rules[0]!, [standIn("trace.csv")], 0).search()).found;
    expect(best).toMatchObject({ agreed: 273, frames: 273, first: null });
    expect(rulesDifferences(hall.rules[0]!, best!.rules)).toEqual([]);
    const strange = unknowing(hall);
    const [found] = searched(new RuleSearch(strange, strange.rules[0]!, [standIn("trace.csv")], 0).search()).found;
    expect(found).toMatchObject({ first: null, rules: { gait: "roam", roam: { response: "contact", speedX: 2 } } });
  });

  it("names the mistake of the one that has it, and in what it differs from ours", () => {
    const { found } = searched(new RuleSearch(hall, hall.rules[0]!, [standIn("trace-both-back.csv")], 0).search());
    expect(found[0]).toMatchObject({ first: null, rules: { gait: "roam", roam: { response: "undo-both" } } });
    expect(mistakesIn(found[0]!.rules)).toContain("takes back both axes");
    expect(rulesDifferences(hall.rules[0]!, found[0]!.rules)).toEqual([
      { label: "Response", here: "contact", there: "undo-both" },
    ]);
    // What others come to is ranked behind it.
    expect(found).toHaveLength(FAMILIES.length);
    expect(found.slice(1).every(({ first }) => first !== null)).toBe(true);
  });

  it("is found from two traces together where one alone says too little", () => {
    const world = tinyWorld(["S.......", "........", ".....#..", "........"], {
      gait: "roam",
      roam: { speedX: 2, speedY: 3 },
    });
    const strange = unknowing(world);
    const traces = [seenOf(world, tinyLog("30 R, 10 L")), seenOf(world, tinyLog("12 D, 9 U, 20 D"))];
    const [best] = searched(new RuleSearch(strange, strange.rules[0]!, traces, 0).search()).found;
    expect(best).toMatchObject({ first: null, rules: { roam: { speedX: 2, speedY: 3 } } });
    expect(best!.frames).toBe(81);
  });

  it("is shared out so that every kind is searched once", () => {
    expect(FAMILY_SHARES.flat().length).toBe(FAMILIES.length);
    expect(new Set(FAMILY_SHARES.flat())).toEqual(new Set(FAMILIES));
  });

  it("is found for random rules in random rooms, in all frames", () => {
    let found = 0;
    const runs = 3 * EFFORT;
    for (const { world, log } of fc.sample(anyWalked, { seed: 5, numRuns: runs })) {
      const strange = unknowing(world);
      const [best] = searched(new RuleSearch(strange, strange.rules[0]!, [seenOf(world, log)], 0).search()).found;
      if (best!.first === null) found++;
    }
    told("which rules", { worlds: runs, found });
    expect(found / runs).toBeGreaterThanOrEqual(EFFORT === 1 ? 1 : 0.9);
  });
});

const anySpeed = fc.integer({ min: 1, max: 32 }).map((quarters) => quarters / 4);
const anyWalked = fc
  .record({
    cells: fc.array(fc.constantFrom(..."......##/="), { minLength: 70, maxLength: 70 }),
    gait: fc.constantFrom("hop" as const, "glide" as const, "roam" as const, "drift" as const),
    speed: anySpeed,
    response: fc.constantFrom("contact" as const, "undo-axis" as const, "undo-both" as const, "snap" as const),
    inset: fc.integer({ min: 0, max: 5 }),
    ways: fc.constantFrom(4 as const, 8 as const),
    bufferFrames: fc.integer({ min: 0, max: 9 }),
    keys: fc.array(fc.tuple(fc.integer({ min: 1, max: 30 }), fc.integer({ min: 0, max: 15 })), {
      minLength: 40,
      maxLength: 40,
    }),
  })
  .map(({ cells, gait, speed, response, inset, ways, bufferFrames, keys }): { world: World; log: InputLog } => {
    const rows = Array.from({ length: 7 }, (_, y) => cells.slice(y * 10, y * 10 + 10).join(""));
    const free = { response, diagonal: "even" as const };
    const options: TinyOptions = {
      gait,
      input: { opposites: "cancel", ways, prefer: "latest" },
      glide: { speed, bufferFrames },
      roam: { speedX: speed, speedY: speed, ...free },
      drift: { accel: speed / 8, drag: 20, maxSpeed: speed, ...free },
      body: { kind: "box", box: [inset, inset, 16 - 2 * inset, 16 - 2 * inset], flush: "free" },
    };
    const lines = keys.map(([count, held]) => ({
      kind: "keys" as const,
      count,
      keys: held,
      pointer: null,
      until: null,
    }));
    return { world: tinyWorld([`S${rows[0]!.slice(1)}`, ...rows.slice(1)], options), log: { ...EMPTY_LOG, lines } };
  });

describe("how well a rule set agrees", () => {
  const world = tinyWorld(["S.......", "........"], { gait: "roam", roam: { speedX: 2, speedY: 2 } });
  const seen = seenOf(world, tinyLog("20 R, 20 L"));

  it("is every frame for the game's own", () => {
    expect(agreementOf(compile(world), seen, 0)).toEqual({ agreed: 40, frames: 40, first: null });
  });

  it("costs one frame for each that is wrong: the walker is put where the game's was", () => {
    const wrong = tinyWorld(["S.......", "........"], { gait: "roam", roam: { speedX: 3, speedY: 2 } });
    const { agreed, first } = agreementOf(compile(wrong), seen, 0);
    // Only in the last one, where both stand at the wall.
    expect([agreed, first]).toEqual([1, 1]);
    // Within the tolerance it goes on from where it is itself, and falls behind.
    expect(agreementOf(compile(wrong), seen, 3 * 256)).toMatchObject({ first: 4 });
  });

  it("is not looked at further than it matters", () => {
    const wrong = tinyWorld(["S.......", "........"], { gait: "roam", roam: { speedX: 3, speedY: 2 } });
    expect(agreementOf(compile(wrong), seen, 0, 4)).toMatchObject({ agreed: 0, frames: 5 });
  });
});
