import { ID_PATTERN } from "../world/limits.ts";

/** Whether a word may be an id. */
export function isId(text: string): boolean {
  return ID_PATTERN.test(text);
}

/** A whole number from 0 to `most`, in at most 9 digits where nothing is said, or null. */
export function wholeNumber(text: string, most = 999_999_999): number | null {
  return /^\d{1,10}$/.test(text) && text.length <= String(most).length && Number(text) <= most ? Number(text) : null;
}

/** A decimal number, perhaps negative, or null. */
export function decimal(text: string): number | null {
  return /^-?\d{1,9}(\.\d{1,9})?$/.test(text) ? Number(text) : null;
}
