import { Key } from "selenium-webdriver";
import { expect, it } from "vitest";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import { killRounds } from "./kill-rounds.ts";
import type { Started } from "./started.ts";
import { withApplication } from "./with-application.ts";

let started: Started;
let browser: Browser;
let bench: BenchDriver;

withApplication((scene) => {
  ({ started, browser, bench } = scene);
});

const open = async (): Promise<void> => {
  await browser.driver.get(`${started.address}/w/saltglass-cistern/bench`);
  await bench.ready();
};
const saved = (revision?: number): Promise<string> => browser.untilText(".saving", (text) => (revision === undefined ? text.startsWith("saved") : text === `saved, revision ${revision}`));
const tileAt = async (x: number, y: number): Promise<string> => {
  const { world } = await started.api<{ world: { tiles: { id: string }[]; rooms: { cells: number[] }[] } }>("/worlds/saltglass-cistern");
  return world.tiles[world.rooms[0]!.cells[y * 20 + x]!]!.id;
};

it("a server that is killed again and again loses no acknowledged batch and keeps no half one", async () => {
  const rounds = await killRounds(started, 40, 7);
  expect(rounds).toMatchObject({ acknowledged: 40, faults: [] });
  expect(rounds.kills).toBeGreaterThan(3);
});

it("the page catches up by itself when the server is killed while one paints", async () => {
  await open();
  await bench.tile("Mossy stone");
  await bench.drag([2, 4]);
  await started.kill();
  await bench.drag([2, 5]);
  await bench.drag([2, 6]);
  await browser.untilText(".saving", (text) => /^offline, \d edits? kept here$/.test(text));
  await started.startAgain();
  await saved();
  for (const y of [4, 5, 6]) expect(await tileAt(2, y)).toBe("moss");
});

it("what was done can be undone after the page was loaded anew", async () => {
  await open();
  await bench.tile("Rubble");
  await bench.drag([3, 9]);
  await bench.number("Speed", "4");
  await saved();
  await open();
  await bench.key(Key.CONTROL, "z");
  await bench.key(Key.CONTROL, "z");
  await saved();
  expect(await tileAt(3, 9)).toBe("flagstone");
  const { world } = await started.api<{ world: { rules: { glide: { speed: number } }[] } }>("/worlds/saltglass-cistern");
  expect(world.rules[0]!.glide.speed).toBe(2);
});

it("the world's name leads to another world in the same area; an edit made just before is kept and can be undone there and back", async () => {
  const turnTo = async (id: string, name: string): Promise<void> => {
    await (await browser.find(".world-switch")).click();
    const entry = `.top .dropdown-menu.show a[href="/w/${id}/bench"]`;
    await browser.untilText(entry, (text) => text.startsWith(name));
    await browser.driver.executeScript("document.querySelector(arguments[0]).click()", entry);
    await browser.untilText(".world-switch", (text) => text === name);
    await bench.ready();
  };
  await open();
  await bench.tile("Rubble");
  await bench.drag([2, 9]);
  await turnTo("trying-grounds", "Trying grounds");
  await browser.untilText(".holding", (text) => text === "10");
  expect(new URL(await browser.driver.getCurrentUrl()).pathname).toBe("/w/trying-grounds/bench");
  await turnTo("saltglass-cistern", "Saltglass Cistern");
  await saved();
  expect(await tileAt(2, 9)).toBe("rubble");
  await bench.key(Key.CONTROL, "z");
  await saved();
  expect(await tileAt(2, 9)).toBe("flagstone");
});

it("two tabs on one world both keep their edits; what cannot be put on top is told and kept as a copy", async () => {
  await open();
  const first = await browser.driver.getWindowHandle();
  await browser.driver.switchTo().newWindow("tab");
  await browser.command("Emulation.setDeviceMetricsOverride", { width: 1280, height: 800, deviceScaleFactor: 1, mobile: false });
  const second = await browser.driver.getWindowHandle();
  await open();
  await bench.tile("Mossy stone");
  await bench.drag([16, 3]);
  await saved();

  await browser.driver.switchTo().window(first);
  await bench.tile("Salt crust");
  await bench.drag([17, 3]);
  await browser.untilText(".notice", (text) => text.includes("This world was changed elsewhere; your edits were put on top."));
  await saved();
  expect([await tileAt(16, 3), await tileAt(17, 3)]).toEqual(["moss", "crust"]);

  // Both paint the same cell: the second one is behind, and has painted another thing there.
  await bench.drag([18, 4]);
  await saved();
  await browser.driver.switchTo().window(second);
  await bench.drag([18, 4]);
  await browser.untilText(".notice", (text) => text.includes("could be put on top; not Intake hall: 1 cell. The world as it was here is kept on the shelf as saltglass-cistern-mine"));
  await saved();
  expect(await tileAt(18, 4)).toBe("crust");
  const copy = await started.api<{ world: { name: string; tiles: { id: string }[]; rooms: { cells: number[] }[] } }>("/worlds/saltglass-cistern-mine");
  expect(copy.world.name).toBe("Saltglass Cistern, as here");
  expect(copy.world.tiles[copy.world.rooms[0]!.cells[4 * 20 + 18]!]!.id).toBe("moss");
});
