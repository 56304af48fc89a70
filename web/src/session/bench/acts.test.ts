// @vitest-environment happy-dom
import "fake-indexeddb/auto";
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
const cell = (x: number, y: number): string =>
  world().tiles[world().rooms.find(({ id }) => id === bench().room)!.cells[y * 20 + x]!]!.id;

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

describe("painting", () => {
  const drag = (...cells: readonly (readonly [number, number])[]): void => {
    const [first, ...rest] = cells.map(([x, y]) => ({ x, y }));
    session.painting.beginStroke(first!);
    for (const each of rest) session.painting.moveStroke(each);
    session.painting.finishStroke();
  };
  const walls = (): string =>
    world()
      .rooms[0]!.cells.reduce(
        (text, tile, i) => (world().tiles[tile]!.id === "wall" ? `${text} ${i % 20},${Math.floor(i / 20)}` : text),
        "",
      )
      .trim();

  it.each([
    [
      "brush",
      [
        [1, 1],
        [3, 1],
        [3, 2],
      ],
      "1,1 2,1 3,1 3,2",
    ],
    [
      "line",
      [
        [1, 1],
        [9, 9],
        [4, 1],
      ],
      "1,1 2,1 3,1 4,1",
    ],
    [
      "box",
      [
        [3, 3],
        [1, 2],
      ],
      "1,2 2,2 3,2 1,3 2,3 3,3",
    ],
  ] as const)("with the %s over %j lays %s, undone as one", (pen, cells, expected) => {
    session.chosen.chooseTile("wall");
    session.painting.choosePen(pen);
    const before = project();
    drag(...cells);
    expect(walls()).toBe(expected);
    isOneAct(before);
  });

  it("with the bucket fills what hangs together; with the eraser lays the empty tile; a pipette takes what is there", () => {
    session.chosen.chooseTile("wall");
    session.painting.choosePen("line");
    drag([5, 0], [5, 11]);
    session.painting.choosePen("bucket");
    drag([0, 0]);
    expect(cell(4, 11)).toBe("wall");
    expect(cell(6, 0)).toBe("floor");
    session.painting.choosePen("erase");
    drag([0, 0], [1, 0]);
    expect([cell(0, 0), cell(1, 0), cell(2, 0)]).toEqual(["empty", "empty", "wall"]);
    session.painting.pickTile({ x: 6, y: 6 });
    expect(bench()).toMatchObject({ tile: "floor", pen: "brush" });
    session.painting.pickTile({ x: 60, y: 6 });
    expect(bench().tile).toBe("floor");
  });

  it("the box chosen again paints its frame alone, as thick as the brush, and shows which cells before", () => {
    session.chosen.chooseTile("wall");
    session.painting.choosePen("brush");
    session.painting.chooseBox();
    session.painting.chooseBox();
    session.painting.beginStroke({ x: 1, y: 1 });
    session.painting.moveStroke({ x: 3, y: 3 });
    expect(session.painting.preview()?.cells).toHaveLength(8);
    session.painting.finishStroke();
    expect(walls()).toBe("1,1 2,1 3,1 1,2 3,2 1,3 2,3 3,3");
    session.painting.chooseBox();
    expect(bench().boxFrame).toBe(false);
  });

  it("a rectangle is cut, taken up and laid down elsewhere", () => {
    session.chosen.chooseTile("wall");
    session.painting.choosePen("box");
    drag([1, 1], [2, 2]);
    session.painting.choosePen("select");
    drag([1, 1], [2, 2]);
    expect(bench().selection).toMatchObject({ x: 1, y: 1 });
    session.painting.copySelection(true);
    expect(cell(1, 1)).toBe("empty");
    session.painting.takeUpPiece();
    drag([10, 5]);
    // Its middle is where the pointer is.
    expect(walls()).toBe("9,4 10,4 9,5 10,5");
  });

  it("does nothing while somebody walks, or beyond the room", () => {
    const before = project();
    session.chosen.chooseTile("wall");
    session.painting.choosePen("brush");
    drag([40, 40]);
    session.benchStore.setState({ walk: { phase: "walking" } as never });
    drag([1, 1]);
    session.benchStore.setState({ walk: null });
    expect(project()).toBe(before);
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

describe("what the pointer would do is shown before", () => {
  const at = (x: number, y: number): void =>
    session.benchStore.setState({
      tool: "paint",
      pointer: { x: x * world().tileSize + 3, y: y * world().tileSize + 3 },
      drag: null,
      laying: false,
    });

  it.each([
    [1, { x: 7, y: 5, width: 1, height: 1 }],
    [2, { x: 7, y: 5, width: 2, height: 2 }],
    [5, { x: 5, y: 3, width: 5, height: 5 }],
    [8, { x: 4, y: 2, width: 8, height: 8 }],
  ])("a brush of %i", (brush, rect) => {
    for (const pen of ["brush", "erase", "line"] as const) {
      session.benchStore.setState({ pen, brush });
      at(7, 5);
      expect(session.painting.preview()).toEqual({ rects: [rect], cells: [] });
    }
    session.benchStore.setState({ pen: "bucket" });
    expect(session.painting.preview()).toEqual({ rects: [{ x: 7, y: 5, width: 1, height: 1 }], cells: [] });
  });

  it("a line and a box under way, a piece in its middle; nothing beyond the room or with another tool", () => {
    session.benchStore.setState({ pen: "line", brush: 1 });
    at(2, 1);
    session.benchStore.setState({ drag: { from: { x: 2, y: 1 }, to: { x: 4, y: 1 } } });
    expect(session.painting.preview()).toEqual({ rects: [], cells: [22, 23, 24] });
    session.benchStore.setState({ pen: "box" });
    expect(session.painting.preview()).toEqual({ rects: [{ x: 2, y: 1, width: 3, height: 1 }], cells: [] });
    session.painting.choosePen("select");
    session.painting.beginStroke({ x: 1, y: 1 });
    session.painting.moveStroke({ x: 4, y: 3 });
    session.painting.finishStroke();
    session.painting.copySelection(false);
    session.painting.takeUpPiece();
    session.benchStore.setState({ pointer: { x: 10 * world().tileSize, y: 6 * world().tileSize } });
    expect(session.painting.preview()).toEqual({ rects: [{ x: 8, y: 5, width: 4, height: 3 }], cells: [] });
    session.benchStore.setState({ laying: false, pen: "brush", pointer: { x: -1, y: 4 } });
    expect(session.painting.preview()).toBeNull();
    at(2, 2);
    session.benchStore.setState({ tool: "place" });
    expect(session.painting.preview()).toBeNull();
    session.benchStore.setState({ tool: "paint", pointer: null });
    expect(session.painting.preview()).toBeNull();
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
