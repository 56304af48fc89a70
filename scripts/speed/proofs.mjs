// 1,000 logs of 3,600 frames with 5 checks each, on the demo: verified by the command line, and proven by the server.
import { spawn } from "node:child_process";
import { randomUUID } from "node:crypto";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { EMPTY_LOG, parseCheck, writeLog } from "@keen-pebble/core/check";
import { ROOT } from "../setup/run.mjs";
import { say, sized } from "./measure.mjs";
import { ownServer } from "./own-server.mjs";
import { logOf } from "./worlds.mjs";

const LOGS = sized(1000, 12);
const ROUNDS = sized(5, 1);
const FRAMES = 3600;
const SIZE = `${LOGS} logs of ${FRAMES} frames, 5 checks each`;
const CHECKS = [
  "always aligned",
  "never overlap",
  "end status playing",
  "ever holds brass-crank",
  "at 3600 room intake-hall",
].map((text) => {
  const parsed = parseCheck(text.split(" "));
  if ("fault" in parsed) throw new Error(parsed.fault);
  return parsed.check;
});
const folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-speed-"));
const demo = path.join(ROOT, "demo/saltglass-cistern/saltglass-cistern.world.json");

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
const spread = (values) => median(values.map((value) => Math.abs(value - median(values)))) / median(values);

/** The most memory that a process and its threads had so far, in MiB. */
function peakOf(pid) {
  try {
    return Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0) / 1024;
  } catch {
    return 0;
  }
}

const logs = {};
for (let i = 0; i < LOGS; i++)
  logs[`walk-${i}`] = writeLog({ ...EMPTY_LOG, title: `Walk ${i}`, checks: CHECKS, lines: logOf(FRAMES, i + 1) });
const logFolder = path.join(folder, "logs");
mkdirSync(logFolder);
for (const [id, text] of Object.entries(logs)) writeFileSync(path.join(logFolder, `${id}.inputs`), text);

// The command line, as a user calls it: with the start of its process, and the reading of the files.
let peak = 0;
async function verify() {
  const began = performance.now();
  const child = spawn(process.execPath, ["cli/bin/keen-pebble.js", "verify", demo, logFolder], {
    cwd: ROOT,
    stdio: ["ignore", "pipe", "inherit"],
  });
  child.stdout.resume();
  const look = setInterval(() => (peak = Math.max(peak, peakOf(child.pid))), 20);
  await new Promise((resolve) => child.on("exit", resolve));
  clearInterval(look);
  return performance.now() - began;
}
const byHand = [];
for (let i = 0; i < ROUNDS; i++) byHand.push(await verify());
say("verify by the command line", SIZE, median(byHand), "ms", spread(byHand), Math.min(...byHand));
say("memory of verify at its most", SIZE, peak, "MiB", 0);

// The server: from the question to the last outcome, each time for another content of the world.
const { ask, pid, stop } = await ownServer();
await ask("/imports", "POST", { world: readFileSync(demo, "utf8"), logs });
const world = "/worlds/saltglass-cistern";
await ask(`${world}/outcomes`);
const byServer = [];
for (let revision = 1; revision <= ROUNDS; revision++) {
  await ask(`${world}/revisions`, "POST", {
    batch: randomUUID(),
    base: revision,
    steps: [{ kind: "change-parts", parts: [{ part: "seed", before: revision, after: revision + 1 }] }],
  });
  const began = performance.now();
  let state = await ask(`${world}/proofs`, "POST");
  while (state.state !== "done") state = (await ask(`${world}/proofs`)).proofs;
  byServer.push(performance.now() - began);
}
say("proofs by the server", SIZE, median(byServer), "ms", spread(byServer), Math.min(...byServer));
say("memory of the server at its most", SIZE, peakOf(pid), "MiB", 0);
say(
  "proofs by the server against the command line",
  SIZE,
  median(byServer) / median(byHand),
  "ratio",
  0,
  Math.min(...byServer) / Math.min(...byHand),
);
await stop();
rmSync(folder, { recursive: true, force: true });
