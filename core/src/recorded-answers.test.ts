import { createHash } from "node:crypto";
import { readFileSync, writeFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { ANALYSIS } from "./test-support/recorded/analysis.ts";
import { CHANGES } from "./test-support/recorded/changes.ts";
import { DRAWN } from "./test-support/recorded/drawn.ts";
import { EDITS } from "./test-support/recorded/edits.ts";
import { FILES } from "./test-support/recorded/files.ts";
import { GIVEN } from "./test-support/recorded/given.ts";
import { GAMES } from "./test-support/recorded/games.ts";
import { GROUND } from "./test-support/recorded/ground.ts";
import { REACH } from "./test-support/recorded/reach.ts";
import { RECORDINGS } from "./test-support/recorded/recordings.ts";
import { RUNS } from "./test-support/recorded/runs.ts";

// What the core answers to many questions about many worlds, recorded: a change that should change no answer changes
// none. Where an answer is meant to change, `RECORD=1 npx vitest run --project core recorded` records it anew.

const ANSWERS = new URL("test-support/recorded/answers.json", import.meta.url);
const QUESTIONS = {
  ...FILES,
  ...RUNS,
  ...ANALYSIS,
  ...CHANGES,
  ...EDITS,
  ...GROUND,
  ...REACH,
  ...GAMES,
  ...RECORDINGS,
  ...DRAWN,
};

/** An answer as plain JSON: typed arrays and maps as lists, keys in order. */
function plain(_: string, value: unknown): unknown {
  if (ArrayBuffer.isView(value)) return [...(value as unknown as Iterable<number>)];
  if (value instanceof Map) return [...(value as Map<unknown, unknown>)];
  if (Object.is(value, -0)) return "-0";
  if (value === null || typeof value !== "object" || Array.isArray(value)) return value;
  return Object.fromEntries(Object.entries(value).sort(([one], [other]) => (one < other ? -1 : 1)));
}

/** A short name for an answer. */
function hashOf(answer: unknown): string {
  return createHash("sha256")
    .update(JSON.stringify(answer, plain) ?? "nothing")
    .digest("hex")
    .slice(0, 8);
}

type Recorded = Record<string, Record<string, string>>;
const before = process.env["RECORD"] === undefined ? (JSON.parse(readFileSync(ANSWERS, "utf8")) as Recorded) : null;
const now: Recorded = {};

describe("what the core answers is what it answered before", () => {
  it.each(Object.entries(QUESTIONS))("%s", (question, ask) => {
    now[question] = Object.fromEntries(GIVEN.map((given) => [given.name, hashOf(ask(given))]));
    if (before !== null) expect(now[question]).toEqual(before[question]);
    else writeFileSync(ANSWERS, `${JSON.stringify(now, null, 1)}\n`);
  });
});
