/** A key as commands name it: `Space`, `ArrowLeft`, `Shift+ArrowLeft`, `Ctrl+Z`, `G`, `?`. */
export function keyOf(event: KeyboardEvent): string {
  const letter = event.key.length === 1 ? event.key.toUpperCase() : event.key;
  const name = letter === " " ? "Space" : letter;
  const ctrl = event.ctrlKey || event.metaKey ? "Ctrl+" : "";
  // For signs such as ? or , the Shift is part of the sign.
  const shift = event.shiftKey && (name.length > 1 || /[A-Z]/.test(name)) ? "Shift+" : "";
  return `${ctrl}${event.altKey ? "Alt+" : ""}${shift}${name}`;
}

const SIGNS: Readonly<Record<string, string>> = {
  ArrowLeft: "←",
  ArrowRight: "→",
  ArrowUp: "↑",
  ArrowDown: "↓",
  Escape: "Esc",
};

/** A key as it is shown. */
export function keyText(key: string): string {
  return key
    .split("+")
    .map((part) => SIGNS[part] ?? part)
    .join(" ");
}

/**
 * Whether a key belongs to the field that has the keyboard. A list, and a number that is not being typed, leave
 * what is pressed with Ctrl to the commands: undo takes back the change, not a letter.
 */
export function isTyping(event: KeyboardEvent): boolean {
  const { target } = event;
  if (!(target instanceof HTMLElement)) return false;
  if (event.ctrlKey && target.matches("select, [data-settled]")) return false;
  return target.matches("input:not([type=checkbox], [type=radio]), textarea, select, [contenteditable]");
}

/**
 * Whether what has the keyboard does something with the key itself: a button and a switch are pressed by Space and Enter,
 * but for a button that stands for its row; menus, tabs and one of a few are gone through by arrows.
 */
export function isForItself(event: KeyboardEvent, key: string): boolean {
  const { target } = event;
  if (!(target instanceof HTMLElement)) return false;
  if (target.closest(".dropdown-menu.show") !== null) return true;
  if (key === "Space" || key === "Enter")
    return target.closest("button:not([data-row]), a, summary, [type=checkbox], [type=radio]") !== null;
  return key.startsWith("Arrow") && target.matches("[type=radio], [role=tab]");
}
