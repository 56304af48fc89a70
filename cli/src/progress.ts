import progress from "cli-progress";

/**
 * Works through files one by one; where standard error is a terminal it shows how far it is.
 * @returns what `work` gave for each
 */
export function withProgress<T>(files: readonly string[], work: (file: string) => T): T[] {
  const bar = new progress.SingleBar({ stream: process.stderr, format: "{value} of {total} logs [{bar}] {file}", clearOnComplete: true, hideCursor: null });
  bar.start(files.length, 0, { file: "" });
  try {
    return files.map((file, i) => {
      const result = work(file);
      bar.update(i + 1, { file });
      return result;
    });
  } finally {
    bar.stop();
  }
}
