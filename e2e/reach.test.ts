import type { WebElement } from "selenium-webdriver";
import { expect, it } from "vitest";
import { axeFindings } from "./accessible.ts";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import type { Started } from "./started.ts";
import { withApplication } from "./with-application.ts";

let started: Started;
let browser: Browser;
let bench: BenchDriver;
withApplication((scene) => ({ started, browser, bench } = scene));

const sentence = (fits: (text: string) => boolean): Promise<string> => browser.untilText(".reach-sentence p", fits);
/** Chooses a thing of the list by its id. */
const chooseThing = async (id: string): Promise<void> => {
  const thing = await browser.wait(() =>
    browser.driver.executeScript<WebElement | null>(
      "return [...document.querySelectorAll('.reach-things li button')].find((b) => b.querySelector('.thing').textContent === arguments[0]) ?? null",
      id,
    ),
  );
  await thing!.click();
};
const toArea = (name: string): Promise<void> => browser.click(`.areas a[href*="/${name}"]`);

it("says what can be reached in one sentence, with the way to the goal and what no log reaches", async () => {
  await browser.driver.get(`${started.address}/w/saltglass-cistern/reach`);
  expect(await sentence((text) => text.includes("things"))).toMatch(
    /^All 20 things can be reached; the goal in \d+ moves; one can get stuck in \d+ ways, .* always on the grid at rest\.$/,
  );
  await browser.untilText(".way-steps", (text) => text.includes("Take crank-1") && text.includes("Win"));
  await browser.press(".reach-things .btn", "Untested 1");
  await browser.untilText(".reach-things", (text) => text.includes("No log reaches these"));
  expect(await axeFindings(browser)).toEqual([]);
});

it("a way that is painted shut is told with the reason; the change that opens it is tried and applied", async () => {
  await toArea("bench");
  await bench.ready();
  await bench.tile("Coping");
  await bench.drag([19, 9]);
  await toArea("reach");
  await sentence((text) => text.includes("can never be reached") && text.includes("the goal can never be reached"));
  await browser.press(".reach-things .btn", "All 20");
  await chooseThing("pump-gate");
  await browser.untilText(".reach-way", (text) => text.includes("Never: closed in"));
  await browser.press(".reach-way .btn", "What would open it");
  await browser.untilText(".openings", (text) => text.includes("Intake hall 19,9 to"));
  expect(await axeFindings(browser)).toEqual([]);
  await browser.press(".openings .btn", "Apply");
  await sentence((text) => text.startsWith("All 20 things can be reached"));
});

it("a way to get stuck is shown with what would fix it, and one may ask from another cell with a bag", async () => {
  const lost = await browser.find(".reach-lost li button");
  const title = (await lost.getText()).split("\n")[0]!;
  await lost.click();
  await browser.untilText(".reach-way h2", (text) => text === title);
  await browser.press(".reach-way .btn", "What would fix it");
  await browser.untilText(".reach-way", (text) => /fixes it\.|then/.test(text));
  // Its other side leads nowhere: what leads back mends all of them.
  await browser.untilText(".openings", (text) => text.includes("Lamp room's north side leads back to Overflow walk"));
  await browser.press(".reach-question .btn", "Cell");
  await sentence((text) => text.includes("20 things"));
  await browser.untilText(".reach-checks", (text) => text.includes("ask from there"));
  const plan = await browser.find(".reach-canvas");
  // A cell of the valve loft, from which there is no way back without what the intake hall has.
  await browser.driver.actions().move({ origin: plan, x: 200, y: -150 }).click().perform();
  await browser.press(".reach-way .btn", "Ask from here");
  await sentence((text) => text.includes("can never be reached"));
  await browser.untilText(".reach-question", (text) => text.includes("Valve loft"));
  expect(await axeFindings(browser)).toEqual([]);
  await browser.press(".reach-question .btn", "Start");
  await sentence((text) => text.startsWith("All 20 things can be reached"));
});

it("a way is kept as a log whose check holds, and what is true is kept as checks of all play", async () => {
  await chooseThing("pump-gate");
  await browser.untilText(".reach-way h2", (text) => text === "The way to pump-gate");
  await browser.press(".reach-way .btn", "Keep as a log");
  await browser.untilText(".holding", (text) => text === "26");
  const offered = await browser.untilText(".reach-checks .btn", (text) => text.startsWith("Add"));
  expect(offered).toMatch(/^Add \d+ checks that hold$/);
  await browser.press(".reach-checks .btn", offered);
  await browser.untilText(".reach-checks ul", (text) => text.includes("reachable pump-gate"));
  await browser.untilText(".saving", (text) => text.startsWith("saved"));
  await toArea("proofs");
  await browser.untilText(".reach-strip", (text) => /(\d+) of \1 hold/.test(text));
  expect(await axeFindings(browser)).toEqual([]);
  const answer = await fetch(`${started.address}/api/worlds/saltglass-cistern/junit.xml`);
  expect(await answer.text()).toContain('<testcase classname="all play" name="reachable pump-gate"');
});
