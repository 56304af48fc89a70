import { cleanup, render } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { DrawnPictures } from "./drawn-image.tsx";
import { DrawnImage } from "./drawn-image.tsx";

let drawn: string[];
beforeEach(() => {
  drawn = [];
  vi.spyOn(HTMLCanvasElement.prototype, "getContext").mockReturnValue({} as never);
  vi.spyOn(HTMLCanvasElement.prototype, "toDataURL").mockImplementation(function (this: HTMLCanvasElement) {
    return `data:${drawn.at(-1)} ${this.width}x${this.height}`;
  });
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const image = (name: string, size: number, kept: DrawnPictures) => (
  <DrawnImage className="swatch" name={name} size={size} kept={kept} draw={() => drawn.push(name)} />
);

it("a picture is drawn once for each name and size, and shown as an image that says nothing to who cannot see it", () => {
  const kept: DrawnPictures = new Map();
  const { container, rerender } = render(image("floor", 32, kept));
  const shown = () => container.querySelector("img")!;
  expect([shown().getAttribute("src"), shown().width, shown().alt, shown().className]).toEqual([
    "data:floor 32x32",
    32,
    "",
    "drawn swatch",
  ]);
  rerender(image("floor", 32, kept));
  render(image("floor", 32, kept));
  expect(drawn).toEqual(["floor"]);
  rerender(image("wall", 32, kept));
  expect(shown().getAttribute("src")).toBe("data:wall 32x32");
  rerender(image("wall", 16, kept));
  expect(drawn).toEqual(["floor", "wall", "wall"]);
  // Where the art is another one nothing of the old is shown.
  rerender(image("wall", 16, new Map()));
  expect(drawn).toHaveLength(4);
});

it("the pictures that were drawn first go where there are very many", () => {
  const kept: DrawnPictures = new Map(Array.from({ length: 2000 }, (_, i) => [`32 tile ${i}`, `data:${i}`]));
  render(image("one more", 32, kept));
  expect([kept.size, kept.has("32 tile 0"), kept.has("32 tile 1"), kept.has("32 one more")]).toEqual([
    2000,
    false,
    true,
    true,
  ]);
});
