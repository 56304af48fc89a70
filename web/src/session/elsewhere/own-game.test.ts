import { readFileSync } from "node:fs";
import path from "node:path";
import { readWorld } from "@keen-pebble/core/reading";
import type { World } from "@keen-pebble/core/world";
import { session } from "../../page-session.ts";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Opened } from "../../test-support/opened.ts";
import { openHere } from "../../test-support/opened.ts";
import { droppedFiles, takenFile } from "./taken-file.ts";
import { PATIENCE } from "../../test-support/patience.ts";

const at = path.join(import.meta.dirname, "../../../../demo/stand-in-game");
const text = (name: string): string => readFileSync(path.join(at, name), "utf8");
const [GOOD, BACK] = [text("trace.csv"), text("trace-both-back.csv")];
const known = readWorld(text("hall.world.json"));

let opened: Opened;
const open = async (world: World): Promise<void> => {
  opened = await openHere(world, {}, [], [session.ownGame.startGhost]);
};
beforeEach(() => open(known));
afterEach(() => {
  session.recordings.close();
  session.whichRules.forget();
  opened.close();
});

const { benchStore, board, ownGame, recordings, whichRules } = session;
const world = (): World => session.project.store.getState().project!.world;
const logs = (): readonly string[] => [...session.project.store.getState().project!.logs.keys()];
const notice = (): string => session.project.store.getState().notice?.text ?? "";
const take = (name: string, content: string): Promise<void> => board.takeLogsIn([new File([content], name)]);
const ghost = () => benchStore.getState().gameGhost;
const ghostOf = (content: string) =>
  vi.waitFor(() => {
    expect(ghost()?.trace.count).toBe(content.trim().split("\n").length - 1);
    return ghost()!;
  }, PATIENCE);

describe("a trace of a game that the world knows", () => {
  it("is laid beside the log of its keys: the first frame that differs is told in words", async () => {
    await take("trace-both-back.csv", BACK);
    const shown = await ghostOf(BACK);
    expect(logs()).toEqual(["trace-both-back"]);
    expect(benchStore.getState().log).toBe("trace-both-back");
    expect(shown.conformance).toMatchObject({ compared: 72, first: { frame: 71 } });
    expect(shown.apart[70]).toBe(0);
    expect(shown.apart[71]).toBe(2);
    await vi.waitFor(() => expect(ghost()!.text).toContain("stopped by 7,5 Wall; yours: stood still"), PATIENCE);
  });

  it("is compared anew when the rules change, and walks as ours once they are its own", async () => {
    await take("trace-both-back.csv", BACK);
    const before = await ghostOf(BACK);
    session.ruleSets.changeSetting("main", "roam.response", "contact", "undo-both", null);
    await vi.waitFor(() => expect(ghost()!.run).not.toBe(before.run), PATIENCE);
    expect(ghost()!.conformance.first).toBeNull();
    expect(ghost()!.text).toBeNull();
  });

  it("that begins elsewhere is apart from its first frame on; with another world opened it is gone", async () => {
    const shifted = BACK.split("\n").map((line, i) => {
      const [frame, x, ...more] = line.split(",");
      return i === 0 || line === "" ? line : [frame, Number(x) + 3, ...more].join(",");
    });
    await take("shifted.csv", shifted.join("\n"));
    const shown = await ghostOf(BACK);
    expect([...shown.apart.subarray(0, 3)]).toEqual([3, 3, 3]);
    await session.project.openProject(world().id);
    expect([benchStore.getState().run, ghost()]).toEqual([null, null]);
    // Nor does it come back with the same log.
    const log = "shifted";
    session.project.edit({ kind: "add-log", log, text: "keen-pebble-inputs 1\n---\n4 R\n" });
    session.shownLog.selectLog(log);
    await vi.waitFor(() => expect(benchStore.getState().run?.log).toBe(log), PATIENCE);
    expect(ghost()).toBeNull();
  });

  it("that is dropped again is of the same log; another log's run has none beside it", async () => {
    await take("trace.csv", GOOD);
    await ghostOf(GOOD);
    expect(notice()).toContain("1 log taken in: trace");
    session.project.notice(null);
    await take("again.csv", GOOD);
    expect([logs(), notice()]).toEqual([["trace"], ""]);
    await take("walk.inputs", "keen-pebble-inputs 1\n---\n3 R\n");
    await vi.waitFor(() => expect(benchStore.getState().run?.log).toBe("walk"), PATIENCE);
    expect(ghost()).toBeNull();
    await take("once-more.csv", GOOD);
    expect([logs(), benchStore.getState().log]).toEqual([["trace", "walk"], "trace"]);
    await vi.waitFor(() => expect(ghost()?.log).toBe("trace"), PATIENCE);
    ownGame.remove();
    expect(ghost()).toBeNull();
  });

  it("is read again from its file, which another one may have replaced", async () => {
    let now = BACK;
    const file = new File([BACK], "run.csv");
    const item = {
      kind: "file",
      getAsFileSystemHandle: () =>
        Promise.resolve({ kind: "file", getFile: () => Promise.resolve(new File([now], "run.csv")) }),
    };
    await board.takeLogsIn(droppedFiles({ files: [file], items: [item] } as unknown as DataTransfer));
    expect((await ghostOf(BACK)).conformance.first).not.toBeNull();
    now = GOOD;
    await ownGame.readAgain();
    await vi.waitFor(() => expect(ghost()!.conformance.first).toBeNull(), PATIENCE);
    now = "tick,px\n1\n";
    await ownGame.readAgain();
    expect(notice()).toContain(
      "run.csv is refused: line 2: expected 2 fields as in the header, found 1. What was read before stays",
    );
    expect(ghost()!.conformance.first).toBeNull();
  });

  it("is read otherwise in place, and the world keeps how", async () => {
    await take("trace.csv", GOOD);
    const { game } = await ghostOf(GOOD);
    await ownGame.readAs({ ...game, anchor: "corner" });
    await vi.waitFor(() => expect(ghost()!.conformance.first?.frame).toBe(0), PATIENCE);
    expect(world().games[0]!.anchor).toBe("corner");
  });

  it("that names a room which is there no more is told of, and taken away", async () => {
    await take("ours.csv", "frame,room,x,y,keys\n0,hall,8192,28672,.\n1,hall,8192,28672,.\n");
    await ghostOf("a\nb\nc");
    session.project.changeWorld((now) => ({
      ...now,
      start: { ...now.start, room: "cellar" },
      rooms: now.rooms.map((room) => ({ ...room, id: "cellar" })),
    }));
    await vi.waitFor(() => expect(ghost()).toBeNull(), PATIENCE);
    expect(notice()).toContain('expected a room of the world, found "hall"');
  });

  it("is followed no more once the world is left", async () => {
    await take("trace.csv", GOOD);
    const shown = await ghostOf(GOOD);
    opened.close();
    // No run is shown any more, and nobody takes away what lies beside it.
    benchStore.setState({ run: null, gameGhost: shown });
    expect(ghost()).toBe(shown);
    benchStore.setState({ gameGhost: null });
  });

  it("that says nothing of keys lies beside the shown log, and without one is told why not", async () => {
    const bare = "frame,room,x,y\n0,hall,8192,28672\n1,hall,8704,28672\n";
    await take("bare.csv", bare);
    expect(notice()).toContain("bare.csv says nothing of keys: choose the log that it walks first");
    await take("walk.inputs", "keen-pebble-inputs 1\n---\n3 R\n");
    await vi.waitFor(() => expect(benchStore.getState().run?.log).toBe("walk"), PATIENCE);
    await take("bare.csv", bare);
    expect((await ghostOf("a\nb\nc")).log).toBe("walk");
    expect(logs()).toEqual(["walk"]);
  });
});

describe("a trace that nothing says how to read", () => {
  beforeEach(async () => {
    opened.close();
    await open({ ...known, games: [] });
  });

  it("is guessed whole, shown, and kept: log, walk beside it, and how it is read", async () => {
    await take("trace-both-back.csv", BACK);
    const { game, read } = recordings.store.getState().open!;
    expect(game).toMatchObject({
      columns: { frame: "tick", x: "px", y: "py", keys: "pad" },
      unit: "px",
      yUp: true,
      anchor: "centre",
      frameOffset: 0,
      keys: { EAST: "R", NORTH: "U", SOUTH: "D", WEST: "L" },
    });
    expect(read).toMatchObject({ frames: 273 });
    const id = recordings.make(null);
    expect(id).toBe("trace-both-back");
    session.shownLog.selectLog(id);
    expect((await ghostOf(BACK)).conformance.first?.frame).toBe(71);
    expect(world().games).toMatchObject([{ id: "my-game", yUp: true }]);
  });

  it("has its places said by hand", async () => {
    await take("trace.csv", GOOD);
    const now = () => recordings.store.getState().open!;
    recordings.answer({ yUp: false, anchor: "corner" });
    expect(now().game).toMatchObject({ yUp: false, anchor: "corner" });
    recordings.setRole("pad", "room");
    expect(now().rooms).toContain("EAST");
    expect("refused" in now().read).toBe(true);
    for (const called of now().rooms) recordings.setRoom(called, "hall");
    expect(now().read).toMatchObject({ log: null });
    recordings.setRole("px", "");
    expect((now().read as { refused: string }).refused).toContain("has no column that says what was pressed");
  });
});

describe("which rules it goes by", () => {
  it("is searched in workers, ranked, and made a rule set that the log goes by", async () => {
    await take("trace-both-back.csv", BACK);
    await ghostOf(BACK);
    await whichRules.search();
    const { phase, found, file, tried } = whichRules.store.getState();
    expect([phase, file]).toEqual(["done", "trace-both-back.csv"]);
    expect(tried).toBeGreaterThan(1000);
    expect(found[0]).toMatchObject({ first: null, rules: { roam: { response: "undo-both" } } });
    whichRules.keep(found[0]!);
    expect(world().rules.map(({ id, name }) => [id, name])).toEqual([
      ["main", "As the game"],
      ["my-game", "As The stand-in"],
    ]);
    await vi.waitFor(() => expect(ghost()!.conformance.first).toBeNull(), PATIENCE);
    session.commands.bench.undo.act();
    expect(world().rules).toHaveLength(1);
  });

  it("is searched on all traces of the game that were taken in", async () => {
    await take("trace.csv", GOOD);
    await ghostOf(GOOD);
    await take("trace-down.csv", "tick,px,py,pad\n0,40,24,\n1,40,24,\n2,38,24,WEST\n3,36,24,WEST\n");
    await vi.waitFor(() => expect(ghost()?.log).toBe("trace-down"), PATIENCE);
    await whichRules.search();
    const { found, traces } = whichRules.store.getState();
    expect(traces).toBe(2);
    expect(found[0]).toMatchObject({ frames: 276, first: null, rules: { roam: { response: "contact" } } });
  });

  it("is called off, and what was found stays", async () => {
    await take("trace-both-back.csv", BACK);
    await ghostOf(BACK);
    const searching = whichRules.search();
    await vi.waitFor(() => expect(whichRules.store.getState().found.length).toBeGreaterThan(0), PATIENCE);
    whichRules.cancel();
    const { found, phase } = whichRules.store.getState();
    expect(phase).toBe("done");
    expect(found.length).toBeGreaterThan(0);
    void searching;
  });
});

it("a file without a handle is read as it was when it was dropped", async () => {
  await expect(takenFile(new File(["a"], "a.csv")).again()).resolves.toBe("a");
});
