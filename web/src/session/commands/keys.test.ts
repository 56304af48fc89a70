import { afterEach, describe, expect, it } from "vitest";
import { isForItself, isTyping, keyOf, keyText } from "./keys.ts";

const pressed = (key: string, more: KeyboardEventInit = {}): KeyboardEvent =>
  new KeyboardEvent("keydown", { key, ...more });

describe("a key's name", () => {
  it.each([
    ["g", {}, "G"],
    [" ", {}, "Space"],
    ["Enter", {}, "Enter"],
    ["z", { ctrlKey: true }, "Ctrl+Z"],
    ["z", { metaKey: true }, "Ctrl+Z"],
    ["Z", { ctrlKey: true, shiftKey: true }, "Ctrl+Shift+Z"],
    ["ArrowLeft", { shiftKey: true }, "Shift+ArrowLeft"],
    ["ArrowLeft", { ctrlKey: true, altKey: true }, "Ctrl+Alt+ArrowLeft"],
    ["Enter", { shiftKey: true }, "Shift+Enter"],
    // The Shift is part of the sign.
    ["?", { shiftKey: true }, "?"],
    ["<", { shiftKey: true }, "<"],
    ["1", { shiftKey: true }, "1"],
    ["h", { shiftKey: true }, "Shift+H"],
    [" ", { shiftKey: true }, "Shift+Space"],
  ])("of %j with %j is %s", (key, more, name) => {
    expect(keyOf(pressed(key, more))).toBe(name);
  });

  it("is shown with signs for arrows", () => {
    expect(["Ctrl+ArrowLeft", "Escape", "Shift+W", "ArrowUp"].map(keyText)).toEqual(["Ctrl ←", "Esc", "Shift W", "↑"]);
  });
});

/** What of a key pressed on an element of the page is told. */
function on<T>(html: string, key: string, told: (event: KeyboardEvent) => T, more: KeyboardEventInit = {}): T {
  document.body.innerHTML = html;
  let said: { readonly is: T } | null = null;
  const listen = (event: KeyboardEvent): void => void (said = { is: told(event) });
  document.addEventListener("keydown", listen);
  document.querySelector("[data-at]")!.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, ...more }));
  document.removeEventListener("keydown", listen);
  return said!["is"];
}
afterEach(() => {
  document.body.innerHTML = "";
});

describe("a field that has the keyboard", () => {
  it.each([
    ["<input data-at>", true],
    ["<input type=text data-at>", true],
    ["<textarea data-at></textarea>", true],
    ["<select data-at></select>", true],
    ["<div contenteditable data-at></div>", true],
    ["<input type=checkbox data-at>", false],
    ["<input type=radio data-at>", false],
    ["<button data-at></button>", false],
    ["<canvas data-at></canvas>", false],
  ])("%s takes letters: %s", (html, takes) => {
    expect(on(html, "g", isTyping)).toBe(takes);
  });

  it("leaves what is pressed with Ctrl to the commands where nothing is typed", () => {
    const undo = { ctrlKey: true };
    expect(on("<select data-at></select>", "z", isTyping, undo)).toBe(false);
    expect(on("<input data-settled data-at>", "z", isTyping, undo)).toBe(false);
    expect(on("<input data-at>", "z", isTyping, undo)).toBe(true);
    expect(on("<input data-settled data-at>", "z", isTyping)).toBe(true);
    expect(isTyping(pressed("g"))).toBe(false);
  });
});

describe("what has the keyboard does something with the key itself", () => {
  const itself = (html: string, key: string): boolean => on(html, key, (event) => isForItself(event, keyOf(event)));

  it.each([
    ["<button data-at></button>", "Enter", true],
    ["<button data-at></button>", " ", true],
    ["<button data-at></button>", "g", false],
    ["<button data-row data-at></button>", "Enter", false],
    ["<a href='#' data-at></a>", "Enter", true],
    ["<summary data-at></summary>", " ", true],
    ["<input type=checkbox data-at>", " ", true],
    ["<input type=radio data-at>", "ArrowLeft", true],
    ["<button role=tab data-at></button>", "ArrowRight", true],
    ["<button data-at></button>", "ArrowRight", false],
    ["<div class='dropdown-menu show'><button data-at></button></div>", "g", true],
    ["<div class='dropdown-menu'><span data-at></span></div>", "g", false],
    ["<canvas data-at></canvas>", "Enter", false],
  ])("%s with %j: %s", (html, key, is) => {
    expect(itself(html, key)).toBe(is);
  });
});
