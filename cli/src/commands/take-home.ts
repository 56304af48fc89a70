import { mkdirSync, readdirSync } from "node:fs";
import path from "node:path";
import type { InputLog } from "@keen-pebble/core/check";
import { takeHome as rulesTakenHome } from "@keen-pebble/core/take-home";
import { OK } from "../exit-codes.ts";
import { logFile, logFiles, worldFile, writeWhole } from "../files.ts";
import { print } from "../standard-output.ts";
import { UnreadableFile, UnusableOption } from "../unusable.ts";

export interface TakeHomeOptions {
  readonly out: string;
  readonly rules?: string;
}

/** `take-home WORLD [LOG...]`: the rules as a program, with runs to hold a port against (formats.md sections 7 and 10). */
export function takeHome(worldPath: string, paths: readonly string[], options: TakeHomeOptions): number {
  const world = worldFile(worldPath);
  const logs = new Map<string, InputLog>();
  for (const file of logFiles(paths)) {
    const id = path.basename(file).replace(/\.[a-z]+$/, "");
    if (logs.has(id)) throw new UnusableOption(`${file}: there is another log ${id}; each needs a name of its own`);
    logs.set(id, logFile(file, world));
  }
  const rules = options.rules ?? world.activeRules;
  // All of it is made before any of it is written.
  const files = rulesTakenHome(world, rules, logs);
  const golden = path.join(options.out, "golden");
  try {
    mkdirSync(golden, { recursive: true });
  } catch (error) {
    throw new UnreadableFile(golden, (error as Error).message, "written");
  }
  for (const file of files) writeWhole(path.join(options.out, file.path), [file.text]);
  const lines = files.find((file) => file.path === "movement.js")!.text.split("\n").length - 1;
  const taken = [...logs.keys()].filter((id) => files.some((file) => file.path === `golden/${id}.inputs`));
  print(
    `${options.out}: the rules ${rules} in ${lines} lines, with ${taken.length} of your ${logs.size} logs; node conform.js there compares`,
  );
  if (taken.length < logs.size)
    print(`  left out, as actors are met in them: ${[...logs.keys()].filter((id) => !taken.includes(id)).join(", ")}`);
  const written = new Set(files.map((file) => path.join(options.out, file.path)));
  const others = readdirSync(golden).filter((name) => !written.has(path.join(golden, name)));
  if (others.length > 0)
    print(`  golden/ also holds ${others.join(", ")}, from before: delete what is no longer wanted`);
  return OK;
}
