/** A setting that this browser keeps; null where there is none, or where it refuses to keep anything. */
export function keptSetting(name: string): string | null {
  try {
    return localStorage.getItem(name);
  } catch {
    return null;
  }
}

/** Keeps a setting, where the browser keeps any. */
export function keepSetting(name: string, value: string): void {
  try {
    localStorage.setItem(name, value);
  } catch {
    // It holds for this visit.
  }
}
