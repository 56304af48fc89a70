import { describe, expect, it } from "vitest";
import { RefusedError } from "../base/refused-error.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { readPng, writePng } from "./png.ts";
import { readRoomText } from "./read-room-text.ts";

const world = {
  ...tinyWorld(["S"]),
  tiles: tinyWorld(["S"]).tiles.map((tile, i) => ({ ...tile, glyph: [null, "#", "/", "="][i]! })),
};

/** What is wrong with a text first, or how large the room is. */
function says(text: string): string {
  const result = readRoomText(text, world, "a");
  if ("draft" in result) return `${result.draft.width}x${result.draft.height}`;
  const { line, column, message } = result.refusals[0]!;
  return `${line}:${column} ${message}`;
}

describe("a room text", () => {
  it.each<[string, string, string]>([
    ["of one cell", "#", "1x1"],
    ["of 512 rows", Array<string>(512).fill("#").join("\n"), "1x512"],
    ["of 513 rows", Array<string>(513).fill("#").join("\n"), "513:1 a room has at most 512 rows"],
    ["of 512 characters a row", "#".repeat(512), "512x1"],
    ["of 513 characters in its second row", `#\n${"#".repeat(513)}`, "2:513 a row has at most 512 characters"],
    ["with nothing in it", "", "1:1 expected a row of characters"],
    ["that begins with an empty line", "\n#", "1:1 expected a row of characters"],
    [
      "of a megabyte",
      `#\n\n${"# ".padEnd(1024 * 1024 - 3, "x")}`,
      expect.not.stringContaining("is longer than") as string,
    ],
    ["of more than a megabyte", "#".repeat(1024 * 1024 + 1), "1:1 is longer than 1048576 characters"],
  ])("%s", (_what, text, expected) => expect(says(text)).toEqual(expected));
});

describe("a picture", () => {
  const size = (width: number, height: number, max: number): string => {
    try {
      const pixels = readPng(writePng({ width, height, rgba: new Uint8Array(width * height * 4) }), max);
      return `${pixels.width}x${pixels.height}`;
    } catch (error) {
      return (error as RefusedError).refusals[0]!.message;
    }
  };

  it.each<[number, number, number, string]>([
    [1, 1, 8, "1x1"],
    [8, 1, 8, "8x1"],
    [1, 8, 8, "1x8"],
    [9, 1, 8, "has 9x1 pixels; it may have 1x1 to 8x8"],
    [1, 9, 8, "has 1x9 pixels; it may have 1x1 to 8x8"],
  ])("of %i by %i px, with at most %i a side: %s", (width, height, max, expected) =>
    expect(size(width, height, max)).toBe(expected),
  );

  it("whose head says that it has no pixels is refused", () => {
    for (const at of [16, 20]) {
      const bytes = writePng({ width: 1, height: 1, rgba: new Uint8Array(4) }).slice();
      new DataView(bytes.buffer).setUint32(at, 0);
      expect(() => readPng(bytes, 8)).toThrow(RefusedError);
    }
  });
});
