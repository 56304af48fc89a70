/** The eight facings, clockwise from up; a facing's number in the core is its place here (semantics.md section 5). */
export const FACINGS = ["up", "up-right", "right", "down-right", "down", "down-left", "left", "up-left"] as const;

export type Facing = (typeof FACINGS)[number];

/** dx of each facing, by number. */
export const FACING_DX: readonly number[] = [0, 1, 1, 1, 0, -1, -1, -1];

/** dy of each facing, by number; y grows downward. */
export const FACING_DY: readonly number[] = [-1, -1, 0, 1, 1, 1, 0, -1];

const BY_DIRECTION = new Int8Array([7, 0, 1, 6, -1, 2, 5, 4, 3]);

/** Number of the facing that looks along `(dx, dy)`, each -1, 0 or 1; -1 for no direction. */
export function facingOf(dx: number, dy: number): number {
  return BY_DIRECTION[(dy + 1) * 3 + dx + 1]!;
}

/** Whether a text is one of the eight facings. */
export function isFacing(text: string): text is Facing {
  return (FACINGS as readonly string[]).includes(text);
}
