import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { session } from "../page-session.ts";
import { SideEdge } from "./side-panel.tsx";

beforeEach(() => {
  Element.prototype.setPointerCapture = vi.fn();
  session.sides.reset("kit");
  render(<SideEdge name="kit" />);
});
afterEach(cleanup);

const kit = () => session.sides.shown("kit", window.innerWidth);
const edge = () => screen.getByRole("separator", { name: "Width of Kit" });
/** A click as the pointer makes it, without any way in between. */
function click(on: Element): void {
  fireEvent.pointerDown(on, { button: 0, clientX: 500 });
  fireEvent.lostPointerCapture(edge());
}

it("the arrow folds the panel away, and what is left of it opens it; a click beside the arrow does nothing", () => {
  click(edge());
  expect(kit().folded).toBe(false);
  click(document.querySelector(".side-grip")!);
  expect(kit().folded).toBe(true);
  click(edge());
  expect(kit().folded).toBe(false);
});

it("a double click makes it as wide as at first", () => {
  session.sides.drawTo("kit", 400);
  click(edge());
  click(edge());
  fireEvent.doubleClick(edge());
  expect(kit()).toEqual({ width: 264, folded: false });
});

it("by keys it is made wider and narrower, folded away and opened; the page hears none of them", async () => {
  const heard: string[] = [];
  const hear = (event: KeyboardEvent): void => void heard.push(event.key);
  window.addEventListener("keydown", hear);
  const user = userEvent.setup();
  edge().focus();
  await user.keyboard("{ArrowLeft}{ArrowLeft}{ArrowRight}");
  expect(kit().width).toBe(280);
  await user.keyboard("{Enter}");
  expect([kit().folded, edge().getAttribute("aria-valuetext")]).toEqual([true, "folded away"]);
  await user.keyboard("{ArrowLeft}");
  expect(kit().folded).toBe(false);
  await user.keyboard("a");
  expect(heard).toEqual(["a"]);
  window.removeEventListener("keydown", hear);
});
