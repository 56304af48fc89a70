// Which rules am I?: random rule sets in random rooms, 1,200 frames each. How many are found so that all frames come
// out, within 20 s on two threads as the page searches, and how long it takes.
import { Worker, isMainThread, parentPort, workerData } from "node:worker_threads";
import { FAMILY_SHARES, RuleSearch, byAgreement, observed } from "@keen-pebble/core/analyse";
import { EMPTY_LOG } from "@keen-pebble/core/check";
import { readWorld } from "@keen-pebble/core/reading";
import { newRules } from "@keen-pebble/core/world";
import { compile, run } from "@keen-pebble/core/simulate";
import { say, sized } from "./measure.mjs";
import { mixedWorld, numbersFrom } from "./worlds.mjs";

const RULE_SETS = sized(100, 1);
const FRAMES = 1200;
const LIMIT = sized(20_000, 300);

/** A room of mixed shapes with a rule set of any kind, and a walk of random keys in it. */
function anyWalk(seed) {
  const any = numbersFrom(seed * 7919 + 1);
  const one = (...values) => values[any(values.length)];
  const speed = () => one((1 + any(32)) / 4, (1 + any(2048)) / 256);
  const gait = one("hop", "glide", "roam", "drift");
  const free = () => ({
    diagonal: one("even", "full"),
    response: one("contact", "contact", "contact", "undo-axis", "undo-both", "snap", "ahead"),
    axisOrder: one("x-first", "y-first"),
    aheadPx: one(1, 2, 4),
    nudge: one(0, 0, 3, 6),
    slopes: one("slide", "stop"),
  });
  const inset = any(6);
  const box = one([inset, inset, 16 - 2 * inset, 16 - 2 * inset], [any(5), any(5), 4 + any(8), 4 + any(8)]);
  const base = mixedWorld(10 + any(6), 8 + any(5), gait);
  const [rules] = base.rules;
  const world = readWorld(
    JSON.stringify({
      ...base,
      rules: [
        {
          ...rules,
          input: {
            opposites: one("cancel", "latest", "earliest"),
            ways: one(4, 8),
            prefer: one("latest", "horizontal", "vertical"),
          },
          walker: { ...rules.walker, body: { kind: "box", box, flush: one("free", "free", "free", "blocks") } },
          hop: { repeatAfter: any(7), repeatEvery: any(4), slide: one(true, false), cutCorners: one(true, false) },
          glide: {
            speed: speed(),
            arrive: one("land", "land", "past", "equal"),
            carry: one(true, false),
            slide: one(true, false),
            bufferFrames: any(12),
            keepGoing: one(false, false, true),
            reverse: one(true, false),
            cutCorners: one(true, false),
          },
          roam: { speedX: speed(), speedY: speed(), ...free() },
          drift: { accel: speed() / 8 + 1 / 256, drag: any(120), maxSpeed: speed(), ...free() },
        },
      ],
    }),
  );
  const lines = [];
  for (let left = FRAMES; left > 0;) {
    const count = Math.min(left, 1 + any(40));
    lines.push({ kind: "keys", count, keys: any(16), pointer: null, until: null });
    left -= count;
  }
  return { world, log: { ...EMPTY_LOG, lines } };
}

/** Rules that know nothing of a world but what blocks in it. */
function unknowing(world) {
  const rules = newRules("main", "Main", "glide", 16);
  return { ...rules, walker: { ...rules.walker, blockedBy: world.rules[0].walker.blockedBy } };
}

function traced(world, log) {
  const { rows } = run(compile(world), log, { rows: true });
  if (rows === null) throw new Error("no rows were kept");
  const { room, x, y, count } = rows;
  const frames = Int32Array.from({ length: count }, (_, frame) => frame);
  return observed(log, { count, frames, rooms: room, x, y });
}

if (isMainThread) {
  const times = [];
  let found = 0;
  const threads = FAMILY_SHARES.map(
    (_, share) => new Worker(new URL(import.meta.url), { workerData: share, argv: process.argv.slice(2) }),
  );
  for (let seed = 0; seed < RULE_SETS; seed++) {
    const began = performance.now();
    const answers = await Promise.all(
      threads.map(
        (thread) =>
          new Promise((resolve) => {
            thread.once("message", (answer) => {
              // Who has found it ends the other's search.
              if (answer.first === null)
                for (const other of threads) if (other !== thread) other.postMessage({ enough: seed });
              resolve(answer);
            });
            thread.postMessage({ seed });
          }),
      ),
    );
    answers.sort(byAgreement);
    if (answers[0]?.first === null) found++;
    times.push(performance.now() - began);
  }
  for (const thread of threads) await thread.terminate();
  times.sort((a, b) => a - b);
  say(
    "which rules am I: found in all frames",
    `${RULE_SETS} rule sets, ${FRAMES} frames`,
    found / RULE_SETS,
    "share",
    0,
  );
  say(
    "which rules am I: time of a search",
    `${RULE_SETS} rule sets, two threads`,
    (times[times.length >> 1] ?? 0) / 1000,
    "s",
    0,
    (times[0] ?? 0) / 1000,
  );
  say(
    "which rules am I: the longest search",
    `${RULE_SETS} rule sets, two threads`,
    (times.at(-1) ?? 0) / 1000,
    "s",
    0,
  );
} else {
  let enough = -1;
  parentPort?.on("message", async (message) => {
    if ("enough" in message) {
      enough = message.enough;
      return;
    }
    const { seed } = message;
    const { world, log } = anyWalk(seed);
    const rules = unknowing(world);
    const search = new RuleSearch({ ...world, rules: [rules], activeRules: rules.id }, rules, [traced(world, log)], 0);
    const began = performance.now();
    let told = began;
    /** @type {import("@keen-pebble/core/analyse").SearchState} */
    let state = { tried: 0, found: [] };
    for (state of search.search(FAMILY_SHARES[workerData])) {
      const now = performance.now();
      if (now - began > LIMIT || state.found[0]?.first === null) break;
      if (now - told < 100) continue;
      told = now;
      await new Promise((go) => setImmediate(go));
      if (enough === seed) break;
    }
    const [best] = state.found;
    parentPort?.postMessage({ agreed: best?.agreed, frames: best?.frames, first: best?.first });
  });
}
