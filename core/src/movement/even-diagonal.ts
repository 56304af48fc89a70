/** 181 / 256 of a displacement, toward zero: what each axis of an even diagonal keeps (semantics.md section 4.3). */
export function evenDiagonal(units: number): number {
  return Math.trunc((units * 181) / 256) + 0;
}
