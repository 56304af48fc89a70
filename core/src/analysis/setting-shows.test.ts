import { expect, it } from "vitest";
import { settingByPath } from "../world/settings.ts";
import { FLUSH } from "../world/setting-says.ts";
import { SHOWN_SETTINGS, settingShown } from "./setting-shows.ts";

const places = (rows: {
  readonly x: Int32Array;
  readonly y: Int32Array;
  readonly facing: Uint8Array;
  readonly count: number;
}) => Array.from({ length: rows.count }, (_, i) => `${rows.x[i]! / 256},${rows.y[i]! / 256} ${rows.facing[i]!}`);

it.each(SHOWN_SETTINGS)("%s is shown by two values that walk the same keys otherwise, from the same place", (path) => {
  const [one, other] = settingShown(path)!;
  expect(path === FLUSH || settingByPath(path) !== undefined).toBe(true);
  expect(one.value).not.toBe(other.value);
  const [was, is] = [places(one.rows), places(other.rows)];
  expect(was[0]).toBe(is[0]);
  expect(was).not.toEqual(is);
  // Long enough to be seen, short enough to be watched again and again.
  expect(one.rows.count).toBeGreaterThan(20);
  expect(one.rows.count).toBeLessThan(90);
});

it("what words explain badly is shown, the rest is not", () => {
  for (const name of ["bufferFrames", "carry", "keepGoing", "reverse"])
    expect(SHOWN_SETTINGS).toContain(`glide.${name}`);
  for (const path of ["roam.nudge", "roam.axisOrder", "drift.drag", "facing.tie", FLUSH])
    expect(SHOWN_SETTINGS).toContain(path);
  expect(settingShown("pose.images")).toBeNull();
});

it("the pictures show what the sentences say", () => {
  const last = (path: string): string[] => settingShown(path)!.map(({ rows }) => places(rows).at(-1)!.split(" ")[0]!);
  // A turn pressed early: passed by, or taken into the way down.
  expect(last("glide.bufferFrames")).toEqual(["80,16", "48,32"]);
  // One key for a moment: one cell, or on to the wall.
  expect(last("glide.keepGoing")).toEqual(["32,16", "112,16"]);
  // Two px short of the opening: stuck at the corner, or round it.
  expect(last("roam.nudge")).toEqual(["30,48", "32,16"]);
  // Drift goes by the same.
  expect(last("drift.nudge")).toEqual(last("roam.nudge"));
});
