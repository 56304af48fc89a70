import { measureFeel } from "../../analysis/feel.ts";
import { logFindings } from "../../analysis/findings/log-findings.ts";
import { worldFindings } from "../../analysis/findings/world-findings.ts";
import { speedFitText } from "../../analysis/findings/speed-fit.ts";
import { singleChanges } from "../../analysis/fixes/candidates.ts";
import { changeText } from "../../analysis/fixes/single-change.ts";
import { beginTrying, tryChange } from "../../analysis/fixes/try-change.ts";
import { takeRandomWalks } from "../../analysis/random-walks/search.ts";
import { settingShown } from "../../analysis/setting-shows.ts";
import { reEntry } from "../../analysis/re-entry.ts";
import { run } from "../../replay/run.ts";
import { isUpToChance, overSeeds } from "../../replay/over-seeds.ts";
import { compile } from "../../simulation/compile.ts";
import { SETTINGS } from "../../world/settings.ts";
import type { Questions } from "./given.ts";
import { SEED, answered, eachLog } from "./given.ts";

/** Of analysis. */
export const ANALYSIS: Questions = {
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
  // They are the same in all worlds.
  "settings shown": ({ name }) => (name === "demo" ? SETTINGS.map(({ path }) => [path, settingShown(path)]) : null),
  "over seeds": (given) =>
    eachLog(given, (log, c) => {
      const { rows } = run(c, log, { rows: true });
      return isUpToChance(given.world, rows!) ? overSeeds(c, log, 7, 12) : null;
    }),
  // A room by itself has no way out.
  "ways out and back": (given) =>
    given.name === "demo" || given.world.rooms.length === 1
      ? null
      : eachLog(given, (log, c) => {
          const { frames, lineEnds } = run(c, log);
          return reEntry(c, log, lineEnds, Math.min(frames, 8));
        }),
};
