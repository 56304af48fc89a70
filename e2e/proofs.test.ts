import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, expect, it } from "vitest";
import type { WebElement } from "selenium-webdriver";
import { Key } from "selenium-webdriver";
import { axeFindings } from "./accessible.ts";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import type { Started } from "./started.ts";
import { withApplication } from "./with-application.ts";

let started: Started;
let browser: Browser;
let bench: BenchDriver;
const folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-proofs-"));

withApplication((scene) => {
  ({ started, browser, bench } = scene);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const copy = (): Promise<string> => started.copy("saltglass-cistern");
const logs = async (id: string): Promise<Readonly<Record<string, string>>> =>
  (await started.api<{ logs: Record<string, string> }>(`/worlds/${id}`)).logs;
const logUntil = async (id: string, log: string, fits: (text: string) => boolean): Promise<string> => {
  await browser.wait(async () => fits((await logs(id))[log] ?? ""), `log ${log} did not become as wanted`);
  return (await logs(id))[log]!;
};
const press = (css: string, words: string): Promise<void> => browser.press(css, words);
const menu = async (words: string): Promise<void> => {
  await (await browser.find("[aria-label='More about this log']")).click();
  await browser.untilText(".dropdown-menu.show", (text) => text.includes(words));
  // With the mouse itself: what has the keyboard afterwards depends on it.
  await (
    await browser.driver.executeScript<WebElement>(
      "return [...document.querySelectorAll('.dropdown-menu.show .dropdown-item')].find((each) => each.textContent.includes(arguments[0]))",
      words,
    )
  ).click();
};
const area = async (name: string): Promise<void> => {
  await (await browser.find(`.areas a[href*="/${name}"]`)).click();
  // Keys go to the area that is shown.
  await browser.find(`.area.${name}`);
};
const letGo = (): Promise<void> => browser.driver.executeScript("document.activeElement.blur()");
const row = (log: string): Promise<string> =>
  browser.driver.executeScript<string>(
    "return document.querySelector(`[data-log='${arguments[0]}']`)?.textContent ?? ''",
    log,
  );
const rowUntil = (log: string, fits: (text: string) => boolean): Promise<boolean> =>
  browser.wait(async () => fits(await row(log)), `the row of ${log} did not become as wanted`);
const openBench = async (id: string, query: string): Promise<void> => {
  await browser.driver.get(`${started.address}/w/${id}/bench?${query}`);
  await bench.ready();
};
const saved = (revision: number): Promise<string> =>
  browser.untilText(".saving", (text) => text === `saved, revision ${revision}`);
const whole = (): Promise<string> => browser.untilText(".holding", (text) => text === "25");

it("a world broken by painting shows on the board; the frame is opened, what broke it named; undone, the board is whole again", async () => {
  const id = await copy();
  await openBench(id, "log=round-the-basin&f=60");
  await whole();
  await bench.tile("Salt brick");
  await bench.drag([4, 7]);
  await browser.untilText(".holding", (text) => text !== "25");
  await saved(2);
  await area("proofs");
  // Failing logs come first, and say from which frame their path is another one.
  await browser.untilText(".board-head", (text) => text.includes("Path since 1"));
  await rowUntil("round-the-basin", (text) => text.includes("fails, from"));
  await rowUntil("18-along-the-wall", (text) => text.includes("same"));
  await press(".segments label", "Failing");
  await browser.click("[data-log='round-the-basin'] .board-name button");
  await browser.untilText(
    ".detail-says",
    (text) =>
      text.includes("Expectedcell 4 3, in some frame up to 72") &&
      text.includes("Seencell 4 8") &&
      text.includes("ChangeIntake hall: 1 cell"),
  );
  await browser.untilText(".detail-foot", (text) => text.includes("Open at frame 72"));
  await letGo();
  await bench.key("b");
  await browser.untilText(
    ".broke",
    (text) => text.includes("Revision 2 broke it") && text.includes("Intake hall: 1 cell"),
  );
  await bench.key("g");
  await browser.untilText(".detail-foot .active", (text) => text === "Ghost of 1");
  expect(await axeFindings(browser)).toEqual([]);
  await letGo();
  await bench.key(Key.ENTER);
  await browser.untilText(".beside", (text) => text.includes("Revision 1") && text.includes("First differs at frame"));
  expect(await browser.driver.getCurrentUrl()).toMatch(/\/bench\?.*log=round-the-basin&f=72/);
  await bench.key(Key.CONTROL, "z");
  await area("proofs");
  await whole();
  await browser.untilText(".empty, .board-none", (text) => text.includes("No log is like that"));
  await press(".segments label", "All");
  await rowUntil("round-the-basin", (text) => text.includes("same") || !text.includes("fails"));
  // The server runs the saved revision by itself, and all hold there too.
  await saved(3);
  await browser.untilText(".status", (text) => text.includes("Server run of revision 3: all hold"));
});

it("checks are added from what is true, typed with completion, refused in place, moved by drag and taken away", async () => {
  const id = await copy();
  const log = "02-crank-opens-sluice";
  await openBench(id, `log=${log}&f=244`);
  await bench.pebbles((pebbles) => pebbles.length === 6);
  await bench.key("a");
  await browser.untilText(
    ".writer-offers",
    (text) => text.includes("by 244 taken crank-1") && text.includes("at 244 holds brass-crank"),
  );
  await press(".writer-offers button", "by 244 taken crank-1");
  await bench.pebbles((pebbles) => pebbles.includes("passes at frame 244: by 244 taken crank-1"));

  await bench.key("a");
  const field = await browser.find(".writer-field input");
  await field.sendKeys("by 300 op");
  await browser.untilText(".writer-words", (text) => text === "open");
  await field.sendKeys(Key.TAB, "slui-1 ");
  await browser.untilText(".writer-fault u", (text) => text === "slui-1");
  await browser.untilText(".writer-says", (text) => text.startsWith("expected a door: sluice-1"));
  await field.sendKeys(Key.BACK_SPACE, Key.BACK_SPACE, Key.BACK_SPACE, Key.TAB);
  await browser.untilText(".writer-says", (text) => text === "fails at frame 300; seen: closed");
  expect(await axeFindings(browser)).toEqual([]);
  await field.sendKeys(Key.ENTER);
  await bench.pebbles((pebbles) => pebbles.includes("fails at frame 300: by 300 open sluice-1; seen: closed"));

  // Dragged to the right the same pebble becomes whole: the sluice opens a little later.
  const pebble = await browser.find("[aria-label*='by 300 open sluice-1']");
  await browser.driver
    .actions()
    .move({ origin: pebble })
    .press()
    .move({ x: 60, y: 0, origin: pebble })
    .move({ x: 150, y: 0, origin: pebble })
    .release()
    .perform();
  const dragged = await bench.pebbles((pebbles) =>
    pebbles.some((told) => /^passes at frame \d+: by 3\d\d open sluice-1$/.test(told)),
  );
  expect(dragged.filter((told) => told.includes("open sluice-1"))).toHaveLength(2);
  await bench.key(Key.CONTROL, "z");
  await bench.pebbles((pebbles) => pebbles.some((told) => told.startsWith("fails at frame 300")));
  await browser.driver.executeScript("document.querySelector(\"[aria-label*='by 300 open']\").focus()");
  await bench.key(Key.ALT, Key.ARROW_LEFT);
  await bench.pebbles((pebbles) => pebbles.some((told) => told.startsWith("fails at frame 299: by 299 open")));
  await browser.driver.executeScript("document.querySelector(\"[aria-label*='by 299 open']\").focus()");
  await bench.key(Key.DELETE);
  await bench.pebbles((pebbles) => pebbles.length === 7 && pebbles.every((told) => told.startsWith("passes")));
  await logUntil(
    id,
    log,
    (text) => text.includes("check by 244 taken crank-1") && !text.includes("open sluice-1\ncheck by"),
  );
});

it("a log is cut, gone on from, held until a place and back, and typed as text with what is not in order at its line", async () => {
  const id = await copy();
  await openBench(id, "log=turn-in-time&f=24");
  await bench.key(Key.SHIFT, "x");
  await browser.untilText(".frame-count", (text) => text.startsWith("24of 24"));
  await bench.key(Key.SHIFT, "w");
  await bench.hold(Key.ARROW_DOWN, (_x, y) => y >= 13);
  await bench.key(Key.ESCAPE);
  await press(".keep-walk .btn", "Keep in this log");
  await logUntil(
    id,
    "turn-in-time",
    (text) => /\n20 R\n2 D\n2 \.\n(\d+ \.\n)?\d+ D\n/.test(text) || /\n20 R\n2 D\n\d+ \.\n\d+ D\n/.test(text),
  );

  await openBench(id, "log=turn-in-time&f=10");
  await bench.key("d");
  await (await browser.find("[aria-label='More about frames 1 to 20']")).click();
  await browser.untilText(".dropdown-menu.show", (text) => text.includes("cell 7 12"));
  await press(".dropdown-menu.show .dropdown-item", "cell 7 12");
  await logUntil(id, "turn-in-time", (text) => text.includes("120 R until cell 7 12"));
  await browser.click(".log-row.on .btn-icon");
  await browser.untilText(".dropdown-menu.show", (text) => /Back to \d+ frames/.test(text));
  await press(".dropdown-menu.show .dropdown-item", "Back to");
  await logUntil(id, "turn-in-time", (text) => !text.includes("until"));

  await press(".log-side .segments label", "Text");
  const field = await browser.find("[aria-label='Log text']");
  await field.sendKeys(Key.chord(Key.CONTROL, Key.END), "12 X\n");
  await browser.untilText(
    ".log-text-says",
    (text) => text.includes("The log stays as it was last") && text.includes("expected keys"),
  );
  expect(
    await browser.driver.executeScript("return document.querySelector('.log-text .faulty').textContent.trim()"),
  ).toMatch(/^\d+$/);
  expect(await axeFindings(browser)).toEqual([]);
  await field.sendKeys(Key.BACK_SPACE, Key.BACK_SPACE, "L\n");
  await logUntil(id, "turn-in-time", (text) => text.endsWith("12 L\n"));
});

it("logs are renamed, copied, taken away with undo, and brought in as files: all of a drop or none", async () => {
  const id = await copy();
  await browser.driver.get(`${started.address}/w/${id}/proofs?log=turn-in-time`);
  await whole();
  await menu("Rename its file");
  await browser.driver.executeScript("document.querySelector('.detail-form input').select()");
  await browser.driver.actions().sendKeys("early-turn", Key.ENTER).perform();
  await rowUntil("early-turn", (text) => text.includes("early-turn.inputs"));
  await menu("Copy this log");
  await browser.untilText(".holding", (text) => text === "26");
  await browser.untilText(".detail-head", (text) => text === "A turn pressed early, copy");
  await menu("Delete this log");
  await whole();
  await letGo();
  await bench.key(Key.CONTROL, "z");
  await browser.untilText(".holding", (text) => text === "26");

  const write = (name: string, text: string): string => {
    writeFileSync(path.join(folder, name), text);
    return path.join(folder, name);
  };
  const good = write("stand.inputs", "keen-pebble-inputs 1\ntitle Stand\ncheck end cell 4 12\n---\n4 .\n");
  const csv = write("pressed.csv", "frame,keys\n1,U\n9,.\n");
  const bad = write("bad.inputs", "keen-pebble-inputs 1\n---\n4 ?\n");
  const input = await browser.driver.executeScript<{ sendKeys: (text: string) => Promise<void> }>(
    "return document.querySelector('[aria-label=\"Logs to take in\"]')",
  );
  await input.sendKeys(`${good}\n${bad}`);
  await browser.untilText(
    ".notice",
    (text) => text.includes("bad.inputs is refused: line 3") && text.includes("None of the files was taken in"),
  );
  await input.sendKeys(`${good}\n${csv}`);
  await browser.untilText(".notice", (text) => text.includes("2 logs taken in: stand, pressed"));
  await browser.untilText(".holding", (text) => text === "28");
  expect(await logUntil(id, "pressed", (text) => text !== "")).toContain("---\n8 U\n1 .\n");
});

it("a walk is accepted with a reason, told apart once it is another one; the journal says so, is noted, and gives a revision back", async () => {
  const id = await copy();
  await browser.driver.get(`${started.address}/w/${id}/proofs?log=turn-in-time`);
  await whole();
  await menu("Accept this walk");
  await browser.wait(
    () => browser.driver.executeScript<boolean>("return document.activeElement.matches('.detail-form input')"),
    "the reason is not asked for",
  );
  await browser.driver.actions().sendKeys("the turn feels right", Key.ENTER).perform();
  await browser.untilText(".detail-says", (text) => text.includes("Acceptedwalks just so: the turn feels right"));
  await saved(2);
  await openBench(id, "log=turn-in-time&f=10");
  await bench.number("Speed", "4");
  await saved(3);
  await area("proofs");
  await browser.untilText(".detail-says", (text) => text.includes("another walk than the accepted one"));
  await press(".detail-says .link", "show it as ghost");
  await area("bench");
  await browser.untilText(
    ".beside",
    (text) => text.includes("Accepted at revision 2") && text.includes("First differs at frame 1"),
  );

  await area("journal");
  await browser.untilText("[data-revision='3']", (text) => text.includes("Main: speed 2 to 4"));
  await browser.untilText("[data-revision='3'] .proofs-said", (text) => /^\d+ of 25 hold$/.test(text));
  await browser.untilText(
    "[data-revision='2']",
    (text) =>
      text.includes("log turn-in-time: accepted as it walks, the turn feels right") && text.includes("all 25 hold"),
  );
  await browser.click(`[data-note="3"]`);
  await browser.driver.actions().sendKeys("Too quick for the basin.").perform();
  await letGo();
  await browser.untilText("[data-revision='3'] .note", (text) => text === "Too quick for the basin.");
  expect(await axeFindings(browser)).toEqual([]);
  await browser.click("[data-revision='2'] .acts .btn:last-child");
  await browser.untilText(
    "[data-revision='4']",
    (text) => text.includes("Main: speed 4 to 2") && text.includes("Back to revision 2."),
  );
  await whole();
});

it("a fault of the shown frame is noted with its picture, an opinion is written, and both stand in the Journal by day", async () => {
  const id = await copy();
  await openBench(id, "log=turn-in-time&f=24");
  await bench.key(Key.SHIFT, "f");
  await browser.driver.actions().sendKeys("Turns a frame late.", Key.ENTER).perform();
  await browser.untilText(".notice", (text) => text.includes("The fault in frame 24 is in the Journal."));
  await area("journal");
  await browser.untilText(".entry", (text) => text.includes("Turns a frame late."));
  await browser.wait(
    () => browser.driver.executeScript<boolean>("return document.querySelector('.entry img')?.naturalWidth > 100"),
    "the picture is not shown",
  );
  await press(".new-entry label", "Opinion");
  await (await browser.find(".new-entry textarea")).sendKeys("Feels fair.", Key.chord(Key.CONTROL, Key.ENTER));
  await browser.untilText(".entry.opinion", (text) => text.includes("Feels fair."));
  expect(await axeFindings(browser)).toEqual([]);
  const markdown = await (await fetch(`${started.address}/api/worlds/${id}/journal.md`)).text();
  expect(markdown).toContain("### Fault, at revision 1, log turn-in-time, frame 24");
  await press(".entry.fault .link", "turn-in-time.inputs, frame 24");
  await browser.untilText(".frame-count", (text) => text.startsWith("24"));
});

it("the board is sorted by a column and grouped by tag, and several logs are tagged and deleted at once, with one undo each", async () => {
  const id = await copy();
  await browser.driver.get(`${started.address}/w/${id}/proofs`);
  await whole();
  await press(".column-head", "Frames");
  await press(".column-head", "Frames");
  await letGo();
  await bench.key(Key.HOME);
  await browser.untilText(".detail-head h2", (text) => text === "Patrol of the Intake hall");
  await press(".proof-tools .btn", "By tag");
  await browser.untilText(".board-tag", (text) => text === "actors 3 logs");
  await browser.driver
    .actions()
    .click(await browser.find("[data-log='20-past-the-crab'] button"))
    .keyDown(Key.CONTROL)
    .click(await browser.find("[data-log='22-past-the-newt'] button"))
    .keyUp(Key.CONTROL)
    .perform();
  await browser.untilText(".detail-head h2", (text) => text === "2 logs chosen");
  await (await browser.find(".many-logs form input")).sendKeys("timed", Key.ENTER);
  await browser.untilText(".tags-of-many", (text) => text.includes("timed"));
  expect(await axeFindings(browser)).toEqual([]);
  await logUntil(id, "22-past-the-newt", (text) => text.includes("tag timed"));
  await press(".detail-foot .btn", "Delete 2 logs");
  await browser.untilText(".holding", (text) => text === "23");
  await letGo();
  await bench.key(Key.CONTROL, "z");
  await whole();
  await bench.key(Key.CONTROL, "z");
  await logUntil(id, "20-past-the-crab", (text) => !text.includes("tag timed"));
});

it("random walks in the page find a leg that never ends, and keep it as a short log that fails", async () => {
  const id = await copy();
  await openBench(id, "log=turn-in-time&f=10");
  await bench.number("Speed", "3");
  await bench.choose("Arrive", "equal");
  await area("proofs");
  await letGo();
  await bench.key("w");
  await press(".detail-foot .btn", "Start");
  await browser.untilText(
    ".wander-found",
    (text) => text.includes("is on a leg that never ends") && /in frame \d+.*seed \d+/.test(text),
  );
  await browser.untilText(".wander [role=status] p", (text) => text.startsWith("2000 of 2000 walks"));
  expect(await axeFindings(browser)).toEqual([]);
  await press(".wander-found .btn", "Keep it as a log");
  await browser.untilText(".detail-head", (text) => text.includes("is on a leg that never ends"));
  await browser.untilText(".detail-checks", (text) => text.includes("always aligned"));
  const kept = Object.entries(
    await (async () => {
      await browser.wait(async () => Object.keys(await logs(id)).some((log) => log.startsWith("random-walk-")));
      return logs(id);
    })(),
  ).find(([log]) => log.startsWith("random-walk-"))!;
  expect(kept[1]).toContain("check always aligned\n---\n");
});

it("with the database stopped the page proves on by itself; once it is back, the server's proofs and the Journal come by themselves", async () => {
  const id = await copy();
  await openBench(id, "log=round-the-basin&f=60");
  await whole();
  await area("proofs");
  await browser.untilText(".status", (text) => text.includes("Server run of revision 1: all hold"));
  started.postgres.stop("immediate");
  // As when one comes back to the tab: the server's word is asked for anew, and refused.
  await browser.driver.executeScript("document.dispatchEvent(new Event('visibilitychange'))");
  await browser.untilText(".status", (text) =>
    text.includes("The server does not answer; this page's own proofs go on"),
  );
  await press(".proofs .btn", "Run on the server");
  await browser.untilText(
    ".notice",
    (text) => text.includes("could not be asked") && text.includes("Those of this page go on."),
  );
  await area("bench");
  await bench.number("Speed", "4");
  await browser.untilText(".holding", (text) => text !== "25");
  await area("journal");
  await browser.untilText(".journal", (text) => text.includes("The journal cannot be read"));
  started.postgres.restart();
  await browser.untilText(
    "[data-revision='2']",
    (text) => text.includes("Main: speed 2 to 4") && / of 25 hold/.test(text),
  );
  await area("proofs");
  await browser.untilText(".status", (text) => text.includes("Server run of revision 2"));
});
