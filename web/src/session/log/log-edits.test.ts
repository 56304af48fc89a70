import { session } from "../../page-session.ts";
import type { Logs, Project } from "@keen-pebble/core/edit";
import { readLog, writeLog } from "@keen-pebble/core/check";
import { EMPTY_HISTORY } from "@keen-pebble/core/edit";
import { run, compile } from "@keen-pebble/core/simulate";
import { emptyWorld } from "@keen-pebble/core/world";
import { beforeEach, expect, it } from "vitest";

const TEXT =
  "keen-pebble-inputs 1\ntitle Right, then down\ntag turns\nnote Kept.\ncheck at 40 cell 3 1\ncheck always aligned\n---\n# on the way\n32 R\n32 D\n";
const base: Project = {
  world: emptyWorld("cellar", "Cellar", 16),
  logs: new Map([
    ["right", TEXT],
    ["other", TEXT],
  ]),
};

const logs = (): Logs => session.project.store.getState().project!.logs;
const right = (): string => logs().get("right")!;
const undo = (): boolean => session.project.travel("undo");

/** Shows a log as the Bench does once its run is there. */
function show(log: string, frame: number): void {
  const parsed = readLog(logs().get(log)!);
  const result = run(compile(base.world), parsed, { rows: true, checks: true });
  session.benchStore.setState({
    log,
    parsed,
    frame,
    walk: null,
    refused: null,
    run: {
      log,
      rows: result.rows!,
      verdicts: result.verdicts,
      frames: result.frames,
      status: result.status,
      pathHash: result.pathHash,
      lineEnds: result.lineEnds,
      took: 0,
      changedAt: null,
    },
  });
}

beforeEach(() => {
  session.project.store.setState({
    phase: "ready",
    worldId: "cellar",
    project: base,
    history: EMPTY_HISTORY,
    notice: null,
  });
  show("right", 0);
});

it("checks are added, changed in place, moved by a drag that is one undo, and taken away", () => {
  expect(session.checks.canWriteCheck()).toBe(true);
  session.checks.beginCheck();
  expect(session.checks.keepCheck("by 12  cell 2 1")).toBe(true);
  expect(session.benchStore.getState().writing).toBeNull();
  expect(right()).toContain("check always aligned\ncheck by 12 cell 2 1\n---");
  expect(session.checks.keepCheck("by soon cell 2 1")).toBe(false);
  show("right", 0);
  session.checks.beginCheck(0);
  expect(session.benchStore.getState().writing).toEqual({ text: "at 40 cell 3 1", replaces: 0 });
  session.checks.keepCheck("at 41 cell 3 1");
  expect(right()).toContain("note Kept.\ncheck at 41 cell 3 1\ncheck always aligned");
  for (const frame of [44, 48, -3]) session.checks.moveCheck(0, frame, "one drag");
  expect(right()).toContain("check at 0 cell 3 1");
  // A check that names no frame stays where it is.
  session.checks.moveCheck(1, 7, null);
  expect(right()).toContain("check always aligned\n");
  undo();
  expect(right()).toContain("check at 41 cell 3 1");
  session.checks.removeCheck(1);
  expect(readLog(right()).checks).toHaveLength(2);
  for (const _ of [1, 2, 3]) undo();
  expect(right()).toBe(TEXT);
});

it("a log is renamed, copied and taken away, and undo brings back just what was there", () => {
  expect([
    session.logEdits.renameLog("right", "Right!"),
    session.logEdits.renameLog("right", "other"),
    session.logEdits.renameLog("right", "right"),
  ]).toEqual(["1 to 40 of a to z, 0 to 9 and -", "there is a log other already", null]);
  expect(logs()).toEqual(base.logs);
  expect(session.logEdits.renameLog("right", "right-2")).toBeNull();
  expect(logs()).toEqual(
    new Map([
      ["other", TEXT],
      ["right-2", TEXT],
    ]),
  );
  expect(session.benchStore.getState().log).toBe("right-2");
  undo();
  expect(logs()).toEqual(base.logs);
  session.logEdits.copyLog("right");
  expect(logs().get("right-then-down-copy")).toBe(
    TEXT.replace("title Right, then down", "title Right, then down, copy"),
  );
  session.logEdits.takeLogAway("right-then-down-copy");
  session.logEdits.takeLogAway("right");
  expect([...logs().keys()]).toEqual(["other"]);
  for (const _ of [1, 2, 3]) undo();
  expect(logs()).toEqual(base.logs);
  expect(session.project.travel("undo", true)).toBe(false);
});

it("what is typed is taken over once it is in order, a row of keystrokes as one undo; till then its line is told", () => {
  expect(session.logEdits.layTypedLog("right", TEXT.replace("32 D", "32 X"), "typing")).toMatchObject([
    { line: 10, place: "line" },
  ]);
  expect(right()).toBe(TEXT);
  for (const count of ["3", "31", "310"])
    expect(session.logEdits.layTypedLog("right", TEXT.replace("32 D", `${count} D`), "typing")).toEqual([]);
  expect(right()).toContain("\n310 D\n");
  undo();
  expect(right()).toBe(TEXT);
  expect(session.logEdits.layTypedLog("gone", TEXT, "typing")).toEqual([]);
});

it("a log is cut behind the shown frame and keeps head and comments; at its ends there is nothing to cut", () => {
  expect(session.logEdits.canCut()).toBe(false);
  show("right", 64);
  expect(session.logEdits.canCut()).toBe(false);
  show("right", 40);
  expect(session.logEdits.canCut()).toBe(true);
  session.logEdits.cutHere();
  expect(right()).toBe(TEXT.replace("32 D", "8 D"));
  undo();
  expect(right()).toBe(TEXT);
});

it("a change that makes no difference is no edit, and one that cannot be written is told and leaves everything", () => {
  expect(session.logEdits.changeLog("right", (log) => log)).toBe(true);
  expect(session.project.travel("undo", true)).toBe(false);
  expect(session.logEdits.changeLog("gone", (log) => log)).toBe(false);
  expect(session.logEdits.changeLog("right", (log) => ({ ...log, title: "two\nlines" }))).toBe(false);
  expect(right()).toBe(TEXT);
  expect(session.project.store.getState().notice).toMatchObject({
    tone: "attention",
    text: expect.stringContaining("log right is refused: line 3") as string,
  });
  expect(writeLog(readLog(right()))).toBe(TEXT);
});
