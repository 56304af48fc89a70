import { expect, it } from "vitest";
import { compile } from "../simulation/compile.ts";
import { run } from "../replay/run.ts";
import { traceText } from "../simulation/trace.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { compareTraces } from "./compare-traces.ts";
import { readTrace } from "../formats/read-trace.ts";

function traceOf(rows: string[], lines: string): string {
  const c = compile(tinyWorld(rows, { glide: { speed: 4 } }));
  return [...traceText(c, run(c, tinyLog(lines), { rows: true }).rows!)].join("");
}
const whole = traceOf(["S...", "...."], "8 R,4 D");

it("traces of the same run are equal, and the first frame that differs is named with its columns", () => {
  expect(compareTraces(readTrace(whole), readTrace(traceOf(["S...", "...."], "8 R,4 D")))).toBeNull();
  expect(compareTraces(readTrace(whole), readTrace(traceOf(["S.#.", "...."], "8 R,4 D")))).toEqual({
    frame: 5,
    columns: [
      { column: "x", a: "5120", b: "4096" },
      { column: "moving", a: "1", b: "0" },
      { column: "aligned", a: "0", b: "1" },
      { column: "events", a: "", b: "bump" },
    ],
    missing: null,
  });
});

it("another program's trace needs only frame, room, x and y, in any order", () => {
  const foreign = whole
    .trim()
    .split("\r\n")
    .map((row, i) =>
      i === 0 ? "room,y,x,frame" : row.replace(/^(\d+),[^,]*,([^,]*),([^,]*),([^,]*),.*$/, "$2,$4,$3,$1"),
    )
    .join("\n");
  expect(compareTraces(readTrace(whole), readTrace(foreign))).toBeNull();
  expect(
    compareTraces(
      readTrace(whole),
      readTrace(foreign.replace("1024,2\n", "1025,2\n").replace(",0,2048,2", ",0,2049,2")),
    ),
  ).toMatchObject({ frame: 2, columns: [{ column: "x" }] });
  const short = foreign.split("\n").slice(0, -2).join("\n");
  expect(compareTraces(readTrace(whole), readTrace(short))).toEqual({ frame: 11, columns: [], missing: "b" });
});

it.each([
  ["frame,room,x\n0,a,1", "line 1: header: lacks the column y"],
  ["frame,room,x,y,z\n0,a,1,1,1", 'line 1: header: has the column "z"'],
  ["frame,room,x,y\n0,a,1,1.5", 'line 2: y: expected a whole number, found "1.5"'],
  ["frame,room,x,y\n1,a,1,1\n1,a,1,1", 'line 3: frame: expected a frame number greater than 1, found "1"'],
  ["frame,room,x,y\n1,a,1", "line 2: expected 4 fields"],
  ["frame,room,x,x\n1,a,1,1", "line 1: column x stands twice"],
])("%j is refused", (text, message) => expect(() => readTrace(text, "t.csv")).toThrow(message));
