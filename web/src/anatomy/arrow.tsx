/** A small arrow along a direction; nothing for none. */
export function Arrow({ x, y }: { readonly x: number; readonly y: number }) {
  if (x === 0 && y === 0) return null;
  const angle = (Math.atan2(y, x) * 180) / Math.PI;
  return (
    <svg className="intent-arrow" viewBox="-12 -8 24 16" aria-hidden="true">
      <path d="M-9 0H8M3-5 8 0 3 5" transform={`rotate(${angle})`} />
    </svg>
  );
}

const WORDS = [
  ["up-left", "up", "up-right"],
  ["left", "none", "right"],
  ["down-left", "down", "down-right"],
] as const;

/** A direction in a word. */
export function directionWord([x, y]: readonly [number, number]): string {
  return WORDS[Math.sign(y) + 1]![Math.sign(x) + 1]!;
}
