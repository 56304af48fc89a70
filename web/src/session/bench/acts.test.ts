import { session } from "../../page-session.ts";
import type { Project } from "@keen-pebble/core/edit";
import type { World } from "@keen-pebble/core/world";
import { readLog } from "@keen-pebble/core/check";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { ALONG, DOWN, hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import { openHere, until } from "../../test-support/opened.ts";
import { SimulationClient } from "../project/simulation-client.ts";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), { along: ALONG, down: DOWN }, [], [session.proofs.startProofs]);
});
afterEach(() => opened.close());

const project = (): Project => session.project.store.getState().project!;
const world = (): World => project().world;
const bench = () => session.benchStore.getState();
const notice = (): string => session.project.store.getState().notice?.text ?? "";
const rules = (log: string): string | null => readLog(project().logs.get(log)!).rules;

describe("rule sets", () => {
  it("are named in a log where they are not the world's own, and left out where they are", () => {
    session.shownLog.selectLog("along");
    session.ruleSets.goBy("free");
    expect([rules("along"), rules("down")]).toEqual(["free", null]);
    session.ruleSets.goBy("main");
    expect(rules("along")).toBeNull();
    session.ruleSets.makeWorldsOwn("free");
    expect([world().activeRules, rules("along")]).toEqual(["free", null]);
    session.shownLog.selectLog(null);
    session.ruleSets.goBy("ice");
    expect(world().activeRules).toBe("ice");
  });

  it("are copied with the shown log going by the copy, in one act; taken away, the log goes by the world's own", () => {
    session.shownLog.selectLog("along");
    const before = project();
    session.ruleSets.copyRules("main");
    expect([
      world()
        .rules.map(({ id }) => id)
        .sort(),
      rules("along"),
    ]).toEqual([["free", "ice", "main", "main-2"], "main-2"]);
    isOneAct(before);
    session.ruleSets.renameRules("main-2", "Slower");
    expect(world().rules.find(({ id }) => id === "main-2")!.name).toBe("Slower");
    session.ruleSets.removeRules("main-2");
    expect([world().rules.map(({ id }) => id), rules("along")]).toEqual([["main", "free", "ice"], null]);
  });
});

describe("rooms", () => {
  it("are added as large as the shown one, copied, called otherwise and taken away; what is made is shown", () => {
    const before = project();
    session.rooms.makeRoom();
    expect([bench().room, world().rooms.map(({ width, height }) => `${width}x${height}`)]).toEqual([
      world().rooms[1]!.id,
      ["20x12", "20x12"],
    ]);
    isOneAct(before);
    session.benchStore.setState({ room: world().rooms[1]!.id });
    session.rooms.callRoom("  Cellar ");
    expect(world().rooms[1]!.name).toBe("Cellar");
    session.rooms.callRoom("   ");
    expect(world().rooms[1]!.name).toBe("Cellar");
    session.rooms.copyShownRoom();
    expect([world().rooms.length, bench().room]).toEqual([3, world().rooms[2]!.id]);
    session.rooms.removeShownRoom();
    expect([world().rooms.length, bench().room]).toEqual([2, world().rooms[0]!.id]);
    // As large as the shown one; where none is, as a new world's.
    session.rooms.growRoom({ west: 2, south: 1 });
    session.rooms.makeRoom();
    session.benchStore.setState({ room: "gone" });
    session.rooms.makeRoom();
    expect(
      world()
        .rooms.slice(2)
        .map(({ width, height }) => `${width}x${height}`),
    ).toEqual(["22x13", "20x12"]);
  });

  it("take another id with all that names them; one that may not be is told and changes nothing", () => {
    session.benchStore.setState({ room: "room-1" });
    for (const [id, said] of [
      ["Roof!", "1 to 40 of a to z"],
      ["", "1 to 40 of a to z"],
    ] as const) {
      session.rooms.identifyRoom(id);
      expect(notice()).toContain(said);
    }
    session.rooms.makeRoom();
    const other = world().rooms[1]!.id;
    session.benchStore.setState({ room: "room-1" });
    session.rooms.identifyRoom(other);
    expect(notice()).toBe(`There is a room ${other} already; this one stays room-1.`);
    const before = project();
    session.rooms.identifyRoom("vault");
    expect([world().rooms[0]!.id, world().start.room, bench().room]).toEqual(["vault", "vault", "vault"]);
    isOneAct(before);
  });

  it("grow and shrink at their sides, from 1 to 512 cells", () => {
    session.benchStore.setState({ room: "room-1" });
    session.rooms.growRoom({ west: 2, south: 1 });
    expect([world().rooms[0]!.width, world().rooms[0]!.height, world().start.cell]).toEqual([22, 13, [4, 2]]);
    session.rooms.growRoom({ east: -21 });
    expect(world().rooms[0]!.width).toBe(1);
    session.rooms.growRoom({ east: -1 });
    expect([world().rooms[0]!.width, notice()]).toEqual([1, "A room has 1 to 512 cells each way; it stays as it is."]);
    session.rooms.growRoom({ east: 512 });
    expect(world().rooms[0]!.width).toBe(1);
  });
});

describe("tiles and flags", () => {
  it("are added, copied, changed alike and taken away with another one in their cells", () => {
    session.chosen.chooseTile("wall");
    session.tiles.copyChosenTile();
    expect(bench().tile).toBe(world().tiles.at(-1)!.id);
    const copy = bench().tile;
    session.tiles.makeTile();
    expect(bench().chosenTiles).toEqual([world().tiles.at(-1)!.id]);
    session.chosen.chooseTile(copy, "also");
    session.tiles.setShape({ kind: "boxes", boxes: [[0, 0, 8, 8]] });
    expect(
      world()
        .tiles.filter(({ shape }) => shape.kind === "boxes")
        .map(({ id }) => id)
        .sort(),
    ).toEqual([copy, world().tiles.at(-1)!.id].sort());
    session.chosen.chooseTile("floor");
    session.tiles.removeChosenTiles("wall");
    expect(world().tiles.some(({ id }) => id === "floor")).toBe(false);
    expect(new Set(world().rooms[0]!.cells).size).toBe(1);
    expect(world().tiles[world().rooms[0]!.cells[0]!]!.id).toBe("wall");
  });

  it.each([
    ["solid", "there is a flag solid already"],
    ["Wet", "1 to 40 of a to z, 0 to 9 and -"],
    ["", "1 to 40 of a to z, 0 to 9 and -"],
  ])("a flag %j is refused: %s", (name, why) => {
    const before = project();
    session.tiles.makeFlag(name);
    expect(notice()).toBe(`No flag was added: ${why}.`);
    session.tiles.callFlag("solid", name);
    if (name !== "solid") expect(notice()).toBe(`The flag stays solid: ${why}.`);
    expect(project()).toBe(before);
  });

  it("a flag is added, given, asked for, called otherwise and taken away, everywhere; sixteen are the most", () => {
    session.tiles.makeFlag("wet");
    session.chosen.chooseTile("floor");
    session.tiles.toggleFlag("wet", true);
    session.tiles.toggleBlockedBy("main", "wet", true);
    session.tiles.callFlag("wet", "damp");
    expect([world().flags, world().tiles[1]!.flags, world().rules[0]!.walker.blockedBy]).toEqual([
      ["solid", "damp"],
      ["damp"],
      ["solid", "damp"],
    ]);
    session.tiles.toggleBlockedBy("main", "damp", false);
    session.tiles.dropFlag("damp");
    expect([world().flags, world().tiles[1]!.flags, world().rules[0]!.walker.blockedBy]).toEqual([
      ["solid"],
      [],
      ["solid"],
    ]);
    for (let i = 0; i < 15; i++) session.tiles.makeFlag(`flag-${i}`);
    session.tiles.makeFlag("one-more");
    expect([world().flags.length, notice()]).toEqual([16, "No flag was added: a world has at most 16 flags."]);
  });
});

describe("the floorplan", () => {
  it("has its rooms chosen in turn, moved by keys and by drag, a drag undone as one", () => {
    session.floorplan.addRoomToPlan();
    expect(session.floorplan.store.getState().room).toBe(world().rooms[1]!.id);
    session.floorplan.chooseNextRoom(1);
    expect(session.floorplan.store.getState().room).toBe("room-1");
    session.floorplan.chooseNextRoom(-1);
    expect(session.floorplan.store.getState().room).toBe(world().rooms[1]!.id);
    session.floorplan.chooseRoomOnPlan("room-1");
    session.floorplan.nudgeRoom(2, -1);
    expect(world().rooms[0]!.plan).toEqual([2, -1]);
    const before = project();
    for (const x of [3, 5, 9]) session.floorplan.dragRoom("room-1", x, 4);
    session.floorplan.endRoomDrag();
    expect(world().rooms[0]!.plan).toEqual([9, 4]);
    isOneAct(before);
  });

  it("has sides linked both ways or one way, wrapped, and walled up again", () => {
    session.floorplan.addRoomToPlan();
    const [a, b] = world().rooms.map(({ id }) => id) as [string, string];
    session.floorplan.dropLink({ room: a, side: "east", at: 3 }, { room: b, at: 5 }, { oneWay: false, opening: false });
    expect([world().rooms[0]!.edges.east, world().rooms[1]!.edges.west]).toEqual([
      { kind: "link", room: b, offset: 2 },
      { kind: "link", room: a, offset: -2 },
    ]);
    session.floorplan.dropLink({ room: b, side: "south", at: 0 }, { room: a, at: 0 }, { oneWay: true, opening: false });
    expect([world().rooms[1]!.edges.south, world().rooms[0]!.edges.north]).toEqual([
      { kind: "link", room: a, offset: 0 },
      { kind: "wall" },
    ]);
    session.floorplan.chooseRoomOnPlan(a);
    session.floorplan.linkChosen("north", b);
    expect(world().rooms[0]!.edges.north).toEqual({ kind: "link", room: b, offset: 0 });
    expect(world().rooms[1]!.edges.south).toEqual({ kind: "link", room: a, offset: 0 });
    session.project.travel("undo");
    session.floorplan.wrapChosen("y");
    expect([world().rooms[0]!.edges.north, world().rooms[0]!.edges.south]).toEqual([
      { kind: "wrap" },
      { kind: "wrap" },
    ]);
    session.floorplan.wallChosen("east");
    expect(world().rooms[0]!.edges.east).toEqual({ kind: "wall" });
  });
});

describe("the board", () => {
  const proven = (): Promise<void> =>
    until(() => session.proofs.store.getState().took !== null && session.proofs.store.getState().proofs.size === 2);

  it("opens a log at the frame that breaks it, or at its end; checks lead to the frame that decides them, and playing stops", async () => {
    await proven();
    session.board.chooseRow("along");
    await until(() => bench().run?.log === "along");
    expect([bench().frame, session.board.store.getState().check]).toEqual([40, null]);
    session.benchStore.setState({ playing: true });
    session.board.chooseCheck(0);
    expect([bench().frame, session.board.store.getState().check, bench().playing]).toEqual([28, 0, false]);
    session.board.stepCheck(1);
    expect([bench().frame, session.board.store.getState().check]).toEqual([40, 1]);
    session.board.stepCheck(1);
    expect(session.board.store.getState().check).toBe(1);
    session.board.stepCheck(-1);
    expect(session.board.store.getState().check).toBe(0);
    session.board.chooseCheck(9);
    expect(session.board.store.getState().check).toBe(0);
    session.ruleSets.makeWorldsOwn("free");
    await until(() => session.proofs.store.getState().proofs.get("down")?.holds === false);
    session.board.chooseRow("down");
    await until(() => bench().run?.log === "down");
    expect([bench().frame, session.board.store.getState().check]).toEqual([16, 0]);
  });

  it("goes from row to row among those that are shown, and stays at its ends", async () => {
    await proven();
    session.board.chooseRow("along");
    session.board.stepRow(1);
    expect(bench().log).toBe("down");
    session.board.stepRow(1);
    expect(bench().log).toBe("down");
    session.board.stepRow(-Infinity);
    expect(bench().log).toBe("along");
    // None is shown that fails: there is nowhere to go.
    session.board.chooseFilter("failing");
    session.board.stepRow(1);
    expect(bench().log).toBe("along");
    session.board.chooseFilter("all");
  });

  it("takes all log files of a drop or none, and says which is not in order", async () => {
    const good = new File([ALONG.replace("Along", "Again")], "again.inputs");
    await session.board.takeLogsIn([good, new File(["?"], "bad.inputs")]);
    expect(notice()).toMatch(/^bad\.inputs is refused: line 1.*None of the files was taken in\.$/);
    expect([...project().logs.keys()]).toEqual(["along", "down"]);
    await session.board.takeLogsIn([new File(["frame,keys\n1,R\n9,.\n"], "pressed.csv"), good]);
    expect([...project().logs.keys()].sort()).toEqual(["again", "along", "down", "pressed"]);
    expect(readLog(project().logs.get("pressed")!).lines).toMatchObject([{ count: 8 }, { count: 1 }]);
    await session.board.takeLogsIn([new File([""], "notes.txt")]);
    expect(notice()).toMatch(/none of \.inputs, \.csv, \.tsv and \.jsonl\. It was not taken in\.$/);
  });
});

describe("a worker that is ended", () => {
  it("refuses what was asked for and not answered, and what is asked for afterwards", async () => {
    const client = new SimulationClient();
    const asked = [client.run(ALONG), client.explain(ALONG, 3), client.clearance("room-1"), client.fingerprint(ALONG)];
    client.close();
    expect(await Promise.all(asked)).toEqual(asked.map(() => ({ refused: "the world was closed" })));
    expect(await client.run(ALONG)).toEqual({ refused: "the world was closed" });
  });
});

describe("what the world asks for", () => {
  it("goal, lives, items and circuits are set as one act each; what is used stays", () => {
    let before = project();
    session.worldSettings.setLives(3);
    expect(world().lives).toBe(3);
    isOneAct(before);
    before = project();
    session.fixtures.makeCircuit();
    const circuit = world().circuits.at(-1)!;
    isOneAct(before);
    session.fixtures.removeCircuit(circuit);
    expect(world().circuits).not.toContain(circuit);
    before = project();
    session.fixtures.makeItem("treasure");
    const item = world().items.at(-1)!.id;
    isOneAct(before);
    before = project();
    session.worldSettings.setGoal({ kind: "collect", item });
    expect(world().goal).toEqual({ kind: "collect", item });
    isOneAct(before);
    session.fixtures.removeItem(item);
    expect([world().items.some(({ id }) => id === item), notice()]).toEqual([
      true,
      expect.stringContaining("it stays"),
    ]);
    session.worldSettings.setGoal(null);
    session.fixtures.removeItem(item);
    expect(world().items.some(({ id }) => id === item)).toBe(false);
  });
});
