import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { RefusedError } from "../base/refused-error.ts";
import { told } from "../test-support/told.ts";
import { readNumberGrid } from "./number-grid.ts";
import { same } from "../test-support/same.ts";

interface Notated {
  readonly text: string;
  readonly rows: readonly (readonly number[])[];
  readonly width: number | null;
  readonly notation: string;
}

const BRACKETS = ["[]", "{}", "()"] as const;
const COMMENTS = ["// 7, 7\n", "/* [9] */", "-- 5 rows\n", ""] as const;
const NAMES = [
  "",
  "const int MAP[20][30] = ",
  "local hall = ",
  "export const hall: number[][] = ",
  "hall = np.array(",
] as const;

/** How one number may be written. */
const anyNumeral = fc.constantFrom<(n: number) => string>(
  String,
  (n) => (n < 0 ? String(n) : `0x${n.toString(16).toUpperCase()}`),
  (n) => (n < 0 ? String(n) : `$${n.toString(16).padStart(2, "0")}`),
  (n) => (n < 0 ? String(n) : `${n}u`),
);
const anyStyle = fc.record({
  numeral: anyNumeral,
  separator: fc.constantFrom(",", ", ", "\t", " ", ";", " ; "),
  trailing: fc.boolean(),
  crlf: fc.boolean(),
  bracket: fc.constantFrom(...BRACKETS),
  comment: fc.constantFrom(...COMMENTS),
  name: fc.constantFrom(...NAMES),
});

/** A grid of numbers and one of the ways in which people write such. */
const anyNotated: fc.Arbitrary<Notated> = fc
  .record({
    width: fc.integer({ min: 2, max: 12 }),
    height: fc.integer({ min: 2, max: 8 }),
    seed: fc.array(fc.integer({ min: -1, max: 255 }), { minLength: 4, maxLength: 96 }),
    style: anyStyle,
    notation: fc.constantFrom(
      "lines",
      "nested",
      "flat",
      "flat with a width",
      "hex digits",
      "digits",
      "data",
      "strings",
      "quoted table",
    ),
  })
  .map(({ width, height, seed, style, notation }) => {
    const max = notation === "digits" ? 9 : 255;
    const isPlain = ["digits", "hex digits"].includes(notation);
    const value = (i: number): number => {
      const n = seed[i % seed.length]! + (i % 7);
      return (n < 0 && !isPlain ? n : Math.abs(n)) % (max + 1);
    };
    const rows = Array.from({ length: height }, (_, y) =>
      Array.from({ length: width }, (_, x) => value(y * width + x)),
    );
    // Two hexadecimal digits a cell are told from decimal ones by their letters.
    if (notation === "hex digits") rows[0]![0] = 0xa5;
    const text = textOf(rows, style, notation);
    return {
      text: style.crlf ? text.replaceAll("\n", "\r\n") : text,
      rows,
      width: notation === "flat with a width" ? width : null,
      notation,
    };
  });

type Style = {
  readonly [K in keyof Parameters<Parameters<typeof anyStyle.map>[0]>[0]]: Parameters<
    Parameters<typeof anyStyle.map>[0]
  >[0][K];
};

function textOf(rows: readonly (readonly number[])[], style: Style, notation: string): string {
  const { numeral, separator, trailing, bracket, comment, name } = style;
  const [open, close] = bracket as unknown as [string, string];
  const comma = separator.trim() === "" ? "," : separator;
  const list = (row: readonly number[], by: string): string => row.map(numeral).join(by) + (trailing ? by.trim() : "");
  const end = name.endsWith("(") ? ")" : name.startsWith("const") ? ";" : "";
  switch (notation) {
    case "lines":
      return rows.map((row) => `${list(row, separator)}\n`).join("");
    case "data":
      return `hall:\n${rows.map((row) => `  .byte ${list(row, ",")}\n`).join("")}`;
    case "hex digits":
      return rows.map((row) => `${row.map((n) => n.toString(16).padStart(2, "0").toUpperCase()).join("")}\n`).join("");
    case "digits":
      return rows.map((row) => `${row.join("")}\n`).join("");
    case "quoted table":
      return rows.map((row) => `${row.map((n) => `"${numeral(n)}"`).join(comma)}\n`).join("");
    case "strings":
      return `[\n${rows.map((row) => `"${row.map(String).join(",")}"`).join(",\n")}\n]`;
    case "nested":
      return `${comment}${name}${open}\n${rows.map((row) => `  ${open}${list(row, comma)}${close}`).join(`,${comment}\n`)}${trailing ? "," : ""}\n${close}${end}\n`;
    case "flat":
      return `${comment}${name}${open}\n${rows.map((row) => `  ${row.map(numeral).join(comma)}${comma}`).join("\n")}\n${close}${end}`;
    default:
      return `${name}${open}${rows.flat().map(numeral).join(comma)}${close}${end}`;
  }
}

it("5,000 grids in any notation are read as what they were made from", () => {
  const seen = new Map<string, number>();
  fc.assert(
    fc.property(anyNotated, ({ text, rows, width, notation }) => {
      const grid = readNumberGrid(text, width);
      same(
        { text, width: grid.width, height: grid.height, values: grid.values },
        {
          text,
          width: rows[0]!.length,
          height: rows.length,
          values: rows.flat(),
        },
      );
      seen.set(notation, (seen.get(notation) ?? 0) + 1);
    }),
    { seed: 15, numRuns: 5000 },
  );
  told("grids by notation", Object.fromEntries(seen));
  expect(seen.size).toBe(9);
});

it("2,000 damaged ones are refused with a place, or read as a grid of what stands in them", () => {
  let refused = 0;
  fc.assert(
    fc.property(
      anyNotated,
      fc.nat(),
      fc.constantFrom("cut", "drop", "letter", "bracket"),
      ({ text, rows, width }, n, how) => {
        const at = n % text.length;
        const damaged = {
          cut: text.slice(0, at),
          drop: text.slice(0, at) + text.slice(at + 1),
          letter: `${text.slice(0, at)}x${text.slice(at)}`,
          bracket: `${text.slice(0, at)}]${text.slice(at)}`,
        }[how];
        try {
          const grid = readNumberGrid(damaged, width);
          same(grid.values.length, grid.width * grid.height);
          // Rows of characters are left where it was cut before its first number.
          if (grid.characters) {
            expect(damaged).not.toMatch(/\d/);
            return;
          }
          // One damaged place: what stands before it and what stands behind it is as it was made.
          const made = rows.flat();
          const { values } = grid;
          let before = 0;
          while (before < values.length && values[before] === made[before]) before++;
          let behind = 0;
          while (behind < values.length - before && values.at(-1 - behind) === made.at(-1 - behind)) behind++;
          same(
            { damaged, values, isOneOff: values.length - before - behind <= 1 },
            {
              damaged,
              values,
              isOneOff: true,
            },
          );
        } catch (error) {
          expect(error).toBeInstanceOf(RefusedError);
          const [first] = (error as RefusedError).refusals;
          expect({ damaged, line: first!.line }).toEqual({ damaged, line: expect.any(Number) as number });
          expect(first!.line).toBeLessThanOrEqual(damaged.split("\n").length);
          refused++;
        }
      },
    ),
    { seed: 16, numRuns: 2000 },
  );
  expect(refused).toBeGreaterThan(300);
});

describe("what people have", () => {
  it.each([
    ["####\n#..#\n####", "4 x 3 characters", [35, 35, 35, 35, 35, 46, 46, 35, 35, 35, 35, 35]],
    ['["##","#."]', "2 x 2 characters in quotes", [35, 35, 35, 46]],
    ["vec![vec![1, 2], vec![3, 4]]", "2 x 2 numbers in brackets", [1, 2, 3, 4]],
    // A comment only where a blank or nothing stands before it.
    ["m#=[[1,2],[3,4]]", "2 x 2 numbers in brackets", [1, 2, 3, 4]],
    ["# m\n[[1,2],[3,4]] # n", "2 x 2 numbers in brackets", [1, 2, 3, 4]],
    ["new int[,] { {1,2},{3,4} };", "2 x 2 numbers in brackets", [1, 2, 3, 4]],
    ['{"w": 2, "layers": [{"name": "floor", "data": [[1, 2], [3, 4]]}]}', "2 x 2 numbers in brackets", [1, 2, 3, 4]],
    ["10 DATA 1,2\n20 DATA 3,-1", "2 x 2 numbers", [1, 2, 3, -1]],
    ["db 5\ndb 6", "1 x 2 numbers", [5, 6]],
    ["1011\n1001", "4 x 2 numbers, a digit each", [1, 0, 1, 1, 1, 0, 0, 1]],
    ["m = {\n  0x10, 0x11,\n  $12, 13h,\n}", "2 x 2 numbers in brackets", [16, 17, 18, 19]],
  ])("%j is %s", (text, readAs, values) => expect(readNumberGrid(text)).toMatchObject({ readAs, values }));

  it("a room of 512 by 512 is read", () => {
    const { width, height } = readNumberGrid(`${"1,".repeat(511)}1\n`.repeat(512));
    expect([width, height]).toEqual([512, 512]);
  });

  it.each([
    ["", "line 1, column 1: is empty"],
    ["?", "line 1, column 1: is one line without numbers parted from each other"],
    ["10", "line 1, column 1: is one line without numbers parted from each other"],
    ["\n##\n\n##", "line 3, column 1: expected a row of characters, found an empty line"],
    ["1,2,3\n4,x,6", 'line 2, column 3: expected a number, found "x"'],
    ["1.5,2\n3,4", 'line 1, column 1: expected a number, found "1.5"'],
    ["[[1,2],\n[3]]", "line 2, column 2: expected 2 cells as in the first row, found 1"],
    ["a1b2\n  a1b2c3d4", "line 2, column 7: expected 2 cells as in the first row, found 4"],
    ["[[1,2],[3,4]", "line 1, column 1: the bracket `[` is not closed"],
    ["[[1,2],[3,4}]", "line 1, column 12: expected `]`"],
    ["[[1,foo],[3,4]]", 'line 1, column 5: expected numbers, found "foo"'],
    ["int m[] = {1,2,3,4,5,6};", "line 1, column 12: is one list of 6 numbers: say how many cells a row has"],
    ["[[[1,2],[3,4]],[[5,6],[7,8]]]", "line 1, column 2: has 2 layers of rows"],
    [`${"1,".repeat(512)}1`, "line 1, column 1025: a row has at most 512 cells, found 513"],
    ['["####",\n "#..#", "#.#"]', "line 2, column 13: expected 4 cells as in the first row, found 3"],
    ["1,2\n".repeat(513), "line 513, column 1: a room has at most 512 rows, found 513"],
  ])("text %# of those that are none is refused", (text, message) =>
    expect(() => readNumberGrid(text)).toThrow(message),
  );

  it("hundreds of thousands of brackets, blanks or quotes are no trouble", () => {
    for (const text of [
      "[".repeat(4e5),
      " ".repeat(4e5),
      '"'.repeat(4e5),
      "1 ".repeat(2e5),
      "--".repeat(2e5),
      // What is never closed is not looked for again and again.
      "/*a\n".repeat(1e5),
      "--[[\n".repeat(8e4),
      "<!--\n".repeat(8e4),
      '"\\'.repeat(2e5),
      "`a\n".repeat(1e5),
      "1a".repeat(2e5),
    ])
      expect(() => readNumberGrid(text)).toThrow(RefusedError);
  });
});
