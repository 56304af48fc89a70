import { expect, it } from "vitest";
import type { BoardItem, Sort } from "./board-order.ts";
import { boardItems, sortedRows } from "./board-order.ts";
import type { BoardRow } from "./board.ts";

const row = (
  log: string,
  more: Partial<BoardRow> & { readonly frames?: number; readonly checks?: number },
): BoardRow => ({
  log,
  title: log,
  rules: "Main",
  tags: [],
  path: null,
  proof:
    more.frames === undefined
      ? null
      : ({
          holds: true,
          frames: more.frames,
          checks: Array.from({ length: more.checks ?? 0 }),
        } as unknown as BoardRow["proof"]),
  ...more,
});
const differs = (frame: number): BoardRow["path"] => ({
  kind: "differs",
  at: { frame, was: { room: "a", x: 0, y: 0 }, is: null },
});
const ROWS = [
  row("walk 10", { frames: 9, checks: 1, tags: ["turns", "long"], path: differs(40) }),
  row("walk 9", { frames: 200, checks: 3, rules: "Ice" }),
  row("new", { tags: ["turns"] }),
  row("arch", { frames: 30, checks: 2, tags: ["doors"], path: differs(5) }),
];
const by = (sort: Sort, descending = false): string[] =>
  sortedRows(ROWS, { sort, descending, byTag: false }).map(({ log }) => log);

it("rows go by each column either way round; what is not known yet comes last both ways", () => {
  expect(by("holds")).toEqual(["walk 10", "walk 9", "new", "arch"]);
  expect(by("holds", true)).toEqual(["arch", "new", "walk 9", "walk 10"]);
  expect(by("title")).toEqual(["arch", "new", "walk 9", "walk 10"]);
  expect(by("title", true)).toEqual(["walk 10", "walk 9", "new", "arch"]);
  expect(by("rules")).toEqual(["walk 9", "walk 10", "new", "arch"]);
  expect(by("frames")).toEqual(["walk 10", "arch", "walk 9", "new"]);
  expect(by("frames", true)).toEqual(["walk 9", "arch", "walk 10", "new"]);
  expect(by("checks", true)).toEqual(["walk 9", "arch", "walk 10", "new"]);
  expect(by("path")).toEqual(["arch", "walk 10", "walk 9", "new"]);
});

it("by tag a log stands under each of its tags, those without any last", () => {
  const told = (items: readonly BoardItem[]) =>
    items.map((item) => (item.kind === "tag" ? `= ${item.tag ?? "none"} ${item.rows.length}` : item.row.log));
  expect(told(boardItems(ROWS, { byTag: false }))).toEqual(ROWS.map(({ log }) => log));
  expect(told(boardItems(ROWS, { byTag: true }))).toEqual([
    "= doors 1",
    "arch",
    "= long 1",
    "walk 10",
    "= turns 2",
    "walk 10",
    "new",
    "= none 1",
    "walk 9",
  ]);
  const keys = boardItems(ROWS, { byTag: true }).map(({ key }) => key);
  expect(new Set(keys).size).toBe(keys.length);
});
