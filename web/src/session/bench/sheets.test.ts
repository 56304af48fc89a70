import { readFileSync } from "node:fs";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { session } from "../../page-session.ts";
import { hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";
import { sheetImages } from "./sheets.ts";

const PNG = readFileSync("demo/saltglass-cistern/sheets/cistern.png");
const { sheets } = session;
const project = () => session.project.store.getState().project!;
const world = () => project().world;
const notice = () => session.project.store.getState().notice;
const ids = () => [...sheets.store.getState().images.keys()];
const sheet = (id: string) => ({ id, file: `${id}.png`, tile: 16, margin: 0, spacing: 0 });

let opened: Opened;
let isPicture: boolean;
const open = async (...named: string[]): Promise<void> => {
  const answers = named.map((id) => [`GET /worlds/hall/sheets/${id}.png`, () => new Response(PNG)] as const);
  opened = await openHere(
    { ...hall(), sheets: ["gone", ...named].slice(named.length === 0 ? 1 : 0).map(sheet) },
    {},
    [...answers, ["PUT /worlds/hall/sheets/wall-2.png", { file: "wall-2.png", width: 1, height: 1 }]],
    [sheets.followSheets],
  );
};
beforeEach(() => {
  isPicture = true;
  vi.stubGlobal("createImageBitmap", async () => (isPicture ? {} : Promise.reject(new Error("no picture"))));
});
afterEach(() => {
  vi.unstubAllGlobals();
  opened.close();
});

it("pictures come once each; one that is not there is told, and those of another world are forgotten", async () => {
  await open("wall", "floor");
  await until(() => ids().length === 2);
  await until(() => notice() !== null);
  expect(notice()!.text).toBe("The image sheet gone.png is not here; its tiles are shown as checks.");
  session.project.changeWorld((w) => ({ ...w, name: "Other" }));
  await until(() => opened.asked.some((each) => each.startsWith("POST")));
  expect(opened.asked.filter((each) => each.includes("/sheets/wall.png"))).toHaveLength(1);
  expect([...(await sheetImages(world())).keys()]).toEqual(["wall", "floor"]);
  isPicture = false;
  expect((await sheetImages(world())).size).toBe(0);
  opened.close();
  await open();
  expect(ids()).toEqual([]);
});

it("one that comes in is there before anything names it, under an id of its own; how it is cut can be changed", async () => {
  await open("wall");
  const before = project();
  await sheets.bringInSheet(new File([PNG], "Wall.PNG"));
  const put = opened.asked.indexOf("PUT /worlds/hall/sheets/wall-2.png");
  expect(put).toBeGreaterThan(0);
  expect(world().sheets.map(({ id, file, tile }) => [id, file, tile])).toEqual([
    ["gone", "gone.png", 16],
    ["wall", "wall.png", 16],
    ["wall-2", "wall-2.png", 16],
  ]);
  expect(notice()!.text).toMatch(/^Wall\.PNG: \d+x\d+ px, \d+ x \d+ tiles of 16 px\.$/);
  isOneAct(before);
  sheets.cutSheet("wall-2", { tile: 8, margin: 1 });
  expect(world().sheets.map(({ tile, margin }) => [tile, margin])).toEqual([
    [16, 0],
    [16, 0],
    [8, 1],
  ]);
});

it("what is no picture, or is not taken, makes no sheet; what does not fill its tiles is told", async () => {
  await open("wall");
  const before = project();
  // Without a world there is nothing to bring it into.
  session.project.store.setState({ project: null, notice: null });
  await sheets.bringInSheet(new File(["GIF89a"], "a.png"));
  expect(notice()).toBeNull();
  session.project.store.setState({ project: before });
  await sheets.bringInSheet(new File(["GIF89a"], "a.png"));
  expect(notice()!.text).toMatch(/a\.png.* No sheet was added\.$/s);
  opened.answers.delete("PUT /worlds/hall/sheets/wall-2.png");
  await sheets.bringInSheet(new File([PNG], "wall.png"));
  expect(notice()!.text).toMatch(/No sheet was added\.$/);
  expect(project()).toBe(before);
  opened.answers.set("PUT /worlds/hall/sheets/wall-2.png", {});
  session.project.changeWorld((w) => ({ ...w, tileSize: 23 }));
  await sheets.bringInSheet(new File([PNG], "wall.png"));
  expect(notice()).toMatchObject({ tone: "attention" });
  expect(notice()!.text).toMatch(
    / \d+ px at the right and \d+ px below are left over: set its tile, margin and spacing\.$/,
  );
});
