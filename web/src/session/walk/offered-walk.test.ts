import { readLog } from "@keen-pebble/core/check";
import type { Check } from "@keen-pebble/core/check";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { session } from "../../page-session.ts";
import { ALONG, hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";

const { benchStore, offeredWalk, walks } = session;
const bench = () => benchStore.getState();
const project = () => session.project.store.getState().project!;
const notice = () => session.project.store.getState().notice?.text ?? "";

let opened: Opened;
let asked: FrameRequestCallback[];
let now: number;
const open = (): Promise<Opened> => openHere(hall(), { along: ALONG }, [], [walks.startWalks]);
beforeEach(async () => {
  asked = [];
  now = 1000;
  opened = await open();
  vi.spyOn(performance, "now").mockImplementation(() => now);
  vi.stubGlobal("requestAnimationFrame", (next: FrameRequestCallback) => asked.push(next));
});
afterEach(() => {
  walks.endWalk();
  benchStore.setState({ walk: null, discarded: null });
  vi.restoreAllMocks();
  opened.close();
});

/** Walks so many frames with keys held, and stops. */
function walked(frames: number, ...codes: readonly string[]): void {
  for (const code of codes) window.dispatchEvent(new KeyboardEvent("keydown", { code }));
  for (let i = 0; i < frames; i++) {
    now += 1000 / 60 + 0.001;
    for (const next of asked.splice(0)) next(now);
  }
  walks.endWalk();
}
const offered = () => {
  const { walk } = bench();
  return walk?.phase === "offered" ? walk : null;
};
const lines = (log: string): string => project().logs.get(log)!.split("---\n")[1]!;

async function shownAt(frame: number): Promise<void> {
  session.shownLog.selectLog("along");
  await until(() => bench().run !== null);
  session.playing.showFrame(frame);
}

describe("a walk that goes on from a log", () => {
  it("cuts away what was pressed later, and is kept in the log with its title and checks, or as another one", async () => {
    await shownAt(16);
    const before = project();
    walks.goOnWalking();
    walked(8, "ArrowDown");
    expect(offered()).toMatchObject({ onto: "along" });
    offeredWalk.keepInLog();
    expect(lines("along")).toBe("16 R\n8 D\n");
    expect(readLog(project().logs.get("along")!)).toMatchObject({ title: "Along", checks: readLog(ALONG).checks });
    expect([bench().walk, bench().log, bench().tool]).toEqual([null, "along", "paint"]);
    isOneAct(before);
    await until(() => bench().run?.frames === 24);
    expect(bench().frame).toBe(24);
    session.playing.showFrame(24);
    walks.goOnWalking();
    walked(4, "ArrowRight");
    offeredWalk.keepWalk("Round the pillar", []);
    expect([lines("along"), lines("round-the-pillar")]).toEqual(["16 R\n8 D\n", "16 R\n8 D\n4 R\n"]);
  });

  it("that pressed nothing more changes nothing where it is kept in its log", async () => {
    await shownAt(40);
    const before = project();
    walks.goOnWalking();
    walked(0);
    offeredWalk.keepInLog();
    expect([project(), bench().walk]).toEqual([before, null]);
  });
});

describe("a walk that is offered", () => {
  it("is named by its place on the shelf of logs where it has no title, and keeps the checks that one takes", () => {
    walks.beginWalk();
    walked(8, "ArrowRight");
    const checks = offered()!.checks as Check[];
    offeredWalk.keepWalk("   ", checks);
    const [id] = [...project().logs.keys()].filter((log) => log !== "along");
    expect(readLog(project().logs.get(id!)!)).toMatchObject({ title: id, checks });
    expect(bench().log).toBe(id);
    // Nothing is offered any more.
    offeredWalk.keepWalk("Again", []);
    offeredWalk.keepInLog();
    offeredWalk.discardWalk();
    expect([project().logs.size, offeredWalk.canTakeWalkBack()]).toEqual([2, false]);
  });

  it("comes back once it was discarded, also after the page was loaded anew; one that is kept does not", async () => {
    walks.beginWalk();
    walked(8, "ArrowRight");
    const before = offered()!;
    offeredWalk.discardWalk();
    expect([bench().walk, offeredWalk.canTakeWalkBack()]).toEqual([null, true]);
    offeredWalk.takeWalkBack();
    expect(offered()!.log).toEqual(before.log);
    expect([bench().frame, offeredWalk.canTakeWalkBack()]).toEqual([8, false]);
    offeredWalk.takeWalkBack();
    offeredWalk.discardWalk();
    opened.close();
    benchStore.setState({ walk: null, discarded: null });
    opened = await open();
    await offeredWalk.offerKeptWalk();
    expect([bench().walk, offeredWalk.canTakeWalkBack()]).toEqual([null, true]);
    offeredWalk.takeWalkBack();
    expect(offered()!.log.lines).toEqual(before.log.lines);
    // Taken back it is offered at once on the next visit.
    opened.close();
    benchStore.setState({ walk: null, discarded: null });
    opened = await open();
    await offeredWalk.offerKeptWalk();
    expect([offered()?.log.lines, bench().discarded]).toEqual([before.log.lines, null]);
    offeredWalk.keepWalk("Kept", []);
    opened.close();
    benchStore.setState({ walk: null, discarded: null });
    opened = await open();
    await offeredWalk.offerKeptWalk();
    expect([bench().walk, offeredWalk.canTakeWalkBack()]).toEqual([null, false]);
  });

  it("leaves the shown log as it was shown once it is discarded, from its first frame on", async () => {
    await shownAt(16);
    const { run } = bench();
    walks.beginWalk();
    walked(8, "ArrowDown");
    offeredWalk.discardWalk();
    await until(() => bench().run !== null && bench().run !== run);
    expect([bench().log, bench().frame, bench().walk]).toEqual(["along", 0, null]);
  });

  it("that cannot be read for a fault of ours is not called one of the world's", async () => {
    await session.outbox.keepWalk("hall", { log: 5 as never, onto: null, discarded: false });
    await expect(offeredWalk.offerKeptWalk()).rejects.toThrow(TypeError);
    expect(notice()).toBe("");
    await session.outbox.keepWalk("hall", null);
  });

  it("is offered again on the next visit where it was neither kept nor discarded, unless it cannot be walked there", async () => {
    walks.beginWalk();
    walked(8, "ArrowRight");
    const { log } = offered()!;
    offeredWalk.rememberWalk(log, "gone", false);
    benchStore.setState({ walk: null });
    await offeredWalk.offerKeptWalk();
    expect(offered()).toMatchObject({ onto: null });
    benchStore.setState({ walk: null });
    offeredWalk.rememberWalk({ ...log, rules: "gone" }, null, false);
    await offeredWalk.offerKeptWalk();
    expect(bench().walk).toBeNull();
    expect(notice()).toMatch(/^A walk of your last visit that was not kept cannot be walked in this world any more \(/);
  });

  it("is replayed under the rules as they are by then; where that cannot be it is put away, and said", () => {
    walks.beginWalk();
    walked(8, "ArrowRight");
    const { log, rows: seen } = offered()!;
    benchStore.setState({ walk: null });
    offeredWalk.offerReplayed({ ...log, rules: "gone" }, null, seen);
    expect(bench().walk).toBeNull();
    expect(notice()).toMatch(/^This walk cannot be replayed in the world as it is now \(.*gone/);
  });
});

it("the walker is set down on a cell, as at the start or with what the shown frame had; never outside the room", async () => {
  await shownAt(16);
  await until(() => bench().explanation?.frame === 16);
  for (const [x, y] of [
    [-1, 3],
    [3, -1],
    [20, 3],
    [3, 12],
  ] as const)
    walks.setDown(x, y);
  expect([bench().walk, notice()]).toEqual([null, ""]);
  benchStore.setState({ pointer: { x: 16 * 19 + 3, y: 16 * 11 + 15 } });
  walks.setDownAtPointer(true);
  walked(3, "ArrowLeft");
  expect(offered()!.log).toMatchObject({ start: { cell: [19, 11], facing: "right" } });
  benchStore.setState({ walk: null, pointer: null });
  walks.setDownAtPointer();
  expect(bench().walk).toBeNull();
});
