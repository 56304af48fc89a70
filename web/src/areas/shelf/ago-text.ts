/** Seconds of the units that are told, the longest first. */
const STEPS: readonly (readonly [number, Intl.RelativeTimeFormatUnit])[] = [
  [86_400, "day"],
  [3_600, "hour"],
  [60, "minute"],
];

const RELATIVE = new Intl.RelativeTimeFormat("en");

/**
 * How long ago something was, in words.
 * @param iso when, ISO 8601
 * @param now ms since 1970
 */
export function agoText(iso: string, now: number): string {
  const seconds = (now - Date.parse(iso)) / 1000;
  for (const [length, unit] of STEPS) {
    const n = Math.floor(seconds / length);
    if (n >= 1) return RELATIVE.format(-n, unit);
  }
  return "just now";
}
