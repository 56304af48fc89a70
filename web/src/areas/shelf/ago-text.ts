const STEPS: readonly (readonly [number, string])[] = [
  [86_400, "day"],
  [3_600, "hour"],
  [60, "minute"],
];

/**
 * How long ago something was, in words.
 * @param iso when, ISO 8601
 * @param now ms since 1970
 */
export function agoText(iso: string, now: number): string {
  const seconds = (now - Date.parse(iso)) / 1000;
  for (const [length, word] of STEPS) {
    const n = Math.floor(seconds / length);
    if (n >= 1) return `${n} ${word}${n === 1 ? "" : "s"} ago`;
  }
  return "just now";
}
