/** What does not end within so long is not waited for: nothing that was acknowledged is lost by that. */
const DEADLINE_MS = 10_000;

/**
 * Ends the process in order when it is asked to, once, and within a deadline: by a signal, or, where a supervisor says so
 * with `KEEN_PEBBLE_ENDS_WITH_STDIN`, when that one ends, however it does.
 */
export function endWell(stop: () => Promise<unknown>): void {
  let stopping = false;
  const end = (): void => {
    if (stopping) return;
    stopping = true;
    setTimeout(() => process.exit(1), DEADLINE_MS).unref();
    void stop().then(
      () => process.exit(0),
      () => process.exit(1),
    );
  };
  process.on("SIGINT", end);
  process.on("SIGTERM", end);
  if (process.env["KEEN_PEBBLE_ENDS_WITH_STDIN"] !== "true") return;
  process.stdin.on("end", end).on("error", end).resume();
}
