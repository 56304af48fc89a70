import { addRoom, ruleAt } from "@keen-pebble/core/edit";
import type { Room, SideName, World } from "@keen-pebble/core/world";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere } from "../../test-support/opened.ts";

let opened: Opened;
beforeEach(async () => {
  // Two rooms right of the hall, the nearer one of them three rows lower.
  const two = addRoom(addRoom(hall(), "near", "Near", 4, 6), "far", "Far", 5, 5);
  const rooms = two.rooms.map((room) => (room.id === "near" ? { ...room, plan: [24, 3] as const } : room));
  opened = await openHere({ ...two, rooms }, {});
  session.floorplan.chooseRoomOnPlan(null);
});
afterEach(() => {
  session.planCursor.forget();
  opened.close();
});

const { floorplan: commands } = session.commands;
const world = (): World => session.project.store.getState().project!.world;
const at = (): string => {
  const { at: place } = session.planCursor.store.getState();
  return place === null
    ? "nowhere"
    : `${place.room} ${place.cx},${place.cy}${place.side === null ? "" : ` ${place.side}`}`;
};
/** Presses keys as `useCommandKeys` would: only what can be done is. */
function press(...names: (keyof typeof commands)[]): void {
  for (const name of names) if (commands[name].can()) commands[name].act();
}
const times = <T>(n: number, what: T): T[] => Array.from({ length: n }, () => what);

it("begins at the start or in the chosen room, and goes past a side to the room there and back", () => {
  expect(commands.cursorUse.can()).toBe(false);
  press("cursorRight");
  expect(at()).toBe("room-1 2,2");
  press(...times(17, "cursorRight" as const));
  expect(at()).toBe("room-1 19,2");
  press("cursorRight");
  expect(at()).toBe("room-1 19,2 east");
  press("cursorDown", "cursorDown");
  expect(at()).toBe("room-1 19,4 east");
  press("cursorRight");
  expect(at()).toBe("near 0,1 west");
  press("cursorRight", "cursorRight");
  expect(at()).toBe("near 1,1");
  press(...times(5, "cursorLeft" as const));
  expect(at()).toBe("room-1 18,4");
  press("cursorCancel");
  expect(at()).toBe("nowhere");
  session.floorplan.chooseRoomOnPlan("far");
  press("cursorUp");
  expect(at()).toBe("far 2,2");
});

it("goes to the very last cell of a room and then to its side, each way", () => {
  const { width, height } = world().rooms[0]!;
  const { start } = world();
  const [right, bottom] = [width - 1, height - 1];
  press("cursorRight", ...times(right - start.cell[0], "cursorRight" as const));
  expect(at()).toBe(`room-1 ${right},${start.cell[1]}`);
  press("cursorRight");
  expect(at()).toBe(`room-1 ${right},${start.cell[1]} east`);
  press("cursorLeft", ...times(bottom - start.cell[1], "cursorDown" as const));
  expect(at()).toBe(`room-1 ${right},${bottom}`);
  press("cursorDown");
  expect(at()).toBe(`room-1 ${right},${bottom} south`);
});

it("at a side that nothing lies behind it stays; along it, it goes as far as that does", () => {
  press("cursorUp", ...times(9, "cursorUp" as const));
  expect(at()).toBe("room-1 2,0 north");
  press(...times(9, "cursorLeft" as const));
  expect(at()).toBe("room-1 0,0 north");
  press("cursorDown");
  expect(at()).toBe("room-1 0,0");
});

it("draws a link from side to side, the two places meeting; a side that does not face it takes none", () => {
  press(...times(19, "cursorRight" as const), ...times(2, "cursorDown" as const), "cursorUse");
  expect(session.planCursor.store.getState().held).toMatchObject({ room: "room-1", side: "east", cy: 4 });
  const before = session.project.store.getState().project!;
  press("cursorLeft", ...times(99, "cursorUp" as const), "cursorUse");
  expect(at()).toContain("north");
  expect(session.project.store.getState().notice?.text).toContain("ends at a west side");
  press("cursorCancel", "cursorDown", ...times(4, "cursorDown" as const), "cursorRight", "cursorUse");
  press("cursorRight", "cursorDown", "cursorUse");
  expect(at()).toBe("near 0,2 west");
  const [here, there] = world().rooms;
  expect(ruleAt(here!.edges.east, 4)).toEqual({ kind: "link", room: "near", offset: -2 });
  expect(ruleAt(there!.edges.west, 2)).toEqual({ kind: "link", room: "room-1", offset: 2 });
  isOneAct(before);
  expect(session.planCursor.store.getState().held).toBeNull();
  // Past a linked side one is where it leads to.
  press("cursorLeft");
  expect(at()).toBe("room-1 19,4 east");
});

it("one way, or the opening alone, as a drag with Alt or Shift does", () => {
  press(...times(19, "cursorRight" as const), "cursorUse", "cursorRight", "cursorUseOneWay");
  const [here, there] = world().rooms;
  expect([here!.edges.east, there!.edges.west]).toMatchObject([{ kind: "link", room: "near" }, { kind: "wall" }]);
});

it("carries the start from cell to cell and into another room, as one act", () => {
  const before = session.project.store.getState().project!;
  press("cursorRight", "cursorUse", "cursorRight", "cursorDown");
  expect(world().start).toMatchObject({ room: "room-1", cell: [3, 3] });
  press(...times(17, "cursorRight" as const), "cursorUse");
  expect([world().start.room, world().start.cell, session.planCursor.store.getState().held]).toEqual([
    "near",
    [0, 0],
    null,
  ]);
  isOneAct(before);
});

it("what is held in one world is not carried in another", () => {
  press("cursorRight", "cursorUse");
  expect(session.planCursor.store.getState().held).toBe("start");
  session.planCursor.forget();
  const { start } = world();
  press("cursorRight", "cursorRight");
  expect([at(), world().start]).toEqual(["room-1 3,2", start]);
});

describe("past a side", () => {
  /** Rooms on all sides of the hall of 20 by 12, which lies at 0,0. */
  const placed: readonly (readonly [id: string, width: number, height: number, plan: readonly [number, number]])[] = [
    ["above", 4, 3, [6, -5]],
    ["below", 5, 4, [2, 14]],
    ["deeper", 20, 4, [0, 15]],
    ["left", 3, 5, [-5, 4]],
    // Touches it at its right, lower down.
    ["right", 6, 6, [20, 6]],
  ];
  const around = (): void => {
    session.project.changeWorld((now) =>
      placed.reduce(
        (all, [id, width, height, plan]) => {
          const more = addRoom(all, id, id, width, height);
          return { ...more, rooms: more.rooms.map((room) => (room.id === id ? { ...room, plan } : room)) };
        },
        { ...now, rooms: now.rooms.slice(0, 1) },
      ),
    );
  };
  const go = (cx: number, cy: number, side: SideName, key: keyof typeof commands): string => {
    session.planCursor.store.setState({ at: { room: "room-1", cx, cy, side }, held: null });
    press(key);
    return at();
  };
  const edge = (side: SideName, edges: Room["edges"][SideName]): void =>
    void session.project.changeWorld((now) => ({
      ...now,
      rooms: now.rooms.map((room) =>
        room.id === "room-1" ? { ...room, edges: { ...room.edges, [side]: edges } } : room,
      ),
    }));

  it("is the nearest room there, at the row or column that lies beside, or at its end", () => {
    around();
    expect(go(7, 0, "north", "cursorUp")).toBe("above 1,2 south");
    expect(go(19, 0, "north", "cursorUp")).toBe("above 3,2 south");
    expect(go(0, 6, "west", "cursorLeft")).toBe("left 2,2 east");
    expect(go(0, 0, "west", "cursorLeft")).toBe("left 2,0 east");
    expect(go(19, 7, "east", "cursorRight")).toBe("right 0,1 west");
    // Nearer is one cell less far, or lies less aside.
    expect(go(3, 11, "south", "cursorDown")).toBe("deeper 3,0 north");
    session.project.changeWorld((now) => ({
      ...now,
      rooms: now.rooms.map((room) => (room.id === "below" ? { ...room, plan: [8, 12] } : room)),
    }));
    expect(go(10, 11, "south", "cursorDown")).toBe("below 2,0 north");
  });

  it("that wraps is the same room at the same row; one that leads on is where it leads", () => {
    around();
    edge("east", { kind: "wrap" });
    edge("west", { kind: "wrap" });
    expect(go(19, 4, "east", "cursorRight")).toBe("room-1 0,4 west");
    expect(go(0, 4, "west", "cursorLeft")).toBe("room-1 19,4 east");
    edge("south", { kind: "link", room: "above", offset: -3 });
    expect(go(5, 11, "south", "cursorDown")).toBe("above 2,0 north");
    expect(go(1, 11, "south", "cursorDown")).toBe("above 0,0 north");
  });

  it("of a room that became smaller meanwhile one is in its last cell", () => {
    around();
    session.planCursor.store.setState({ at: { room: "left", cx: 9, cy: 9, side: null }, held: null });
    press("cursorUp");
    expect(at()).toBe("left 2,3");
    session.planCursor.store.setState({ at: { room: "gone", cx: 9, cy: 9, side: null }, held: null });
    press("cursorUp");
    expect(at()).toBe("room-1 2,2");
  });

  it("is chosen by a press, the room or the side; on the start that is taken up and put down where it is", () => {
    around();
    session.planCursor.store.setState({ at: { room: "left", cx: 1, cy: 1, side: null }, held: null });
    press("cursorUse");
    expect([session.floorplan.store.getState().room, session.planCursor.store.getState().held]).toEqual(["left", null]);
    for (const [cx, cy] of [
      [2, 3],
      [3, 2],
    ] as const) {
      session.planCursor.store.setState({ at: { room: "room-1", cx, cy, side: null }, held: null });
      press("cursorUse");
      expect(session.planCursor.store.getState().held).toBeNull();
    }
    session.planCursor.store.setState({ at: { room: "room-1", cx: 2, cy: 2, side: null } });
    press("cursorUse");
    expect(session.planCursor.store.getState().held).toBe("start");
    press("cursorUse");
    expect([session.planCursor.store.getState().held, world().start.cell]).toEqual([null, [2, 2]]);
    session.planCursor.store.setState({ at: null });
    session.planCursor.press({ oneWay: false, opening: false });
    expect(session.planCursor.isShown()).toBe(false);
  });
});
