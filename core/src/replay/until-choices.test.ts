import { expect, it } from "vitest";
import { readLog } from "../logs/read-log.ts";
import { compile } from "../simulation/compile.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { untilChoices } from "./until-choices.ts";

const header = "keen-pebble-inputs 1\n";
const c = compile(tinyWorld(["S.........", ".........."], { glide: { speed: 4 } }));
const roaming = compile(tinyWorld(["S.........", ".........."], { gait: "roam", roam: { speedX: 4, speedY: 4 } }));
const said = (text: string, at: number, compiled = c): string[] =>
  untilChoices(compiled, readLog(header + text), at).map(
    (choice) =>
      `${choice.text}; ${choice.sooner} sooner; ${choice.same ? "same" : "other"} path; ${choice.holds ? "holds" : "fails"}`,
  );

it("a line is held until its cell, or until the very place where it ended; what leaves the walk as it was comes first", () => {
  expect(said("---\n32 R\n8 D\n", 0)).toEqual([
    "pixel 128 0; 0 sooner; same path; holds",
    "cell 8 0; 2 sooner; other path; holds",
  ]);
  // Roaming ends anywhere: only the cell is worth waiting for.
  expect(said("---\n32 R\n8 D\n", 0, roaming)).toEqual(["cell 8 0; 2 sooner; other path; holds"]);
});

it("a choice that breaks a check says so, and comes behind those that keep it", () => {
  expect(said("check at 32 pixel 128 0\n---\n32 R\n8 .\n", 0)).toEqual([
    "pixel 128 0; 0 sooner; same path; holds",
    "cell 8 0; 2 sooner; other path; holds",
  ]);
  expect(said("check at 40 pixel 128 32\n---\n32 R\n8 D\n", 0).map((each) => each.split("; ").at(-1))).toEqual([
    "fails",
    "fails",
  ]);
});

it("what holds already when the line begins is left out, and so is a line that ends with something or never came", () => {
  expect(said("---\n8 R\n4 .\n", 1)).toEqual([]);
  expect(said("---\n40 R until cell 3 0\n4 D\n", 0)).toEqual([]);
  expect(said("---\n8 R\n4 D\n", 2)).toEqual([]);
});

it("the line may be held six times as long as it was, and for a second at the least", () => {
  const counts = (text: string): (number | null)[] =>
    untilChoices(c, readLog(header + text), 0).map(({ log }) =>
      log.lines[0]!.kind === "keys" ? log.lines[0]!.count : null,
    );
  expect(counts("---\n32 R\n")).toEqual([192, 192]);
  expect(counts("---\n4 R\n")).toEqual([60, 60]);
});
