import { compile } from "../simulation/compile.ts";
import type { TextHash } from "../simulation/trace.ts";
import { fingerprint } from "../simulation/trace.ts";
import { RefusedError } from "../base/refused-error.ts";
import type { InputLog } from "../logs/input-log.ts";
import { EMPTY_LOG, logFrames } from "../logs/input-log.ts";
import { readLog } from "../logs/read-log.ts";
import { writeLog } from "../logs/write-log.ts";
import type { World } from "../world/world.ts";
import { run } from "./run.ts";

/** A playtest ends after so many frames: ten minutes at 60 a second. */
export const MOST_PLAYED = 36_000;

/** What the log of a playtest begins as: the world's own start and rules, and nothing else said. */
export function playedLog(world: World): InputLog {
  return { ...EMPTY_LOG, world: world.id, rules: world.activeRules, start: world.start };
}

/** A playtest that was sent, and that replays to what whoever played it saw. */
export interface Played {
  readonly log: InputLog;
  readonly frames: number;
  readonly fingerprint: string;
}

/**
 * Reads the log of a playtest, which comes from outside: keys and pointer alone, under the header that the page gave it,
 * no longer than one may play, and with the run that its fingerprint says.
 * @param world as it was played
 * @throws {RefusedError} with what was expected
 */
export function readPlayed(text: string, said: string, world: World, hash: TextHash): Played {
  const read = readLog(text, "the playtest");
  const log = { ...playedLog(world), lines: read.lines };
  if (writeLog({ ...read, lines: [] }) !== writeLog({ ...log, lines: [] }))
    refuse("header", "must be the one that a playtest of this world begins with");
  if (read.lines.some((line) => line.kind === "comment" || line.until !== null))
    refuse("line", "must be keys, and a pointer: no comment, no `until`");
  const frames = logFrames(read);
  if (frames > MOST_PLAYED) refuse("line", `a playtest has at most ${MOST_PLAYED} frames, found ${frames}`);
  const c = compile(world, world.activeRules);
  const result = run(c, log, { rows: true });
  if (result.frames === 0 || result.frames !== frames)
    refuse("line", `expected as many frames as the run lasts, and one at least; found ${frames} and ${result.frames}`);
  const walked = fingerprint(c, result.rows!, hash);
  if (walked !== said) refuse("", "its run is not the one that its fingerprint says");
  return { log, frames, fingerprint: walked };
}

function refuse(place: string, message: string): never {
  throw new RefusedError("the playtest", [{ place, line: null, column: null, message }]);
}
