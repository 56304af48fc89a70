import path from "node:path";
import type { Origin, WebElement } from "selenium-webdriver";
import { Key } from "selenium-webdriver";
import { Select } from "selenium-webdriver/lib/select.js";
import { expect, it } from "vitest";
import { axeFindings, axeFindingsInBothThemes } from "./accessible.ts";
import type { Application } from "./application.ts";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import { withSharedApplication } from "./with-application.ts";

const walker = path.resolve(import.meta.dirname, "../web/src/field/walker.png");
const recording = path.resolve(import.meta.dirname, "../demo/from-elsewhere/pump_hall_run.csv");
let started: Application;
let browser: Browser;
let bench: BenchDriver;
withSharedApplication((scene) => ({ started, browser, bench } = scene));

interface Stored {
  readonly world: {
    readonly name: string;
    readonly frameRate: number;
    readonly lives: number | null;
    readonly goal: object | null;
    readonly laws: readonly string[];
    readonly figure: { readonly images: Readonly<Record<string, readonly (readonly number[])[]>> } | null;
    readonly start: { readonly cell: readonly number[]; readonly facing: string };
    readonly games: readonly { readonly name: string; readonly keys: object }[] | undefined;
    readonly tiles: readonly { readonly id: string; readonly shape: { readonly kind: string } }[];
    readonly rooms: readonly { readonly fixtures: readonly { readonly id: string; readonly kind: string }[] }[];
  };
  readonly logs: Readonly<Record<string, string>>;
}
const stored = async (): Promise<Stored> => {
  await browser.untilText(".saving", (text) => text.startsWith("saved"));
  return started.api<Stored>("/worlds/deep-hall");
};
const tab = (name: string): Promise<void> => browser.press(".kit-head [role=tab]", name);
/** Types into a field of the Kit by its label. */
async function type(label: string, value: string): Promise<void> {
  const field = await browser.wait(
    () =>
      browser.driver.executeScript<WebElement>(
        "return document.getElementById([...document.querySelectorAll('.kit label')].find((l) => l.textContent === arguments[0])?.htmlFor ?? '')",
        label,
      ),
    `no ${label} in the Kit`,
  );
  await field.click();
  await field.sendKeys(Key.chord(Key.CONTROL, "a"), value, Key.ENTER);
}

it("an empty world is fenced in, and a start that is shut in is told with the cell that is better", async () => {
  await browser.driver.get(started.address);
  await (await browser.find("[aria-label='Name of the new world']")).sendKeys("Deep hall");
  const down = await browser.wait(() =>
    browser.driver.executeScript<WebElement>(
      "return document.getElementById([...document.querySelectorAll('.empty-world label')].find((l) => l.textContent === 'Down').htmlFor)",
    ),
  );
  await down.sendKeys(Key.chord(Key.CONTROL, "a"), "16");
  await browser.click(".empty-world .btn");
  await browser.untilText(".status", (text) => text.includes("No walker"));
  await bench.tile("Wall");
  await bench.key("l");
  for (const [from, to] of [
    [
      [0, 0],
      [19, 0],
    ],
    [
      [0, 15],
      [19, 15],
    ],
    [
      [0, 1],
      [0, 14],
    ],
    [
      [19, 1],
      [19, 14],
    ],
  ] as const)
    await bench.drag(from, to);
  // The start is inside already: a border alone shuts nobody in.
  expect((await stored()).world.start.cell).toEqual([10, 8]);
  expect(await browser.driver.executeScript("return document.querySelector('.start-finding')")).toBeNull();
  for (const [from, to] of [
    [
      [9, 7],
      [11, 7],
    ],
    [
      [9, 9],
      [11, 9],
    ],
    [
      [9, 8],
      [9, 8],
    ],
    [
      [11, 8],
      [11, 8],
    ],
  ] as const)
    await bench.drag(from, to);
  await browser.untilText(".start-finding", (text) => text.includes("starts shut in"));
  await browser.click(".start-finding .btn");
  await browser.wait(
    async () => (await browser.driver.executeScript("return document.querySelector('.start-finding')")) === null,
  );
  expect((await stored()).world.start.cell).toEqual([10, 6]);
});

it("its start, frame rate, lives, goal, laws and the walker's pictures are made in the page", async () => {
  await bench.key("n");
  await tab("Fixtures");
  await browser.press(".kinds button", "Marker");
  await bench.drag([17, 13]);
  await tab("World");
  await bench.drag([10, 6], [2, 2]);
  await bench.drag([2, 2]);
  expect((await stored()).world.start).toMatchObject({ cell: [2, 2], facing: "left" });
  await type("Frame rate", "50");
  await browser.click("[aria-label='Goal and lives'] input[type=checkbox]");
  await type("Lives", "2");
  await new Select(await browser.find("[aria-label='Goal and lives'] select")).selectByValue("marker marker-1");
  await browser.click("[aria-label='New law']");
  await browser.driver.actions().sendKeys("nev", Key.TAB, "outs", Key.TAB, Key.ENTER).perform();
  await browser.untilText(".laws .text-button", (text) => text.includes("never outside"));
  await browser.driver.findElement({ css: '[aria-label="Walker\'s pictures"] input[type=file]' }).sendKeys(walker);
  const sheet = await browser.find('[aria-label="Walker\'s pictures"] canvas.sheet');
  const { width, height } = await sheet.getRect();
  const at = (x: number, y: number) => ({
    x: Math.round(x * width),
    y: Math.round(y * height),
    origin: sheet as unknown as Origin,
  });
  await browser.driver.executeScript("arguments[0].scrollIntoView({ block: 'center' })", sheet);
  await browser.driver.actions().move(at(-0.45, -0.45)).press().move(at(0.45, 0.45)).release().perform();
  await browser.untilText('[aria-label="Walker\'s pictures"]', (text) => text.includes("Row 4"));
  expect(await axeFindings(browser)).toEqual([]);
  const { world } = await stored();
  expect(world).toMatchObject({
    name: "Deep hall",
    frameRate: 50,
    lives: 2,
    goal: { kind: "marker", fixture: "marker-1" },
    laws: ["never outside"],
  });
  expect(world.figure!.images["right"]).toEqual([
    [0, 0],
    [1, 0],
    [2, 0],
    [3, 0],
  ]);
  expect(Object.keys(world.figure!.images).sort()).toEqual(["down", "left", "right", "up"]);
});

it("forty beads are laid by one drag, numbered on, and a turned wall by another; one walks among them", async () => {
  await tab("Fixtures");
  await browser.press(".world-things .btn", "treasure");
  await browser.press(".kinds button", "Item");
  await browser.press("[aria-label='How many at once'] .btn", "Box");
  await bench.drag([4, 10], [11, 14]);
  await browser.untilText(".fixture-list", (text) => text.includes("treasure-40"));
  expect(await axeFindings(browser)).toEqual([]);
  await tab("Tiles");
  await bench.key("j");
  await bench.dragPixels([60, 40], [130, 90]);
  await browser.untilText(".wall-panel [role=status]", (text) => text.includes("new tiles"));
  expect(await axeFindings(browser)).toEqual([]);
  const { world } = await stored();
  expect(world.rooms[0]!.fixtures.filter(({ kind }) => kind === "item")).toHaveLength(40);
  expect(world.tiles.filter(({ id }) => id.startsWith("wall-cut-")).length).toBeGreaterThan(4);
  await bench.key("r");
  await bench.hold(Key.ARROW_DOWN, (_, y) => y >= 5);
  await bench.key(Key.ESCAPE);
  await browser.find(".keep-walk");
  await browser.press("button", "Discard");
});

it("what a game wrote down under its own names of keys is a log, and how it is read is remembered", async () => {
  await browser.click('.areas a[href*="/proofs"]');
  await browser.find(".log-drop");
  await browser.driver.findElement({ css: ".proofs input[type=file]" }).sendKeys(recording);
  await browser.untilText(".recording-keys", (text) => text.includes("WORK"));
  await new Select(await browser.find("#key-WORK")).selectByValue("A");
  await browser.untilText(".recording-log", (text) => text.includes("2 DA"));
  expect(await axeFindingsInBothThemes(browser)).toEqual([]);
  await browser.press(".bring-recording .btn-main", "Bring in 197 frames");
  await browser.untilText(".notice", (text) => text.includes("taken in as pump-hall-run"));
  const { world, logs } = await stored();
  expect(world.games).toMatchObject([{ name: "My game", keys: { GO_EAST: "R", WORK: "A" } }]);
  expect(logs["pump-hall-run"]).toContain("32 RD\n");
});
