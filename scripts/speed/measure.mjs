import { Bench } from "tinybench";

/** In short: everything once and small, to see that it still runs (`npm test`); the figures then say nothing. */
export const SHORT = process.argv.includes("--short");

/** A size or a number of rounds: a small one in short. */
export const sized = (whole, short) => (SHORT ? short : whole);

/** Runs something several times; median and best in ms, and the median deviation as a share of the median. */
export async function measure(act, iterations = 9) {
  const bench = new Bench({ time: 0, iterations: sized(iterations, 1), warmupTime: 0, warmupIterations: sized(2, 0) });
  bench.add("it", act);
  const [task] = await bench.run();
  const { result } = task;
  if (result.state !== "completed") throw new Error("error" in result ? String(result.error) : result.state);
  const { p50, mad, min } = result.latency;
  return { median: p50, best: min, spread: mad / p50 };
}

/** Writes one figure as a line of JSON. */
export function say(what, size, median, unit, spread, best = median) {
  const short = (value, digits = 4) => Number(value.toPrecision(digits));
  process.stdout.write(
    `${JSON.stringify({ what, size, median: short(median), best: short(best), unit, spread: short(spread, 2) })}\n`,
  );
}
