import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { encode } from "fast-png";
import { Key, By } from "selenium-webdriver";
import type { Origin } from "selenium-webdriver";
import { Select } from "selenium-webdriver/lib/select.js";
import { expect, it } from "vitest";
import { axeFindings, axeFindingsInBothThemes } from "./accessible.ts";
import type { Application } from "./application.ts";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import { withSharedApplication } from "./with-application.ts";

const roomCells = async (
  id: string,
): Promise<{ tiles: { id: string }[]; rooms: { width: number; cells: number[] }[] }> =>
  (
    await started.api<{ world: { tiles: { id: string }[]; rooms: { width: number; cells: number[] }[] } }>(
      `/worlds/${id}`,
    )
  ).world;

/** A PNG whose tiles are of one colour each. */
function sheetPng(
  width: number,
  height: number,
  colours: readonly (readonly [number, number, number])[],
  size = 16,
): Uint8Array {
  const data = new Uint8Array(width * height * 4);
  for (let i = 0; i < width * height; i++)
    data.set([...colours[Math.floor((i % width) / size) % colours.length]!, 255], i * 4);
  return encode({ width, height, data, channels: 4, depth: 8 });
}

let started: Application;
let browser: Browser;
let bench: BenchDriver;

withSharedApplication((scene) => ({ started, browser, bench } = scene));

const file = async (id: string): Promise<string> =>
  (await fetch(`${started.address}/api/worlds/${id}/world.json`)).text();
const saved = async (): Promise<void> => void (await browser.untilText(".saving", (text) => text.startsWith("saved")));
const click = async (css: string): Promise<void> => (await browser.find(css)).click();
const fill = async (css: string, text: string): Promise<void> => {
  const field = await browser.find(css);
  await field.click();
  await field.sendKeys(Key.chord(Key.CONTROL, "a"), text, Key.TAB);
};

/** Drags over the field of a room of 20 by 12 cells, which is shown at twice its size. */
async function drag(from: readonly [number, number], to: readonly [number, number] = from): Promise<void> {
  const canvas = await browser.find(".field-canvas");
  const at = ([x, y]: readonly [number, number]) => ({
    x: Math.round((x - 9.5) * 32),
    y: Math.round((y - 5.5) * 32),
    origin: canvas as unknown as Origin,
  });
  await browser.driver.actions().move(at(from)).press().move(at(to)).release().perform();
}

/** Makes an empty world of 20 by 12 cells on the Shelf, which opens it. */
async function makeEmpty(name: string): Promise<void> {
  await browser.driver.get(started.address);
  await fill("[aria-label='Name of the new world']", name);
  await click(".empty-world .btn");
  await browser.find(".swatches [role=option]");
}

/** Waits until the shown room has that many cells each way. */
const sized = (width: number, height: number): Promise<unknown> =>
  browser.wait(
    () =>
      browser.driver.executeScript<boolean>(
        "const field = (name) => document.querySelector(`[aria-label='Room ${name} in cells']`)?.value; return field('width') === String(arguments[0]) && field('height') === String(arguments[1])",
        width,
        height,
      ),
    `the room did not become ${width} x ${height}`,
  );

it("a room with walls, two floors and a slanted corner made by hand; typed it is the same to the byte", async () => {
  await makeEmpty("By hand");
  // A second floor, and a corner that is a slope.
  for (const [name, glyph] of [
    ["Grating", "+"],
    ["Corner", "/"],
  ] as const) {
    await click("[aria-label='New tile']");
    await fill(".tile-name", name);
    await fill(".labelled.glyph input", glyph);
  }
  await click(".flag");
  await new Select(await browser.find("[aria-label='Common shapes']")).selectByVisibleText("Slope, south-east solid");
  await browser.untilText("[aria-label=Shape]", (text) => text.includes("3 corners"));
  // Walls all round, floor of gratings in the middle, one corner.
  await click(".swatches [title=Wall]");
  await bench.key("o");
  for (const [from, to] of [
    [
      [0, 0],
      [19, 0],
    ],
    [
      [0, 11],
      [19, 11],
    ],
    [
      [0, 0],
      [0, 11],
    ],
    [
      [19, 0],
      [19, 11],
    ],
  ] as const)
    await drag(from, to);
  await click(".swatches [title=Grating]");
  await drag([6, 4], [12, 7]);
  await click(".swatches [title=Corner]");
  await bench.key("p");
  await drag([18, 10]);
  await saved();
  const byHand = await file("by-hand");

  await bench.key("l");
  await click(".swatches [title=Wall]");
  await drag([2, 2], [5, 2]);
  await bench.key("k");
  await drag([8, 5]);
  await bench.key(Key.CONTROL, "z");
  await bench.key(Key.CONTROL, "z");
  await saved();
  expect(await file("by-hand")).toBe(byHand);
  expect(await axeFindings(browser)).toEqual([]);

  // The same tiles in another world, the room typed.
  await started.api("/imports", {
    world: byHand
      .replace('"by-hand"', '"typed"')
      .replace(/"cells": \[[^\]]*\]/, `"cells": [${Array(240).fill(1).join(",")}]`),
  });
  await browser.driver.get(`${started.address}/w/typed/bench`);
  await browser.press(".kit-head [role=tab]", "Room");
  await browser.press(".kit-body .btn", "Type this room");
  const rows = Array.from({ length: 12 }, (_, y) =>
    Array.from({ length: 20 }, (_, x) =>
      x === 0 || y === 0 || x === 19 || y === 11
        ? "#"
        : x === 18 && y === 10
          ? "/"
          : x >= 6 && x <= 12 && y >= 4 && y <= 7
            ? "+"
            : ".",
    ).join(""),
  );
  const area = await browser.find(".room-text textarea");
  await area.sendKeys(Key.chord(Key.CONTROL, "a"), rows.slice(0, 11).join("\n"), "\n####?");
  await browser.untilText(
    ".room-text-says",
    (text) => text.includes('12:5 nothing explains "?"') && text.includes("Make ? a tile"),
  );
  await area.sendKeys(Key.BACK_SPACE, "#".repeat(16));
  await browser.untilText(".room-text-says", (text) => text.startsWith("A character is a cell."));
  expect(await axeFindings(browser)).toEqual([]);
  await click("[aria-label='Close the text']");
  await saved();
  expect((await file("typed")).replace('"typed"', '"by-hand"')).toBe(byHand);
});

it("tiles, flags and rooms are changed as a whole, undone as one, and what is copied can be flipped and laid", async () => {
  await makeEmpty("Whole");
  const before = await file("whole");
  await click(".text-button");
  const flag = await browser.find("[aria-label='Name of flag solid']");
  await flag.sendKeys(Key.chord(Key.CONTROL, "a"), "hard", Key.ENTER);
  await browser.untilText(".flags", (text) => text === "hard" || text.startsWith("hard"));
  await saved();
  expect(await file("whole")).toBe(before.replaceAll('"solid"', '"hard"'));
  await bench.key(Key.CONTROL, "z");
  await saved();
  expect(await file("whole")).toBe(before);

  await click(".swatches [title=Wall]");
  await drag([3, 3], [5, 3]);
  await drag([3, 4]);
  await bench.key("m");
  await drag([3, 3], [5, 4]);
  await bench.key(Key.CONTROL, "c");
  await bench.key(Key.CONTROL, "v");
  await bench.key(Key.SHIFT, "h");
  await drag([13, 8]);
  await bench.key(Key.ESCAPE);
  await saved();
  const cells = async (): Promise<number[]> =>
    (await started.api<{ world: { rooms: { cells: number[] }[] } }>("/worlds/whole")).world.rooms[0]!.cells;
  expect(
    [
      [12, 7],
      [13, 7],
      [14, 7],
      [12, 8],
      [13, 8],
      [14, 8],
    ]
      .map(([x, y]) => y! * 20 + x!)
      .map(
        (
          (all) => (at: number) =>
            all[at]
        )(await cells()),
      ),
  ).toEqual([2, 2, 2, 1, 1, 2]);

  await browser.press(".kit-head [role=tab]", "Room");
  await fill("[aria-label='Room name']", "<img src=x onerror=alert(1)>");
  await browser.untilText("[aria-label='Shown room']", (text) => text.includes("<img src=x onerror=alert(1)>"));
  // Its id stays until somebody changes that, and then everything follows.
  await fill("[aria-label='Room id']", "cellar");
  await click("[aria-label='Add a row at the west']");
  await sized(21, 12);
  await click("[aria-label='Copy this room']");
  await browser.untilText("[aria-label='Shown room']", (text) => text.includes("<img src=x onerror=alert(1)>, copy"));
  await saved();
  const { world } = await started.api<{
    world: { start: { room: string; cell: number[] }; rooms: { name: string }[] };
  }>("/worlds/whole");
  expect(world.start).toMatchObject({ room: "cellar", cell: [11, 6] });
  expect(await browser.driver.findElements(By.css("img:not(.drawn)"))).toEqual([]);
  await fill("[aria-label='Room name']", "🪨".repeat(80));
  await browser.untilText("[aria-label='Shown room']", (text) => text.includes("🪨".repeat(40)));
  expect(await axeFindings(browser)).toEqual([]);
});

it("an image sheet comes in, is cut, and is explained where it does not fit; tiles join their edges while one paints", async () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-sheet-"));
  const bring = async (name: string, bytes: Uint8Array | string): Promise<void> => {
    writeFileSync(path.join(folder, name), bytes);
    await (await browser.driver.findElement(By.css("[aria-label='Image sheet']"))).sendKeys(path.join(folder, name));
  };
  /** The colour in the middle of a cell of the field. */
  const colourAt = (x: number, y: number): Promise<number[]> =>
    browser.driver.executeScript<number[]>(
      "const c = document.querySelector('.field-canvas'); const [x, y] = [c.clientWidth / 2 + (arguments[0] - 9.5) * 32, c.clientHeight / 2 + (arguments[1] - 5.5) * 32]; return [...c.getContext('2d').getImageData(x, y, 1, 1).data.slice(0, 3)]",
      x,
      y,
    );
  const untilColour = async (x: number, y: number, colour: readonly number[]): Promise<void> => {
    let last: number[] = [];
    await browser
      .wait(async () => {
        last = await colourAt(x, y);
        return last.join() === colour.join();
      })
      .catch(() => {
        throw new Error(`cell ${x} ${y} stayed at ${last.join()}`);
      });
  };
  try {
    await makeEmpty("Sheets");
    await bring(
      "broken.png",
      Buffer.from(
        sheetPng(32, 16, [
          [200, 0, 0],
          [0, 200, 0],
        ]),
      ).subarray(0, 60),
    );
    await browser.untilText(
      ".notice",
      (text) => text.includes("broken.png is refused: is a broken PNG") && text.includes("No sheet was added."),
    );
    await bring("odd.png", sheetPng(40, 16, [[9, 9, 9]]));
    await browser.untilText(".notice", (text) =>
      text.includes("40x16 px, 2 x 1 tiles of 16 px. 8 px at the right and 0 px below are left over"),
    );
    await bring(
      "cistern.png",
      sheetPng(64, 64, [
        [200, 0, 0],
        [0, 200, 0],
        [0, 0, 200],
        [200, 200, 0],
      ]),
    );
    await browser.untilText(".notice", (text) => text.includes("cistern.png: 64x64 px, 4 x 4 tiles of 16 px."));

    await click(".swatches [title=Wall]");
    await click("[aria-label='Kind of the look'] label:last-of-type");
    await new Select(await browser.find("[aria-label=Sheet]")).selectByVisibleText("cistern");
    await drag([3, 3], [3, 3]);
    await untilColour(3, 3, [200, 0, 0]);
    // Joined with its own kind the look is chosen by the neighbours: east only is the third column, west only the first of a lower row.
    await new Select(await browser.find("[aria-label='Joins its edges']")).selectByVisibleText("Joins its own kind");
    await drag([5, 5], [6, 5]);
    await untilColour(5, 5, [0, 0, 200]);
    await untilColour(3, 3, [200, 0, 0]);
    await drag([5, 4]);
    await untilColour(5, 5, [200, 200, 0]);
    await saved();
    expect(await axeFindings(browser)).toEqual([]);
    await browser.driver.navigate().refresh();
    await browser.find(".swatches [role=option]");
    await untilColour(5, 5, [200, 200, 0]);
  } finally {
    rmSync(folder, { recursive: true });
  }
});

it("a room is read from a table and a picture, the picture's colours matched to tiles once", async () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-room-"));
  const read = async (name: string, bytes: Uint8Array | string): Promise<void> => {
    writeFileSync(path.join(folder, name), bytes);
    await (await browser.driver.findElement(By.css("[aria-label='Room file']"))).sendKeys(path.join(folder, name));
  };
  try {
    await makeEmpty("Read");
    await browser.press(".kit-head [role=tab]", "Room");
    await read("hall.csv", "1,2,2\n2,1,1\n");
    await sized(3, 2);
    await read("bad.csv", "1,2\n1,9\n");
    await browser.untilText(".notice", (text) =>
      text.includes(
        'bad.csv is refused: line 2, column 2: expected a tile number from 0 to 2, found "9". The room stays as it is.',
      ),
    );
    await read(
      "cells.png",
      sheetPng(
        4,
        2,
        [
          [10, 20, 30],
          [200, 100, 0],
        ],
        2,
      ),
    );
    await browser.untilText(
      ".modal",
      (text) => text.includes("Which tiles are these colours?") && text.includes("#0a141e4 cells"),
    );
    await new Select(await browser.find("[aria-label='Tile for #0a141e']")).selectByVisibleText("Wall");
    expect(await axeFindingsInBothThemes(browser)).toEqual([]);
    await click(".modal .btn-main");
    await sized(4, 2);
    await saved();
    const { tiles, rooms } = await roomCells("read");
    expect(rooms[0]!.cells.map((tile) => tiles[tile]!.id)).toEqual([
      "wall",
      "wall",
      "colour-c86400",
      "colour-c86400",
      "wall",
      "wall",
      "colour-c86400",
      "colour-c86400",
    ]);
    await read("hall.room.txt", "##\n#x\n");
    await browser.untilText(".notice", (text) => text.includes('hall.room.txt: row 2, column 2: nothing explains "x"'));
  } finally {
    rmSync(folder, { recursive: true });
  }
});
