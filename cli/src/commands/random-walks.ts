import type { RandomWalkFinding, RandomWalkTask } from "@keen-pebble/core/analyse";
import { shortestFindings, randomWalkTasks } from "@keen-pebble/core/analyse";
import { writeLog } from "@keen-pebble/core/check";
import { toPlain } from "@keen-pebble/core/formats";
import { compile } from "@keen-pebble/core/simulate";
import { NO, OK } from "../exit-codes.ts";
import { worldFile, writeWhole } from "../files.ts";
import { ensureApart } from "../options.ts";
import { printBeside } from "../standard-output.ts";
import { Progress } from "../progress.ts";
import { mapInThreads } from "../map-in-threads.ts";
import { STANDARD, UnusableOption } from "../unusable.ts";
import type { RandomWalksShared } from "../random-walks.thread.ts";

export interface RandomWalksOptions {
  readonly runs: string;
  readonly frames: string;
  readonly seed: string;
  readonly rules?: string;
  readonly out?: string;
  readonly json?: boolean;
}

/**
 * `wander WORLD --runs N --frames M --seed S`: walks at random and looks for broken laws, in threads. Exits 1 where one
 * is broken. The same seed finds the same.
 */
export async function randomWalks(worldPath: string, options: RandomWalksOptions): Promise<number> {
  const print = printBeside(options.out);
  ensureApart(options.json ?? false, [["--out", options.out]]);
  const world = worldFile(worldPath);
  const task: RandomWalkTask = {
    runs: whole("--runs", options.runs, 1, 10_000_000),
    frames: whole("--frames", options.frames, 1, 1_000_000),
    seed: whole("--seed", options.seed, 0, 2_000_000_000),
  };
  const rules = options.rules ?? world.activeRules;
  // Refuses a rule set that is not there before any thread is started.
  compile(world, rules);
  const tasks = randomWalkTasks(task);
  const progress = new Progress("walks", task.runs);
  const found: RandomWalkFinding[] = [];
  let done = 0;
  const shared: RandomWalksShared = { world: toPlain(world), rules };
  try {
    await mapInThreads<RandomWalkTask, RandomWalkFinding[]>(
      "./random-walks.thread.js",
      shared,
      tasks,
      (findings, at) => {
        found.push(...findings);
        done += tasks[at]!.runs;
        progress.at(done);
        return true;
      },
    );
  } finally {
    progress.stop();
  }
  const findings = shortestFindings(found);
  // Standard output takes one log: more could not be told apart.
  if (options.out !== undefined)
    findings
      .slice(0, options.out === STANDARD ? 1 : undefined)
      .forEach((finding, i) => writeWhole(numbered(options.out!, i), [writeLog(finding.log)]));
  if (options.json)
    print(
      JSON.stringify(
        findings.map(({ log, ...rest }) => ({ ...rest, log: writeLog(log) })),
        null,
        2,
      ),
    );
  else {
    for (const { law, seed, frame, foundAt } of findings)
      print(`broken in frame ${frame}: ${law}; seed ${seed}, shrunk from ${foundAt} frames`);
    print(
      `${task.runs} walks of at most ${task.frames} frames under ${rules}: ${findings.length === 0 ? "no law broken" : `${findings.length} ${findings.length === 1 ? "law" : "laws"} broken`}`,
    );
  }
  return findings.length === 0 ? OK : NO;
}

function whole(option: string, text: string, min: number, max: number): number {
  const value = /^\d{1,10}$/.test(text) ? Number(text) : NaN;
  if (!(value >= min && value <= max))
    throw new UnusableOption(`${option} must be a whole number from ${min} to ${max}, found ${text}`);
  return value;
}

/** The first log has the name that was given, the second `-2` before its ending, and so on. */
function numbered(file: string, i: number): string {
  return i === 0 ? file : file.replace(/(\.inputs)?$/, (ending) => `-${i + 1}${ending}`);
}
