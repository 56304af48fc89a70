import { session } from "../page-session.ts";
import type { World } from "@keen-pebble/core/world";
import { writeRoomText } from "@keen-pebble/core/formats";
import { cleanup, render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { ALONG, hall } from "../test-support/hall.ts";
import type { Opened } from "../test-support/opened.ts";
import { openHere, until } from "../test-support/opened.ts";
import { RoomText } from "./room-text.tsx";
import { PATIENCE } from "../test-support/patience.ts";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), { along: ALONG });
});
afterEach(() => {
  cleanup();
  opened.close();
});

const world = (): World => session.project.store.getState().project!.world;
const cell = (x: number, y: number): number => world().rooms[0]!.cells[y * 20 + x]!;
const whole = (): string => writeRoomText(world(), world().rooms[0]!);

function shown() {
  render(<RoomText />);
  const area = screen.getByLabelText<HTMLTextAreaElement>("Room text");
  return { user: userEvent.setup(), area, says: () => screen.getByRole("status").textContent };
}

/** Marks one character of a row, so that what is typed takes its place. */
function mark(area: HTMLTextAreaElement, x: number, y: number): void {
  area.focus();
  area.setSelectionRange(y * 21 + x, y * 21 + x + 1);
}

describe("a room as text", () => {
  it("is what the room is, and each keystroke that leaves it in order is drawn", async () => {
    const { user, area } = shown();
    await until(() => area.value !== "");
    expect(area.value).toBe(whole());
    const wall = world().tiles.findIndex(({ id }) => id === "wall");
    mark(area, 5, 5);
    await user.keyboard("#");
    await until(() => cell(5, 5) === wall);
    mark(area, 6, 5);
    await user.keyboard("#");
    await until(() => cell(6, 5) === wall);
    // One stroke of typing is undone as one.
    await user.tab();
    expect(session.project.travel("undo")).toBe(true);
    expect([cell(5, 5), cell(6, 5)]).toEqual([1, 1]);
    expect(session.project.travel("undo", true)).toBe(false);
  });

  it("that does not read stays as typed and is told by line and column; the room stays as it was", async () => {
    const { user, area, says } = shown();
    await until(() => area.value !== "");
    const before = whole();
    mark(area, 7, 3);
    await user.keyboard("?");
    await until(() => says()?.includes("nothing explains"));
    expect(says()).toMatch(/4:8 nothing explains "\?"/);
    expect(area.getAttribute("aria-invalid")).toBe("true");
    expect(whole()).toBe(before);
    await until(async () => (await session.outbox.keptDraft("hall", "room/room-1")) !== null);
    // What it does not know it can make a tile of.
    await user.click(screen.getByRole("button", { name: "Make ? a tile" }));
    await until(() => world().tiles.some(({ glyph }) => glyph === "?"));
    await until(() => area.getAttribute("aria-invalid") === "false");
    expect(world().tiles[cell(7, 3)]!.glyph).toBe("?");
  });

  it("that does not read is there again on the next visit, and can be let go", async () => {
    const first = shown();
    await until(() => first.area.value !== "");
    mark(first.area, 7, 3);
    await first.user.keyboard("?");
    await until(async () => (await session.outbox.keptDraft("hall", "room/room-1")) !== null);
    cleanup();
    const { user, area, says } = shown();
    await until(() => area.value.includes("?"));
    await until(() => says()?.includes("nothing explains"));
    await user.click(screen.getByRole("button", { name: "Back to the room as it is" }));
    await until(() => area.value === whole());
    await vi.waitFor(async () => expect(await session.outbox.keptDraft("hall", "room/room-1")).toBeNull(), PATIENCE);
  });

  it("follows what is painted elsewhere while nobody types", async () => {
    const { area } = shown();
    await until(() => area.value !== "");
    session.project.changeWorld((now) => ({
      ...now,
      rooms: now.rooms.map((room) => ({ ...room, cells: room.cells.map((tile, i) => (i === 5 * 20 + 5 ? 2 : tile)) })),
    }));
    await until(() => area.value === whole());
    expect(area.value[5 * 21 + 5]).toBe("#");
  });

  it("leaves what others do while one types, in this room and beside it", async () => {
    const { user, area } = shown();
    await until(() => area.value !== "");
    const wall = world().tiles.findIndex(({ id }) => id === "wall");
    mark(area, 5, 5);
    await user.keyboard("#");
    await until(() => cell(5, 5) === wall);
    session.project.changeWorld((now) => ({
      ...now,
      name: "Nave",
      rooms: now.rooms.map((room) => ({
        ...room,
        cells: room.cells.map((tile, i) => (i === 7 * 20 + 7 ? wall : tile)),
      })),
    }));
    await until(() => area.value === whole());
    mark(area, 6, 5);
    await user.keyboard("#");
    await until(() => cell(6, 5) === wall);
    expect([world().name, cell(5, 5), cell(7, 7)]).toEqual(["Nave", wall, wall]);
  });
});
