import { expect, it } from "vitest";
import { bodyHandles, handleAt } from "./body-handles.ts";

const view = { zoom: 2, left: 100, top: 50 };
const box = { kind: "box", box: [2, 4, 12, 10], flush: "free" } as const;

it("a box is dragged at its four corners, and never turns inside out", () => {
  const handles = bodyHandles(box, 16, 32, view);
  expect(handles.map(({ x, y }) => [x, y])).toEqual([
    [136, 122],
    [160, 122],
    [136, 142],
    [160, 142],
  ]);
  const dragged = (corner: number, dx: number, dy: number) => {
    const body = handles[corner]!.drag(dx, dy);
    return body.kind === "box" ? body.box : null;
  };
  expect(dragged(0, 3, -1)).toEqual([5, 3, 9, 11]);
  expect(dragged(3, -2, 5)).toEqual([2, 4, 10, 15]);
  expect(dragged(0, 40, 40)).toEqual([13, 13, 1, 1]);
  expect(dragged(3, -40, -40)).toEqual([2, 4, 1, 1]);
});

it("a probe is dragged by itself; a handle is taken only near it", () => {
  const handles = bodyHandles(
    {
      kind: "probes",
      points: [
        [0, 0],
        [15, 15],
      ],
      flush: "free",
    },
    0,
    0,
    view,
  );
  expect(handleAt(handles, 133, 83)?.drag(-1, 2)).toMatchObject({
    points: [
      [0, 0],
      [14, 17],
    ],
  });
  expect(handleAt(handles, 115, 65)).toBeNull();
});
