import { session } from "../../page-session.ts";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { ALONG, DOWN, hall } from "../../test-support/hall.ts";
import { FakeWorker } from "../../test-support/fake-worker.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), {
    along: ALONG,
    down: DOWN,
    lost: "keen-pebble-inputs 1\nstart roof 1 1 down\n---\n4 R\n",
  });
});
afterEach(() => opened.close());

const bench = () => session.benchStore.getState();
const project = () => session.project.store.getState().project!;
const ran = (log: string): Promise<void> =>
  until(() => bench().run?.log === log && bench().explanation !== null, `${log} was not run`);
const speed = (before: number, after: number, stroke: string | null = null): boolean =>
  session.ruleSets.changeSetting("main", "glide.speed", before, after, stroke);
const cell = (): string => {
  const { rows, frames } = bench().run!;
  return `${rows.x[frames]! / 4096},${rows.y[frames]! / 4096}`;
};

describe("the shown log", () => {
  it("is run when it is chosen, its frame explained, and run again after every change of world or log", async () => {
    session.shownLog.selectLog("along", 4);
    await ran("along");
    expect([cell(), bench().frame, bench().explanation!.frame]).toEqual(["6,2", 4, 4]);
    expect(bench().run!.verdicts.map(({ verdict, frame }) => `${verdict} ${frame}`)).toEqual(["pass 28", "pass 40"]);
    speed(2, 1);
    await until(() => cell() === "4,2");
    expect(bench().run!.verdicts.map(({ verdict, frame }) => `${verdict} ${frame}`)).toEqual(["fail 40", "pass 40"]);
    const text = project().logs.get("along")!;
    session.project.edit({ kind: "change-log", log: "along", before: text, after: text.replace("32 R", "16 R") });
    await until(() => cell() === "3,2");
    expect(bench().parsed!.lines[0]).toMatchObject({ count: 16 });
    // Another log's text is none of it.
    const run = bench().run;
    session.project.edit({ kind: "change-log", log: "down", before: DOWN, after: DOWN.replace("16 D", "32 D") });
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(bench().run).toBe(run);
  });

  it("that cannot be run says why, and runs once it can", async () => {
    session.shownLog.selectLog("lost");
    await until(() => bench().refused !== null);
    expect(bench()).toMatchObject({ run: null, explanation: null, refused: expect.stringContaining("roof") as string });
    session.shownLog.selectLog("along");
    await ran("along");
    expect(bench().refused).toBeNull();
  });

  it("is another one when it is taken away, and none when there is none left", async () => {
    session.shownLog.selectLog("along");
    await ran("along");
    session.project.edit({ kind: "remove-log", log: "along", text: ALONG });
    await until(() => bench().log !== "along");
    expect(bench().log).toBe("down");
    session.project.edit({ kind: "remove-log", log: "down", text: DOWN });
    session.project.edit({ kind: "remove-log", log: "lost", text: project().logs.get("lost")! });
    expect(bench()).toMatchObject({ log: null, run: null, frame: 0 });
  });

  it("keeps its frame while there are so many, and shows the last one else", async () => {
    session.shownLog.selectLog("along", 40);
    await ran("along");
    const text = project().logs.get("along")!;
    session.project.edit({ kind: "change-log", log: "along", before: text, after: text.replace("8 .\n", "") });
    await until(() => bench().run?.frames === 32);
    expect(bench().frame).toBe(32);
    session.project.travel("undo");
    await until(() => bench().run?.frames === 40);
    expect(bench().frame).toBe(32);
    session.playing.showFrame(-5);
    expect(bench().frame).toBe(0);
    session.playing.showFrame(1000);
    expect(bench().frame).toBe(40);
    await until(() => bench().explanation?.frame === 40);
  });
});

describe("answers that come late", () => {
  const worker = (): FakeWorker => FakeWorker.all[0]!;

  it("of another log are dropped", async () => {
    session.shownLog.selectLog("along");
    await ran("along");
    FakeWorker.holdsBack = true;
    session.shownLog.selectLog("down");
    session.shownLog.selectLog("along");
    expect(bench()).toMatchObject({ log: "along", run: null });
    FakeWorker.holdsBack = false;
    worker().letGo();
    await ran("along");
    expect(cell()).toBe("6,2");
  });

  it("while a number is dragged only the newest value waits, and the last one is what stays", async () => {
    session.shownLog.selectLog("along");
    await ran("along");
    const before = bench().run;
    FakeWorker.holdsBack = true;
    for (let value = 2; value < 12; value++) speed(value, value + 1, "drag");
    // Ten edits and one question; the one that came behind it waits here.
    expect(worker().waiting).toBe(11);
    expect(bench().run).toBe(before);
    FakeWorker.holdsBack = false;
    worker().letGo();
    await until(() => bench().run !== before && bench().run!.changedAt !== null && cell() !== "6,2");
    await until(() => bench().run!.rows.x[1]! - bench().run!.rows.x[0]! === 12 * 256);
  });

  it("for a text that is another one by then are dropped: the newest text's run comes", async () => {
    session.shownLog.selectLog("along");
    await ran("along");
    FakeWorker.holdsBack = true;
    let text = ALONG;
    for (const keys of ["8 R", "16 R", "24 R"]) {
      const after = ALONG.replace("32 R", keys);
      session.project.edit({ kind: "change-log", log: "along", before: text, after }, "typing");
      text = after;
    }
    FakeWorker.holdsBack = false;
    worker().letGo();
    await until(() => cell() === "5,2");
  });
});

describe("the ghost", () => {
  it("is the walk before the change; of a stroke the one before all of it; a walk that stays the same leaves it alone", async () => {
    session.shownLog.selectLog("along");
    await ran("along");
    expect(bench().ghost).toBeNull();
    const first = bench().run!.rows;
    speed(2, 3, "drag");
    await until(() => bench().ghost !== null);
    expect(bench().ghost).toBe(first);
    speed(3, 4, "drag");
    await until(() => bench().run!.rows.x[1]! - bench().run!.rows.x[0]! === 4 * 256);
    expect(bench().ghost).toBe(first);
    session.project.endStroke();
    const dragged = bench().run!.rows;
    speed(4, 5);
    await until(() => bench().ghost === dragged);
    // Nothing of the walk changes with the name of the world.
    const { run } = bench();
    session.project.changeWorld((world) => ({ ...world, name: "Other" }));
    await until(() => bench().run !== run);
    expect(bench().run!.pathHash).toBe(run!.pathHash);
    expect(bench().ghost).toBe(dragged);
    session.shownLog.selectLog("down");
    await ran("down");
    expect(bench().ghost).toBeNull();
  });
});

describe("another rule set laid beside", () => {
  it("runs the same keys, tells the first frame that differs, and is explained with the shown frame", async () => {
    session.shownLog.selectLog("along", 3);
    await ran("along");
    session.beside.layBeside("free");
    await until(() => bench().beside?.rows !== null && bench().beside?.explanation !== null);
    // Roaming goes 1 px a frame where gliding goes 2.
    expect(bench().beside).toMatchObject({ name: "Free", differs: 1, explanation: { frame: 3 } });
    session.playing.showFrame(7);
    await until(() => bench().beside?.explanation?.frame === 7);
    // It stays for another log, and goes with its rule set.
    session.shownLog.selectLog("down");
    await until(() => bench().run?.log === "down" && bench().beside?.rows !== null);
    expect(bench().beside!.rows!.count).toBe(17);
    session.project.changeWorld((world) => ({ ...world, rules: world.rules.filter(({ id }) => id !== "free") }));
    await until(() => bench().beside === null);
    session.beside.layBeside(null);
    expect(bench().beside).toBeNull();
  });

  it("is run again with every change, and a rule set that does the same differs nowhere", async () => {
    session.shownLog.selectLog("down");
    await ran("down");
    session.beside.layBeside("free");
    await until(() => bench().beside?.rows !== null);
    session.project.edit({
      kind: "change-rules",
      rules: "free",
      setting: "roam.speedY",
      before: project().world.rules[1]!.roam.speedY,
      after: 2,
    });
    await until(() => bench().beside?.differs === null && bench().beside?.rows !== null);
    expect([...bench().beside!.rows!.y]).toEqual([...bench().run!.rows.y]);
  });
});

describe("marks", () => {
  it("lead from pebble to pebble and event to event, past arrivals, and end at the ends", async () => {
    session.shownLog.selectLog("along", 0);
    await ran("along");
    const seen: number[] = [];
    for (let at = session.playing.nextMark(1); at !== null; at = session.playing.nextMark(1)) {
      seen.push(at);
      session.playing.showFrame(at);
    }
    expect(seen).toEqual([28, 40]);
    const back: number[] = [];
    for (let at = session.playing.nextMark(-1); at !== null; at = session.playing.nextMark(-1)) {
      back.push(at);
      session.playing.showFrame(at);
    }
    expect(back).toEqual([28]);
  });
});

describe("an address", () => {
  it.each<[string | null, string | null, number | null, string | null, Record<string, unknown>]>([
    [null, null, null, null, { log: "along", frame: 0 }],
    [null, "down", 5, null, { log: "down", frame: 5 }],
    [
      "roof",
      "down",
      null,
      "The address names no room roof, which this world does not have; something else is shown instead.",
      { log: "down" },
    ],
    [
      "roof",
      "up",
      null,
      "The address names no room roof and no log up, which this world does not have; something else is shown instead.",
      { log: "along" },
    ],
  ])("with room %s, log %s, frame %s is told %s", (room, log, frame, said, shows) => {
    expect(session.shownLog.showAddress(project(), room, log, frame)).toBe(said);
    expect(bench()).toMatchObject({ ...shows, room: project().world.start.room });
  });
});

describe("tiles to paint with", () => {
  it("are chosen alone, one more, and up to another; what is chosen stays among what there is", () => {
    session.project.changeWorld((world) => ({
      ...world,
      tiles: [...world.tiles, ...[0, 1, 2].map((i) => ({ ...world.tiles[1]!, id: `t${i}`, name: `T${i}` }))],
    }));
    session.chosen.chooseTile("t0");
    expect(bench()).toMatchObject({ tile: "t0", chosenTiles: ["t0"], tool: "paint" });
    session.chosen.chooseTile("t2", "range");
    expect(bench().chosenTiles).toEqual(["t0", "t1", "t2"]);
    session.chosen.chooseTile("t1", "also");
    expect(bench()).toMatchObject({ tile: "t0", chosenTiles: ["t0", "t2"] });
    session.chosen.chooseTile("t0", "also");
    expect(bench()).toMatchObject({ tile: "t2", chosenTiles: ["t2"] });
    // The last one stays.
    session.chosen.chooseTile("t2", "also");
    expect(bench().chosenTiles).toEqual(["t2"]);
    session.project.travel("undo");
    expect(project().world.tiles.map(({ id }) => id)).toContain(bench().tile);
    // The second one of those that are left: the first is what everything is filled with.
    expect([bench().tile, bench().chosenTiles]).toEqual([project().world.tiles[1]!.id, [bench().tile]]);
  });
});
