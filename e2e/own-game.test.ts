import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { unzipSync } from "fflate";
import { Key } from "selenium-webdriver";
import { expect, it } from "vitest";
import { axeFindings } from "./accessible.ts";
import type { Application } from "./application.ts";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import { withSharedApplication } from "./with-application.ts";

const folder = path.resolve(import.meta.dirname, "../demo/stand-in-game");
const text = (name: string): string => readFileSync(path.join(folder, name), "utf8");
let started: Application;
let browser: Browser;
let bench: BenchDriver;
withSharedApplication((scene) => ({ started, browser, bench } = scene));

const drop = (on: string, name: string, content: string): Promise<void> => browser.drop(on, [[name, content]]);
const tab = (name: string): Promise<void> => browser.press(".kit-head [role=tab]", name);

it("a game's trace is dropped, its mapping answered, and the first frame that differs is marked and explained", async () => {
  const world = { ...(JSON.parse(text("hall.world.json")) as object), games: [] };
  await browser.driver.get(started.address);
  await browser.find(".world-card");
  await drop(".shelf-head", "hall.world.json", JSON.stringify(world));
  await browser.untilText(".shelf", (shown) => shown.includes("Stand-in game"));
  await browser.driver.get(`${started.address}/w/stand-in-game/bench`);
  await browser.untilText(".status", (shown) => shown.includes("No walker"));
  await tab("Game");
  await browser.untilText(".game-panel", (shown) => shown.includes("Your own game"));
  await drop(".field", "trace-both-back.csv", text("trace-both-back.csv"));
  // All of it is guessed; one answer is put wrong, and right again: the path shows it.
  await browser.untilText(".modal-footer", (shown) => shown.includes("Bring in 273 frames as a log, and compare"));
  expect(await answers()).toEqual({ Unit: "px", "Names the": "centre", "y grows": "up", Tolerance: "0.5" });
  const path1 = await preview();
  await answer("y grows", "down");
  await browser.wait(async () => (await preview()) !== path1);
  await answer("y grows", "up");
  await browser.wait(async () => (await preview()) === path1);
  expect(await axeFindings(browser)).toEqual([]);
  await browser.press(".modal-footer .btn-main", "Bring in");
  await browser.press(".game-panel .link", "First differs at frame 71");
  await browser.untilText(".beside", (shown) =>
    shown.includes("ours: moved 2 px right, stopped by 7,5 Wall; yours: stood still"),
  );
  expect(await (await browser.find(".differs-mark")).getAttribute("aria-label")).toBe("First differs at frame 71");
  const place = await browser.untilText(".beside .differs", (shown) => shown.startsWith("Place"));
  expect(place).toMatch(/114, 94\s*112, 94/);
});

it("the rules that it goes by are found with the mistake's name; made a rule set, both walk alike", async () => {
  await browser.press(".game-panel button", "Look for them");
  await browser.untilText(
    ".found-rules li",
    (shown) => shown.includes("takes back both axes") && shown.includes("all 273 frames"),
  );
  await browser.untilText("[aria-label='Which rules am I?'] button", (shown) => shown.includes("Look for them"));
  await browser.click(".found-rules li [aria-label='Make a rule set of it']");
  await browser.untilText(".beside", (shown) => shown.includes("Your game walks as ours"));
  await browser.untilText(".rules-toggle", (shown) => shown.includes("As My game"));
  expect(await axeFindings(browser)).toEqual([]);
});

it("the game is mended and its file dropped again: under our rules all frames agree", async () => {
  await bench.key(Key.CONTROL, "z");
  await browser.untilText(".rules-toggle", (shown) => shown.includes("As the game"));
  await browser.untilText(".beside", (shown) => shown.includes("First differs at frame 71"));
  await drop(".kit", "trace.csv", text("trace.csv"));
  await browser.untilText(".game-panel", (shown) => shown.includes("Within 0.5 px in all 274 frames that both have"));
  // One number of ours changed: it differs again, at once.
  await bench.number("Speed x", "1");
  await browser.untilText(".game-panel", (shown) => shown.includes("First differs at frame"));
  await bench.number("Speed x", "2");
  await browser.untilText(".game-panel", (shown) => shown.includes("Within 0.5 px in all 274 frames"));
  await browser.press(".game-panel label", "Charts of distance and speeds");
  await browser.find(".apart-charts svg");
});

it("the rules are shown as a program that follows the rule set, and saved as a folder", async () => {
  await browser.driver.executeScript("document.activeElement.blur()");
  await bench.key(Key.SHIFT, "t");
  await browser.untilText(".program-text", (shown) => shown.includes("const SPEED_X = 512; // 2 px a frame"));
  await bench.number("Speed x", "3");
  await browser.untilText(".program-text", (shown) => shown.includes("const SPEED_X = 768; // 3 px a frame"));
  // Who points at a setting sees what it stands for.
  await browser.untilText(".program-text .lit", (shown) => shown.includes("SPEED_X"));
  await bench.number("Speed x", "2");
  expect(await axeFindings(browser)).toEqual([]);
  const saved = await browser.driver.executeAsyncScript<string>(
    `const done = arguments[0];
     const make = URL.createObjectURL;
     URL.createObjectURL = (blob) => {
       const reader = new FileReader();
       reader.onload = () => done(reader.result.split(",")[1]);
       reader.readAsDataURL(blob);
       return make.call(URL, blob);
     };
     [...document.querySelectorAll(".program button")].find((button) => button.textContent.includes("Save the folder")).click();`,
  );
  const home = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-home-"));
  for (const [name, bytes] of Object.entries(unzipSync(Buffer.from(saved, "base64")))) {
    mkdirSync(path.dirname(path.join(home, name)), { recursive: true });
    writeFileSync(path.join(home, name), bytes);
  }
  const { stdout } = spawnSync(process.execPath, [path.join(home, "conform.js")], { encoding: "utf8" });
  rmSync(home, { recursive: true });
  expect(stdout).toBe("1 of 1\n");
  await browser.click("[aria-label='Back to the field']");
  await browser.find(".field-canvas");
});

it("the page is as good in the dark, which it keeps, and the tab is called after what it shows", async () => {
  expect(await browser.driver.getTitle()).toBe("trace-both-back - Stand-in game - Bench - Keen Pebble");
  await browser.click("[aria-label='Dark theme']");
  expect(await axeFindings(browser)).toEqual([]);
  await browser.driver.navigate().refresh();
  await browser.find("html[data-theme='dark']");
  await (await browser.find('.areas a[href*="/proofs"]')).click();
  await browser.find(".board-head");
  expect(await axeFindings(browser)).toEqual([]);
  await (await browser.find(".areas a[href='/']")).click();
  await browser.find(".world-card");
  expect(await browser.driver.getTitle()).toBe("Shelf - Keen Pebble");
  expect(await axeFindings(browser)).toEqual([]);
  await browser.click("[aria-label='Light theme']");
  await browser.find("html[data-theme='light']");
});

/** What the dialog has guessed of the places. */
const answers = (): Promise<Record<string, string>> =>
  browser.driver.executeScript<Record<string, string>>(
    `return Object.fromEntries([...document.querySelectorAll(".recording-places .labelled")].flatMap((each) => {
       const select = each.querySelector("select");
       return select ? [[each.querySelector("label").textContent, select.value]] : [];
     }));`,
  );

/** Answers one of them. */
const answer = (label: string, value: string): Promise<void> =>
  browser.driver.executeScript(
    `const select = [...document.querySelectorAll(".recording-places .labelled")].find((each) => each.textContent.startsWith(arguments[0])).querySelector("select");
     Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, "value").set.call(select, arguments[1]);
     select.dispatchEvent(new Event("change", { bubbles: true }));`,
    label,
    value,
  );

/** The picture of the walk over the room. */
const preview = (): Promise<string> =>
  browser.driver.executeScript<string>("return document.querySelector('.path-preview canvas').toDataURL()");
