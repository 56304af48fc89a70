import { expect, it } from "vitest";
import { newRules } from "../../world/new-rules.ts";
import type { Rules } from "../../world/world.ts";
import { rulesDifferences } from "./rule-words.ts";

const base = newRules("main", "Main", "glide", 16);
const told = (there: Rules): string[] =>
  rulesDifferences(base, there).map((each) => `${each.label}: ${each.here}, ${each.there}`);

it("of two rule sets those settings are told that count for the way: not poses, facings and what does not apply", () => {
  expect(told({ ...base, id: "other", name: "Other", pose: { ...base.pose, images: 3 } })).toEqual([]);
  expect(told({ ...base, facing: { ...base.facing, by: "pointer" } as never })).toEqual([]);
  expect(told({ ...base, roam: { ...base.roam, speedX: 3 } })).toEqual([]);
  expect(told({ ...base, glide: { ...base.glide, speed: 4 } })).toEqual([`Speed: ${base.glide.speed}, 4`]);
  expect(told({ ...base, input: { ...base.input, ways: 8 } })).toEqual([`Ways: ${base.input.ways}, 8`]);
});

it("of another gait its settings are not told one by one; bodies and what blocks are told as they are", () => {
  expect(told({ ...base, gait: "roam", roam: { ...base.roam, speedX: 3 } })).toEqual(["Gait: Glide, Roam"]);
  const body = { kind: "box", box: [1, 2, 3, 4], flush: "free" } as const;
  const walker = { ...base.walker, body, blockedBy: ["solid", "water"] };
  expect(told({ ...base, walker }).map((each) => each.split(":")[0])).toEqual(["Body", "Blocked by"]);
  expect(told({ ...base, walker }).at(-1)).toBe("Blocked by: solid, solid, water");
});
