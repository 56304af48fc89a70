/**
 * Searches by halves for the first of some numbers at which something fails, with about log2 of them asked.
 * @param good holds there
 * @param bad fails there; greater than `good`
 * @param holds asks for one number in between
 * @param asked told of each answer, with how many numbers are still in question
 * @returns the smallest number known to fail, right after one that holds. Where it comes and goes in between, one of the turns
 */
export async function firstFailing(
  good: number,
  bad: number,
  holds: (number: number) => Promise<boolean>,
  asked: (left: number) => void = () => undefined,
): Promise<number> {
  let [lo, hi] = [good, bad];
  while (hi - lo > 1) {
    const middle = lo + Math.floor((hi - lo) / 2);
    if (await holds(middle)) lo = middle;
    else hi = middle;
    asked(hi - lo - 1);
  }
  return hi;
}
