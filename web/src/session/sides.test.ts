import { beforeEach, expect, it } from "vitest";
import { Sides } from "./sides.ts";

beforeEach(() => localStorage.clear());

it("a panel is as wide as it was drawn, never wider than half of the page, and folds away where it is drawn very narrow", () => {
  const sides = new Sides();
  expect(sides.shown("kit", 1280)).toEqual({ width: 264, folded: false });
  sides.drawTo("kit", 500.4);
  expect(sides.shown("kit", 1280)).toEqual({ width: 500, folded: false });
  expect(sides.shown("kit", 800)).toEqual({ width: 400, folded: false });
  sides.drawTo("kit", 200);
  expect(sides.shown("kit", 1280).width).toBe(240);
  sides.drawTo("kit", 60);
  expect(sides.shown("kit", 1280)).toEqual({ width: 240, folded: true });
  sides.toggle("kit", 1280);
  expect(sides.shown("kit", 1280)).toEqual({ width: 240, folded: false });
  sides.reset("kit");
  expect(sides.shown("kit", 1280).width).toBe(264);
});

it("in a narrow page panels are folded until one opens them, which then holds", () => {
  const sides = new Sides();
  expect([sides.shown("kit", 900).folded, sides.shown("anatomy", 900).folded]).toEqual([true, false]);
  sides.toggle("kit", 900);
  expect([sides.shown("kit", 900).folded, sides.shown("kit", 640).folded]).toEqual([false, false]);
});

it("what was made of them is kept by the browser, and what else stands there does no harm", () => {
  const sides = new Sides();
  sides.drawTo("memory", 600);
  sides.toggle("detail", 1280);
  const again = new Sides();
  expect([again.shown("memory", 1280).width, again.shown("detail", 1280).folded]).toEqual([600, true]);
  for (const kept of ["{", "[]", "7", '{"kit":{"width":"wide","folded":1},"__proto__":{"width":9}}']) {
    localStorage.setItem("sides", kept);
    expect(new Sides().shown("kit", 1280)).toEqual({ width: 264, folded: false });
  }
});
