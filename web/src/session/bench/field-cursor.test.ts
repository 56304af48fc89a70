import type { World } from "@keen-pebble/core/world";
import { afterEach, beforeEach, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { ALONG, hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), { along: ALONG });
  session.shownRoom.pointAt(null);
  session.benchStore.setState({ tile: "wall", chosenTiles: ["wall"], kit: "tiles" });
});
afterEach(() => opened.close());

const { bench: commands } = session.commands;
const world = (): World => session.project.store.getState().project!.world;
const cursor = (): string => {
  const { cursor: shown, pointer } = session.benchStore.getState();
  return `${shown} ${pointer === null ? "nowhere" : `${pointer.x},${pointer.y}`}`;
};
const tileAt = (x: number, y: number): string => {
  const [room] = world().rooms;
  return world().tiles[room!.cells[y * room!.width + x]!]!.id;
};
/** Presses keys as `useCommandKeys` would: only what can be done is. */
function press(...names: (keyof typeof commands)[]): void {
  for (const name of names) if (commands[name].can()) commands[name].act();
}

it("begins where the walker is, goes from cell to cell as far as the room does, and gives way to the pointer", () => {
  session.benchStore.setState({ frame: 0 });
  const { start, tileSize } = world();
  const shown: string[] = [];
  const forget = session.asked.showPlace.answer((x, y) => shown.push(`${x},${y}`));
  press("cursorRight");
  expect(cursor()).toBe(`shown ${start.cell[0] * tileSize + 8},${start.cell[1] * tileSize + 8}`);
  press("cursorRight", "cursorRight", "cursorDown");
  expect(cursor()).toBe(`shown ${(start.cell[0] + 2) * tileSize + 8},${(start.cell[1] + 1) * tileSize + 8}`);
  // The field is asked to have each place in view.
  expect(shown.map((place) => `shown ${place}`).at(-1)).toBe(cursor());
  expect(shown).toHaveLength(4);
  forget();
  for (let i = 0; i < 99; i++) press("cursorLeft", "cursorUp");
  expect(cursor()).toBe("shown 8,8");
  session.shownRoom.pointAt({ x: 70, y: 41 });
  expect(cursor()).toBe("none 70,41");
  // Without the cursor Enter is not its own.
  expect([commands.press.can(), commands.hold.can()]).toEqual([false, false]);
  press("cursorUp");
  expect(cursor()).toBe("shown 72,40");
});

it("paints a cell, draws while the tool is held down as one stroke, and puts fixtures, actors and walls", () => {
  session.painting.choosePen("brush");
  session.shownRoom.pointAt({ x: 5 * 16, y: 3 * 16 });
  press("cursorUp");
  const before = session.project.store.getState().project!;
  press("press");
  expect(tileAt(5, 3)).toBe("wall");
  isOneAct(before);
  const next = session.project.store.getState().project!;
  press("cursorRight", "hold");
  expect(cursor()).toBe("held 104,56");
  press("cursorRight", "cursorRight", "letGo");
  expect([cursor(), tileAt(6, 3), tileAt(8, 3), tileAt(9, 3)]).toEqual(["shown 136,56", "wall", "wall", "floor"]);
  isOneAct(next);
  press("cursorDown", "cursorDown");
  session.placing.takeUpKind("marker");
  press("press");
  expect(world().rooms[0]!.fixtures.map(({ kind, cell }) => `${kind} ${cell.join()}`)).toContain("marker 8,5");
  session.actors.openKit("actors");
  session.actors.takeUp("place");
  press("cursorRight", "press");
  expect(world().rooms[0]!.actors.map(({ cell }) => cell.join())).toEqual(["9,5"]);
  session.walls.chooseWay("corners");
  session.walls.takeUp();
  press("press", "cursorRight", "press");
  expect(session.benchStore.getState().wall.corners).toHaveLength(2);
});

it("a stroke held by keys ends where the pointer takes the tool", () => {
  session.painting.choosePen("brush");
  session.shownRoom.pointAt({ x: 5 * 16, y: 3 * 16 });
  press("cursorUp", "hold");
  session.fieldTool.down({ x: 2 * 16, y: 5 * 16 }, false);
  session.fieldTool.move({ x: 3 * 16, y: 5 * 16 });
  session.fieldTool.up();
  expect([tileAt(5, 3), tileAt(4, 4), tileAt(2, 5), tileAt(3, 5)]).toEqual(["wall", "floor", "wall", "wall"]);
});

it("begins where the walker is in the shown frame, where it starts in another room, or in the first cell", async () => {
  session.shownLog.selectLog("along", 10);
  await until(() => session.benchStore.getState().run?.log === "along");
  session.benchStore.setState({ pointer: null, cursor: "none" });
  press("cursorRight");
  // In frame 10 it is 20 px on its way from cell 2,2 to the right.
  expect(cursor()).toBe(`shown ${3 * 16 + 8},${2 * 16 + 8}`);
  session.floorplan.addRoomToPlan();
  const added = world().rooms.at(-1)!.id;
  session.benchStore.setState({ room: added, pointer: null, cursor: "none" });
  press("cursorRight");
  expect(cursor()).toBe("shown 8,8");
  session.shownLog.selectLog(null);
  session.benchStore.setState({ room: "room-1", pointer: null, cursor: "none" });
  press("cursorRight");
  expect(cursor()).toBe(`shown ${2 * 16 + 8},${2 * 16 + 8}`);
  // As far as the room goes, at its other sides too.
  for (let i = 0; i < 30; i++) press("cursorRight", "cursorDown");
  expect(cursor()).toBe(`shown ${19 * 16 + 8},${11 * 16 + 8}`);
  session.benchStore.setState({ room: "gone" });
  press("cursorLeft");
  expect(cursor()).toBe(`shown ${19 * 16 + 8},${11 * 16 + 8}`);
});

it("without a place nothing is put down, and what is held is let go by either key", () => {
  session.painting.choosePen("brush");
  const before = session.project.store.getState().project;
  session.benchStore.setState({ pointer: null, cursor: "shown" });
  session.fieldCursor.press();
  session.fieldCursor.hold();
  expect([session.project.store.getState().project, session.fieldCursor.isHeld()]).toEqual([before, false]);
  for (const letGo of [session.fieldCursor.hold, session.fieldCursor.press]) {
    session.benchStore.setState({ pointer: { x: 40, y: 40 }, cursor: "shown" });
    session.fieldCursor.hold();
    expect(session.fieldCursor.isHeld()).toBe(true);
    letGo();
    expect(session.benchStore.getState().cursor).toBe("shown");
  }
  // With nothing to hold it is not held.
  session.benchStore.setState({ tool: "look", kit: "tiles" });
  session.fieldCursor.hold();
  expect(session.fieldCursor.isHeld()).toBe(false);
});
