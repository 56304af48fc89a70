import type { EditStep } from "@keen-pebble/core/edit";
import { newRules } from "@keen-pebble/core/world";
import { expect, it } from "vitest";
import { storedSteps } from "./stored-steps.ts";

const today = newRules("main", "Main", "glide", 16);
/** As it was stored before a setting of its glide was there. */
const older = (() => {
  const { arrive: _arrive, ...glide } = today.glide;
  return { ...today, glide };
})();

it("a step that was stored before a key was there has its default, on both of its sides", () => {
  const step = {
    kind: "change-parts",
    parts: [{ part: "rules/main", before: older, after: { ...older, name: "Other" } }],
  } as unknown as EditStep;
  expect(storedSteps([step])).toEqual([
    { kind: "change-parts", parts: [{ part: "rules/main", before: today, after: { ...today, name: "Other" } }] },
  ]);
});

it("one that is of no known part, or would not be let in any more, stays as it is, and so does any other step", () => {
  const steps = [
    { kind: "change-parts", parts: [{ part: "gone", before: 1, after: 2 }] },
    { kind: "change-parts", parts: [{ part: "frameRate", before: 60, after: "fast" }] },
    { kind: "set-cells", room: "a", cells: [1], before: [0], after: [1] },
  ] as unknown as EditStep[];
  expect(storedSteps(steps)).toEqual(steps);
});
