import { afterEach, beforeEach, expect, it } from "vitest";
import { showWholeNames } from "./whole-name.ts";

let stop: () => void;
beforeEach(() => {
  stop = showWholeNames(document);
});
afterEach(() => {
  stop();
  document.body.replaceChildren();
});

/** An element as wide as it says, with a text that takes more or less. */
function shown(html: string, text: number, width = 100): HTMLElement {
  document.body.innerHTML = html;
  const element = document.body.firstElementChild as HTMLElement;
  Object.defineProperty(element, "scrollWidth", { configurable: true, value: text });
  Object.defineProperty(element, "clientWidth", { configurable: true, value: width });
  return element;
}
const point = (element: Element): void => void element.dispatchEvent(new Event("pointerover", { bubbles: true }));
const DOTS = 'style="text-overflow: ellipsis"';

it("what is cut says the whole of it while it is pointed at, by a part of it too, and no longer once it is whole", () => {
  const name = shown(`<p ${DOTS}><b>Settling</b>\n  gallery</p>`, 140);
  point(name.querySelector("b")!);
  expect(name.title).toBe("Settling gallery");
  Object.defineProperty(name, "scrollWidth", { configurable: true, value: 90 });
  point(name);
  expect(name.hasAttribute("title")).toBe(false);
});

it("what is whole, is not cut with dots, or has a hint of its own is left alone", () => {
  for (const [html, text] of [
    [`<p ${DOTS}>Hall</p>`, 100],
    ["<p>Hall</p>", 140],
  ] as const) {
    const element = shown(html, text);
    point(element);
    expect(element.hasAttribute("title")).toBe(false);
  }
  const own = shown(`<p ${DOTS} title="Choose a room">Hall</p>`, 140);
  point(own);
  expect(own.title).toBe("Choose a room");
});

it("a list says what is chosen in it", () => {
  const list = shown("<select><option>Hall</option><option selected>Overflow walk</option></select>", 0);
  point(list);
  expect(list.title).toBe("Overflow walk");
  (list as HTMLSelectElement).selectedIndex = 0;
  point(list);
  expect(list.title).toBe("Hall");
});
