import { describe, expect, it } from "vitest";
import type { Pair } from "../world/world.ts";
import type { ReferenceChange } from "./condition-kind.ts";
import { followReachCheck, parseReachCheck, reachCheckText } from "./reach-check.ts";

const TEXTS = [
  "reachable lamp-1",
  "unreachable lamp-1",
  "reachable all bead",
  "reachable cell 0 12 in hall",
  "unreachable cell 511 0 in hall",
  "winnable",
  "aligned",
  "never stuck",
  "never lost bead",
];

describe("a check about all play", () => {
  it.each(TEXTS)("%s is written as it was read, whatever blanks are between", (text) => {
    expect(reachCheckText(parseReachCheck(text)!)).toBe(text);
    expect(reachCheckText(parseReachCheck(` ${text.replaceAll(" ", "  ")} `)!)).toBe(text);
    expect(parseReachCheck(`${text} more`)).toBeNull();
  });

  it.each([
    "",
    "won",
    "reachable",
    "reachable Lamp",
    "reachable lamp 1",
    "unreachable all bead",
    "reachable all Bead",
    "reachable cell 1 in hall",
    "reachable cell 1 2",
    "reachable cell 1 2 at hall",
    "reachable cell 1 2 in Hall",
    "reachable cell 01 2 in hall",
    "reachable cell 512 2 in hall",
    "reachable cell 1 -2 in hall",
    "never",
    "never lost",
    "never lost Bead",
    "never found bead",
  ])("%j is none", (text) => expect(parseReachCheck(text)).toBeNull());

  it("follows what it names, and is gone with it or where its cell cannot be written any more", () => {
    const change = {
      fixture: (id: string) => (id === "lamp-1" ? "lamp-2" : id === "lamp-9" ? null : id),
      room: (id: string) => (id === "hall" ? "nave" : id === "cellar" ? null : id),
      cell: (room: string, [x, y]: Pair): Pair => (room === "loft" ? [x - 1, y - 2] : [x, y]),
    } as ReferenceChange;
    const followed = (text: string): string | null => {
      const before = parseReachCheck(text)!;
      const after = followReachCheck(before, change);
      if (after === before) return "as it was";
      return after && reachCheckText(after);
    };
    expect(
      [
        "unreachable lamp-1",
        "reachable lamp-9",
        "reachable lamp-3",
        "reachable cell 4 5 in hall",
        "reachable cell 4 5 in cellar",
        "unreachable cell 4 5 in loft",
        "reachable cell 0 5 in loft",
        "reachable cell 4 1 in loft",
        "reachable cell 4 1 in attic",
        "never lost lamp-1",
        "winnable",
      ].map(followed),
    ).toEqual([
      "unreachable lamp-2",
      null,
      "as it was",
      "reachable cell 4 5 in nave",
      null,
      "unreachable cell 3 3 in loft",
      null,
      null,
      "as it was",
      "as it was",
      "as it was",
    ]);
  });
});
