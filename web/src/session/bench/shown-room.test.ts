import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), {});
});
afterEach(() => opened.close());

const bench = () => session.benchStore.getState();

describe("where the body does not fit", () => {
  const clearance = () => bench().clearance;

  it("is looked for while it is shown, in the room that is shown, and again when the world changes", async () => {
    const room = hall().rooms[0]!.id;
    await session.shownRoom.lookForClearance();
    expect(clearance()).toBeNull();
    session.shownRoom.toggleOverlay("clearance");
    await until(() => clearance() !== null);
    expect([clearance()!.room, clearance()!.cells.some((cell) => cell !== 0)]).toEqual([room, false]);
    const wall = hall().tiles.findIndex(({ flags }) => flags.includes("solid"));
    session.project.edit({
      kind: "set-cells",
      room,
      cells: [25],
      before: [hall().rooms[0]!.cells[25]!],
      after: [wall],
    });
    const wider = { kind: "box", box: [0, 0, 20, 16], flush: "free" } as const;
    session.project.changeWorld((world) => ({
      ...world,
      rules: world.rules.map((rules) => ({ ...rules, walker: { ...rules.walker, body: wider } })),
    }));
    await until(() => clearance()!.cells[24] === 1);
    expect(clearance()!.cells.filter((cell, i) => cell !== 0 && i % 20 !== 19)).toHaveLength(1);
    session.benchStore.setState({ selection: { x: 0, y: 0, width: 1, height: 1 } });
    session.shownRoom.chooseRoom("");
    expect([bench().room, bench().selection, clearance()]).toEqual(["", null, null]);
    session.shownRoom.chooseRoom(room);
    await until(() => clearance() !== null);
    session.shownRoom.toggleOverlay("clearance");
    expect(bench().overlays.clearance).toBe(false);
  });
});
