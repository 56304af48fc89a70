import { STANDARD } from "./unusable.ts";
import { UNUSABLE } from "./exit-codes.ts";

let fault: string | null = null;
let closed = false;

/** Lets a reader that goes away (`| head`) end the output and nothing else, and says once where it cannot be written. */
export function guardStandardOutput(): void {
  process.stdout.on("error", (error: NodeJS.ErrnoException) => {
    closed = true;
    if (error.code === "EPIPE" || fault !== null) return;
    fault = error.code ?? error.message;
    process.stderr.write(`keen-pebble: standard output cannot be written: ${fault}\n`);
  });
  process.stderr.on("error", () => undefined);
  process.on("exit", () => {
    if (fault !== null) process.exitCode = UNUSABLE;
  });
}

/** Prints a line, unless nobody reads any more. */
export function print(line: string): void {
  if (!closed) process.stdout.write(`${line}\n`);
}

/** Where a command says what it did: beside what one of its files is written to, where that is standard output. */
export function printBeside(...files: readonly (string | undefined)[]): (line: string) => void {
  return files.includes(STANDARD) ? (line) => void process.stderr.write(`${line}\n`) : print;
}
