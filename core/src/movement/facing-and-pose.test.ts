import { expect, it } from "vitest";
import { compile } from "../simulation/compile.ts";
import { run } from "../replay/run.ts";
import type { TinyOptions } from "../test-support/tiny-world.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { FACINGS } from "../world/facing.ts";

function column(
  name: "facing" | "pose",
  rows: string[],
  options: TinyOptions,
  keys: string,
  pointer: { x: number; y: number } | null = null,
): (string | number)[] {
  const log = tinyLog(keys);
  const lines = log.lines.map((line) => (line.kind === "keys" ? { ...line, pointer } : line));
  const trace = run(compile(tinyWorld(rows, options)), { ...log, lines }, { rows: true }).rows!;
  return [...trace[name]].map((value) => (name === "facing" ? FACINGS[value]! : value));
}

it("faces where it goes, against a wall where it wants to, and keeps that when the keys are let go", () => {
  expect(column("facing", ["S#", ".."], { glide: { speed: 16 } }, "1 R,1 .,1 D,1 .")).toEqual([
    "down",
    "right",
    "right",
    "down",
    "down",
  ]);
});
it("looks where it rests when it is told to", () => {
  expect(column("facing", ["S."], { glide: { speed: 16 }, facing: { idle: "reset", rest: "up" } }, "1 R,2 .")).toEqual([
    "down",
    "right",
    "up",
    "up",
  ]);
});
it("shows a diagonal in four ways as the tie says", () => {
  const diagonal = (tie: "keep" | "horizontal" | "vertical") =>
    column("facing", ["S.", ".."], { glide: { speed: 16 }, input: { ways: 8 }, facing: { tie } }, "1 RD").at(-1);
  expect([diagonal("keep"), diagonal("horizontal"), diagonal("vertical")]).toEqual(["down", "right", "down"]);
  expect(
    column("facing", ["S.", ".."], { glide: { speed: 16 }, input: { ways: 8 }, facing: { ways: 8 } }, "1 RD").at(-1),
  ).toBe("down-right");
});
it("follows the pointer from the middle of the frame-square, horizontal on a tie", () => {
  const at = (x: number, y: number) =>
    column("facing", ["S"], { facing: { source: "pointer" } }, "1 .", { x, y }).at(-1);
  expect([at(9, 8), at(0, 0), at(8, 7.9), at(8, 8)]).toEqual(["right", "left", "up", "down"]);
});
it("counts images by distance, rests only after a while, and begins anew then", () => {
  const pose = { images: 4, every: 8, idleImage: 0, idleAfter: 3 } as const;
  expect(column("pose", ["S..."], { glide: { speed: 4 }, pose }, "4 R,4 .,2 R")).toEqual([
    0, 0, 1, 1, 2, 2, 2, 0, 0, 0, 1,
  ]);
});
