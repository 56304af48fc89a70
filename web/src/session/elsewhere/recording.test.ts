// @vitest-environment happy-dom
import "fake-indexeddb/auto";
import { readFileSync } from "node:fs";
import path from "node:path";
import { session } from "../../page-session.ts";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere } from "../../test-support/opened.ts";

const RUN = readFileSync(path.join(import.meta.dirname, "../../../../demo/from-elsewhere/pump_hall_run.csv"), "utf8");

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), {});
});
afterEach(() => {
  recordings.close();
  opened.close();
});

const { recordings } = session;
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
