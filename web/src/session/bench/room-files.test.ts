import type { Project } from "@keen-pebble/core/edit";
import { writeRoomPixels, writeRoomTable } from "@keen-pebble/core/formats";
import { writePng } from "@keen-pebble/core/reading";
import type { Room, World } from "@keen-pebble/core/world";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere } from "../../test-support/opened.ts";
import { lookAtTyped } from "./rooms.ts";

const { rooms } = session;
let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), {});
});
afterEach(() => {
  rooms.layMatched(null);
  opened.close();
});

const project = (): Project => session.project.store.getState().project!;
const world = (): World => project().world;
const room = (): Room => world().rooms[0]!;
const notice = (): string => session.project.store.getState().notice?.text ?? "";
const matching = () => rooms.store.getState().matching;
/** The room with its cells turned round, as somebody drew it elsewhere. */
const drawn = (): Room => ({ ...room(), cells: room().cells.map((_, i) => (i % 7 === 0 ? 1 : 0)) });
const read = (name: string, content: string | Uint8Array): Promise<void> =>
  rooms.readRoomFile(new File([content as BlobPart], name));

describe("a file that is brought into the shown room", () => {
  it.each([
    ["table", "hall.csv", () => writeRoomTable(drawn())],
    ["picture in the tiles' own colours", "hall.png", () => writePng(writeRoomPixels(world(), drawn()))],
  ])("as a %s is laid down, in one act", async (_, name, content) => {
    const wanted = drawn().cells;
    const before = project();
    await read(name, content());
    expect(room().cells).toEqual(wanted);
    expect(matching()).toBeNull();
    isOneAct(before);
  });

  it("as a text is laid down; where it is not in order the room stays, and the place is told", async () => {
    const before = project();
    await read("hall.txt", "..x\n");
    expect(project()).toBe(before);
    expect(notice()).toMatch(/^hall\.txt: row 1, column \d+: .*The room stays as it is\.$/);
    await read("hall.csv", "1,2\n3\n");
    expect(notice()).toMatch(/The room stays as it is\.$/);
    await read("hall.png", "no picture");
    expect(notice()).toMatch(/hall\.png.*The room stays as it is\.$/);
    expect(project()).toBe(before);
  });

  it("as a picture in other colours asks what they stand for, the most frequent first; many colours are refused", async () => {
    const [width, height] = [4, 3];
    const picture = (colours: readonly number[]): Uint8Array => {
      const rgba = new Uint8Array(width * height * 4);
      for (let i = 0; i < width * height; i++) rgba.set([colours[i % colours.length]!, 1, 2, 255], i * 4);
      return writePng({ width, height, rgba });
    };
    const before = project();
    await read("drawn.png", picture([10, 10, 20]));
    expect([matching()!.name, matching()!.room, matching()!.colours]).toEqual([
      "drawn.png",
      room().id,
      [
        { colour: "#0a0102", cells: 8 },
        { colour: "#140102", cells: 4 },
      ],
    ]);
    rooms.layMatched(null);
    expect([matching(), project()]).toEqual([null, before]);
    await read("drawn.png", picture([10, 10, 20]));
    rooms.layMatched(new Map([["#0a0102", world().tiles[1]!.id]]));
    expect([room().width, room().height]).toEqual([4, 3]);
    expect([...room().cells]).toEqual(
      [1, 1, 0, 1, 1, 0, 1, 1, 0, 1, 1, 0].map((n) => (n === 1 ? 1 : world().tiles.length - 1)),
    );
    expect(world().tiles.at(-1)!.look).toMatchObject({ fill: "#140102" });
    isOneAct(before);
    const many = new Uint8Array(9 * 8 * 4);
    for (let i = 0; i < 72; i++) many.set([i, 77, 99, 255], i * 4);
    for (const [count, height_] of [
      [64, 8],
      [72, 9],
    ] as const) {
      rooms.layMatched(null);
      await read("many.png", writePng({ width: 8, height: height_, rgba: many.slice(0, count * 4) }));
      expect(matching() === null).toBe(count > 64);
    }
    expect(notice()).toContain("many.png has 72 colours that are no tile's");
  });
});

describe("a text that is typed for a room", () => {
  it("is laid down at each change as one stroke; what is not in order changes nothing and is told", async () => {
    const began = project();
    const text = (first: string): string => `${first.padEnd(20, ".")}\n${`${".".repeat(20)}\n`.repeat(11)}`;
    const empty = world().tiles[0]!.glyph;
    expect(empty === null || empty.length === 1).toBe(true);
    const good = await rooms.layTyped(text(""), began, room().id, "typing");
    const bad = await rooms.layTyped("..?", began, room().id, "typing");
    expect(bad.refusals.length > 0 || bad.unknown.length > 0).toBe(true);
    const looked = await lookAtTyped("..?", began, room().id);
    expect(looked).toEqual(bad);
    expect(good.refusals).toEqual([]);
    expect([room().width, room().height]).toEqual([20, 12]);
  });
});
