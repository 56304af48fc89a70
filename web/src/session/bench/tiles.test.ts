import { afterEach, beforeEach, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere } from "../../test-support/opened.ts";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), {});
  session.chosen.chooseTile("wall");
});
afterEach(() => opened.close());

const { tiles } = session;
const project = () => session.project.store.getState().project!;
const ids = (): string =>
  project()
    .world.tiles.map(({ id }) => id)
    .join(" ");
const chosen = () => session.benchStore.getState().tile;

it("the chosen tile is moved in the list, one act, and its cells have it still; never before the empty one or beyond the end", () => {
  session.painting.choosePen("brush");
  session.painting.beginStroke({ x: 4, y: 4 });
  session.painting.finishStroke();
  tiles.makeTile();
  expect([ids(), chosen()]).toEqual(["empty floor wall tile", "tile"]);
  session.chosen.chooseTile("wall");
  const before = project();
  tiles.moveChosenTile(1);
  expect(ids()).toBe("empty floor tile wall");
  const { world } = project();
  expect(world.tiles[world.rooms[0]!.cells[4 * 20 + 4]!]!.id).toBe("wall");
  isOneAct(before);
  tiles.moveChosenTile(-2);
  expect(ids()).toBe("empty wall floor tile");
  tiles.moveChosenTile(9);
  expect(ids()).toBe("empty floor tile wall");
  tiles.moveChosenTile(-9);
  expect(ids()).toBe("empty wall floor tile");
});

it("a tile for a character that nothing explains has it, and what is chosen stays", () => {
  tiles.makeTileFor("~");
  expect([project().world.tiles.at(-1)!.glyph, chosen()]).toEqual(["~", "wall"]);
});

it("a copy is chosen; of a tile that is gone there is none", () => {
  tiles.copyChosenTile();
  expect([ids(), chosen() === "wall"]).toEqual([`empty floor wall ${chosen()}`, false]);
  session.benchStore.setState({ tile: "gone" });
  const before = ids();
  tiles.copyChosenTile();
  expect([ids(), chosen()]).toEqual([before, "gone"]);
});

it("chosen tiles get a shape and a look alike, and lose them by one undo each", () => {
  session.benchStore.setState({ chosenTiles: ["wall", "floor"] });
  const before = project();
  tiles.setLook({ fill: "#123456" });
  expect(project().world.tiles.map(({ look }) => "fill" in look && look.fill === "#123456")).toEqual([
    false,
    true,
    true,
  ]);
  isOneAct(before);
});
