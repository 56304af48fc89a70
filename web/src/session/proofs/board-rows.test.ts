import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { ALONG, DOWN, hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";

const { board } = session;
const titled = (title: string, tag: string): string =>
  ALONG.replace("title Along\n", `title ${title}\n${tag === "" ? "" : `tag ${tag}\n`}`);
const LOGS = {
  a: titled("Arch", "near"),
  b: titled("Bridge", ""),
  c: titled("Crypt", "near"),
  d: titled("Dome", "far"),
};

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), LOGS, [], [session.proofs.startProofs]);
  board.store.setState(board.store.getInitialState(), true);
  await until(() => session.proofs.store.getState().proofs.size === 4 && session.proofs.store.getState().took !== null);
});
afterEach(() => opened.close());

const chosen = (): string => [...board.store.getState().chosen].sort().join("");
const shown = (): string | null => session.benchStore.getState().log;
const notice = (): string => session.project.store.getState().notice?.text ?? "";

describe("rows chosen together", () => {
  it("are the shown one and those that are added, until one is chosen alone; one that is added twice is out again", () => {
    board.chooseRow("b");
    expect([shown(), chosen()]).toEqual(["b", ""]);
    board.alsoChoose("d");
    expect(chosen()).toBe("bd");
    board.alsoChoose("b");
    expect(chosen()).toBe("d");
    board.chooseRow("c");
    expect([shown(), chosen()]).toEqual(["c", ""]);
    board.alsoChoose("c");
    expect(chosen()).toBe("");
    session.shownLog.selectLog(null);
    board.alsoChoose("a");
    expect(chosen()).toBe("a");
  });

  it("are all from the shown one to another, upwards too, in the order that is shown; all, and none", () => {
    board.chooseRow("b");
    board.chooseTo("d");
    expect(chosen()).toBe("bcd");
    board.chooseTo("a");
    expect(chosen()).toBe("ab");
    // Sought for, only two are shown.
    board.store.setState({ sought: "near" });
    board.chooseAll();
    expect([chosen(), board.store.getState().beside]).toEqual(["ac", "log"]);
    board.chooseNone();
    expect(chosen()).toBe("");
    // From one that is not shown there is no way to another: that one is chosen alone.
    board.chooseTo("c");
    expect([shown(), chosen()]).toEqual(["c", ""]);
    board.chooseTo("d");
    expect([shown(), chosen()]).toEqual(["d", ""]);
  });

  it("is what the keys begin with where the shown log is not among the rows", () => {
    board.chooseRow("b");
    board.store.setState({ sought: "near" });
    board.stepRow(1);
    expect(shown()).toBe("a");
    board.stepRow(Infinity);
    expect(shown()).toBe("c");
    board.store.setState({ sought: "nothing of the kind" });
    board.stepRow(1);
    expect(shown()).toBe("c");
  });
});

describe("the order", () => {
  it("is by a column, chosen once more the other way round, another one from its beginning again", () => {
    board.sortBy("title");
    expect(board.store.getState()).toMatchObject({ sort: "title", descending: false });
    board.sortBy("title");
    expect(board.store.getState()).toMatchObject({ sort: "title", descending: true });
    board.chooseRow("d");
    board.stepRow(1);
    expect(shown()).toBe("c");
    board.sortBy("holds");
    expect(board.store.getState()).toMatchObject({ sort: "holds", descending: false });
    board.sortBy("holds");
    board.sortBy("holds");
    expect(board.store.getState().descending).toBe(false);
  });

  it("by tags puts those of one tag together; a step leads to the next row there", () => {
    board.toggleByTag();
    board.chooseRow("a");
    board.stepRow(1);
    const first = shown();
    board.toggleByTag();
    expect(board.store.getState().byTag).toBe(false);
    board.chooseRow("a");
    board.stepRow(1);
    expect([first, shown()]).toEqual(["c", "b"]);
  });
});

describe("checks of the shown log", () => {
  it("are gone through from the first or the last where none is looked at", () => {
    board.stepCheck(1);
    board.chooseRow("a");
    board.stepCheck(-1);
    expect(board.store.getState().check).toBe(1);
    board.store.setState({ check: null });
    board.stepCheck(1);
    expect(board.store.getState().check).toBe(0);
    board.stepCheck(-1);
    expect(board.store.getState().check).toBe(0);
    session.shownLog.selectLog(null);
    board.chooseCheck(1);
    board.stepCheck(1);
    expect(board.store.getState().check).toBe(0);
  });
});

describe("logs that are taken in", () => {
  const file = (name: string): File => new File([DOWN], `${name}.inputs`);

  it("are named, the first six of them; the first one is shown, and undo takes all out again", async () => {
    await board.takeLogsIn([]);
    expect(session.project.store.getState().notice).toBeNull();
    await board.takeLogsIn([file("one")]);
    expect(notice()).toBe("1 log taken in: one. Undo takes it out again.");
    expect(shown()).toBe("one");
    await board.takeLogsIn(["p", "q", "r", "s", "t", "u"].map(file));
    expect(notice()).toBe("6 logs taken in: p, q, r, s, t, u. Undo takes them out again.");
    await board.takeLogsIn(["a1", "a2", "a3", "a4", "a5", "a6", "a7"].map(file));
    expect(notice()).toBe("7 logs taken in: a1, a2, a3, a4, a5, a6 .... Undo takes them out again.");
    expect(shown()).toBe("a1");
    session.project.travel("undo");
    expect(session.project.store.getState().project!.logs.size).toBe(4 + 1 + 6);
    await board.takeLogsIn([new File(["?"], "bad.inputs")]);
    expect(notice()).toMatch(/It was not taken in\.$/);
  });
});
