import { readFileSync } from "node:fs";
import path from "node:path";
import { Key } from "selenium-webdriver";
import { expect, it } from "vitest";
import { axeFindingsInBothThemes } from "./accessible.ts";
import type { Application } from "./application.ts";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import { withSharedApplication } from "./with-application.ts";

const folder = path.resolve(import.meta.dirname, "../demo/from-elsewhere");
let started: Application;
let browser: Browser;
let bench: BenchDriver;
withSharedApplication((scene) => ({ started, browser, bench } = scene));

interface Stored {
  readonly world: {
    readonly tileSize: number;
    readonly sheets: readonly { readonly file: string }[];
    readonly tiles: readonly { readonly id: string; readonly flags: readonly string[]; readonly look: object }[];
    readonly rooms: readonly { readonly id: string; readonly width: number; readonly cells: readonly number[] }[];
  };
}

/** Drops files of `demo/from-elsewhere` on the page. */
const drop = (on: string, ...names: string[]): Promise<void> =>
  browser.drop(
    on,
    names.map((name) => [name, readFileSync(path.join(folder, name))]),
  );

/** Clicks the middle of a cell of the preview. */
const clickCell = (x: number, y: number, width: number, height: number): Promise<void> =>
  browser.driver.executeScript(
    `const canvas = document.querySelector(".map-preview canvas");
     const { left, top, width, height } = canvas.getBoundingClientRect();
     const at = { clientX: left + ((arguments[0] + 0.5) / arguments[2]) * width, clientY: top + ((arguments[1] + 0.5) / arguments[3]) * height };
     canvas.dispatchEvent(new MouseEvent("click", { bubbles: true, ...at }));`,
    x,
    y,
    width,
    height,
  );
/** The Bench with a world that has no log yet. */
const opened = async (): Promise<void> => {
  await browser.untilText(".status", (text) => text.includes("No walker"));
};
const pressCreate = (): Promise<void> => browser.press(".bring-map .modal-footer .btn-main", "Create");

it("a source file with numbers and a sheet, dropped together, are a world that one walks in, blocking as chosen", async () => {
  await browser.driver.get(started.address);
  await browser.find(".world-card");
  await drop(".shelf-head", "pump_hall.c", "tiles.png");
  await browser.untilText(".map-answers", (text) => text.includes("pump_hall.c30 x 20 numbers in brackets"));
  await browser.untilText(".map-kinds", (text) => text.includes("Kind"));
  const solid = (): Promise<string> =>
    browser.driver.executeScript(
      `return [...document.querySelectorAll(".map-kinds input")].filter((i) => i.checked).map((i) => i.ariaLabel).join()`,
    );
  // What the map is fenced with is guessed; the basin is said by a click.
  expect(await solid()).toBe("Kind 1 blocks");
  await clickCell(5, 6, 30, 20);
  await browser.wait(async () => (await solid()) === "Kind 1 blocks,Kind 3 blocks");
  expect(await axeFindingsInBothThemes(browser)).toEqual([]);
  await pressCreate();
  await opened();
  const { world } = await started.api<Stored>("/worlds/pump-hall");
  expect(world).toMatchObject({ tileSize: 16, sheets: [{ file: "tiles.png" }], rooms: [{ width: 30 }] });
  expect(world.tiles.find(({ id }) => id === "tile-3")).toMatchObject({ flags: ["solid"], look: { at: [2, 0] } });
  expect(world.tiles.find(({ id }) => id === "tile-2")).toMatchObject({ flags: [], look: { at: [1, 0] } });
  await bench.walk();
  await bench.hold(Key.ARROW_RIGHT, (x) => x >= 15);
  await bench.key(Key.ESCAPE);
  await browser.find(".keep-walk");
  await browser.press("button", "Discard");
});

it("a map is brought in as a room more, by pasting; what is not understood is named and nothing is made", async () => {
  await browser.driver.get(`${started.address}/w/pump-hall/bench`);
  await opened();
  await browser.press(".kit-head [role=tab]", "Room");
  await browser.press(".kit-body .btn", "Bring in a map as a room");
  const text = await browser.find("[aria-label='Map as text']");
  await text.sendKeys("1,1,1\n1,x,1");
  await browser.untilText(".bring-map [role=status]", (said) =>
    said.includes('line 2, column 3: expected a number, found "x"'),
  );
  await text.sendKeys(Key.chord(Key.CONTROL, "a"), "1,1,1\n1,2,1\n1,1,1");
  await browser.untilText(".map-answers", (said) => said.includes("3 x 3 numbers"));
  await pressCreate();
  await browser.untilText(".saving", (said) => said.startsWith("saved"));
  const { world } = await started.api<Stored>("/worlds/pump-hall");
  const wall = world.tiles.findIndex(({ id }) => id === "tile-1");
  expect(world.rooms[1]).toMatchObject({ id: "new-map", width: 3 });
  expect(world.rooms[1]!.cells[0]).toBe(wall);
});

it("a picture of a whole map is cut into its kinds of cell, each one tile with that image", async () => {
  await browser.driver.get(started.address);
  await browser.find(".world-card");
  await drop(".shelf-head", "overflow_map.png");
  await browser.untilText(".map-answers", (text) => text.includes("50 x 38 cells of 60 kinds"));
  await pressCreate();
  await opened();
  const { world } = await started.api<Stored>("/worlds/overflow-map");
  expect(world.tiles.length).toBe(61);
  expect(world.sheets).toMatchObject([{ file: "overflow-map.png" }]);
  expect(world.rooms[0]!.cells.length).toBe(50 * 38);
});
