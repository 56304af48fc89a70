import type { WebElement } from "selenium-webdriver";
import { Key } from "selenium-webdriver";
import { Select } from "selenium-webdriver/lib/select.js";
import { expect, it } from "vitest";
import { axeFindings } from "./accessible.ts";
import type { Application } from "./application.ts";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import { withSharedApplication } from "./with-application.ts";

let started: Application;
let browser: Browser;
let bench: BenchDriver;
withSharedApplication((scene) => ({ started, browser, bench } = scene));

/** A field of the chosen actor by its label, once it is there. */
const field = (label: string): Promise<WebElement> =>
  browser.wait(
    () =>
      browser.driver.executeScript<WebElement>(
        "return document.getElementById([...document.querySelectorAll('.chosen-fixture label')].find((l) => l.textContent === arguments[0])?.htmlFor ?? '')",
        label,
      ),
    `no ${label} of the actor`,
  );
const choose = async (label: string, value: string): Promise<void> =>
  new Select(await field(label)).selectByValue(value);
async function type(label: string, value: string): Promise<void> {
  const typed = await field(label);
  await typed.click();
  await typed.sendKeys(Key.chord(Key.CONTROL, "a"), value, Key.ENTER);
}

interface Stored {
  readonly world: { readonly rooms: readonly { readonly actors: readonly { readonly plan: readonly object[] }[] }[] };
}

it("an actor is placed, its path drawn, walked past in time; made faster the log breaks, and the frame says who was met", async () => {
  const id = await started.copy("saltglass-cistern");
  await browser.driver.get(`${started.address}/w/${id}/bench`);
  await bench.ready();
  await browser.press(".kit-head [role=tab]", "Actors");
  await browser.untilText(".fixture-list", (text) => text.includes("Nothing moves by itself in Intake hall yet."));
  await browser.press(".segments label", "Place an actor");
  await bench.drag([6, 10]);
  await browser.untilText(".chosen-fixture h3", (text) => text === "actor-1");
  await choose("It", "path");
  await bench.drag([6, 10], [6, 13]);
  await browser.press(".plan .btn", "Done drawing");
  await type("Speed", "0.25");
  await choose("Who meets it", "hurt");
  await browser.untilText(".saving", (text) => text.startsWith("saved"));
  const stored = await started.api<Stored>(`/worlds/${id}`);
  expect(stored.world.rooms[0]!.actors[0]!.plan).toEqual([
    {
      frames: null,
      do: "path",
      then: "back",
      cells: [
        [6, 10],
        [6, 13],
      ],
    },
  ]);
  expect(await axeFindings(browser)).toEqual([]);

  // Past it in time, and the walk is kept.
  await bench.drag([9, 3]);
  await bench.key("r");
  await browser.untilText(".status", (text) => text.includes("Walking:"));
  await bench.hold(Key.ARROW_RIGHT, (x) => x >= 7);
  await browser.untilText(".status", (text) => text.includes("on the grid"));
  await bench.key(Key.ESCAPE);
  await (await browser.find(".keep-walk .title")).sendKeys("Past the crab", Key.ENTER);
  await bench.pebbles((pebbles) => pebbles.length >= 3 && pebbles.every((pebble) => pebble.startsWith("passes")));

  // Faster, it is there first: the check at the end breaks, and the frame in which it was met says so.
  await browser.untilText(".fixture-list", (text) => text.includes("actor-1"));
  await browser.press(".fixture-list button", "actor-1");
  await type("Speed", "4");
  const broken = await bench.pebbles((pebbles) => pebbles.some((pebble) => pebble.startsWith("fails")));
  expect(broken.some((pebble) => pebble.includes("end cell 7 12"))).toBe(true);
  await browser.driver.get(`${started.address}/w/${id}/bench?log=past-the-crab&f=0`);
  await bench.ready();
  await browser.press(".kit-head [role=tab]", "Actors");
  await browser.press(".fixture-list button", "actor-1");
  await browser.untilText(".actor-account", (text) => text.includes("phase 1, walks a path"));
  for (let i = 0; i < 6; i++) {
    const [aftermath] = [await (await browser.find("[aria-label=Aftermath]")).getText()];
    if (aftermath.includes("meet:actor-1")) break;
    await bench.key(".");
  }
  await browser.untilText(
    "[aria-label=Aftermath]",
    (text) => text.includes("meet:actor-1") && text.includes("hurt:actor-1"),
  );

  // What would fix it knows the actor too.
  await bench.key("y");
  await browser.untilText(".findings", (text) => text.includes("actor-1 does not hurt"));
});
