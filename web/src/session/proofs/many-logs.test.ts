import type { Logs } from "@keen-pebble/core/edit";
import { readLog } from "@keen-pebble/core/check";
import { EMPTY_HISTORY, copyRuleSet } from "@keen-pebble/core/edit";
import { emptyWorld } from "@keen-pebble/core/world";
import { beforeEach, expect, it } from "vitest";
import { session } from "../../page-session.ts";

const text = (title: string, more = ""): string => `keen-pebble-inputs 1\ntitle ${title}\n${more}---\n4 R\n`;
const logs = (): Logs => session.project.store.getState().project!.logs;
const tags = (): string[][] => [...logs().values()].map((each) => [...readLog(each).tags]);
const chosen = (): string[] => [...session.board.store.getState().chosen].sort();
const undo = (): boolean => session.project.travel("undo");

beforeEach(() => {
  session.project.store.setState({
    phase: "ready",
    worldId: "cellar",
    project: {
      world: copyRuleSet(emptyWorld("cellar", "Cellar", 16), "main").world,
      logs: new Map([
        ["a", text("Arch", "tag turns\n")],
        ["b", text("Basin")],
        ["c", text("Crypt", "tag turns\n")],
        ["d", text("Drain")],
      ]),
    },
    history: EMPTY_HISTORY,
    notice: null,
  });
  session.proofs.store.setState({ proofs: new Map(), paths: new Map() });
  session.board.store.setState({
    filter: "all",
    sought: "",
    chosen: new Set(),
    sort: "holds",
    descending: false,
    byTag: false,
  });
  session.benchStore.setState({ log: "b" });
});

it("rows are chosen one by one beside the shown one, up to one, all that are shown, and none", () => {
  session.board.alsoChoose("d");
  expect(chosen()).toEqual(["b", "d"]);
  session.board.alsoChoose("b");
  expect(chosen()).toEqual(["d"]);
  session.board.chooseTo("d");
  expect(chosen()).toEqual(["b", "c", "d"]);
  session.board.chooseTo("a");
  expect(chosen()).toEqual(["a", "b"]);
  // In the order that is shown: from Basin up to Crypt lies nothing else once it is turned round.
  session.board.sortBy("title");
  session.board.sortBy("title");
  session.board.chooseTo("c");
  expect(chosen()).toEqual(["b", "c"]);
  session.board.store.setState({ sought: "turns" });
  session.board.chooseAll();
  expect(chosen()).toEqual(["a", "c"]);
  session.board.chooseNone();
  expect(chosen()).toEqual([]);
});

it("a tag is given to all of them and taken from all, each with one undo", () => {
  session.board.store.setState({ chosen: new Set(["a", "b"]) });
  expect(session.manyLogs.addTag("turns")).toBe(true);
  expect(tags()).toEqual([["turns"], ["turns"], ["turns"], []]);
  expect(session.manyLogs.removeTag("turns")).toBe(true);
  expect(tags()).toEqual([[], [], ["turns"], []]);
  undo();
  undo();
  expect(tags()).toEqual([["turns"], [], ["turns"], []]);
});

it("one that is chosen is meant alone, beside the one that is shown; where none is it is that one", () => {
  session.board.store.setState({ chosen: new Set(["d"]) });
  session.manyLogs.addTag("far");
  expect(tags()).toEqual([["turns"], [], ["turns"], ["far"]]);
  session.board.alsoChoose("a");
  expect(chosen()).toEqual(["a", "d"]);
  session.board.chooseNone();
  session.board.alsoChoose("a");
  expect(chosen()).toEqual(["a", "b"]);
});

it("all of them go by a rule set, and are deleted; one undo brings all of them back", () => {
  session.board.store.setState({ chosen: new Set(["b", "c", "gone"]) });
  const [, copy] = session.project.store.getState().project!.world.rules;
  expect(session.manyLogs.chooseRules(copy!.id)).toBe(true);
  expect([...logs().values()].map((each) => readLog(each).rules)).toEqual([null, copy!.id, copy!.id, null]);
  expect(session.manyLogs.deleteAll()).toBe(true);
  expect([...logs().keys()]).toEqual(["a", "d"]);
  expect(chosen()).toEqual([]);
  undo();
  expect([...logs().keys()].sort()).toEqual(["a", "b", "c", "d"]);
});

it("a tag that no log may have is refused, and none of them is changed", () => {
  session.board.store.setState({ chosen: new Set(["a", "b"]) });
  expect(session.manyLogs.addTag("two\nlines")).toBe(false);
  expect(session.project.store.getState().notice?.text).toContain("None of them was changed");
  expect(tags()).toEqual([["turns"], [], ["turns"], []]);
});
