import { addRoom } from "@keen-pebble/core/edit";
import { toPlain } from "@keen-pebble/core/formats";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { FakeWorker } from "../../test-support/fake-worker.ts";
import { ALONG, hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";
import { triedKey } from "./tried.ts";

const IN_ANNEX = "keen-pebble-inputs 1\nstart annex 1 1 right\n---\n16 R\n";
const { shownLog, benchStore } = session;
const bench = () => benchStore.getState();
const project = () => session.project.store.getState().project!;
const ran = (log: string): Promise<void> => until(() => bench().run?.log === log);

let opened: Opened;
beforeEach(async () => {
  const two = addRoom(hall(), "annex", "Annex", 6, 6);
  opened = await openHere(two, { along: ALONG, annexed: IN_ANNEX }, [
    ["GET /worlds/other", { revision: 1, world: toPlain(hall("other")), logs: {} }],
  ]);
});
afterEach(() => {
  FakeWorker.holdsBack = false;
  opened.close();
});

describe("the room of a log", () => {
  it("is the one that its shown frame is in, unless the address names one that there is", async () => {
    for (const [named, shown] of [
      [null, "annex"],
      ["gone", "annex"],
      ["room-1", "room-1"],
      ["annex", "annex"],
    ] as const) {
      const said = shownLog.showAddress(project(), named, "annexed", null);
      expect(said === null).toBe(named !== "gone");
      await ran("annexed");
      expect([named, bench().room, bench().frame]).toEqual([named, shown, 0]);
    }
    // One that is chosen by hand stays while the log is run again.
    session.shownRoom.chooseRoom("room-1");
    const { run } = bench();
    session.ruleSets.changeSetting("main", "glide.speed", 2, 4, null);
    await until(() => bench().run !== run);
    expect(bench().room).toBe("room-1");
    shownLog.selectLog("along");
    await ran("along");
    shownLog.selectLog("annexed", 5);
    await ran("annexed");
    expect([bench().room, bench().frame]).toEqual(["annex", 5]);
  });
});

describe("a run", () => {
  it("of a log that is not shown any more is dropped, also where none is shown", async () => {
    shownLog.selectLog("along");
    await ran("along");
    FakeWorker.holdsBack = true;
    shownLog.selectLog("annexed");
    await until(() => FakeWorker.all.some(({ waiting }) => waiting > 0));
    shownLog.selectLog(null);
    FakeWorker.holdsBack = false;
    for (const worker of FakeWorker.all) worker.letGo();
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect([bench().log, bench().run]).toEqual([null, null]);
  });

  it("under a changed setting is noted as tried, with what failed; while somebody walks, frame and room are the walk's", async () => {
    shownLog.selectLog("along");
    await ran("along");
    benchStore.setState({ walk: {} as never, room: "annex", frame: 77, ghost: null });
    const { run } = bench();
    session.ruleSets.changeSetting("main", "glide.speed", 2, 1, null);
    await until(() => bench().run !== run);
    expect([bench().room, bench().frame, bench().ghost]).toEqual(["annex", 77, null]);
    const tried = session.tried.store.getState().get(triedKey("main", "glide.speed"))!;
    expect(tried.map(({ value, failing, checks }) => [value, failing, checks])).toEqual([
      [2, 0, 2],
      [1, 1, 2],
    ]);
    benchStore.setState({ walk: null });
  });
});

describe("what belongs to a world", () => {
  it("goes with it: nothing of what was shown stays when another one is opened", async () => {
    shownLog.selectLog("along");
    await ran("along");
    const left = {
      ghost: bench().run!.rows,
      preview: bench().run!.rows,
      beside: {} as never,
      walk: {} as never,
      discarded: {} as never,
      refused: "no",
      clearance: { room: "room-1", cells: new Uint8Array(1) },
      drag: { from: { x: 0, y: 0 }, to: { x: 1, y: 1 } },
      selection: { x: 0, y: 0, width: 1, height: 1 },
    };
    benchStore.setState(left);
    await session.project.openProject("other");
    const now = bench() as unknown as Record<string, unknown>;
    for (const key of ["run", "explanation", ...Object.keys(left)]) expect([key, now[key]]).toEqual([key, null]);
    expect(session.tried.store.getState().size).toBe(0);
  });

  it("a walk that was discarded comes back until the next edit", () => {
    benchStore.setState({ discarded: {} as never });
    session.project.changeWorld((now) => ({ ...now, seed: 8 }));
    expect(bench().discarded).toBeNull();
  });
});
