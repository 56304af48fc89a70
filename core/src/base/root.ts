/** The largest whole number whose square is at most `n`, for whole `n` from 0 to 2^52: the same on every machine. */
export function wholeRoot(n: number): number {
  if (n < 2) return n;
  let root = n;
  for (let next = Math.floor((n + 1) / 2); next < root; next = Math.floor((root + Math.floor(n / root)) / 2))
    root = next;
  return root;
}
