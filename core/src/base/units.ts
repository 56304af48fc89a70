/** Units in one world pixel: positions, speeds and sizes are whole units inside the core (semantics.md section 1). */
export const UNITS_PER_PX = 256;

/** A decimal number of px out of a file in whole units: `floor(value * 256 + 0.5)` (semantics.md section 1). */
export function unitsFromPx(px: number): number {
  return Math.floor(px * UNITS_PER_PX + 0.5);
}

/** `a mod b` with the sign of the divisor: 0 to `b - 1` for `b` above 0 (semantics.md section 1). */
export function floorModulo(a: number, b: number): number {
  const rest = a % b;
  // `+ 0` turns the -0 that `%` gives for negative multiples into 0.
  return rest < 0 ? rest + b : rest + 0;
}

/** Units as px, with as few decimals as say them exactly. */
export function pxText(units: number): string {
  return String(units / 256);
}
