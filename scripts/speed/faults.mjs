// 100 faults planted by seed in copies of the demo: the share that its logs find, and whether "what broke it" names the revision.
import { randomUUID } from "node:crypto";
import { readFileSync, readdirSync } from "node:fs";
import path from "node:path";
import { readWorld } from "@keen-pebble/core/reading";
import { ROOT } from "../setup/run.mjs";
import { say, sized } from "./measure.mjs";
import { ownServer } from "./own-server.mjs";
import { plant } from "./planted.mjs";
import { numbersFrom } from "./worlds.mjs";

const FAULTS = sized(100, 1);
const REVISIONS = 12;
const demo = path.join(ROOT, "demo/saltglass-cistern");
const text = readFileSync(path.join(demo, "saltglass-cistern.world.json"), "utf8");
const logs = Object.fromEntries(
  readdirSync(path.join(demo, "logs")).map((name) => [
    name.slice(0, -".inputs".length),
    readFileSync(path.join(demo, "logs", name), "utf8").replace(/^world .*\n/m, ""),
  ]),
);

const { ask, stop } = await ownServer();

let found = 0;
let named = 0;
let searches = 0;
const missed = new Map();
const took = [];
for (let seed = 1; seed <= FAULTS; seed++) {
  const id = `copy-${seed}`;
  const world = text.replace('"id": "saltglass-cistern"', `"id": "${id}"`);
  await ask("/imports", "POST", { world, logs });
  // The fault comes among changes that hurt nobody.
  const any = numbersFrom(seed + 1000);
  const at = 2 + any(REVISIONS - 2);
  const fault = plant(readWorld(world), seed);
  let colour = "#85918b";
  for (let revision = 1; revision < REVISIONS; revision++) {
    const next = `#${(0x808080 + any(0x7f7f7f)).toString(16)}`;
    const tile = (fill) => ({
      id: "cracked-2",
      name: "Cracked again",
      flags: [],
      shape: { kind: "full" },
      look: { fill },
      joins: null,
      glyph: null,
    });
    const steps =
      revision + 1 === at
        ? fault.steps
        : [
            {
              kind: "change-parts",
              parts: [
                {
                  part: "tiles/cracked-2",
                  before: revision === 1 || (revision === 2 && at === 2) ? null : tile(colour),
                  after: tile(next),
                },
              ],
            },
          ];
    if (revision + 1 !== at) colour = next;
    await ask(`/worlds/${id}/revisions`, "POST", { batch: randomUUID(), base: revision, steps });
  }
  const { outcomes } = await ask(`/worlds/${id}/outcomes`);
  const broken = outcomes.find(({ holds }) => !holds);
  if (broken === undefined) {
    missed.set(fault.kind, (missed.get(fault.kind) ?? 0) + 1);
    continue;
  }
  found++;
  // A log that cannot be run any more has no checks to ask for: any would do.
  const check = broken.checks.find(({ verdict }) => verdict !== "pass")?.check ?? "always aligned";
  const began = performance.now();
  let search = await ask(`/worlds/${id}/searches`, "POST", { log: broken.log, check });
  while (search.state === "running") search = await ask(`/worlds/${id}/searches/${search.id}`);
  took.push(performance.now() - began);
  searches++;
  if (search.found?.revision === at) named++;
  else process.stderr.write(`seed ${seed}, ${fault.kind} at ${at}: ${JSON.stringify(search)}\n`);
}
const median = [...took].sort((a, b) => a - b)[Math.floor(took.length / 2)];
say(
  "planted faults that the demo's logs find",
  `${FAULTS} by seed; missed: ${[...missed].map(([kind, n]) => `${n} ${kind}`).join(", ") || "none"}`,
  found / FAULTS,
  "share",
  0,
);
say(
  'found ones whose revision is named by "what broke it"',
  `${searches} among ${REVISIONS} revisions each`,
  named / searches,
  "share",
  0,
);
say("what broke it", `${REVISIONS} revisions`, median, "ms", 0, Math.min(...took));
await stop();
