/** Held buttons of one frame as bits, in the order in which a log writes them (semantics.md section 2). */
export const LEFT = 1;
export const RIGHT = 2;
export const UP = 4;
export const DOWN = 8;
export const USE = 16;
export const SPARE = 32;

export const DIRECTIONS = LEFT | RIGHT | UP | DOWN;

const LETTERS = "LRUDAB";

/** A log's text for held buttons: letters out of `LRUDAB` in that order, `.` for none. */
export function keysText(keys: number): string {
  let text = "";
  for (let i = 0; i < LETTERS.length; i++) if (keys & (1 << i)) text += LETTERS[i]!;
  return text === "" ? "." : text;
}

/** The buttons that a log's text names, or -1 where it is not `.` or letters out of `LRUDAB`, each once, in that order. */
export function keysFromText(text: string): number {
  if (text === ".") return 0;
  let keys = 0;
  let last = -1;
  for (const letter of text) {
    const at = LETTERS.indexOf(letter);
    if (at <= last) return -1;
    last = at;
    keys |= 1 << at;
  }
  return keys === 0 ? -1 : keys;
}

/** As `keysFromText` for what other programs write: letters in any order, large or small; none at all is none held. */
export function keysInAnyOrder(text: string): number {
  const letters = text.trim().toUpperCase();
  if (letters === "" || letters === ".") return 0;
  let keys = 0;
  for (const letter of letters) {
    const at = LETTERS.indexOf(letter);
    if (at < 0 || (keys & (1 << at)) !== 0) return -1;
    keys |= 1 << at;
  }
  return keys;
}
