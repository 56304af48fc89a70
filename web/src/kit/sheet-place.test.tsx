import { session } from "../page-session.ts";
import type { Look, World } from "@keen-pebble/core/world";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { hall } from "../test-support/hall.ts";
import { SheetPlace } from "./sheet-place.tsx";

/** A sheet of 4 by 3 tiles of 16 px, 2 px apart, 1 px from the edge. */
const world: World = {
  ...hall(),
  sheets: [
    { id: "stones", file: "stones.png", tile: 16, margin: 1, spacing: 2 },
    { id: "other", file: "other.png", tile: 8, margin: 0, spacing: 0 },
  ],
};
const image = { width: 1 + 4 * 16 + 3 * 2 + 1, height: 1 + 3 * 16 + 2 * 2 + 1 };

beforeEach(() => {
  session.project.store.setState({ phase: "ready", project: { world, logs: new Map() }, worldId: null });
  session.sheets.store.setState({ images: new Map([["stones", image as ImageBitmap]]) });
  vi.spyOn(HTMLCanvasElement.prototype, "getContext").mockReturnValue({
    clearRect: () => undefined,
    drawImage: () => undefined,
    strokeRect: () => undefined,
  } as never);
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const chosen: Look[] = [];
/** The picker, drawn at a place and a size that need not be its own. */
function shown(box = { left: 10, top: 20, width: image.width, height: image.height }) {
  chosen.length = 0;
  function Shown() {
    const [look, setLook] = useState<Extract<Look, { sheet: string }>>({ sheet: "stones", at: [1, 1] });
    const shownWorld = session.project.store.getState().project!.world;
    return (
      <SheetPlace
        world={shownWorld}
        look={look}
        onLook={(next) => {
          chosen.push(next);
          setLook(next as typeof look);
        }}
      />
    );
  }
  render(<Shown />);
  const canvas = screen.getByRole("button", { name: /^Place in the sheet/ });
  canvas.setPointerCapture = () => undefined;
  vi.spyOn(canvas, "getBoundingClientRect").mockReturnValue(new DOMRect(box.left, box.top, box.width, box.height));
  return canvas;
}
const at = (): unknown => (chosen.at(-1) as { readonly at?: unknown } | undefined)?.at;

describe("a place in a sheet", () => {
  it.each([1, 2, 0.37, 3.14])("is the tile under the pointer where the sheet is drawn %d times as large", (scale) => {
    const box = { left: 10, top: 20, width: image.width * scale, height: image.height * scale };
    const canvas = shown(box);
    for (let row = 0; row < 3; row++) {
      for (let column = 0; column < 4; column++) {
        for (const [dx, dy] of [
          [0.6, 0.6],
          [8, 8],
          [15.4, 15.4],
        ] as const) {
          fireEvent.pointerDown(canvas, {
            clientX: box.left + (1 + column * 18 + dx) * scale,
            clientY: box.top + (1 + row * 18 + dy) * scale,
          });
          expect({ dx, at: at() }).toEqual({ dx, at: [column, row] });
        }
      }
    }
  });

  it("is never outside the sheet", () => {
    const canvas = shown();
    fireEvent.pointerDown(canvas, { clientX: 10, clientY: 20 });
    expect(at()).toEqual([0, 0]);
    fireEvent.pointerDown(canvas, { clientX: 10 + image.width, clientY: 20 + image.height });
    expect(at()).toEqual([3, 2]);
  });

  it("is moved by the arrow keys, up to the edges, and tells where it is", async () => {
    const user = userEvent.setup();
    const canvas = shown();
    canvas.focus();
    await user.keyboard("{ArrowRight}{ArrowDown}");
    expect(at()).toEqual([2, 2]);
    await user.keyboard("{ArrowDown}{ArrowRight}{ArrowRight}{ArrowRight}");
    expect(at()).toEqual([3, 2]);
    expect(screen.getByRole("button", { name: "Place in the sheet: column 3, row 2; arrow keys move it" })).toBe(
      canvas,
    );
    await user.keyboard("{ArrowUp}{ArrowUp}{ArrowUp}{ArrowLeft}");
    expect(at()).toEqual([2, 0]);
  });

  it("begins at the first tile of another sheet, whose picture may not be here", async () => {
    const user = userEvent.setup();
    shown();
    await user.selectOptions(screen.getByLabelText("Sheet"), "other");
    expect(chosen.at(-1)).toEqual({ sheet: "other", at: [0, 0] });
    expect(screen.getByText("The picture is not here.")).toBeTruthy();
  });
});

describe("how a sheet is cut", () => {
  it.each([
    ["Tile", "8{Enter}", { tile: 8 }],
    ["Margin", "0{Enter}", { margin: 0 }],
    ["Spacing", "3{Enter}", { spacing: 3 }],
    ["Tile", "0{Enter}", {}],
    ["Tile", "513{Enter}", {}],
    ["Spacing", "-1{Enter}", {}],
    ["Spacing", "wide{Enter}", {}],
  ])("%s typed as %j makes it %j", async (label, keys, changed) => {
    const user = userEvent.setup();
    shown();
    const field = screen.getByLabelText<HTMLInputElement>(`${label} of the sheet in px`);
    const before = field.value;
    await user.clear(field);
    await user.type(field, keys);
    const sheet = session.project.store.getState().project!.world.sheets[0]!;
    expect(sheet).toEqual({ ...world.sheets[0]!, ...changed });
    // What may not be is what it was again.
    if (Object.keys(changed).length === 0) expect(field.value).toBe(before);
  });

  it("says how many tiles come of it, and what is left over", () => {
    shown();
    expect(screen.getByText("4 x 3 tiles")).toBeTruthy();
    cleanup();
    session.sheets.store.setState({
      images: new Map([["stones", { width: image.width + 5, height: image.height + 1 } as ImageBitmap]]),
    });
    shown();
    expect(screen.getByText(/4 x 3 tiles, \d+ and \d+ px left over/)).toBeTruthy();
  });
});
