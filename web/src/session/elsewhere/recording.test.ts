import { readFileSync } from "node:fs";
import path from "node:path";
import { LIMITS } from "@keen-pebble/core/world";
import { session } from "../../page-session.ts";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere } from "../../test-support/opened.ts";

const RUN = readFileSync(path.join(import.meta.dirname, "../../../../demo/from-elsewhere/pump_hall_run.csv"), "utf8");

const { recordings } = session;
/** What is laid beside a log. */
const laidBeside = vi.spyOn(session.ownGame, "take");

let opened: Opened;
beforeEach(async () => {
  laidBeside.mockClear();
  opened = await openHere(hall(), {});
});
afterEach(() => {
  recordings.close();
  opened.close();
});

const open = () => recordings.store.getState().open!;
const project = () => session.project.store.getState().project!;
const notice = (): string => session.project.store.getState().notice?.text ?? "";
const lines = (id: string): string => project().logs.get(id)!.split("---\n")[1]!.trim().replaceAll("\n", ", ");
const take = (name: string, text: string): Promise<void> => session.board.takeLogsIn([new File([text], name)]);
const said = (): string => ("refused" in open().read ? (open().read as { refused: string }).refused : "a log");

describe("a recording that nothing says how to read", () => {
  it("is shown with a guess, put right by hand, and kept with how it was read: the next one comes in at once", async () => {
    await take("pump_hall_run.csv", RUN);
    expect(open().game).toMatchObject({
      columns: { frame: "tick", keys: "pad" },
      frameOffset: -99,
      keys: { GO_EAST: "R", GO_SOUTH: "D", GO_WEST: "L" },
    });
    expect([...open().names].sort()).toEqual(["GO_EAST", "GO_SOUTH", "GO_WEST", "WORK"]);
    recordings.setButton("WORK", "A");
    recordings.call("Pump hall");
    const before = project();
    expect(recordings.make(null)).toBe("pump-hall-run");
    // It says what was pressed, and not where the walker was.
    expect(laidBeside).not.toHaveBeenCalled();
    expect(recordings.store.getState().open).toBeNull();
    expect(lines("pump-hall-run")).toBe("12 ., 64 R, 32 RD, 24 D, 2 DA, 14 ., 48 L, 1 .");
    expect(project().world.games).toMatchObject([{ id: "my-game", name: "Pump hall" }]);
    isOneAct(before);
    await take("again.csv", RUN.replace("112;", "110;"));
    expect(recordings.store.getState().open).toBeNull();
    expect(lines("again")).toContain("10 ., 66 R");
  });

  it("has its columns said by hand: what one has, another one loses", async () => {
    await take("own.tsv", "n\tgo\tside\tup\tdown\n1\t1\t0\t0\t1\n2\t0\t1\t0\t0\n");
    const roles = () => open().table.columns.map((column) => recordings.roleOf(open().game, column));
    expect(roles()).toEqual(["frame", "", "", "U", "D"]);
    recordings.setRole("go", "R");
    recordings.setRole("side", "D");
    expect(roles()).toEqual(["frame", "R", "D", "U", ""]);
    recordings.setRole("side", "");
    expect(roles()).toEqual(["frame", "R", "", "U", ""]);
    recordings.setRole("side", "D");
    recordings.setRole("n", "");
    recordings.setRole("go", "keys");
    expect(roles()).toEqual(["", "keys", "", "", ""]);
    recordings.setRole("go", "");
    expect(said()).toContain("has no column that says what was pressed");
    expect(recordings.make(null)).toBeNull();
    recordings.close();
    expect(project().logs.size).toBe(0);
  });

  it("is taken in beside logs of ours; what is broken is told with its place, and nothing is taken in", async () => {
    await session.board.takeLogsIn([
      new File(["keen-pebble-inputs 1\n---\n3 R\n"], "walk.inputs"),
      new File(["tick,pad\n1,LEFT\n"], "own.csv"),
    ]);
    expect([...project().logs.keys()]).toEqual(["walk"]);
    recordings.close();
    await take("torn.csv", "tick,pad\n1\n");
    expect(notice()).toContain("line 2: expected 2 fields as in the header, found 1");
    await take("run.txt", "1");
    expect(notice()).toContain("its ending is none of .inputs, .csv, .tsv and .jsonl");
  });
});

describe("a recording of places", () => {
  const TRACE = "step,px,py,area,pad\n0,32,32,Great hall,none\n1,34,32,Great hall,RIGHT\n2,36,32,Annex,RIGHT\n";
  const roles = () => open().table.columns.map((column) => recordings.roleOf(open().game, column));

  it("has its columns told apart, and what each says given to another one", async () => {
    await take("walk.csv", TRACE);
    expect(roles()).toEqual(["frame", "x", "y", "room", "keys"]);
    recordings.setRole("area", "x");
    expect(roles()).toEqual(["frame", "", "y", "x", "keys"]);
    recordings.setRole("px", "x");
    recordings.setRole("area", "room");
    expect(roles()).toEqual(["frame", "x", "y", "room", "keys"]);
    // Buttons one by one take the place of the column of all keys.
    recordings.setRole("pad", "R");
    expect(roles()).toEqual(["frame", "x", "y", "room", "R"]);
    recordings.setRole("pad", "keys");
    expect([roles()[4], open().game.keys]).toEqual(["keys", { RIGHT: "R" }]);
    expect(recordings.roleOf(open().game, "constructor")).toBe("");
  });

  it("has its rooms, keys and units said by hand, each read at once; and none after it is closed", async () => {
    await take("walk.csv", TRACE);
    expect(open().rooms).toEqual(["Great hall", "Annex"]);
    recordings.setRoom("Great hall", "room-1");
    recordings.setRoom("Annex", "room-1");
    expect(open().game.rooms).toEqual({ "Great hall": "room-1", Annex: "room-1" });
    recordings.setRoom("Annex", null);
    expect(open().game.rooms).toEqual({ "Great hall": "room-1" });
    expect(said()).toContain("Annex");
    recordings.setRoom("Annex", "room-1");
    recordings.setButton("RIGHT", null);
    expect(open().game.keys).toEqual({});
    recordings.setButton("RIGHT", "R");
    recordings.answer({ unit: "px", anchor: "corner", yUp: false, tolerance: 2 });
    expect(open().game).toMatchObject({ unit: "px", anchor: "corner", tolerance: 2 });
    expect(said()).toBe("a log");
    expect(open().read).toMatchObject({ frames: 3, trace: { count: 3 } });
    recordings.close();
    recordings.answer({ tolerance: 3 });
    recordings.setRole("px", "");
    recordings.call("Nobody");
    expect(recordings.store.getState().open).toBeNull();
    expect(recordings.make(null)).toBeNull();
  });

  it("without keys is laid beside the shown log, and how it is read is kept with the world", async () => {
    await take("walk.csv", TRACE.replaceAll(/,[^,\n]*(?=\n)/g, ""));
    expect(roles()).toEqual(["frame", "x", "y", "room"]);
    recordings.setRoom("Great hall", "room-1");
    recordings.setRoom("Annex", "room-1");
    recordings.answer({ unit: "px", anchor: "corner", yUp: false });
    expect(open().read).toMatchObject({ log: null, frames: 3, trace: { count: 3 } });
    expect(recordings.make("shown")).toBe("shown");
    expect(laidBeside.mock.calls.map(([log]) => log)).toEqual(["shown"]);
    expect(project().logs.size).toBe(0);
    expect(project().world.games).toHaveLength(1);
    expect(notice()).toBe("Its walk lies beside the log. Traces with these columns are read so from now on.");
  });

  it("is not kept where the world knows as many games as it may, and a further game is numbered", async () => {
    await take("walk.csv", TRACE);
    for (const called of ["Great hall", "Annex"]) recordings.setRoom(called, "room-1");
    const { game } = open();
    session.project.changeWorld((now) => ({
      ...now,
      games: Array.from({ length: LIMITS.games }, (_, i) => ({
        ...game,
        id: `game-${i}`,
        columns: { ...game.columns, frame: `t${i}` },
      })),
    }));
    expect(recordings.make(null)).toBeNull();
    expect([notice(), project().logs.size]).toEqual([`A world knows at most ${LIMITS.games} games.`, 0]);
    expect(recordings.store.getState().open).not.toBeNull();
    session.project.changeWorld((now) => ({ ...now, games: now.games.slice(1) }));
    expect(recordings.make(null)).toBe("walk");
    session.project.changeWorld((now) => ({ ...now, games: now.games.slice(0, 1) }));
    await take("other.csv", TRACE.replace("step", "moment"));
    expect(open().game.name).toBe("My game 2");
  });
});
