import { placeText } from "./scan-json.ts";
import { readFileSync } from "node:fs";
import { Ajv2020 } from "ajv/dist/2020.js";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { RefusedError } from "../base/refused-error.ts";
import { readLog } from "../logs/read-log.ts";
import { writeLog } from "../logs/write-log.ts";
import { FIXED, anyWorld } from "../test-support/arbitraries.ts";
import type { JsonPath } from "../test-support/damage.ts";
import { anyDamaged, anyOddValue, placesIn, replaced, valueAt } from "../test-support/damage.ts";
import { worldJsonSchema } from "./world-json-schema.ts";
import { readWorld } from "./read-world.ts";
import { writeWorld } from "./write-world.ts";
import { same } from "../test-support/same.ts";

const text = readFileSync(new URL("../test-support/everything.world.json", import.meta.url), "utf8");
const world = JSON.parse(text) as Record<string, unknown>;
const schema = JSON.parse(readFileSync(new URL("../../../docs/world.schema.json", import.meta.url), "utf8")) as object;
const fitsSchema = new Ajv2020({ allErrors: false, strict: false }).compile(schema);

/** What a file was read as, or the places at which it was refused. Anything else that is thrown is a fault. */
function read<T>(reader: () => T): { readonly value: T } | { readonly refused: RefusedError } {
  try {
    return { value: reader() };
  } catch (error) {
    if (error instanceof RefusedError) return { refused: error };
    throw error;
  }
}

/** Whether a refusal names the changed place: itself, what holds it or stands in it, or who is left without what stood there. */
function names(refused: RefusedError, path: JsonPath, old: unknown, value: unknown): boolean {
  // A kind decides what may stand beside it.
  const changed = placeText(["kind", "gait", "do"].includes(String(path.at(-1))) ? path.slice(0, -1) : path);
  const texts = (json: unknown): string[] =>
    [json, ...placesIn(json).map((place) => valueAt(json, place))].filter((each) => typeof each === "string");
  return refused.refusals.some(({ place, message }) => {
    if (place === "" || place.startsWith(changed) || changed.startsWith(place)) return true;
    if (place.startsWith(placeText(path.slice(0, -1))) && message.includes(` ${path.at(-1)!}`)) return true;
    // An id that went away is missed where it is used, one that came may stand elsewhere already; a size is missed by
    // what no longer fits it.
    if (texts(old).some((id) => message.includes(id))) return true;
    if (path.includes("edges") && message.includes("spans ascend")) return true;
    // Of two that are the same the second is named.
    if (message.includes("duplicate") && place.startsWith(placeText(path.slice(0, -2)))) return true;
    if (message.includes("stands twice") && texts(value).some((id) => message.includes(id))) return true;
    return (
      ["tileSize", "width", "height", "tiles"].some((size) => path.includes(size)) &&
      /tile|inside|must be|must have|reach/.test(message)
    );
  });
}

/** The line of the first character that is another one. */
function damagedLine(whole: string, damaged: string): number {
  let same = 0;
  while (same < whole.length && whole[same] === damaged[same]) same++;
  return whole.slice(0, same).split("\n").length;
}

function parses(json: string): boolean {
  try {
    JSON.parse(json);
    return true;
  } catch {
    return false;
  }
}

/** A value much like the one that stands there: what a slip of the hand makes of it. */
function near(path: JsonPath, n: number): unknown {
  const old = valueAt(world, path);
  if (typeof old === "number") return old + (n % 5) - 2;
  if (typeof old === "boolean") return !old;
  const alike = placesIn(world).filter((place) => place.at(-1) === path.at(-1));
  return valueAt(world, alike[n % alike.length]!);
}

it("a world with one value changed is read, and then written as it is, or refused at that place; the schema agrees", () => {
  const places = placesIn(world);
  const shape = new Set(["refused", "read"]);
  let readable = 0;
  fc.assert(
    fc.property(fc.constantFrom(...places), fc.nat(300), anyOddValue, (path, n, odd) => {
      const value = n % 3 === 0 ? near(path, n) : odd;
      const changed = replaced(world, path, value);
      const written = JSON.stringify(changed);
      const result = read(() => readWorld(written, "it"));
      const schemaFits = fitsSchema(JSON.parse(written));
      if ("value" in result) {
        readable++;
        same(
          { place: placeText(path), value, schemaFits },
          {
            place: placeText(path),
            value,
            schemaFits: true,
          },
        );
        const canonical = writeWorld(result.value);
        expect(writeWorld(readWorld(canonical))).toBe(canonical);
      } else {
        const says = names(result.refused, path, valueAt(world, path), value) ? "its place" : result.refused.message;
        expect({ place: placeText(path), value, says }).toMatchObject({ says: "its place" });
        expect(result.refused.refusals[0]!.message).toMatch(/\S/);
      }
      shape.delete("value" in result ? "read" : "refused");
    }),
    { ...FIXED, numRuns: 800 },
  );
  expect([...shape]).toEqual([]);
  expect(readable).toBeGreaterThan(60);
});

it("the schema takes every world that is written, and is the one that the tables say", () => {
  fc.assert(
    fc.property(anyWorld, (any) => {
      same(fitsSchema(JSON.parse(writeWorld(any))), true);
    }),
    FIXED,
  );
  // `npm run world-schema` writes it anew.
  expect(worldJsonSchema()).toEqual(schema);
});

/** Every bound that the schema has anywhere. */
function boundsIn(part: unknown): number[] {
  if (part === null || typeof part !== "object") return [];
  return Object.entries(part).flatMap(([key, value]) =>
    ["minimum", "maximum"].includes(key) && typeof value === "number" ? [value] : boundsIn(value),
  );
}

const ALIKE = 3;

it("where the schema ends a number's range, the reader does", () => {
  const values = [...new Set(boundsIn(schema).flatMap((bound) => [bound - 1, bound, bound + 1]))].sort((a, b) => a - b);
  // Of numbers in lists that the schema does not tell apart a few are enough.
  const alike = new Map<string, number>();
  const numbers = placesIn(world).filter((path) => {
    if (typeof valueAt(world, path) !== "number") return false;
    const kind = path.map((key) => (typeof key === "number" ? "*" : key)).join(".");
    alike.set(kind, (alike.get(kind) ?? 0) + 1);
    return alike.get(kind)! <= ALIKE;
  });
  // One copy that is changed in place: there are very many values.
  const copy = structuredClone(world);
  let ends = 0;
  for (const path of numbers) {
    const holder = valueAt(copy, path.slice(0, -1)) as Record<string | number, unknown>;
    const key = path.at(-1)!;
    const before = holder[key];
    const withValue = <T>(value: number, look: () => T): T => {
      holder[key] = value;
      return look();
    };
    const readWith = (value: number) => withValue(value, () => read(() => readWorld(JSON.stringify(copy))));
    const fits = values.map((value) => withValue(value, () => fitsSchema(copy)));
    for (let i = 1; i < values.length; i++) {
      if (fits[i] === fits[i - 1]) continue;
      const [within, beyond] = fits[i] ? [values[i]!, values[i - 1]!] : [values[i - 1]!, values[i]!];
      expect({ place: placeText(path), beyond, isRead: "value" in readWith(beyond) }).toMatchObject({ isRead: false });
      // What lies within may not fit to other things, but it is not out of range, unless that is a cell's.
      const result = readWith(within);
      const said = "refused" in result ? result.refused.refusals.filter(({ place }) => place === placeText(path)) : [];
      const isOut = (message: string): boolean =>
        /must be a (whole )?number .*from .* to .*, found /.test(message) &&
        !message.includes(` to ${world["tileSize"] as number}, `);
      expect(said.filter(({ message }) => isOut(message))).toEqual([]);
      ends++;
    }
    holder[key] = before;
  }
  expect(ends).toBeGreaterThan(100);
});

it("what has the wrong shape is refused by the schema too", () => {
  const places = placesIn(world).filter((path) => typeof valueAt(world, path) !== "object");
  const wrong = (value: unknown): unknown => (typeof value === "number" ? "x" : 7.25);
  let refusedByBoth = 0;
  for (const path of places) {
    const changed = replaced(world, path, wrong(valueAt(world, path)));
    if ("value" in read(() => readWorld(JSON.stringify(changed)))) continue;
    // A speed of 7.25 px is only too fast for this tile size, and a lock's count is read by its kind.
    if (fitsSchema(changed)) expect(placeText(path)).toMatch(/roam|drift|glide/);
    else refusedByBoth++;
  }
  expect(refusedByBoth).toBeGreaterThan(places.length * 0.9);
});

it("a world file with damaged bytes is refused with a place or read", () => {
  fc.assert(
    fc.property(anyDamaged(text), (damaged) => {
      const result = read(() => readWorld(damaged, "it"));
      // What is read although it was damaged says something else now, or the damage was in what nobody reads.
      if ("value" in result) {
        expect(writeWorld(readWorld(writeWorld(result.value)))).toBe(writeWorld(result.value));
        return;
      }
      const { line, message } = result.refused.refusals[0]!;
      expect(line).toBeGreaterThan(0);
      expect(line).toBeLessThanOrEqual(damaged.split("\n").length);
      expect(message).toMatch(/\S{2}/);
      // Nothing before the damage is to blame for its form; what stands there may be missed by what came to harm.
      if (!parses(damaged))
        expect({ damaged: damagedLine(text, damaged), line }).toSatisfy(
          (told: { damaged: number; line: number }) => told.line >= told.damaged,
        );
    }),
    { ...FIXED, numRuns: 300 },
  );
});

describe("files that ask for too much are refused", () => {
  it.each([
    ["deep nesting", () => `{"a":${"[".repeat(1_000_000)}`, "is nested deeper than 32"],
    [
      "a million keys",
      () => `{${Array.from({ length: 1_000_000 }, (_, i) => `"k${i}":0`).join(",")}}`,
      "has more than 64 keys",
    ],
    [
      "a million tiles",
      () => text.replace('"tiles": [', `"tiles": [${"1,".repeat(1_000_000)}`),
      "tiles[0]: must be of type object",
    ],
    ["ten million cells", () => text.replace(/"cells": \[[^\]]*\]/, `"cells": [${"0,".repeat(7_000_000)}0]`), "values"],
    [
      "a room of 512 by 512 with too few cells",
      () => text.replace('"width": 4, "height": 2', '"width": 512, "height": 512'),
      "must be a list of 262144 tile numbers",
    ],
    [
      "a name of a million characters",
      () => text.replace('"name": "', `"name": "${"n".repeat(1_000_000)}`),
      "must be a text of 1 to 80 characters",
    ],
    ["more than 16 MiB", () => " ".repeat(17 * 1024 * 1024), "larger than"],
    ["a number that is none", () => text.replace('"tileSize": 16', '"tileSize": 1e999'), "tileSize"],
  ])("%s", (_name, make, message) => expect(() => readWorld(make())).toThrow(message));
});

const log = `keen-pebble-inputs 1
world saltglass-cistern
rules main
start intake-hall 3 4 down
with holds brass-crank
seed 1
title First crank
tag locks
note On purpose.
accept ${"3f5a0c42".repeat(8)}
check by 400 holds brass-crank 2
check end pixel 12.5 3
check never event open sluice-1
---
# two seconds of nothing
120 .
300 R until cell 12 4
4 LU @120,88.5
`;

it("a log with one word changed is refused in that line or read", () => {
  const rows = log.split("\n");
  const dashes = rows.indexOf("---");
  const words = rows.flatMap((row, line) => row.split(" ").map((_word, word) => [line, word] as const)).slice(0, -1);
  const odd = fc.oneof(
    fc.constantFrom(
      "",
      ".",
      "-1",
      "0",
      "999999999999",
      "1.5",
      "R",
      "RL",
      "always",
      "check",
      "---",
      "until",
      "x".repeat(2000),
      "\u0000",
      "@1,1",
      "\r",
    ),
    fc.string({ maxLength: 8 }),
  );
  fc.assert(
    fc.property(fc.constantFrom(...words), odd, ([line, word], value) => {
      const parts = rows[line]!.split(" ");
      parts[word] = value;
      const changed = rows.map((row, i) => (i === line ? parts.join(" ") : row)).join("\n");
      const result = read(() => readLog(changed, "it"));
      if ("value" in result) expect(writeLog(readLog(writeLog(result.value)))).toBe(writeLog(result.value));
      else {
        // The dashes that go away, or come, end the head elsewhere; another first word of a header may put the next one out of place.
        const elsewhere = line === dashes || value === "---" || (word === 0 && line < dashes);
        expect({
          line: line + 1,
          refused: result.refused.refusals.map((refusal) => refusal.line),
          elsewhere,
        }).toSatisfy((said: { line: number; refused: number[] }) => elsewhere || said.refused.includes(said.line));
      }
    }),
    { ...FIXED, numRuns: 300 },
  );
  fc.assert(
    fc.property(anyDamaged(log), (damaged) => {
      const result = read(() => readLog(damaged, "it"));
      if ("value" in result) expect(writeLog(readLog(writeLog(result.value)))).toBe(writeLog(result.value));
      else {
        const lines = result.refused.refusals.map((refusal) => refusal.line ?? 0);
        // A log is read line by line: nothing above the damage is refused but the line after which one is missing, and no line that is not there.
        expect({ damaged: damagedLine(log, damaged), lines }).toSatisfy(
          (told: { damaged: number; lines: number[] }) =>
            told.lines.length > 0 &&
            Math.min(...told.lines) >= told.damaged - 1 &&
            Math.max(...told.lines) <= damaged.split("\n").length + 1,
        );
      }
    }),
    { ...FIXED, numRuns: 200 },
  );
});
