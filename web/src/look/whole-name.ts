/** Marks a hint that was put there because the text was cut: it goes when the text is whole again. */
const CUT = "cut";
/** A text that is cut may be hit by a part of it. */
const MOST_UP = 3;

/**
 * Shows the whole of what is cut off with dots while the pointer is on it, wherever on the page that is. What has a hint of
 * its own keeps it. Gives back what stops that.
 */
export function showWholeNames(page: Document): () => void {
  const over = ({ target }: Event): void => {
    let element = target instanceof HTMLElement ? target : null;
    for (let up = 0; element !== null && up < MOST_UP; up++, element = element.parentElement) hint(element);
  };
  page.addEventListener("pointerover", over);
  return () => page.removeEventListener("pointerover", over);
}

function hint(element: HTMLElement): void {
  if (element.title !== "" && element.dataset[CUT] === undefined) return;
  const whole = wholeOf(element);
  if (whole === null) {
    if (element.dataset[CUT] === undefined) return;
    delete element.dataset[CUT];
    element.removeAttribute("title");
    return;
  }
  element.dataset[CUT] = "";
  element.title = whole;
}

/** The whole text of what is cut off; null where nothing is. What a list shows cannot be measured: it is always told. */
function wholeOf(element: HTMLElement): string | null {
  if (element instanceof HTMLSelectElement) return element.selectedOptions[0]?.text || null;
  if (element.scrollWidth <= element.clientWidth || getComputedStyle(element).textOverflow !== "ellipsis") return null;
  return element.textContent?.replace(/\s+/g, " ").trim() || null;
}
