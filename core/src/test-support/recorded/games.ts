import { conform, ghostRows, spotBefore } from "../../analysis/conform.ts";
import { divergenceText } from "../../analysis/divergence-text.ts";
import { walkFeel } from "../../analysis/walk-feel.ts";
import { agreementOf } from "../../analysis/which-rules/agreement.ts";
import { observed } from "../../analysis/which-rules/observed.ts";
import { readOff } from "../../analysis/which-rules/read-off.ts";
import { mistakesIn, rulesDifferences } from "../../analysis/which-rules/rule-words.ts";
import type { SearchState } from "../../analysis/which-rules/which-rules.ts";
import { RuleSearch } from "../../analysis/which-rules/which-rules.ts";
import type { GameTrace } from "../../formats/game-trace.ts";
import type { InputLog } from "../../logs/input-log.ts";
import { explainFrame, run } from "../../replay/run.ts";
import { compile } from "../../simulation/compile.ts";
import { takeHome } from "../../take-home/take-home.ts";
import { usedNames, usesOf } from "../../take-home/uses.ts";
import type { World } from "../../world/world.ts";
import type { Questions } from "./given.ts";
import { answered, eachLog } from "./given.ts";

/** What a game would have written whose walker goes as a world's does, a row every so many frames. */
function traceOf(world: World, log: InputLog, every = 1): GameTrace {
  const rows = run(compile(world, log.rules ?? undefined), log, { rows: true }).rows!;
  const frames = Array.from({ length: rows.count }, (_, frame) => frame).filter((frame) => frame % every === 0);
  return {
    count: frames.length,
    frames: Int32Array.from(frames),
    rooms: Uint8Array.from(frames, (frame) => rows.room[frame]!),
    x: Int32Array.from(frames, (frame) => rows.x[frame]!),
    y: Int32Array.from(frames, (frame) => rows.y[frame]!),
  };
}

/** A world whose walker is quicker on its feet. */
const otherwise = (world: World): World => ({
  ...world,
  rules: world.rules.map((rules) => ({
    ...rules,
    glide: { ...rules.glide, speed: rules.glide.speed / 2 },
    roam: { ...rules.roam, speedX: rules.roam.speedX / 2 },
    drift: { ...rules.drift, accel: rules.drift.accel / 2 },
  })),
});

/** Of games whose walkers were watched, and of what is taken home into one. */
export const GAMES: Questions = {
  "a game that goes otherwise": (given) =>
    eachLog(given, (log, c) => {
      const theirs = traceOf(otherwise(given.world), log, 3);
      const ours = run(c, log, { rows: true }).rows!;
      const found = conform(ours, theirs, 0.5);
      const { first } = found;
      return [
        found,
        ghostRows(theirs),
        first && divergenceText(c.world, first, spotBefore(theirs, first.frame), explainFrame(c, log, first.frame)),
      ];
    }),
  "what a walk says by itself": (given) =>
    eachLog(given, (log, c) => {
      const rows = run(c, log, { rows: true }).rows!;
      return [walkFeel(rows, rows.keys), readOff([observed(log, traceOf(given.world, log))])];
    }),
  "how well rules agree": (given) =>
    eachLog(given, (log, c) =>
      [1, 3].map((every) => {
        const seen = observed(log, traceOf(otherwise(given.world), log, every));
        return [false, true].flatMap((keepGoing) =>
          [0, 300].map((tolerance) => {
            const rules = c.world.rules.map((each) => ({ ...each, glide: { ...each.glide, keepGoing } }));
            return agreementOf(compile({ ...c.world, rules }, c.rules.id), seen, tolerance, 40);
          }),
        );
      }),
    ),
  "which rules a game goes by": ({ name, world, logs }) => {
    // Each search takes a while.
    if (!/^walk \d$|^house 2$/.test(name)) return null;
    const traces = logs.map((log) => observed(log, traceOf(otherwise(world), log)));
    let last: SearchState = { tried: 0, found: [] };
    for (last of new RuleSearch(world, world.rules[0]!, traces, 0).search()) if (last.tried > 1000) break;
    return [last, last.found.map(({ rules }) => [mistakesIn(rules), rulesDifferences(world.rules[0]!, rules)])];
  },
  "what the program has to have": ({ world }) =>
    world.rules.map((rules) => {
      const uses = usesOf(world, rules);
      return [[...uses], [...usedNames(uses)]];
    }),
  "what is taken home": ({ world, logs, name }) =>
    name === "demo"
      ? null
      : answered(() => takeHome(world, world.activeRules, new Map(logs.map((log, i) => [`log-${i}`, log])))),
};
