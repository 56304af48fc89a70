import { readFileSync } from "node:fs";
import { Command, CommanderError, InvalidArgumentError } from "commander";
import { CoreError } from "@keen-pebble/core/world";
import type { ImportOptions } from "./commands/import.ts";
import type { TakeHomeOptions } from "./commands/take-home.ts";
import type { ReachOptions } from "./commands/reach.ts";
import type { ConformOptions } from "./commands/conform.ts";
import type { ReplayOptions } from "./commands/replay.ts";
import type { VerifyOptions } from "./commands/verify.ts";
import type { RandomWalksOptions } from "./commands/random-walks.ts";
import { NO, OK, UNUSABLE } from "./exit-codes.ts";
import { UnreadableFile, UnusableOption } from "./unusable.ts";
import { print } from "./standard-output.ts";

const { version } = JSON.parse(readFileSync(new URL("../package.json", import.meta.url), "utf8")) as {
  version: string;
};

/** For options that are whole numbers. */
function wholeNumber(text: string): number {
  if (!/^-?\d{1,9}$/.test(text)) throw new InvalidArgumentError("expected a whole number.");
  return Number(text);
}

function lengthInPx(text: string): number {
  const value = /^\d{1,6}(\.\d{1,6})?$/.test(text) ? Number(text) : NaN;
  if (Number.isNaN(value)) throw new InvalidArgumentError("expected a length in px from 0.");
  return value;
}

/** Exit code of the command that ran last. */
let code = OK;

// A command is loaded when it is used: each starts in a fraction of a second.
const program = new Command("keen-pebble")
  .description(
    "Runs input logs over tile worlds and checks what they show. `-` names standard input, and standard output where something is written.",
  )
  .version(version)
  .exitOverride()
  .configureOutput({ writeErr: (text) => process.stderr.write(text.replace(/^error: /, "keen-pebble: ")) });

program
  .command("check")
  .description("read and validate a world; print refusals and findings with their places")
  .argument("<world>")
  .option("--strict", "exit 1 for findings too")
  .action(async (world: string, options: { strict?: boolean }) => {
    const { check } = await import("./commands/check.ts");
    code = check(world, options, print);
  });

program
  .command("replay")
  .description("run a log; print status, last frame and fingerprint")
  .argument("<world>")
  .argument("<log>")
  .option("--rules <id>", "rule set to run under, instead of the log's")
  .option("--trace <file>", "write the trace as CSV")
  .option("--actors <file>", "write where the actors are in each frame as CSV")
  .option("--flat <file>", "write the log with the frames that were really pressed")
  .option("--json", "print one JSON value and nothing else")
  .action(async (world: string, log: string, options: ReplayOptions) => {
    const { replay } = await import("./commands/replay.ts");
    code = replay(world, log, options);
  });

program
  .command("verify")
  .description("run the checks in logs; folders are read for *.inputs and *.csv")
  .argument("<world>")
  .argument("<logs...>")
  .option("--junit <file>", "write the results as JUnit XML")
  .option("--no-reach", "leave the world's reach checks out")
  .option("--json", "print one JSON value and nothing else")
  .action(async (world: string, logs: string[], options: VerifyOptions) => {
    const { verify } = await import("./commands/verify.ts");
    code = await verify(world, logs, options);
  });

program
  .command("reach")
  .description("say what can be reached at all, by whatever play")
  .argument("<world>")
  .option("--rules <id>", "rule set to move under, instead of the world's active one")
  .option("--from <room,x,y>", "where to begin, instead of the world's start")
  .option("--states <n>", "the most states that are looked at one by one", wholeNumber)
  .option("--strict", "exit 1 where the goal cannot be reached, somebody can get stuck, or something is open")
  .option("--logs <logs...>", "say what can be reached and none of these logs reaches")
  .option("--witness <fixture>", "write the log that reaches a fixture")
  .option("--out <log>", "where to write it")
  .option("--json", "print one JSON value and nothing else")
  .action(async (world: string, options: ReachOptions) => {
    const { reach } = await import("./commands/reach.ts");
    code = reach(world, options);
  });

program
  .command("wander")
  .description("walk at random and look for broken laws: the world's own and those of its gait")
  .argument("<world>")
  .option("--runs <n>", "walks", "1000")
  .option("--frames <m>", "frames of a walk", "1200")
  .option("--seed <s>", "seed of the first walk; the next ones count up", "1")
  .option("--rules <id>", "rule set to walk under, instead of the world's active one")
  .option("--out <log>", "write what was found, shrunk, as a log; further ones beside it, numbered")
  .option("--json", "print one JSON value and nothing else")
  .action(async (world: string, options: RandomWalksOptions) => {
    const { randomWalks } = await import("./commands/random-walks.ts");
    code = await randomWalks(world, options);
  });

program
  .command("compare")
  .description("compare two traces; print the first row that differs, and the columns")
  .argument("<traceA>")
  .argument("<traceB>")
  .option("--json", "print one JSON value and nothing else")
  .action(async (a: string, b: string, options: { json?: boolean }) => {
    const { compare } = await import("./commands/compare.ts");
    code = compare(a, b, options, print);
  });

program
  .command("conform")
  .description("compare where the walker of a game of your own was with where ours is; say where it diverges")
  .argument("<world>")
  .argument("<log>")
  .argument("<trace>")
  .option("--game <id>", "the world's game that says how the trace is to be read")
  .option("--rules <id>", "rule set to run under, instead of the log's")
  .option("--tolerance <px>", "how far apart they may be on an axis, instead of the game's", lengthInPx)
  .option("--junit <file>", "write the result as JUnit XML")
  .option("--json", "print one JSON value and nothing else")
  .action(async (world: string, log: string, trace: string, options: ConformOptions) => {
    const { conform } = await import("./commands/conform.ts");
    code = conform(world, log, trace, options);
  });

program
  .command("take-home")
  .description("write the rules as a program to be carried over into your own game, with runs to hold it against")
  .argument("<world>")
  .argument("[logs...]")
  .requiredOption("--out <folder>", "where to write them")
  .option("--rules <id>", "rule set to take home, instead of the world's active one")
  .action(async (world: string, logs: string[], options: TakeHomeOptions) => {
    const { takeHome } = await import("./commands/take-home.ts");
    code = takeHome(world, logs, options);
  });

for (const [name, description] of [
  ["text", "print a room as rows of characters with a legend"],
  ["table", "print a room's tile numbers as CSV"],
] as const) {
  program
    .command(name)
    .description(description)
    .argument("<world>")
    .argument("<room>")
    .action(async (world: string, room: string) => {
      const { printRoom } = await import("./commands/print-room.ts");
      code = printRoom(world, room, name);
    });
}

program
  .command("import")
  .description("make a world of room texts, numbers in any notation and PNGs, a room a file, named after the file")
  .argument("<files...>")
  .requiredOption("--out <world>", "where to write the world")
  .option("--tile-size <n>", "px of a cell's side", wholeNumber, 16)
  .option("--empty <n>", "the number (or character) of the empty tile: 0, or a blank or a dot")
  .option("--first <n>", "the number of the sheet's first place", wholeNumber, 1)
  .option("--solid <numbers>", "the numbers (or characters) that block, such as 3,5,7-9")
  .option("--width <n>", "cells a row of a flat array", wholeNumber)
  .option("--sheet <png>", "a sheet of tiles for the looks of the numbers; it is put beside the world")
  .option("--map-picture", "a PNG is a picture of the map to be cut into cells, not a pixel a cell")
  .action(async (files: string[], options: ImportOptions) => {
    const { importRooms } = await import("./commands/import.ts");
    code = importRooms(files, options);
  });

/**
 * Runs one command, as its words say (formats.md section 7): it prints what it has to say, and why it says no.
 * @param args the words behind `keen-pebble`
 * @returns its exit code
 */
export async function commandLine(args: readonly string[]): Promise<number> {
  code = OK;
  try {
    await program.parseAsync(args, { from: "user" });
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? OK : UNUSABLE;
    if (error instanceof CoreError || error instanceof UnreadableFile || error instanceof UnusableOption) {
      process.stderr.write(`keen-pebble: ${error.message}\n`);
      // Where 1 means that something is different or breaks, a file that is refused is 2 (formats.md section 7).
      const saysNo = ["verify", "compare", "conform", "wander"].includes(args[0] ?? "");
      return error instanceof UnreadableFile || error instanceof UnusableOption || saysNo ? UNUSABLE : NO;
    }
    throw error;
  }
  return code;
}
