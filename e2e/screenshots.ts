import { mkdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { Key } from "selenium-webdriver";
import { BenchDriver } from "./bench-driver.ts";
import { Browser } from "./browser.ts";
import { Started } from "./started.ts";

const folder = path.resolve(import.meta.dirname, "../docs/screenshots");
mkdirSync(folder, { recursive: true });
const started = await Started.start();
const browser = await Browser.open();
const bench = new BenchDriver(browser);
const open = (query: string): Promise<void> =>
  browser.driver.get(`${started.address}/w/saltglass-cistern/bench?room=intake-hall&${query}`);
const take = (name: string): Promise<void> => browser.picture(path.join(folder, `${name}.png`));

try {
  await open("log=round-the-basin&f=101");
  await bench.ready();
  await take("bench");

  await bench.tile("Coping");
  await bench.drag([8, 3]);
  await bench.pebbles((pebbles) => pebbles.some((pebble) => pebble.startsWith("fails")));
  for (const key of [Key.HOME, ".", "."]) await bench.key(key);
  await browser.untilText("[aria-label=Contact]", (text) => text.includes("stopped the walker"));
  await take("bench-failing-check");
  await bench.key(Key.CONTROL, "z");
  await browser.untilText(".saving", (text) => text.startsWith("saved"));

  await open("log=turn-in-time&f=24");
  await bench.ready();
  await bench.key("r");
  await bench.hold(Key.ARROW_RIGHT, (x) => x >= 7);
  await take("bench-walking");
  await bench.key(Key.ESCAPE);
  // A walk that is not kept would be offered again in the pictures that follow.
  await browser.find(".keep-walk");
  await browser.press("button", "Discard");

  await open("log=round-the-basin&f=101");
  await bench.ready();
  await bench.tile("Coping");
  await browser.click(".text-button");
  for (const key of ["x", "]", "]"]) await bench.key(key);
  await bench.point([13, 6]);
  await take("bench-tiles");

  await bench.key("x");
  await browser.click(".top [aria-label='Dark theme']");
  await take("bench-dark");
  await browser.click(".top [aria-label='Light theme']");
  await browser.press(".kit-head [role=tab]", "World");
  await browser.find(".walking-images");
  await take("bench-world");

  await open("log=01-the-whole-way&f=330");
  await bench.ready();
  await browser.press(".kit-head [role=tab]", "Fixtures");
  await browser.press(".fixture-list button", "sluice-1");
  await browser.untilText(".chosen-fixture", (text) => text.includes("Door"));
  await take("bench-fixtures");
  // A frame in which it chose: its ways with their distances stand in the Kit and on the field.
  await browser.driver.get(`${started.address}/w/saltglass-cistern/bench?log=21-the-moth-comes-nearer&f=67`);
  await bench.ready();
  await browser.press(".kit-head [role=tab]", "Actors");
  await browser.press(".fixture-list button", "Lamp moth");
  await browser.untilText(".actor-account", (text) => text.includes("comes nearer"));
  await take("bench-actors");
  await browser.driver.get(`${started.address}/w/saltglass-cistern/floorplan?log=01-the-whole-way&f=1050`);
  await browser.untilText(".memory", (text) => text.includes("key-1"));
  await browser.click(".re-entry .btn");
  await browser.untilText(".re-entry", (text) => text.includes("frame 1050 to"));
  await take("floorplan");

  await browser.driver.actions().sendKeys(Key.ESCAPE, Key.ESCAPE).perform();

  await browser.driver.get(`${started.address}/w/saltglass-cistern/reach`);
  await browser.untilText(".reach-sentence p", (text) => text.includes("things"));
  await browser.untilText(".way-steps", (text) => text.includes("Win"));
  await browser.find(".reach .apexcharts-series");
  await take("reach");
  const lost = await browser.find(".reach-lost li:nth-child(8) button");
  await browser.driver.executeScript("arguments[0].scrollIntoView({ block: 'center' })", lost);
  await lost.click();
  await browser.untilText(".reach-way h2", (text) => text.startsWith("Stuck"));
  await take("reach-stuck");

  // A wall, and then another speed: the board says which logs each broke.
  await browser.driver.get(`${started.address}/w/saltglass-cistern/bench?room=intake-hall&log=round-the-basin&f=101`);
  await bench.ready();
  await browser.untilText(".holding", (text) => text === "25");
  const revision = async (): Promise<number> =>
    Number(/\d+/.exec(await browser.untilText(".saving", (text) => text.startsWith("saved")))![0]);
  const proven = async (n: number): Promise<void> => {
    await browser.wait(async () => {
      const { proofs } = await started.api<{ proofs: { revision: number; state: string } }>(
        "/worlds/saltglass-cistern/proofs",
      );
      return proofs.revision === n && proofs.state === "done";
    });
  };
  let at = await revision();
  await bench.tile("Mossy stone");
  for (const cell of [
    [4, 5],
    [9, 6],
    [16, 8],
  ] as const) {
    await bench.drag(cell);
    await browser.untilText(".saving", (text) => text === `saved, revision ${at + 1}`);
    await proven(++at);
  }
  await bench.number("Buffer", "0");
  await browser.untilText(".saving", (text) => text === `saved, revision ${at + 1}`);
  await proven(at + 1);
  await (await browser.find('.areas a[href*="/proofs"]')).click();
  await browser.untilText(".board-head", (text) => text.includes(`Path since ${at}`));
  await browser.click(".failing-row .board-name button");
  await browser.untilText(".detail-says", (text) => text.includes("Change"));
  await browser.driver.executeScript("document.activeElement.blur()");
  await bench.key("b");
  await browser.untilText(".broke", (text) => text.includes("broke it"));
  await browser.untilText(".reach-strip [role=status]", (text) => text.endsWith("hold"));
  await take("proofs");

  await (await browser.find('.areas a[href*="/bench"]')).click();
  await bench.number("Speed", "3");
  await bench.choose("Arrive", "equal");
  await (await browser.find('.areas a[href*="/proofs"]')).click();
  await browser.driver.executeScript("document.activeElement.blur()");
  await bench.key("w");
  await browser.driver.executeScript("[...document.querySelectorAll('.detail-foot .btn')].at(-1).click()");
  await browser.untilText(".wander [role=status] p", (text) => text.startsWith("2000 of"));
  await browser.untilText(".reach-strip [role=status]", (text) => text.endsWith("hold"));
  await take("proofs-wander");
  await bench.key(Key.CONTROL, "z");
  await bench.key(Key.CONTROL, "z");
  await bench.key(Key.CONTROL, "z");
  await browser.untilText(".holding", (text) => text === "25");
  await browser.driver.get(`${started.address}/w/saltglass-cistern/bench?log=20-past-the-crab&f=60`);
  await bench.ready();
  await bench.key(Key.SHIFT, "f");
  await browser.driver.actions().sendKeys("The crab comes out of the water a frame too early.", Key.ENTER).perform();
  await browser.untilText(".notice", (text) => text.includes("is in the Journal"));
  await (await browser.find('.areas a[href*="/journal"]')).click();
  await browser.untilText(`[data-revision="${at + 1}"]`, (text) => text.includes("buffer"));
  await browser.driver.executeScript(`document.querySelector('[data-note="${at + 1}"]').click()`);
  await browser.driver.actions().sendKeys("Without the buffer the early turn is lost. Back again.").perform();
  await browser.driver.executeScript("document.activeElement.blur()");
  await browser.untilText(`[data-revision="${at + 1}"] .note`, (text) => text.startsWith("Without"));
  await browser.untilText(`[data-revision="${at + 3}"]`, (text) => text.includes("25 hold"));
  await take("journal");

  await browser.click(".playtest input");
  const address = await browser.untilText(".playtest a", (text) => text.startsWith("http"));
  await browser.driver.get(address);
  await browser.find(".play-field[data-walker]");
  await browser.press("header button", "Say what you think");
  await (await browser.find(".tell input")).sendKeys("Ada");
  await (await browser.find(".tell textarea")).sendKeys("I looked for the crank for a minute.");
  await take("playtest");

  const standIn = path.resolve(import.meta.dirname, "../demo/stand-in-game");
  const dropped = (on: string, name: string): Promise<void> =>
    browser.drop(on, [[name, readFileSync(path.join(standIn, name))]]);
  await browser.driver.get(started.address);
  await browser.find(".world-card");
  await dropped(".shelf-head", "hall.world.json");
  await browser.untilText(".shelf", (text) => text.includes("Stand-in game"));
  await browser.driver.get(`${started.address}/w/stand-in-game/bench`);
  await browser.untilText(".status", (text) => text.includes("No walker"));
  await browser.press(".kit-head [role=tab]", "Game");
  await dropped(".kit", "trace-both-back.csv");
  await browser.press(".game-panel .link", "First differs at frame 71");
  await browser.press(".game-panel button", "Look for them");
  await browser.untilText("[aria-label='Which rules am I?'] button", (text) => text.includes("Look for them"));
  await browser.driver.executeScript(
    "document.querySelector('.notices button')?.click(); document.querySelector('.both-feels').scrollIntoView()",
  );
  await take("own-game");
  await browser.driver.executeScript("document.activeElement.blur()");
  await bench.key(Key.SHIFT, "t");
  await browser.untilText(".program-text", (text) => text.includes("const SPEED_X"));
  await bench.choose("Diagonal", "even");
  await browser.untilText(".program-text .lit", (text) => text.includes("181"));
  await take("rules-as-program");

  await browser.driver.get(started.address);
  await browser.untilText('[data-world="saltglass-cistern"]', (text) => text.includes("125 pass"));
  // The cards tell what the list knows at once; their pictures come after.
  const drawn =
    "return [...document.querySelectorAll('.miniature')].every((canvas) => canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height).data.some((part) => part !== 0))";
  await browser.wait(() => browser.driver.executeScript(drawn), "a world without its picture");
  await take("shelf");

  const elsewhere = path.resolve(import.meta.dirname, "../demo/from-elsewhere");
  const files = ["pump_hall.c", "tiles.png"].map((name) => path.join(elsewhere, name));
  await browser.driver.findElement({ css: ".bring-in input[type=file]" }).sendKeys(files.join("\n"));
  await browser.untilText(".map-kinds", (text) => text.includes("Kind"));
  await browser.find(".map-preview canvas");
  await browser.driver.executeScript("document.querySelector('.map-kinds tr:nth-child(3) input').click()");
  await browser.wait(() =>
    browser.driver.executeScript("return document.querySelectorAll('.map-kinds input:checked').length === 2"),
  );
  await take("bring-map");
} finally {
  await browser.close();
  await started.stop();
}
