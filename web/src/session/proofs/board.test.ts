import type { Proof } from "@keen-pebble/core/check";
import type { Project } from "@keen-pebble/core/edit";
import { emptyWorld } from "@keen-pebble/core/world";
import { expect, it } from "vitest";
import { partingText, pathText } from "../../areas/proofs/path-text.ts";
import { expectedText } from "../../logs/expected-text.ts";
import type { PathAnswer } from "../../workers/proofs.ts";
import { boardRows, firstMissed, shownRows } from "./board.ts";

const text = (title: string, more = ""): string => `keen-pebble-inputs 1\n${more}title ${title}\n---\n1 .\n`;
const project: Project = {
  world: emptyWorld("cellar", "Cellar", 16),
  logs: new Map([
    ["a", text("Well")],
    ["b", text("Arch", "rules main\n")],
    ["c", text("Drain")],
  ]),
};
const proof = (...verdicts: readonly ("pass" | "fail" | "unreached")[]): Proof => ({
  holds: verdicts.every((verdict) => verdict === "pass"),
  refused: null,
  status: "playing",
  frames: 10,
  pathHash: "0000000000000001",
  fingerprint: null,
  accepted: null,
  checks: verdicts.map((verdict, i) => ({ check: `at ${9 - i} still`, verdict, frame: 9 - i, seen: null })),
});
const differs = (frame: number): PathAnswer => ({
  kind: "differs",
  at: { frame, was: { room: "a", x: 256, y: 0 }, is: { room: "a", x: 512, y: 0 } },
});
const proofs = new Map([
  ["a", proof("pass", "fail", "fail")],
  ["b", proof("pass")],
  ["c", proof("pass")],
]);
const paths = new Map<string, PathAnswer>([
  ["a", differs(3)],
  ["b", differs(5)],
  ["c", { kind: "same" }],
]);

it("failing logs come first, then by title; filters and what is sought leave out the others", () => {
  const rows = boardRows(project, { proofs, paths });
  expect(rows.map(({ title }) => title)).toEqual(["Well", "Arch", "Drain"]);
  const shown = (filter: "all" | "failing" | "path", sought = ""): string[] =>
    shownRows(rows, { filter, sought, sort: "holds", descending: false, byTag: false }).map(({ log }) => log);
  expect([shown("all"), shown("failing"), shown("path")]).toEqual([["a", "b", "c"], ["a"], ["a", "b"]]);
  expect([shown("all", "drain"), shown("all", "at 7 still"), shown("failing", "arch")]).toEqual([["c"], ["a"], []]);
});

it("a row says whether its path is the same, another one or a failing one, and from which frame", () => {
  expect(boardRows(project, { proofs, paths }).map((row) => pathText(row)?.text)).toEqual([
    "fails, from 3",
    "differs from 5",
    "same",
  ]);
  expect(boardRows(project, { proofs: new Map(), paths: new Map() }).map(pathText)).toEqual([null, null, null]);
  expect(partingText({ frame: 3, was: { room: "a", x: 256, y: 0 }, is: { room: "b", x: 512, y: 0 } })).toBe(
    "first differs at frame 3: room b, was a; x 2, was 1",
  );
  expect(partingText({ frame: 3, was: { room: "a", x: 0, y: 0 }, is: null })).toBe("ends at frame 2, went on");
});

it("a row has the tags of its head and its rule set by name, or as the log calls it where there is none", () => {
  const tagged = `keen-pebble-inputs 1\nrules gone\ntag first\ntag second one\n---\n# tag third\n1 .\n`;
  const [row] = boardRows({ ...project, logs: new Map([["t", tagged]]) }, { proofs: new Map(), paths: new Map() });
  expect(row).toEqual({ log: "t", title: "t", rules: "gone", tags: ["first", "second one"], proof: null, path: null });
  const [other] = boardRows(project, { proofs: new Map(), paths: new Map() });
  expect(other!.rules).toBe(project.world.rules[0]!.name);
});

it("of several that are decided in one frame the first one is looked at", () => {
  const at = (verdict: "pass" | "fail" | "unreached", frame: number) => ({
    check: "still",
    verdict,
    frame,
    seen: null,
  });
  const of = (...checks: ReturnType<typeof at>[]): number | null => firstMissed({ ...proof(), checks });
  expect([
    of(at("pass", 1), at("fail", 5), at("fail", 5)),
    of(at("unreached", 9), at("fail", 3)),
    of(at("pass", 0)),
  ]).toEqual([1, 1, null]);
});

it("of the checks that do not pass the one that is decided first is looked at, in words", () => {
  expect([firstMissed(proofs.get("a")!), firstMissed(proofs.get("b")!), firstMissed(null)]).toEqual([2, null, null]);
  expect(["by 240 open sluice-1", "always aligned", "until cell 1 2", "end status won"].map(expectedText)).toEqual([
    "open sluice-1, in some frame up to 240",
    "aligned, in every frame",
    "cell 1 2, within the line's frames",
    "status won, in the last frame",
  ]);
});
