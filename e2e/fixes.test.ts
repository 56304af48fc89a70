import { describe, expect, it } from "vitest";
import { Key } from "selenium-webdriver";
import { axeFindings } from "./accessible.ts";
import type { Application } from "./application.ts";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import { withSharedApplication } from "./with-application.ts";

let started: Application;
let browser: Browser;
let bench: BenchDriver;

withSharedApplication((scene) => ({ started, browser, bench } = scene));

/** Opens a log of the Trying grounds, in a copy of its own. */
const open = async (log: string): Promise<string> => {
  const id = await started.copy("trying-grounds");
  await browser.driver.get(`${started.address}/w/${id}/bench?log=${log}`);
  await bench.ready();
  await whole();
  return id;
};
const whole = (): Promise<string[]> =>
  bench.pebbles((pebbles) => pebbles.length > 0 && pebbles.every((pebble) => pebble.startsWith("passes")));
const broken = (): Promise<string[]> =>
  bench.pebbles((pebbles) => pebbles.some((pebble) => pebble.startsWith("fails")));
/** Presses the cure with these words, once it is offered. */
const cure = async (words: string): Promise<void> => {
  await browser.untilText(".findings", (text) => text.includes(words));
  await browser.press(".finding .cure", words);
};

describe("a mistake is found, its cure pressed, the pebble is whole again; undone, it is broken again", () => {
  it.each<[string, string, () => Promise<void>, string, string]>([
    [
      "a gap before the wall",
      "05-thin-wall",
      () => bench.choose("Response", "undo-axis"),
      "Stops 3 px before the wall, in 21 frames, first in frame 10: the whole step is taken back",
      "Response undo-axis to contact",
    ],
    [
      "a walker that sinks in",
      "05-thin-wall",
      () => bench.choose("Response", "ahead"),
      "px into what blocks it, in frame 10: tested 1 px ahead, moved 12",
      "Response ahead to contact",
    ],
    [
      "a speed that does not fit",
      "06-uneven-step",
      () => bench.choose("Arrive", "equal"),
      "Runs past the cell in 35 frames, first in frame 7: 3 px does not divide 20: 20 = 6 x 3 + 2",
      "Arrive equal to land",
    ],
    [
      "a turn that is lost",
      "02-corner",
      () => bench.number("Buffer", "0"),
      "A turn is lost in frame 21: pressed in frame 17, 4 frames before the choice; buffer is 0",
      "Buffer 0 to 4 frames",
    ],
    [
      "faster diagonals",
      "08-open-floor",
      () => bench.choose("Diagonal", "full"),
      "Faster diagonally in 31 frames, first in frame 41: 2.83 px a frame, evened 2",
      "Diagonal full to even",
    ],
  ])("%s", async (_what, log, spoil, finding, fixed) => {
    await open(log);
    await spoil();
    await broken();
    await browser.untilText(".findings", (text) => text.includes(finding));
    await cure(fixed);
    await whole();
    await browser.wait(
      async () => (await browser.driver.executeScript("return document.querySelector('.findings')")) === null,
    );
    await browser.driver.executeScript("document.activeElement.blur()");
    await bench.key(Key.CONTROL, "z");
    await broken();
    await browser.untilText(".findings", (text) => text.includes(finding));
    await bench.key(Key.CONTROL, "z");
    await whole();
  });

  it("a flag that nobody asks for", async () => {
    await open("07-reed-bed");
    await browser.press(".flag-toggle", "reeds");
    await broken();
    // Other rule sets still ask for reeds: only where none does, nobody is stopped by them.
    expect(await browser.driver.executeScript("return document.querySelectorAll('.finding').length")).toBe(0);
    await browser.driver.executeScript("document.activeElement.blur()");
    await bench.key("y");
    await browser.untilText(".mends", (text) => text.includes("Blocked by reeds too"));
    expect(await axeFindings(browser)).toEqual([]);
    await browser.press(".mend-list .cure", "Blocked by reeds");
    await whole();
  });
});

it("values tried are kept beside the setting with what the checks said; one click goes back", async () => {
  await open("01-straight-run");
  await bench.number("Speed x", "3");
  await whole();
  await bench.number("Speed x", "1");
  await broken();
  const tried =
    "return [...document.querySelectorAll('[aria-label=\"Speed x: tried in this visit\"] button')].map((b) => `${b.className} ${b.textContent}`)";
  expect(await browser.driver.executeScript(tried)).toEqual(["holds 2", "holds 3", "fails 1"]);
  await browser.click(`[aria-label="Speed x: tried in this visit"] button`);
  await whole();
});

it("a rule set is copied, renamed and changed; the other laid beside tells the first frame that differs; taken away, its log goes by the world's", async () => {
  const id = await open("01-straight-run");
  const menu = async (words: string): Promise<void> => {
    await (await browser.find(".rules-toggle")).click();
    await browser.untilText(".dropdown-menu.show", (text) => text.includes(words));
    await browser.press(".dropdown-menu.show .dropdown-item", words);
  };
  await menu("Copy Free");
  await browser.untilText(".rules-toggle", (text) => text.includes("Free, copy"));
  await menu("Rename Free, copy");
  await (await browser.find(".rules-name input")).sendKeys(Key.chord(Key.CONTROL, "a"), "Brisk", Key.ENTER);
  await browser.untilText(".rules-toggle", (text) => text.includes("Brisk"));
  await bench.number("Speed x", "3");
  await menu("Compare with Free");
  await browser.untilText(".beside", (text) => text.includes("First differs at frame 1"));
  await browser.click(".beside .link");
  await browser.untilText(".beside tbody", (text) => text.includes("Moved px3, 02, 0"));
  expect(await axeFindings(browser)).toEqual([]);
  const text = async (): Promise<string> =>
    (await started.api<{ logs: Record<string, string> }>(`/worlds/${id}`)).logs["01-straight-run"]!;
  await browser.wait(async () => (await text()).includes("\nrules free-2\n"));
  await menu("Delete Brisk");
  await browser.untilText(".rules-toggle", (told) => told.includes("Grid"));
  await browser.untilText(".notice", (told) => told.includes("01-straight-run: its rule set, now grid"));
  await browser.wait(async () => !(await text()).includes("\nrules "));
});

it("the body is changed by its handles and by numbers, and feels are measured anew", async () => {
  await open("01-straight-run");
  await browser.press(".kit-head [role=tab]", "Feel");
  await browser.untilText(".feel", (text) => /Right2px\/fr/.test(text));
  await bench.number("Speed x", "3");
  await browser.untilText(".feel", (text) => /Right3px\/fr\+1/.test(text));
  await browser.find(".feel .apexcharts-series");
  // The body begins at 2,2 of the walker, who stands at 20,20, and is 16x16: its lower right corner is dragged.
  await bench.dragPixels([38, 38], [34, 36]);
  await browser.untilText(".body-toggle", (text) => text.includes("12x14 at 2 2"));
  await browser.click(".body-toggle");
  await bench.number("Width", "10");
  await browser.untilText(".body-toggle", (text) => text.includes("10x14 at 2 2"));
  await (await browser.find(".body-editor .segments label:last-of-type")).click();
  await browser.untilText(".body-toggle", (text) => text.includes("4 probes"));
  expect(await axeFindings(browser)).toEqual([]);
});
