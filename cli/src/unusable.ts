/** Standard input where something is read, standard output where something is written. */
export const STANDARD = "-";

/** A file that cannot be read or written at all: missing, a folder, too large, not UTF-8. */
export class UnreadableFile extends Error {
  constructor(file: string, why: string, done: "read" | "written" = "read") {
    super(`${file === STANDARD ? "standard input" : file} cannot be ${done}: ${why}`);
  }
}

/** An option's value that cannot be used. */
export class UnusableOption extends Error {}
