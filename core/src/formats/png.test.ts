import { encode } from "fast-png";
import type { ImageData } from "fast-png";
import { zlibSync } from "fflate";
import { describe, expect, it } from "vitest";
import { RefusedError } from "../base/refused-error.ts";
import { pngSize, readPng, writePng } from "./png.ts";

const read = (image: ImageData): number[] => [...readPng(encode(image), 64).rgba];
const wide = (...values: number[]): Uint16Array => Uint16Array.from(values, (value) => value * 256 + 77);

describe("every kind of colour comes to red, green, blue and alpha of 8 bits", () => {
  it.each<[string, ImageData, number[]]>([
    [
      "with alpha",
      { width: 2, height: 1, channels: 4, depth: 8, data: new Uint8Array([10, 20, 30, 40, 250, 251, 252, 253]) },
      [10, 20, 30, 40, 250, 251, 252, 253],
    ],
    [
      "without",
      { width: 2, height: 1, channels: 3, depth: 8, data: new Uint8Array([10, 20, 30, 250, 251, 252]) },
      [10, 20, 30, 255, 250, 251, 252, 255],
    ],
    [
      "grey",
      { width: 1, height: 2, channels: 1, depth: 8, data: new Uint8Array([7, 201]) },
      [7, 7, 7, 255, 201, 201, 201, 255],
    ],
    [
      "grey with alpha",
      { width: 2, height: 1, channels: 2, depth: 8, data: new Uint8Array([7, 11, 201, 203]) },
      [7, 7, 7, 11, 201, 201, 201, 203],
    ],
    [
      "of 16 bits",
      { width: 2, height: 1, channels: 4, depth: 16, data: wide(10, 20, 30, 40, 250, 251, 252, 253) },
      [10, 20, 30, 40, 250, 251, 252, 253],
    ],
    [
      "grey of 16 bits",
      { width: 2, height: 1, channels: 1, depth: 16, data: wide(7, 201) },
      [7, 7, 7, 255, 201, 201, 201, 255],
    ],
    [
      "with a palette",
      {
        width: 3,
        height: 1,
        channels: 1,
        depth: 8,
        palette: [
          [1, 2, 3],
          [40, 50, 60],
          [97, 98, 99],
        ],
        data: new Uint8Array([2, 0, 1]),
      },
      [97, 98, 99, 255, 1, 2, 3, 255, 40, 50, 60, 255],
    ],
  ])("%s", (_, image, expected) => expect(read(image)).toEqual(expected));

  it("what is written is read as it was", () => {
    const rgba = Uint8Array.from({ length: 5 * 3 * 4 }, (_, i) => (i * 37) % 256);
    expect(readPng(writePng({ width: 5, height: 3, rgba }), 5)).toEqual({ width: 5, height: 3, rgba });
    expect(pngSize(writePng({ width: 5, height: 3, rgba }))).toEqual({ width: 5, height: 3 });
  });
});

describe("a picture unpacks to what its size and kind of colour come to, and not to a byte more", () => {
  it.each([
    ["grey", 1, 8],
    ["grey of 16 bits", 1, 16],
    ["grey with alpha", 2, 8],
    ["red, green and blue", 3, 8],
    ["with alpha", 4, 8],
    ["with alpha of 16 bits", 4, 16],
  ] as const)("%s", (_, channels, depth) => {
    const [width, height] = [5, 3];
    const Values = depth === 16 ? Uint16Array : Uint8Array;
    const whole = encode({ width, height, channels, depth, data: new Values(width * height * channels) });
    const at = Buffer.from(whole).indexOf("IDAT");
    const rest = at + 8 + new DataView(whole.buffer, whole.byteOffset).getUint32(at - 4);
    // A byte for how a row is written stands before each row.
    const most = height * (1 + (width * channels * depth) / 8);
    const isTooMuch = (bytes: number): boolean => {
      const packed = zlibSync(new Uint8Array(bytes));
      const length = new Uint8Array(4);
      new DataView(length.buffer).setUint32(0, packed.length);
      // Its check sum is wrong by now: that is looked at once it is unpacked.
      const pieces = [whole.subarray(0, at - 4), length, whole.subarray(at, at + 4), packed, whole.subarray(rest - 4)];
      try {
        readPng(Uint8Array.from(pieces.flatMap((piece) => [...piece])), 64);
      } catch (error) {
        return (error as RefusedError).refusals[0]!.message === "unpacks to more than its size says";
      }
      return false;
    };
    expect([most, most + 1].map(isTooMuch)).toEqual([false, true]);
  });
});

describe("what is none, is broken or too large is refused with what is wrong", () => {
  const good = writePng({ width: 4, height: 4, rgba: new Uint8Array(64).fill(9) });
  const why = (bytes: Uint8Array, max = 64): string => {
    try {
      readPng(bytes, max);
      return "read";
    } catch (error) {
      return error instanceof RefusedError ? error.refusals[0]!.message : String(error);
    }
  };
  it.each<[string, Uint8Array, RegExp]>([
    ["nothing", new Uint8Array(0), /^is no PNG$/],
    ["a text", new TextEncoder().encode("keen-pebble-world"), /^is no PNG$/],
    [
      "one that is cut short",
      good.slice(0, good.length - 5),
      /^is a broken PNG: (its last chunk|a chunk) is cut short$/,
    ],
    [
      "one with a wrong check sum",
      good.map((byte, i) => (i === good.length - 20 ? byte ^ 1 : byte)),
      /^is a broken PNG/,
    ],
    [
      "one of two bits a colour",
      encode({ width: 4, height: 1, channels: 1, depth: 2, data: new Uint8Array([0b00011011]) }),
      /^has 2 bits a colour; save it with 8$/,
    ],
  ])("%s", (_, bytes, expected) => expect(why(bytes)).toMatch(expected));
  it("one larger than it may be, by a pixel", () =>
    expect([why(good, 4), why(good, 3)]).toEqual(["read", "has 4x4 pixels; it may have 1x1 to 3x3"]));
});
