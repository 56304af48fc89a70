import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { RefusedError } from "../base/refused-error.ts";
import { FIXED, anyLog } from "../test-support/arbitraries.ts";
import { readRecording } from "../formats/read-recording.ts";
import { LIMITS } from "../world/limits.ts";
import { MOST_LINES } from "./input-log.ts";
import { readLog } from "./read-log.ts";
import { writeLog } from "./write-log.ts";

const WHOLE = `keen-pebble-inputs 1
world saltglass-cistern
rules main
start intake-hall 3 4 down
with holds brass-crank
with open sluice-1
with respawn lamp-1
seed 1
title First crank, then the sluice
tag locks
note Pressed early on purpose: the turn must not get lost.
accept ${"3f5a0c42".repeat(8)}
check by 400 holds brass-crank 2
check always aligned
check end room settling-gallery
---
# two seconds of nothing, then right
120 .
300 R until cell 12 4
16 RU
1 RA
4 . @120,88.5
`;

it("a log that uses everything is re-saved byte for byte", () => {
  expect(writeLog(readLog(WHOLE))).toBe(WHOLE);
});

it("writing merges equal neighbours; reading gives the same walk", () => {
  const text = "keen-pebble-inputs 1\n---\n3 R\n4 R\n2 R until still\n2 R until still\n1 .\n";
  expect(writeLog(readLog(text))).toBe("keen-pebble-inputs 1\n---\n7 R\n2 R until still\n2 R until still\n1 .\n");
  fc.assert(
    fc.property(anyLog, (log) => {
      const written = writeLog(log);
      expect(writeLog(readLog(written))).toBe(written);
    }),
    FIXED,
  );
});

describe("a log that is not in order is refused at its line", () => {
  const log = (header: string, body = "1 .") => `keen-pebble-inputs 1\n${header}---\n${body}\n`;
  it.each([
    ["keen-pebble-inputs 2\n---\n", "line 1: header: expected `keen-pebble-inputs 1`"],
    ["keen-pebble-inputs 1\nworld a\n", "line 2: header: expected a line `---`"],
    [log("title a\nrules main\n"), "line 3: rules: must stand before `title`"],
    [log("title a\ntitle b\n"), "line 3: title: stands twice"],
    [log("colour red\n"), "line 2: header: expected one of world, rules"],
    [log("start hall 3 4\n"), "line 2: start: expected `start ROOM X Y FACING`"],
    [log("with lives 2\nwith lives 3\n"), "line 3: with: `lives` stands twice"],
    [log("accept 12\n"), "line 2: accept: expected a fingerprint"],
    [log("check at cell 3 4\n"), "line 2: check: expected a frame number"],
    [log("", "R 5"), "line 3: line: expected `COUNT KEYS`"],
    [log("", "5 DR"), "line 3: line: expected keys"],
    [log("", "5 R @1"), "line 3: line: expected a pointer"],
    [log("", "5 R until there"), 'line 3: line: until: "there" is no check'],
    [log("", "1000001 R"), "line 3: line: expected `COUNT KEYS` with a count from 1 to 1000000"],
    [log("", Array(11).fill("1000000 R").join("\n")), "line 13: line: a log has at most 10000000 frames"],
  ])("%j", (text, message) => {
    expect(() => readLog(text)).toThrow(RefusedError);
    expect(() => readLog(text)).toThrow(message);
  });

  it.each([
    "start hall 3 4",
    "start hall 3 4 up up",
    "start Hall 3 4 up",
    "start hall x 4 up",
    "start hall 3 -4 up",
    "start hall 3 4 north",
    "with holds",
    "with holds bead 0",
    "with holds bead 2 3",
    "with taken",
    "with open Door",
    "with respawn a b",
    "with lives 0",
    "with lives 100",
    "with lives 2 2",
    "with actor crab",
    "with actor crab 1",
    "with actor crab x 1",
    "with actor crab 1 y",
    "with actor crab 1 1 north",
    "with actor crab 1 1 up up",
    "with circuit pump",
    "with circuit pump off",
    "with circuit pump on on",
    "with love",
    "seed",
    "seed 1 2",
    "seed 4294967296",
    "seed 00000000001",
    "world",
    "world a b",
    "rules Main",
    "tag",
    `note ${"a".repeat(1001)}`,
    "title a\u007fb",
    `accept ${"a".repeat(65)}`,
    `accept ${"a".repeat(64)} b`,
    `accept ${"A".repeat(64)}`,
  ])("%s", (line) => {
    const key = line.split(" ")[0]!;
    expect(() => readLog(log(`${line}\n`))).toThrow(new RegExp(`line 2: ${key}: expected`));
  });

  it.each([
    "start hall 0 0 down-left",
    "with holds bead",
    "with holds bead 1",
    "with lives 1",
    "with lives 99",
    "with actor crab 0 0",
    "with actor crab 1 2 up",
    "with circuit pump on",
    "seed 4294967295",
    `note ${"a".repeat(1000)}`,
    `accept ${"0".repeat(64)}`,
  ])("but not at %s", (line) => {
    expect(() => readLog(log(`${line}\n`))).not.toThrow();
  });

  it("or as a whole, where it is too large, has too many lines or holds what is no text", () => {
    const note = `keen-pebble-inputs 1\nnote ${"a".repeat(LIMITS.fileBytes)}\n---\n1 .\n`;
    expect(() => readLog(note, "long.inputs")).toThrow(`is larger than ${LIMITS.fileBytes} bytes`);
    expect(() => readLog(log("", "1 .\n".repeat(MOST_LINES)))).toThrow(`a log has at most ${MOST_LINES} lines`);
    expect(() => readLog(log("title a\0b\n"))).toThrow("line 2: holds a NUL character");
    // As long as a log may be, and as many checks as that leaves.
    const long = (checks: number): string =>
      log("check always still\n".repeat(checks), Array(10).fill("1000000 R").join("\n"));
    expect(readLog(long(20)).checks).toHaveLength(20);
    expect(() => readLog(long(21))).toThrow("line 23: check: 21 checks over 10000000 frames are too many");
  });
});

it("is refused at twenty places at the most, and what may stand twice may", () => {
  const refusals = (rows: number): number => {
    try {
      readLog(`keen-pebble-inputs 1\n---\n${"R 5\n".repeat(rows)}`);
    } catch (error) {
      return (error as RefusedError).refusals.length;
    }
    return 0;
  };
  expect([1, 19, 20, 21, 40].map(refusals)).toEqual([1, 19, 20, 20, 20]);
  const twice =
    "keen-pebble-inputs 1\ntag a\ntag b\nnote a\nnote b\ncheck always still\ncheck always still\n---\n1 .\n";
  expect(writeLog(readLog(twice))).toBe(twice);
});

describe("a log out of a CSV file", () => {
  const lines = (text: string): string =>
    writeLog(readRecording(text, [])).split("---\n")[1]!.trim().split("\n").join(", ");
  it.each([
    ["frame,keys\r\n1,R\r\n2,R\r\n3,RU\r\n4,.\r\n", "2 R, 1 RU, 1 ."],
    ["frame,keys\n1,R\n31,\n61,L", "30 R, 30 ., 1 L"],
    ["frame,keys\n0,R\n10,.", "10 R, 1 ."],
    ["frame,keys\n5,A", "4 ., 1 A"],
    ['"frame","keys"\n"1","RU"\n', "1 RU"],
  ])("%j is %s", (text, expected) => expect(lines(text)).toBe(expected));
  it.each([
    ["", "line 1: expected a header with the names of the columns"],
    ["keys,frames\nR,1", "line 1: header: expected the columns `frame,keys`"],
    ["frame,keys,more\n1,R,5", "line 1: header: expected the columns `frame,keys`"],
    ["frame,keys\n", "line 1: frame: expected a row"],
    ["frame,keys\n1,R\n1,L", "line 3: frame: expected a frame after 1, found 1"],
    ["frame,keys\n0,R\n0,L", "line 3: frame: expected a frame after 0, found 0"],
    ["frame,keys\n1,URU", "line 2: keys: expected `.` or letters out of LRUDAB, each once"],
    ["frame,keys\n1,X", "line 2: keys: expected `.` or letters"],
    ["frame,keys\n-1,R", "line 2: frame: expected a frame number"],
    ["frame,keys\n1,R,5", "line 2: expected 2 fields"],
    ["frame,keys\n99999999,R", "line 2: frame: a log has at most 10000000 frames"],
    ['frame,keys\n1,"R', "broken CSV"],
  ])("%j is refused", (text, message) => expect(() => readRecording(text, [], "pressed.csv")).toThrow(message));
});

it("what does not begin as a log is refused for that alone: the rest is none of ours", () => {
  for (const rest of ["", "world A\n---\nnonsense\n", "nonsense"]) {
    let refusals: readonly object[] = [];
    try {
      readLog(`another-program 1\n${rest}`);
    } catch (error) {
      ({ refusals } = error as RefusedError);
    }
    expect(refusals).toEqual([
      {
        place: "header",
        line: 1,
        column: null,
        message: 'expected `keen-pebble-inputs 1`, found "another-program 1"',
      },
    ]);
  }
});
