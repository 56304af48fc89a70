import { Key } from "selenium-webdriver";
import { expect, it } from "vitest";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import type { Started } from "./started.ts";
import { withApplication } from "./with-application.ts";

let started: Started;
let browser: Browser;
let bench: BenchDriver;
withApplication((scene) => ({ started, browser, bench } = scene), { proves: false });

/** The steps of the guide's first minute, each done in one way. */
interface Way {
  readonly open: () => Promise<void>;
  readonly record: () => Promise<void>;
  readonly stop: () => Promise<void>;
  readonly keep: () => Promise<void>;
  /** Makes the walker very slow: however long the key was held, it does not come as far. */
  readonly slow: () => Promise<void>;
  /** Goes to the frame that breaks the check. */
  readonly look: () => Promise<void>;
}

const clickOn = async (css: string): Promise<void> => (await browser.find(css)).click();
const world = '[data-world="saltglass-cistern"]';

const mouse: Way = {
  open: () => clickOn(`${world} .world-foot .btn`),
  record: () => clickOn("[aria-label='Walk and record']"),
  stop: () => clickOn("[aria-label='Stop walking']"),
  keep: () => clickOn(".keep-walk [type=submit]"),
  slow: async () => {
    // Numbers are dragged by their names.
    const label = await browser.wait(() =>
      browser.driver.executeScript<never>(
        "return [...document.querySelectorAll('.anatomy label')].find((each) => each.textContent === 'Speed')",
      ),
    );
    const drag = browser.driver.actions().move({ origin: label }).press();
    for (let i = 0; i < 4; i++) drag.move({ origin: "pointer" as never, x: -4, y: 0 });
    await drag.release().perform();
  },
  look: () => clickOn(".lane-pebble[aria-label^='fails']"),
};

const keys: Way = {
  open: async () => {
    // The one that is shown as chosen is opened.
    for (let i = 0; i < 5; i++) {
      await bench.key(Key.ARROW_DOWN);
      if (await browser.driver.executeScript<boolean>(`return document.activeElement.closest('${world}') !== null`))
        break;
    }
    await bench.key(Key.ENTER);
  },
  record: () => bench.key("r"),
  stop: () => bench.key(Key.ESCAPE),
  keep: () => bench.key(Key.ENTER),
  slow: async () => {
    await tabTo(
      "document.querySelector(`.anatomy label[for='${CSS.escape(document.activeElement.id)}']`)?.textContent === 'Speed'",
    );
    await browser.driver.actions().sendKeys("0.125", Key.ENTER).perform();
  },
  look: async () => {
    await tabTo("document.activeElement.matches(`.lane-pebble[aria-label^='fails']`)");
    await bench.key(Key.ENTER);
  },
};

/** Presses Tab, ten at a time, until what has the keyboard is as wanted; the rest of the ten does nothing then. */
async function tabTo(isThere: string): Promise<void> {
  await browser.driver.executeScript(
    `window.stopThere = (event) => { if (event.key === "Tab" && ${isThere}) { event.preventDefault(); event.stopImmediatePropagation(); } };
     addEventListener("keydown", window.stopThere, true);`,
  );
  for (let i = 0; i < 20; i++) {
    const more = browser.driver.actions();
    for (let n = 0; n < 10; n++) more.keyDown(Key.TAB).keyUp(Key.TAB);
    await more.perform();
    if (!(await browser.driver.executeScript<boolean>(`return ${isThere}`))) continue;
    await browser.driver.executeScript("removeEventListener('keydown', window.stopThere, true)");
    return;
  }
  throw new Error(`200 times Tab do not lead to where ${isThere}`);
}

it.each([
  [1024, 700, "mouse", mouse],
  [1024, 700, "keys", keys],
  [1280, 800, "mouse", mouse],
  [1280, 800, "keys", keys],
  [1920, 1080, "mouse", mouse],
  [1920, 1080, "keys", keys],
] as const)(
  "at %d x %d, by %s: walk, keep, make the walker slow, see which frame breaks the check",
  async (width, height, name, way) => {
    await browser.command("Emulation.setDeviceMetricsOverride", { width, height, deviceScaleFactor: 1, mobile: false });
    await browser.driver.get(started.address);
    await browser.untilText(world, (text) => text.includes("pass"));
    await way.open();
    await bench.ready();
    await way.record();
    await browser.untilText(".status", (text) => text.includes("Walking:"));
    await bench.hold(Key.ARROW_UP, (_x, y) => y <= 10);
    await browser.untilText(".status", (text) => text.includes("on the grid"));
    await way.stop();
    await (await browser.find(".keep-walk .title")).sendKeys(`Up at ${width} by ${name}`);
    await way.keep();
    await bench.pebbles((pebbles) => pebbles.length === 3 && pebbles.every((each) => each.startsWith("passes")));
    await way.slow();
    const broken = await bench.pebbles((pebbles) => pebbles.some((each) => each.startsWith("fails")));
    await way.look();
    const frame = /frame (\d+)/.exec(broken.find((each) => each.startsWith("fails"))!)![1]!;
    expect(await browser.untilText(".frame-count .frame", (text) => text === frame)).toBe(frame);
    // As it was before, for the next one.
    await browser.driver.executeScript("document.activeElement.blur()");
    await bench.key(Key.CONTROL, "z");
    await bench.pebbles((pebbles) => pebbles.every((each) => each.startsWith("passes")));
    await browser.untilText(".saving", (text) => text.startsWith("saved"));
  },
);
