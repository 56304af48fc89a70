import fc from "fast-check";

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
export type JsonPath = readonly (string | number)[];

/** Every place in a piece of JSON, the whole itself left out. */
export function placesIn(json: unknown, path: JsonPath = []): JsonPath[] {
  if (json === null || typeof json !== "object") return [];
  return Object.entries(json).flatMap(([key, value]) => {
    const at = [...path, Array.isArray(json) ? Number(key) : key];
    return [at, ...placesIn(value, at)];
  });
}

/** A copy with the value at that place replaced, or taken away where it is undefined. */
export function replaced(json: unknown, path: JsonPath, value: unknown): unknown {
  const copy = structuredClone(json) as Record<string | number, unknown>;
  let at = copy;
  for (const key of path.slice(0, -1)) at = at[key] as Record<string | number, unknown>;
  const last = path.at(-1)!;
  if (value !== undefined) at[last] = value;
  else if (Array.isArray(at)) at.splice(Number(last), 1);
  else delete at[last];
  return copy;
}

export function valueAt(json: unknown, path: JsonPath): unknown {
  return path.reduce<unknown>((at, key) => (at as Record<string | number, unknown>)[key], json);
}

/** Values that somebody's program or a slip of the hand may put somewhere. */
export const anyOddValue: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom<Json | undefined>(
    undefined,
    null,
    true,
    false,
    0,
    -1,
    1,
    2,
    15,
    16,
    17,
    40,
    129,
    513,
    0.5,
    1e9,
    -1e300,
    9007199254740993,
    "",
    " ",
    "A",
    "solid",
    "main",
    "x".repeat(41),
    "x".repeat(5000),
    [],
    {},
    [[]],
    [0, 0],
    { kind: "full" },
    { kind: "nothing" },
  ),
  fc.constantFrom(
    "\u0000",
    "\ud800",
    "\u202e",
    "e\u0301",
    "\ufeff",
    "__proto__",
    "constructor",
    "🪨",
    "../x",
    "#FFFFFF",
  ),
  fc.integer(),
  fc.string({ maxLength: 12 }),
  fc.jsonValue({ maxDepth: 2 }) as fc.Arbitrary<Json>,
);

/** A text with bits flipped, cut short, a stretch doubled, or odd characters put in. */
export function anyDamaged(text: string): fc.Arbitrary<string> {
  const at = fc.nat(text.length - 1);
  return fc.oneof(
    fc.array(fc.tuple(at, fc.integer({ min: 0, max: 6 })), { minLength: 1, maxLength: 4 }).map((flips) => {
      const units = [...Array(text.length).keys()].map((i) => text.charCodeAt(i));
      for (const [i, bit] of flips) units[i]! ^= 1 << bit;
      return units.map((unit) => String.fromCharCode(unit)).join("");
    }),
    at.map((end) => text.slice(0, end)),
    fc
      .tuple(at, at, at)
      .map(
        ([from, to, into]) =>
          text.slice(0, into) + text.slice(Math.min(from, to), Math.max(from, to)) + text.slice(into),
      ),
    fc
      .tuple(
        at,
        fc.constantFrom(
          "\u0000",
          "\ufeff",
          "\ud800",
          "\u202e",
          "\r\n",
          "\t",
          "é",
          "🪨",
          "//",
          "1e999",
          "-0",
          "[[[[[[[[",
          "{".repeat(5000),
        ),
      )
      .map(([i, odd]) => text.slice(0, i) + odd + text.slice(i)),
  );
}
