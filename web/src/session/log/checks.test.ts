import { checkText, readLog } from "@keen-pebble/core/check";
import { afterEach, beforeEach, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { ALONG, hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";

const { benchStore, checks: writer, project } = session;
let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), { along: ALONG });
  session.shownLog.selectLog("along", 20);
  await until(() => benchStore.getState().run !== null);
});
afterEach(() => opened.close());

const checks = (): string[] => readLog(project.store.getState().project!.logs.get("along")!).checks.map(checkText);
const writing = () => benchStore.getState().writing;

it("a check is written anew or in another's place, and begun with the text of the one that it replaces", async () => {
  expect(writer.canWriteCheck()).toBe(true);
  writer.beginCheck();
  expect(writing()).toEqual({ text: "", replaces: null });
  expect(writer.keepCheck("ever still")).toBe(true);
  expect([checks(), writing()]).toEqual([["by 40 cell 6 2", "always aligned", "ever still"], null]);
  await until(() => benchStore.getState().parsed?.checks.length === 3);
  writer.beginCheck(0);
  expect(writing()).toEqual({ text: "by 40 cell 6 2", replaces: 0 });
  expect(writer.keepCheck("by 40 cell 5 2")).toBe(true);
  expect(checks()).toEqual(["by 40 cell 5 2", "always aligned", "ever still"]);
  writer.beginCheck(7);
  expect(writing()).toEqual({ text: "", replaces: null });
  writer.endCheck();
  expect(writing()).toBeNull();
});

it("one that is none, or names what the world does not have, is not kept and goes on being written", () => {
  writer.beginCheck();
  for (const text of ["", "by", "ever holds ruby", "ever in nowhere"]) expect(writer.keepCheck(text)).toBe(false);
  expect([checks().length, writing()]).toEqual([2, { text: "", replaces: null }]);
});

it("of no world and of no log is none, nor are any offered", async () => {
  const { project } = session.project.store.getState();
  session.project.store.setState({ project: null });
  expect([
    writer.keepCheck("always aligned"),
    await writer.tryCheck("always aligned"),
    await writer.offerChecks(),
  ]).toEqual([false, null, []]);
  session.project.store.setState({ project });
  const { log } = session.benchStore.getState();
  session.benchStore.setState({ log: null });
  expect([await writer.tryCheck("always aligned"), await writer.offerChecks()]).toEqual([null, []]);
  session.benchStore.setState({ log });
  // Nor is one that is not whole yet tried.
  expect(await writer.tryCheck("by 40 cell")).toBeNull();
  expect(await writer.tryCheck("always aligned")).not.toBeNull();
});

it("is taken away, and moved to another frame where it names one, never below the start", () => {
  writer.moveCheck(0, 33, null);
  expect(checks()[0]).toBe("by 33 cell 6 2");
  writer.moveCheck(0, -5, null);
  expect(checks()[0]).toBe("by 0 cell 6 2");
  writer.moveCheck(1, 9, null);
  expect(checks()[1]).toBe("always aligned");
  writer.removeCheck(0);
  expect(checks()).toEqual(["always aligned"]);
});

it("those that hold in the shown frame are offered, and one that is written is tried", async () => {
  const offered = (await writer.offerChecks()).map(checkText);
  expect(offered).toContain("at 20 cell 5 2");
  expect(await writer.tryCheck("by 40 cell 6 2")).toMatchObject({ verdict: "pass" });
  expect(await writer.tryCheck("end cell 9 9")).toMatchObject({ verdict: "fail" });
  expect(await writer.tryCheck("end cell")).toBeNull();
  session.shownLog.selectLog(null);
  expect([await writer.offerChecks(), await writer.tryCheck("ever still")]).toEqual([[], null]);
});
