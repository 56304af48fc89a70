import { expect, it } from "vitest";
import { copyName } from "./copy-name.ts";
import { LIMITS } from "./limits.ts";

it("copies are numbered from the first, and copies of copies go on", () => {
  expect(copyName("Hall", ["Hall"])).toBe("Hall, copy");
  expect(copyName("Hall", ["Hall", "Hall, copy"])).toBe("Hall, copy 2");
  expect(copyName("Hall, copy 2", ["Hall", "Hall, copy", "Hall, copy 2"])).toBe("Hall, copy 3");
  expect(copyName("Hall, copy", ["Hall, copy"])).toBe("Hall, copy 2");
});

it("a name as long as it may be is cut, never within a character, and differs all the same", () => {
  const long = "\u{1f5dd}".repeat(LIMITS.nameLength);
  const names = [long];
  for (let i = 0; i < 12; i++) names.push(copyName(names.at(-1)!, names));
  expect(new Set(names).size).toBe(13);
  for (const name of names) {
    expect([...name].length).toBeLessThanOrEqual(LIMITS.nameLength);
    expect(name).not.toMatch(/[\ud800-\udbff](?![\udc00-\udfff])/);
  }
});
