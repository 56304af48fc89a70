import { session } from "../../page-session.ts";
import type { World } from "@keen-pebble/core/world";
import { LIMITS } from "@keen-pebble/core/world";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { DOWN, hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), { down: DOWN }, [], [session.worldSettings.followStart]);
});
afterEach(() => opened.close());

const settings = session.worldSettings;
const project = () => session.project.store.getState().project!;
const world = (): World => project().world;
const notice = (): string => session.project.store.getState().notice?.text ?? "";

describe("the start", () => {
  it("is dragged from its cell and stays in the room, one undo; a click turns it; elsewhere nothing begins", () => {
    // Only in its own cell: not beside it, below it, or there in another room.
    for (const cell of [
      { x: 5, y: 5 },
      { x: 3, y: 2 },
      { x: 2, y: 3 },
    ])
      expect(settings.beginDrag(cell)).toBe(false);
    session.benchStore.setState({ room: "elsewhere" });
    expect(settings.beginDrag({ x: 2, y: 2 })).toBe(false);
    session.benchStore.setState({ room: "room-1" });
    const before = project();
    expect(settings.beginDrag({ x: 2, y: 2 })).toBe(true);
    for (const cell of [
      { x: 3, y: 2 },
      { x: 9, y: 7 },
      { x: 40, y: 7 },
    ])
      settings.moveDrag(cell);
    settings.endDrag();
    expect(world().start).toEqual({ room: "room-1", cell: [9, 7], facing: "down" });
    isOneAct(before);
    // In each corner of the room, and nowhere outside it.
    const { width, height } = world().rooms[0]!;
    for (const [x, y] of [
      [-1, 0],
      [0, -1],
      [width, 0],
      [0, height],
    ] as const)
      settings.putStart("room-1", [x, y]);
    settings.putStart("elsewhere", [1, 1]);
    expect([world().start.cell, notice()]).toEqual([[9, 7], ""]);
    for (const cell of [
      [0, 0],
      [width - 1, height - 1],
      [9, 7],
    ] as const) {
      settings.putStart("room-1", cell);
      expect(world().start.cell).toEqual(cell);
    }
    settings.beginDrag({ x: 9, y: 7 });
    settings.endDrag();
    expect(world().start.facing).toBe("left");
  });

  it("that a border shuts in is told, with a cell that is better; moved there, nothing is told any more", async () => {
    const told = () => settings.store.getState().startFinding;
    await until(() => told() === null);
    const [room] = world().rooms;
    const around = [1, 2, 3].flatMap((y) => [1, 2, 3].flatMap((x) => (x === 2 && y === 2 ? [] : [y * 20 + x])));
    session.project.edit({
      kind: "set-cells",
      room: room!.id,
      cells: around,
      before: around.map(() => 1),
      after: around.map(() => 2),
    });
    await until(() => told() !== null);
    expect(told()!.message).toBe("the walker starts shut in, with nothing free beside it: cell 2,0 is free");
    settings.putStart(told()!.start!.room, told()!.start!.cell);
    await until(() => told() === null);
  });

  it("is answered for the world that is shown: what was found in the one before is not told of it", async () => {
    const told = () => settings.store.getState().startFinding;
    const shutIn = { kind: "start", message: "shut in" } as never;
    const answers: ((finding: never) => void)[] = [];
    const client = session.project.simulationClient()!;
    vi.spyOn(client, "startFinding").mockImplementation(() => new Promise((resolve) => answers.push(resolve)));
    session.project.changeWorld((now) => ({ ...now, seed: 5 }));
    session.project.changeWorld((now) => ({ ...now, seed: 6 }));
    expect(answers).toHaveLength(2);
    answers[0]!(shutIn);
    await Promise.resolve();
    await Promise.resolve();
    expect(told()).toBeNull();
    answers[1]!(shutIn);
    await until(() => told() === shutIn);
    // What cannot be asked finds nothing.
    session.project.changeWorld((now) => ({ ...now, seed: 7 }));
    answers[2]!({ refused: "closed" } as never);
    await until(() => told() === null);
    vi.restoreAllMocks();
  });
});

describe("settings of the world", () => {
  it("that a drag changes are undone as one", () => {
    const before = project();
    for (const rate of [61, 62, 63]) settings.setFrameRate(rate, "drag");
    settings.setCamera({ width: 30 }, "drag");
    session.project.endStroke();
    expect([world().frameRate, world().camera.width]).toEqual([63, 30]);
    isOneAct(before);
  });

  it("are one act each", () => {
    const acts: readonly [() => void, Partial<World>][] = [
      [() => settings.setName("  Deep hall "), { name: "Deep hall" }],
      [() => settings.setFrameRate(50), { frameRate: 50 }],
      [() => settings.setLives(3), { lives: 3 }],
      [() => settings.faceStart("up-left"), { start: { ...world().start, facing: "up-left" } }],
      [() => settings.keepLaw(" never  outside ", null), { laws: ["never outside"] }],
      [() => settings.keepLaw("always aligned", 0), { laws: ["always aligned"] }],
      [() => settings.removeLaw(0), { laws: [] }],
    ];
    for (const [act, expected] of acts) {
      const before = project();
      act();
      expect(world()).toMatchObject(expected);
      isOneAct(before);
    }
  });

  it("that may not be are refused and change nothing", () => {
    const before = project();
    settings.setName("   ");
    expect([settings.keepLaw("end cell 1 1", null), settings.keepLaw("never room cellar", null)]).toEqual([
      false,
      false,
    ]);
    const most = Array.from({ length: LIMITS.laws }, () => "never outside");
    session.project.changeWorld((w) => ({ ...w, laws: most }));
    expect([settings.keepLaw("never outside", null), notice()]).toEqual([
      false,
      `A world has at most ${LIMITS.laws} laws.`,
    ]);
    expect([settings.keepLaw("always aligned", 0), world().laws.length]).toEqual([true, LIMITS.laws]);
    session.project.changeWorld((w) => ({ ...w, laws: before.world.laws }));
    expect(settings.setTileSize(3)).toBe(false);
    expect(notice()).toBe("Cells keep 16 px: a cell is a whole number of px from 4 to 128 wide.");
    expect(project()).toEqual(before);
  });

  it("scale what is in px with the cells, and back", () => {
    const before = project();
    expect(settings.setTileSize(32)).toBe(true);
    expect(world().rules[0]!.walker.body).toMatchObject({ box: [0, 0, 32, 32] });
    isOneAct(before);
    settings.setTileSize(16);
    expect(world().rules[0]!.walker.body).toMatchObject({ box: [0, 0, 16, 16] });
  });

  it("give the walker pictures out of a sheet, and take them away", () => {
    session.project.changeWorld((w) => ({
      ...w,
      sheets: [{ id: "tender", file: "tender.png", tile: 16, margin: 0, spacing: 0 }],
    }));
    settings.setFigure({ sheet: "tender", at: [0, 0], size: [2, 1], along: "rows", facings: ["down"] });
    settings.setFigureOffset([1, -2]);
    settings.setPoseImages(2);
    expect(world()).toMatchObject({
      figure: {
        sheet: "tender",
        offset: [1, -2],
        images: {
          down: [
            [0, 0],
            [1, 0],
          ],
        },
      },
    });
    expect(world().rules[0]!.pose.images).toBe(2);
    expect(world().rules[1]!.pose.images).not.toBe(2);
    settings.removeFigure();
    expect(world().figure).toBeNull();
  });
});
