/** A count with its word: `no logs`, `1 log`, `12 logs`. */
export function plural(n: number, word: string): string {
  return n === 0 ? `no ${word}s` : `${n} ${word}${n === 1 ? "" : "s"}`;
}
