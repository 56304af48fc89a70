import { session } from "../../page-session.ts";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { ALONG, hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere } from "../../test-support/opened.ts";
import { FirstMinute } from "./first-minute.ts";
import { PATIENCE } from "../../test-support/patience.ts";

let opened: Opened;
let first: FirstMinute;
let stop: () => void;
beforeEach(async () => {
  localStorage.clear();
  opened = await openHere(hall(), { along: ALONG });
  first = new FirstMinute(session.benchStore, session.project);
  stop = first.startFirstMinute();
});
afterEach(() => {
  stop();
  opened.close();
});
const step = () => first.store.getState().step;

it("goes on as each thing is done, and is gone for good in the end", async () => {
  expect(step()).toBe("walk");
  session.walks.beginWalk();
  expect(step()).toBe("keep");
  // A walk that is discarded is not kept.
  session.walks.endWalk();
  session.shownLog.selectLog("along");
  await vi.waitFor(() => expect(session.benchStore.getState().run?.log).toBe("along"), PATIENCE);
  first.store.setState({ step: "change" });
  session.ruleSets.changeSetting("main", "glide.speed", 2, 1, null);
  expect(step()).toBe("look");
  await vi.waitFor(() => expect(session.benchStore.getState().run?.verdicts[0]?.verdict).toBe("fail"), PATIENCE);
  const { frame } = session.benchStore.getState().run!.verdicts[0]!;
  // Another frame is not where it breaks.
  session.playing.showFrame(frame - 1);
  expect(step()).toBe("look");
  session.playing.showFrame(frame);
  expect(step()).toBeNull();
  expect(new FirstMinute(session.benchStore, session.project).store.getState().step).toBeNull();
});

it("goes on no more once nobody follows it", () => {
  stop();
  session.walks.beginWalk();
  expect(step()).toBe("walk");
  session.walks.endWalk();
  first.store.setState({ step: "change" });
  session.ruleSets.changeSetting("main", "glide.speed", 2, 1, null);
  expect(step()).toBe("change");
});

it("goes on where it was after the page is loaded again, and says nothing more to who wants no hints", () => {
  session.walks.beginWalk();
  expect(new FirstMinute(session.benchStore, session.project).store.getState().step).toBe("keep");
  first.dismiss();
  expect(step()).toBeNull();
  session.walks.endWalk();
});
