import { ID_PATTERN } from "../world/limits.ts";

/** Whether a word may be an id. */
export function isId(text: string): boolean {
  return ID_PATTERN.test(text);
}

/** A whole number of at most 9 digits, not negative, or null. */
export function wholeNumber(text: string): number | null {
  return /^\d{1,9}$/.test(text) ? Number(text) : null;
}

/** A decimal number, perhaps negative, or null. */
export function decimal(text: string): number | null {
  return /^-?\d{1,9}(\.\d{1,9})?$/.test(text) ? Number(text) : null;
}
