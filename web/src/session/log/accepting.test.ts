import { readLog } from "@keen-pebble/core/check";
import { toPlain } from "@keen-pebble/core/formats";
import { compile, fingerprint, run } from "@keen-pebble/core/simulate";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { ALONG, DOWN, hall } from "../../test-support/hall.ts";
import { traceHash } from "../../workers/trace-hash.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";

let opened: Opened;
const slow = {
  ...hall("porch"),
  rules: hall().rules.map((rules, i) => (i === 0 ? { ...rules, glide: { ...rules.glide, speed: 1 } } : rules)),
};
beforeEach(async () => {
  opened = await openHere(hall("porch"), { along: ALONG, down: DOWN }, [
    ["GET /worlds/porch/logs/along/accepted", { revision: 3 }],
    ["GET /worlds/porch/revisions/3", { revision: 3, world: toPlain(slow), logs: { along: ALONG } }],
  ]);
  session.shownLog.selectLog("along");
  await until(() => session.benchStore.getState().run?.log === "along");
});
afterEach(() => opened.close());

const bench = () => session.benchStore.getState();
const notice = () => session.project.store.getState().notice;
const along = () => readLog(session.project.store.getState().project!.logs.get("along")!);
const c = compile(hall());
const walked = fingerprint(c, run(c, readLog(ALONG), { rows: true }).rows!, traceHash());

describe("the present walk", () => {
  it("is accepted with a reason, by its fingerprint, and accepted no more; undo brings either back", async () => {
    await session.logEdits.acceptLog("along", "As it should be.");
    expect(along()).toMatchObject({ accept: walked, notes: [expect.stringContaining("As it should be.")] });
    expect(notice()).toEqual({ tone: "info", text: "Accepted: later runs say whether they walk just so." });
    session.logEdits.acceptNone("along");
    expect(along().accept).toBeNull();
    session.project.travel("undo");
    expect(along().accept).toBe(walked);
    session.project.travel("undo");
    expect(along()).toEqual(readLog(ALONG));
  });

  it("of a log that cannot be run or is not there is not accepted", async () => {
    await session.logEdits.acceptLog("gone", "Why not.");
    expect(notice()).toBeNull();
    session.project.edit({
      kind: "change-log",
      log: "down",
      before: DOWN,
      after: DOWN.replace("title", "rules no\ntitle"),
    });
    await session.logEdits.acceptLog("down", "Why not.");
    expect(notice()).toMatchObject({ tone: "attention", text: expect.stringContaining("no") as string });
    expect(readLog(session.project.store.getState().project!.logs.get("down")!).accept).toBeNull();
  });

  it("that was changed while it was asked for is not accepted", async () => {
    const accepting = session.logEdits.acceptLog("along", "As it should be.");
    session.project.changeWorld((world) => ({ ...world, frameRate: 30 }));
    await accepting;
    expect(along().accept).toBeNull();
    expect(notice()?.text).toBe(
      "Something was changed meanwhile: the walk of along was not accepted. Look at it, and accept it then.",
    );
  });

  it("has its fingerprint told, as server and command line give it", async () => {
    await session.shownLog.tellFingerprint();
    expect(notice()).toEqual({ tone: "info", text: `Fingerprint of this run: ${walked}` });
    session.project.store.setState({ notice: null });
    session.shownLog.selectLog(null);
    await session.shownLog.tellFingerprint();
    expect(notice()).toBeNull();
  });
});

describe("the walk that was accepted", () => {
  it("is laid beside the present one as it was at the revision that accepted it, where they differ first is told", async () => {
    await session.accepted.layAccepted("along");
    await until(() => bench().beside?.rows != null);
    expect(bench().beside).toMatchObject({
      name: "Accepted at revision 3",
      where: { kind: "revision", revision: 3 },
      text: ALONG,
      differs: 1,
    });
    // It was laid beside this log alone.
    session.shownLog.selectLog("down");
    expect(bench().beside).toBeNull();
  });

  it("that the server does not know is told, and nothing is laid beside", async () => {
    await session.accepted.layAccepted("down");
    expect(notice()).toMatchObject({ tone: "attention", text: expect.stringContaining("cannot be shown: ") as string });
    expect(bench().beside).toBeNull();
    opened.answers.set("GET /worlds/porch/logs/down/accepted", new TypeError("fetch failed"));
    await session.accepted.layAccepted("down");
    expect(notice()!.text).toContain("cannot be shown: ");
  });
});

describe("an earlier revision beside", () => {
  it("runs the log as it was then; where there was none, as it is", async () => {
    await session.beside.layRevisionBeside(3);
    await until(() => bench().beside?.rows != null);
    expect(bench().beside).toMatchObject({ name: "Revision 3", differs: 1, text: ALONG });
    session.shownLog.selectLog("down");
    await until(() => bench().run?.log === "down");
    await session.beside.layRevisionBeside(3);
    await until(() => bench().beside?.rows != null);
    expect(bench().beside).toMatchObject({ text: null, differs: 1 });
    session.beside.layBeside(null);
    expect(bench().beside).toBeNull();
  });

  it("that cannot be had lays nothing beside, and neither does one where no log is shown", async () => {
    await session.beside.layRevisionBeside(7);
    expect(bench().beside).toBeNull();
    session.shownLog.selectLog(null);
    await session.beside.layRevisionBeside(3);
    expect(bench().beside).toBeNull();
  });
});

describe("until", () => {
  it("a line's choices are those that its frames come to; there are none without a log or for one that cannot be run", async () => {
    const choices = await session.untilLines.untilChoicesOf(0);
    expect(choices.length).toBeGreaterThan(0);
    session.shownLog.selectLog("down");
    session.project.edit({
      kind: "change-log",
      log: "down",
      before: DOWN,
      after: DOWN.replace("title", "rules no\ntitle"),
    });
    expect(await session.untilLines.untilChoicesOf(0)).toEqual([]);
    session.shownLog.selectLog(null);
    expect(await session.untilLines.untilChoicesOf(0)).toEqual([]);
  });
});
