import progress from "cli-progress";

/** How far long work is, on standard error where that is a terminal. */
export class Progress {
  private readonly bar: progress.SingleBar;

  /** @param what is counted, as `logs` */
  constructor(what: string, total: number) {
    this.bar = new progress.SingleBar({
      stream: process.stderr,
      format: `{value} of {total} ${what} [{bar}]`,
      clearOnComplete: true,
      hideCursor: null,
    });
    this.bar.start(total, 0);
  }

  at(done: number): void {
    this.bar.update(done);
  }

  stop(): void {
    this.bar.stop();
  }
}
