import { createHash } from "node:crypto";
import { closeSync, openSync, readFileSync, readdirSync, renameSync, rmSync, statSync, writeSync } from "node:fs";
import path from "node:path";
import type { InputLog, ReadTrace, TextHash, World } from "@keen-pebble/core";
import { LIMITS, readLog } from "@keen-pebble/core";
import { readCsvLog, readTrace, readWorld } from "@keen-pebble/core/reading";

/** A file that cannot be read or written at all: missing, a folder, too large, not UTF-8. */
export class UnreadableFile extends Error {
  constructor(file: string, why: string, done: "read" | "written" = "read") {
    super(`${file} cannot be ${done}: ${why}`);
  }
}

/** An option's value that cannot be used. */
export class UnusableOption extends Error {}

/** The bytes of a file, refused where there are more than such a file may have. */
export function readBytes(file: string, most: number = LIMITS.fileBytes): Uint8Array {
  try {
    const { size } = statSync(file);
    if (size > most) throw new UnreadableFile(file, `it has ${size} bytes, more than ${most}`);
    return readFileSync(file);
  } catch (error) {
    if (error instanceof UnreadableFile) throw error;
    const { code, message } = error as NodeJS.ErrnoException;
    throw new UnreadableFile(file, code === "ENOENT" ? "there is no such file" : code === "EISDIR" ? "it is a folder" : message);
  }
}

/** The text of a file, refused where it is not UTF-8 or larger than such a file may be. */
export function readText(file: string, most: number = LIMITS.fileBytes): string {
  try {
    return new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(readBytes(file, most));
  } catch (error) {
    if (error instanceof UnreadableFile) throw error;
    throw new UnreadableFile(file, "it is not UTF-8 text");
  }
}

/** The world in a file. Throws `UnreadableFile` or the reader's `RefusedError`. */
export function worldFile(file: string): World {
  return readWorld(readText(file), file);
}

/** The log in a file, an input log or a CSV of what was pressed. Throws `UnreadableFile` or the reader's `RefusedError`. */
export function logFile(file: string): InputLog {
  return file.endsWith(".csv") ? readCsvLog(readText(file, LIMITS.csvBytes), file) : readLog(readText(file), file);
}

/** The log files that some paths name: files as they are, folders for their `*.inputs`, sorted by name. */
export function logFiles(paths: readonly string[]): string[] {
  return paths.flatMap((given) => {
    let folder: boolean;
    try {
      folder = statSync(given).isDirectory();
    } catch {
      throw new UnreadableFile(given, "there is no such file");
    }
    if (!folder) return [given];
    const files = readdirSync(given).filter((name) => name.endsWith(".inputs"));
    if (files.length === 0) throw new UnreadableFile(given, "the folder has no *.inputs in it");
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
  return readTrace(readText(file, LIMITS.csvBytes), file);
}

/**
 * Writes a file, beside its place first, so that it is there whole or not at all.
 * @throws {UnreadableFile} where it cannot be written
 */
export function writeWhole(file: string, pieces: Iterable<string>): void {
  const half = `${file}.part`;
  try {
    const out = openSync(half, "w");
    try {
      for (const piece of pieces) writeSync(out, piece);
    } finally {
      closeSync(out);
    }
    renameSync(half, file);
  } catch (error) {
    rmSync(half, { force: true });
    throw new UnreadableFile(file, (error as NodeJS.ErrnoException).code ?? String(error), "written");
  }
}
