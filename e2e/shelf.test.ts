import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { Key, By } from "selenium-webdriver";
import { afterAll, beforeAll, expect, it } from "vitest";
import { axeFindings } from "./accessible.ts";
import { BenchDriver } from "./bench-driver.ts";
import { Browser } from "./browser.ts";
import { Started } from "./started.ts";

const demo = path.resolve(import.meta.dirname, "../demo/saltglass-cistern");
const world = readFileSync(path.join(demo, "saltglass-cistern.world.json"), "utf8");
const round = readFileSync(path.join(demo, "logs/round-the-basin.inputs"), "utf8");
let folder: string;
let started: Started;
let browser: Browser;
let bench: BenchDriver;

beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-shelf-"));
  started = await Started.start();
  browser = await Browser.open();
  bench = new BenchDriver(browser);
});
afterAll(async () => {
  await browser?.close();
  await started?.stop();
  rmSync(folder, { recursive: true, force: true });
});

function file(name: string, text: string | Buffer): string {
  const at = path.join(folder, name);
  writeFileSync(at, text);
  return at;
}

const choose = async (...files: string[]): Promise<void> =>
  (await browser.driver.findElement(By.css(".bring-in input[type=file]"))).sendKeys(files.join("\n"));

/** Drops files as a browser reports them. */
async function drop(on: string, files: Record<string, string>): Promise<void> {
  await browser.driver.executeScript(
    `const data = new DataTransfer();
     for (const [name, text] of Object.entries(arguments[1])) data.items.add(new File([text], name));
     const target = document.querySelector(arguments[0]);
     for (const kind of ["dragenter", "dragover", "drop"]) target.dispatchEvent(new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: data }));`,
    on,
    files,
  );
}

const shelf = async (...texts: string[]): Promise<string> =>
  browser.untilText(".worlds", (text) => texts.every((each) => text.includes(each)));
const press = async (name: string): Promise<void> => (await browser.find(`[aria-label="${name}"]`)).click();
const revision = async (id: string): Promise<number> =>
  (await started.api<{ revision: number }>(`/worlds/${id}`)).revision;

it("files come in by button and by drop: a world, its logs, a changed file as one revision that undo takes back, a bundle", async () => {
  await browser.driver.get(started.address);
  await shelf("125 pass");
  const beds = world
    .replace('"id": "saltglass-cistern"', '"id": "filter-beds"')
    .replace('"name": "Saltglass Cistern"', '"name": "Filter beds"');
  await choose(file("filter-beds.world.json", beds));
  await shelf("Filter beds", "No logs yet. Walk through it once and keep the walk.");

  await drop('[data-world="filter-beds"] h2', {
    "Round the basin.inputs": round.replace("world saltglass-cistern\n", ""),
    "pressed.csv": "frame,keys\n1,U\n9,.\n",
  });
  await shelf("Filter beds5 rooms, 2 logs, revision 2", "7 pass");

  const edited = beds.replace('"speed": 2', '"speed": 3').replace('"arrive": "land"', '"arrive": "past"');
  await drop(".shelf-head", { "filter-beds.world.json": edited });
  await browser.untilText(
    ".notice",
    (text) => text === "Filter beds, revision 3: Main: speed 2 to 3; Main: arrive land to past.",
  );
  await shelf("3 fail", "Open at frame 6");
  await bench.key(Key.CONTROL, "z");
  await shelf("Filter beds5 rooms, 2 logs, revision 4");
  await bench.key(Key.CONTROL, Key.SHIFT, "z");
  await shelf("Filter beds5 rooms, 2 logs, revision 5", "3 fail");

  const bundle = Buffer.from(await (await fetch(`${started.address}/api/worlds/filter-beds/bundle.zip`)).arrayBuffer());
  await started.api("/worlds/filter-beds", undefined, "DELETE");
  await browser.driver.navigate().refresh();
  await browser.untilText(".deleted", (text) => text.includes("Filter beds"));
  await choose(file("filter-beds.keenpebble.zip", bundle));
  await shelf("Filter beds5 rooms, 2 logs, revision 1", "3 fail");
  expect(await axeFindings(browser)).toEqual([]);

  await drop(".shelf-head", { "filter-beds.world.json": edited.replace('"tileSize": 16', '"tileSize": 2') });
  await browser.untilText(".notice", (text) =>
    text.includes(
      "filter-beds.world.json: the world file is refused: line 6, column 3: tileSize: must be a whole number from 4 to 128, found 2. Nothing of it was kept.",
    ),
  );
  expect(await revision("filter-beds")).toBe(1);
  await drop(".shelf-head", { "stand.inputs": "keen-pebble-inputs 1\n---\n4 .\n" });
  await browser.untilText(".notice", (text) =>
    text.includes("the logs name no world; choose the one that they belong to"),
  );
  await drop(".shelf-head", { "notes.txt": "?" });
  await browser.untilText(".bring-map [role=status]", (text) =>
    text.includes("Not understood: line 1, column 1: is one line without numbers parted from each other"),
  );
  await browser.press(".bring-map .btn", "Cancel");
});

it("a room typed, or out of a text, a table or a picture, makes a world; names are shown as they are", async () => {
  await browser.driver.get(started.address);
  await shelf("Saltglass Cistern");
  const odd = "<img src=x onerror=alert(1)>";
  await (await browser.find("[aria-label='Name of the new world']")).sendKeys(odd);
  const area = await browser.find(".type-room textarea");
  await area.sendKeys(Key.chord(Key.CONTROL, "a"), "#####\n#.@.#\n#####");
  await browser.untilText(".type-room", (text) => text.includes('2:3 nothing explains "@"'));
  await area.sendKeys("\n\n@ = tile grate flags=rail");
  await browser.untilText(".type-room", (text) => text.includes("5 x 3, start 0,0"));
  await (await browser.find(".type-room .btn")).click();
  // It opens what was made.
  await browser.untilText(".world-switch", (text) => text.includes(odd));
  await (await browser.find(".top .home")).click();
  await shelf(`${odd}1 room, no logs, revision 1`);
  await drop(".shelf-head", { "deep-well.room.txt": "###\n#S#\n###\n\nS = start on floor", "grid.csv": "0,1\n1,2\n" });
  await shelf("Deep well1 room", "Grid1 room");
  expect(
    (await started.api<{ world: { tiles: unknown[]; rooms: { width: number }[] } }>("/worlds/grid")).world,
  ).toMatchObject({ tiles: { length: 3 }, rooms: [{ width: 2 }] });
  await press(`Rename ${odd}`);
  await (await browser.find(".naming")).sendKeys(Key.chord(Key.CONTROL, "a"), "Basin", Key.ENTER);
  await shelf("Basin1 room");
  // The Trying grounds come under the name that one types, with their logs, and are opened.
  await (await browser.find("[aria-label='Name of the new world']")).sendKeys("Yard");
  await browser.press(".grounds .btn", "Create world");
  await browser.untilText(".world-switch", (text) => text === "Yard");
  expect(await started.api("/worlds/yard")).toMatchObject({
    world: { rooms: { length: 9 } },
    logs: { "02-corner": expect.stringContaining("world yard") as string },
  });
  await (await browser.find(".top .home")).click();
  await shelf("Yard9 rooms");
  expect(await browser.driver.findElements(By.css("img:not(.drawn)"))).toEqual([]);
  expect(await axeFindings(browser)).toEqual([]);
});

it("a world is renamed, copied and taken off the shelf, each with undo, by keyboard too", async () => {
  await browser.driver.get(started.address);
  await shelf("Saltglass Cistern");
  await press("Rename Saltglass Cistern");
  const name = await browser.find(".naming");
  await name.sendKeys(Key.chord(Key.CONTROL, "a"), "Deep cistern", Key.ENTER);
  await shelf("Deep cistern5 rooms, 25 logs, revision 2", "name Saltglass Cistern to Deep cistern");
  await bench.key(Key.CONTROL, "z");
  await shelf("Saltglass Cistern5 rooms, 25 logs, revision 3");

  await press("Copy Saltglass Cistern");
  await shelf("Saltglass Cistern, copy5 rooms, 25 logs, revision 1");
  expect(
    (await started.api<{ logs: Record<string, string> }>("/worlds/saltglass-cistern-2")).logs["round-the-basin"],
  ).toContain("world saltglass-cistern-2\n");
  await bench.key(Key.CONTROL, "z");
  await browser.untilText(".worlds", (text) => !text.includes("copy5 rooms"));

  await browser.find("[data-world='saltglass-cistern'] .world-name");
  await browser.driver.executeScript(
    "document.querySelector('[data-world=\"saltglass-cistern\"] .world-name').focus()",
  );
  await bench.key(Key.DELETE);
  await browser.untilText(".deleted", (text) => text.includes("Saltglass Cisternjust now"));
  await press("Put Saltglass Cistern back");
  await shelf("Saltglass Cistern5 rooms, 25 logs, revision 3");
  await bench.key("/");
  await browser.driver.switchTo().activeElement().sendKeys("basin to the");
  await browser.untilText(".worlds", (text) => text.includes("Saltglass Cistern5 rooms"));
  await browser.driver.switchTo().activeElement().sendKeys("nowhere");
  await shelf("No world, room or log is called that.");
});

it("a right-click sets the walker down there; the walk is kept with that start", async () => {
  await browser.driver.get(`${started.address}/w/saltglass-cistern/bench?log=turn-in-time`);
  await bench.ready();
  const canvas = await browser.find(".field-canvas");
  const at = { x: Math.round((13 - 9.5) * 32), y: Math.round((9 - 7.5) * 32), origin: canvas as never };
  await browser.driver.actions().move(at).contextClick().perform();
  await browser.untilText(".status", (text) => text.includes("Walker 13,9"));
  await bench.hold(Key.ARROW_RIGHT, (x) => x >= 14);
  await bench.key(Key.ESCAPE);
  await (await browser.find(".keep-walk .title")).sendKeys("From the east bay", Key.ENTER);
  await browser.untilText(".saving", (text) => text.startsWith("saved"));
  await browser.wait(
    async () =>
      (await started.api<{ logs: Record<string, string> }>("/worlds/saltglass-cistern")).logs["from-the-east-bay"] !==
      undefined,
  );
  expect(
    (await started.api<{ logs: Record<string, string> }>("/worlds/saltglass-cistern")).logs["from-the-east-bay"],
  ).toMatch(/\nstart intake-hall 13 9 \w+\n/);
});
