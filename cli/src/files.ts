import { createHash, randomUUID } from "node:crypto";
import {
  closeSync,
  existsSync,
  fchmodSync,
  lstatSync,
  openSync,
  readFileSync,
  readdirSync,
  realpathSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from "node:fs";
import path from "node:path";
import type { InputLog } from "@keen-pebble/core/check";
import type { ReadTrace } from "@keen-pebble/core/formats";
import type { TextHash } from "@keen-pebble/core/simulate";
import type { World } from "@keen-pebble/core/world";
import { readLog } from "@keen-pebble/core/check";
import { LIMITS } from "@keen-pebble/core/world";
import { readRecording, readTrace, readWorld } from "@keen-pebble/core/reading";
import { STANDARD, UnreadableFile } from "./unusable.ts";

let inputRead = false;

/** All of standard input; there is only one of it. */
function readInput(max: number): Uint8Array {
  if (inputRead) throw new UnreadableFile("standard input", "it was read already; name it once");
  inputRead = true;
  const bytes = readFileSync(0);
  if (bytes.length > max) throw new UnreadableFile("standard input", `it has ${bytes.length} bytes, more than ${max}`);
  return bytes;
}

/** The bytes of a file, or of standard input for `-`, refused where there are more than such a file may have. */
export function readBytes(file: string, max: number = LIMITS.fileBytes): Uint8Array {
  try {
    if (file === STANDARD) return readInput(max);
    const { size } = statSync(file);
    if (size > max) throw new UnreadableFile(file, `it has ${size} bytes, more than ${max}`);
    return readFileSync(file);
  } catch (error) {
    if (error instanceof UnreadableFile) throw error;
    const { code, message } = error as NodeJS.ErrnoException;
    throw new UnreadableFile(
      file,
      code === "ENOENT" ? "there is no such file" : code === "EISDIR" ? "it is a folder" : message,
    );
  }
}

/** The text of a file, refused where it is not UTF-8 or larger than such a file may be. */
export function readText(file: string, max: number = LIMITS.fileBytes): string {
  return textOf(readBytes(file, max), file);
}

/** Bytes as text; throws where they are not UTF-8. */
export function textOf(bytes: Uint8Array, file: string): string {
  try {
    return new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(bytes);
  } catch {
    throw new UnreadableFile(file, "it is not UTF-8 text");
  }
}

/** The world in a file. Throws `UnreadableFile` or the reader's `RefusedError`. */
export function worldFile(file: string): World {
  return readWorld(readText(file), file === STANDARD ? "standard input" : file);
}

/**
 * The log in a file: an input log, or what was pressed as CSV or JSON Lines, our own or of a game that the world knows.
 * Throws `UnreadableFile` or the reader's `RefusedError`.
 */
export function logFile(file: string, { games }: Pick<World, "games">): InputLog {
  if (file !== STANDARD)
    return RECORDING.test(file)
      ? readRecording(readText(file, LIMITS.csvBytes), games, file)
      : readLog(readText(file), file);
  const text = readText(file, LIMITS.csvBytes);
  const isOurs = /^\ufeff?\s*"?(frame|keys)\b/i.test(text);
  const isLog = games.length === 0 || /^\ufeff?keen-pebble/.test(text);
  return isOurs || !isLog ? readRecording(text, games, "standard input") : readLog(text, "standard input");
}

/** What a file of a recording is called. */
const RECORDING = /\.(csv|tsv|jsonl)$/;

/** The log files that some paths name: files as they are, folders for their `*.inputs` and recordings, sorted by name. */
export function logFiles(paths: readonly string[]): string[] {
  return paths.flatMap((given) => {
    if (given === STANDARD) return [given];
    let folder: boolean;
    try {
      folder = statSync(given).isDirectory();
    } catch {
      throw new UnreadableFile(given, "there is no such file");
    }
    if (!folder) return [given];
    const files = readdirSync(given).filter((name) => name.endsWith(".inputs") || RECORDING.test(name));
    if (files.length === 0)
      throw new UnreadableFile(given, "the folder has no *.inputs, *.csv, *.tsv or *.jsonl in it");
    return files.sort().map((name) => path.join(given, name));
  });
}

/** SHA-256 for the core's fingerprints. */
export function sha256(): TextHash {
  const hash = createHash("sha256");
  return { update: (text) => void hash.update(text, "latin1"), hex: () => hash.digest("hex") };
}

/** The trace in a file. Throws `UnreadableFile` or the reader's `RefusedError`. */
export function traceFile(file: string): ReadTrace {
  return readTrace(readText(file, LIMITS.csvBytes), file === STANDARD ? "standard input" : file);
}

/**
 * Writes a file, beside its place first, so that it is there whole or not at all. A link stays a link: what it leads to is
 * written. What is no ordinary file (a device, a pipe) is written to, never replaced; `-` is standard output.
 * @throws {UnreadableFile} where it cannot be written
 */
export function writeWhole(file: string, pieces: Iterable<string | Uint8Array>): void {
  try {
    const open = openAlready(file);
    if (open !== null) writeTo(open, pieces);
    else if (isReplaceable(file)) replace(existsSync(file) ? realpathSync(file) : file, pieces);
    else {
      const out = openSync(file, "w");
      try {
        writeTo(out, pieces);
      } finally {
        closeSync(out);
      }
    }
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    // Whoever read it has seen enough.
    if (code === "EPIPE") return;
    throw new UnreadableFile(file === STANDARD ? "standard output" : file, code ?? String(error), "written");
  }
}

/** The number of what is open already under that name: it may be a socket, which cannot be opened again. */
function openAlready(file: string): number | null {
  if (file === STANDARD) return 1;
  const name = path.resolve(file);
  const numbered = /^\/(?:dev|proc\/self)\/fd\/(\d{1,4})$/.exec(name);
  return numbered ? Number(numbered[1]) : name === "/dev/stdout" ? 1 : name === "/dev/stderr" ? 2 : null;
}

/** Whether there is an ordinary file or nothing at that place. */
function isReplaceable(file: string): boolean {
  // Nothing there is ours to replace.
  if (/^\/(dev|proc)\//.test(path.resolve(file))) return false;
  const there = statSync(file, { throwIfNoEntry: false });
  // A link that leads nowhere: what it names is made, and the link stays.
  if (there === undefined) return lstatSync(file, { throwIfNoEntry: false }) === undefined;
  return there.isFile();
}

function replace(file: string, pieces: Iterable<string | Uint8Array>): void {
  // A name that nobody else has: what lies there already is not ours.
  const half = path.join(path.dirname(file), `.${path.basename(file)}.${randomUUID()}.part`);
  const mode = statSync(file, { throwIfNoEntry: false })?.mode;
  const out = openSync(half, "wx", mode ?? 0o666);
  try {
    try {
      // What is made anew may be read by whom the old one was.
      if (mode !== undefined) fchmodSync(out, mode & 0o7777);
      writeTo(out, pieces);
    } finally {
      closeSync(out);
    }
    renameSync(half, file);
  } catch (error) {
    rmSync(half, { force: true });
    throw error;
  }
}

function writeTo(out: number, pieces: Iterable<string | Uint8Array>): void {
  for (const piece of pieces) {
    const bytes = typeof piece === "string" ? Buffer.from(piece, "utf8") : piece;
    for (let at = 0; at < bytes.length;) at += written(out, bytes, at);
  }
}

/** A pipe that is full takes nothing for a moment. */
function written(out: number, bytes: Uint8Array, at: number): number {
  try {
    return writeSync(out, bytes, at);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "EAGAIN") throw error;
    Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 5);
    return 0;
  }
}
