import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { session } from "../../page-session.ts";
import { ALONG, hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";

const { benchStore, playing } = session;
const bench = () => benchStore.getState();
let opened: Opened;
let asked: FrameRequestCallback[];
let now: number;

beforeEach(async () => {
  opened = await openHere(hall(), { along: ALONG });
  session.shownLog.selectLog("along");
  await until(() => bench().run !== null);
  playing.showFrame(0);
  asked = [];
  now = 5000;
  vi.spyOn(performance, "now").mockImplementation(() => now);
  vi.stubGlobal("requestAnimationFrame", (next: FrameRequestCallback) => asked.push(next));
});
afterEach(() => {
  playing.pause();
  playing.chooseRate(1);
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
  opened.close();
});

/** Lets the page show pictures, so many ms apart. */
function show(pictures: number, ms: number): void {
  for (let i = 0; i < pictures; i++) {
    now += ms;
    for (const next of asked.splice(0)) next(now);
  }
}

it("shows whole frames of the run, no further than there are, each explained", async () => {
  const frames = [3.4, 3.6, -5, 99].map((frame) => {
    playing.showFrame(frame);
    return bench().frame;
  });
  expect(frames).toEqual([3, 4, 0, 40]);
  playing.showFrame(12);
  await until(() => bench().explanation?.frame === 12);
});

it("plays at the world's frames a second times the rate, and stops at the end", () => {
  playing.play();
  show(4, 25);
  // 100 ms at 60 frames a second.
  expect([bench().frame, bench().playing]).toEqual([6, true]);
  playing.chooseRate(0.25);
  show(4, 100);
  expect(bench().frame).toBe(12);
  session.project.changeWorld((world) => ({ ...world, frameRate: 30 }));
  playing.chooseRate(1);
  show(2, 100);
  expect(bench().frame).toBe(18);
  show(20, 100);
  expect([bench().frame, bench().playing, asked.length]).toEqual([40, false, 0]);
  // From the end it begins anew.
  playing.play();
  expect([bench().frame, bench().playing]).toEqual([0, true]);
});

it("does not jump after the page was away, and stands still once it is paused; only the last play goes on", () => {
  playing.play();
  show(1, 30_000);
  expect(bench().frame).toBe(6);
  playing.pause();
  show(3, 100);
  expect([bench().frame, bench().playing]).toEqual([6, false]);
  playing.play();
  playing.play();
  show(1, 50);
  expect([bench().frame, asked.length]).toEqual([9, 1]);
});

it("goes from mark to mark: pebbles and events, no arrivals", () => {
  playing.showFrame(0);
  // The first check is decided when the walker comes to its cell, the other with the last frame.
  const marks: (number | null)[] = [];
  for (let mark = playing.nextMark(1); mark !== null; mark = playing.nextMark(1)) {
    marks.push(mark);
    playing.showFrame(mark);
  }
  expect(marks).toEqual([...new Set(bench().run!.verdicts.map(({ frame }) => frame))].sort((a, b) => a - b));
  expect(playing.nextMark(-1)).toBe(marks.at(-2) ?? null);
  playing.showFrame(0);
  expect(playing.nextMark(-1)).toBeNull();
});

it("plays nothing where no log is shown", () => {
  session.shownLog.selectLog(null);
  benchStore.setState({ run: null });
  playing.play();
  playing.showFrame(3);
  expect([bench().playing, playing.nextMark(1), asked.length]).toEqual([false, null, 0]);
});
