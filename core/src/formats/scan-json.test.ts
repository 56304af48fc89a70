import fc from "fast-check";
import { expect, it } from "vitest";
import type { RefusedError } from "../base/refused-error.ts";
import { FIXED } from "../test-support/arbitraries.ts";
import { scanJson } from "./scan-json.ts";

/** What it says of a text: the value, or the first thing that is wrong with its place. */
function says(text: string): unknown {
  try {
    return { value: scanJson(text, "it") };
  } catch (error) {
    const { place, line, column, message } = (error as RefusedError).refusals[0]!;
    return `${place} ${line}:${column} ${message}`;
  }
}

it("reads what JSON is, to the last value", () => {
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 5 }), (value) => {
      const text = JSON.stringify(value);
      // A key that stands twice cannot come of a value; what cannot be stored can.

      if (!/\\u0000|\\ud[89a-f]|\u0000/i.test(text)) expect(says(text)).toEqual({ value: JSON.parse(text) as unknown });
    }),
    FIXED,
  );
});

it.each([
  ['{"a": {"b": "x\\u0000y"}}', "a.b 1:13 holds NUL or half a character"],
  ['["fine", "\\ud800"]', "[1] 1:10 holds NUL or half a character"],
  ['{"a\\u0000": 1}', " 1:2 has a key with NUL or half a character in it"],
  ['{"a": 1,\n "b": 2,\n "a": 3}', "a 3:2 the key stands twice"],
  ['{"a": {"b": 1, "b": 1}}', "a.b 1:16 the key stands twice"],
  ['{"a": 1 // no\n}', /^.* 1:9 broken JSON: /],
  ["[1, 2,]", /^.* 1:\d broken JSON: /],
  ['{"a": 1} x', /^.* 1:10 broken JSON: /],
  ["", /broken JSON/],
  ["[01]", /broken JSON/],
  ["[NaN]", /broken JSON/],
  [`${"[".repeat(40)}${"]".repeat(40)}`, /is nested deeper than 32/],
])("%j is refused: %s", (text, said) => {
  if (typeof said === "string") expect(says(text)).toBe(said);
  else expect(says(text)).toMatch(said);
});

it("keys that every object has are keys like others, and keep what stands there", () => {
  const text = '{"__proto__": {"a": 1}, "constructor": 2, "toString": 3}';
  const value = scanJson(text, "it") as object;
  expect(Object.keys(value)).toEqual(["__proto__", "constructor", "toString"]);
  expect(Object.getPrototypeOf(value)).toBe(Object.prototype);
});
