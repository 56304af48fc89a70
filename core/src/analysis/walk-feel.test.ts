import { expect, it } from "vitest";
import { compile } from "../simulation/compile.ts";
import { run } from "../replay/run.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { walkFeel } from "./walk-feel.ts";

const feelOf = (options: Parameters<typeof tinyWorld>[1], lines: string) => {
  const world = tinyWorld(["S.........", "..........", "..........", ".........."], options);
  const { rows } = run(compile(world), tinyLog(lines), { rows: true });
  return walkFeel(rows!, rows!.keys);
};

it("measures a walk by what was pressed in it", () => {
  const feel = feelOf(
    {
      gait: "roam",
      input: { opposites: "cancel", ways: 8, prefer: "latest" },
      roam: { speedX: 2, speedY: 3, diagonal: "full" },
    },
    "3 ., 10 R, 4 ., 8 D, 5 RD",
  );
  expect(feel).toEqual({ straight: [null, 512, null, 768], diagonal: 923, framesToMove: 1, framesToStop: 0 });
});

it("tells how long one slides on, and what a walk does not show", () => {
  const feel = feelOf({ gait: "drift", drift: { accel: 1, drag: 64, maxSpeed: 3 } }, "20 R, 60 .");
  expect(feel.framesToStop).toBeGreaterThan(3);
  expect(feel.diagonal).toBeNull();
  expect(feelOf({}, "5 .")).toEqual({
    straight: [null, null, null, null],
    diagonal: null,
    framesToMove: null,
    framesToStop: null,
  });
});
