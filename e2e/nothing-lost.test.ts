import { By, Key } from "selenium-webdriver";
import { expect, it } from "vitest";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import { axeFindings } from "./accessible.ts";
import { damagedFiles } from "./durability/damaged-files.ts";
import type { Started } from "./started.ts";
import { withApplication } from "./with-application.ts";

let started: Started;
let browser: Browser;
let bench: BenchDriver;

withApplication(
  (scene) => {
    ({ started, browser, bench } = scene);
  },
  { proves: false },
);

const open = async (world = "saltglass-cistern"): Promise<void> => {
  await browser.driver.get(`${started.address}/w/${world}/bench`);
  await bench.ready();
};
const shown = (css: string): Promise<boolean> =>
  browser.driver.executeScript<boolean>("return document.querySelector(arguments[0]) !== null", css);
const frame = async (): Promise<number> =>
  Number(
    await browser.driver.executeScript<string>("return document.querySelector('.frame-count .frame').textContent"),
  );
const press = async (...keys: string[]): Promise<void> =>
  browser.driver
    .actions()
    .sendKeys(...keys)
    .perform();
const untilFrame = async (min: number): Promise<void> => {
  await browser.untilText(".frame-count .frame", (text) => Number(text) >= min);
};
/** Walks to the right until so many frames are there; the walk goes on. */
const walk = async (frames = 30): Promise<void> => {
  await bench.key("r");
  await browser.untilText(".status", (text) => text.includes("Walking:"));
  await browser.driver.actions().keyDown(Key.ARROW_RIGHT).perform();
  await untilFrame(frames);
  await browser.driver.actions().keyUp(Key.ARROW_RIGHT).perform();
};
const offered = (): Promise<string> => browser.untilText(".keep-walk", (text) => text.includes("frames recorded"));
const logs = async (): Promise<string[]> =>
  Object.keys((await started.api<{ logs: Record<string, string> }>("/worlds/saltglass-cistern")).logs);

it("a walk that one leaves by the Shelf, the wordmark, Back or another world is offered when one comes back; no page dies", async () => {
  await browser.driver.get(`${started.address}/`);
  await open();
  const back = (): Promise<void> => browser.driver.navigate().back();
  const toShelf = (act: () => Promise<void>) => async (): Promise<void> => {
    await act();
    await browser.find(".world-card");
  };
  const toOtherWorld = async (): Promise<void> => {
    await (await browser.find(".world-switch")).click();
    await browser.untilText(".top .dropdown-menu.show", (text) => text.includes("Trying grounds"));
    await browser.click(".top .dropdown-menu.show a[href='/w/trying-grounds/bench']");
    await browser.untilText(".world-switch", (text) => text === "Trying grounds");
  };
  for (const [leave, comeBack] of [
    [toShelf(() => browser.driver.findElement(By.css(".areas a[href='/']")).click()), back],
    [toShelf(() => browser.driver.findElement(By.css(".top .home")).click()), back],
    [toShelf(back), open],
    [toOtherWorld, open],
  ] as const) {
    // A page that is unloaded keeps what was walked until a second before.
    await walk(70);
    await leave();
    await browser.wait(async () => !(await browser.driver.getCurrentUrl()).includes("/w/saltglass-cistern/"));
    expect(await browser.driver.executeScript("return document.body.textContent")).not.toMatch(
      /Unexpected|Cannot (set|read) properties/,
    );
    await comeBack();
    await offered();
    await browser.click(".keep-walk button:last-of-type");
    await browser.wait(async () => !(await shown(".keep-walk")));
  }
});

it("Esc ends a walk and throws nothing away, held or pressed twice; what is discarded comes back by undo, also after a reload", async () => {
  await open();
  await walk();
  await press(Key.ESCAPE, Key.ESCAPE, Key.ESCAPE);
  await offered();
  await press(Key.ESCAPE);
  await offered();
  await (await browser.find(".keep-walk button:last-of-type")).click();
  await browser.wait(async () => !(await shown(".keep-walk")));
  await bench.key(Key.CONTROL, "z");
  await offered();
  await (await browser.find(".keep-walk button:last-of-type")).click();
  await open();
  expect(await shown(".keep-walk")).toBe(false);
  await bench.key(Key.CONTROL, "z");
  await offered();
  const before = await logs();
  await (await browser.find(".keep-walk .title")).sendKeys("Came back", Key.ENTER);
  await browser.untilText(".saving", (text) => text.startsWith("saved"));
  expect((await logs()).filter((log) => !before.includes(log))).toEqual(["came-back"]);
  // It is a log now: nothing is offered any more.
  await open();
  expect(await shown(".keep-walk")).toBe(false);
});

it("a walk stands still behind other areas and leaves them their keys; back on the Bench it goes on", async () => {
  await open();
  await walk();
  await (await browser.find(".areas a[href*='/proofs']")).click();
  const search = await browser.find(".proofs-head input[type=search], .search input");
  await search.sendKeys("wasd glide");
  expect(await search.getAttribute("value")).toBe("wasd glide");
  await search.clear();
  await (await browser.find(".areas a[href*='/bench']")).click();
  await bench.ready();
  const at = await frame();
  await untilFrame(at + 5);
  await press(Key.ESCAPE);
  await offered();
  expect(await axeFindings(browser)).toEqual([]);
  await (await browser.find(".keep-walk button:last-of-type")).click();
});

it("a reload in the middle of a walk offers what was walked until then", async () => {
  await open();
  await walk();
  await untilFrame(130);
  await browser.driver.navigate().refresh();
  await bench.ready();
  const text = await offered();
  expect(Number(/(\d+) frames recorded/.exec(text)![1])).toBeGreaterThanOrEqual(60);
  await (await browser.find(".keep-walk button:last-of-type")).click();
});

it("a number that may not be stays in its field to be corrected; what the server refuses all the same is set aside, and all else is saved", async () => {
  await open();
  await (await browser.find(".body-toggle")).click();
  const width = await browser.find(".body-editor .settings .labelled:nth-child(3) input");
  for (const wrong of ["0", "-3", "3.5", "900"]) {
    await width.sendKeys(Key.chord(Key.CONTROL, "a"), wrong, Key.ENTER);
    expect(await width.getAttribute("aria-invalid")).toBe("true");
    expect(await width.getAttribute("value")).toBe(wrong);
  }
  await width.sendKeys(Key.chord(Key.CONTROL, "a"), "12", Key.ENTER);
  expect(await width.getAttribute("aria-invalid")).toBe("false");
  await browser.untilText(".saving", (text) => text.startsWith("saved"));
  const boxOf = async (): Promise<number[]> =>
    (await started.api<{ world: { rules: { walker: { body: { box: number[] } } }[] } }>("/worlds/saltglass-cistern"))
      .world.rules[0]!.walker.body.box;
  expect((await boxOf())[2]).toBe(12);

  // A server that knows better than this page: it refuses one kind of edit.
  await browser.driver.executeScript(`
    const fetched = window.fetch;
    window.fetch = (address, init) => init?.method === "POST" && String(address).endsWith("/revisions") && String(init.body).includes("camera")
      ? Promise.resolve(new Response(JSON.stringify({ type: "", title: "", status: 422, detail: "the camera is not liked", code: "refused" }), { status: 422 }))
      : fetched(address, init);
  `);
  await browser.press(".kit-head [role=tab]", "World");
  const across = await browser.driver.findElements(By.css("[aria-label='Camera'] input"));
  await across[0]!.sendKeys(Key.chord(Key.CONTROL, "a"), "18", Key.ENTER);
  await browser.untilText(
    ".refused-edits",
    (text) => text.includes("1 edit cannot be saved; everything else is.") && text.includes("the camera is not liked"),
  );
  await browser.press(".kit-head [role=tab]", "Tiles");
  await bench.tile("Mossy stone");
  await bench.drag([2, 4]);
  await browser.untilText(".saving", (text) => text === "1 edit refused, all others saved");
  const { world } = await started.api<{
    world: { tiles: { id: string }[]; camera: { width: number }; rooms: { cells: number[] }[] };
  }>("/worlds/saltglass-cistern");
  expect([world.tiles[world.rooms[0]!.cells[4 * 20 + 2]!]!.id, world.camera.width]).toEqual(["moss", 20]);
  expect(await axeFindings(browser)).toEqual([]);
  await browser.press(".refused-edits button", "Undo");
  await browser.wait(async () => !(await shown(".refused-edits")));
  await browser.untilText(".saving", (text) => text.startsWith("saved"));
});

it("a room text and a log text that do not read yet are kept over a closed tab, and offered again", async () => {
  await open();
  await browser.press(".kit-head [role=tab]", "Room");
  await browser.press("button", "Type this room as text");
  const text = await browser.find("[aria-label='Room text']");
  await text.sendKeys(Key.chord(Key.CONTROL, Key.HOME), "¿¿");
  await browser.untilText(".room-text-says", (said) => said.includes("The text is kept in this browser"));
  const typed = await text.getAttribute("value");
  await browser.driver.get("about:blank");
  await open();
  await browser.press(".kit-head [role=tab]", "Room");
  await browser.press("button", "Type this room as text");
  await browser.untilText(".room-text-says", (said) => said.includes("The text is kept in this browser"));
  expect(await (await browser.find("[aria-label='Room text']")).getAttribute("value")).toBe(typed);
  await browser.press(".room-text button", "Back to the room");
  await browser.untilText(".room-text-says", (said) => said.includes("Each keystroke is drawn"));

  await open();
  await bench.key("d");
  await browser.press(".log-side .segments label", "Text");
  const log = await browser.find("[aria-label='Log text']");
  await log.sendKeys(Key.chord(Key.CONTROL, Key.END), "3 sideways");
  await browser.untilText(".log-text-says", (said) => said.includes("The text is kept in this browser"));
  await browser.driver.get("about:blank");
  await open();
  await bench.key("d");
  await browser.press(".log-side .segments label", "Text");
  await browser.untilText(".log-text-says", (said) => said.includes("The text is kept in this browser"));
  expect(await (await browser.find("[aria-label='Log text']")).getAttribute("value")).toContain("3 sideways");
  await browser.press(".log-text button", "Back to the log");
});

it("a browser that keeps nothing still opens worlds and saves, and says that nothing is kept", async () => {
  // As in a private window: both stores refuse.
  const script = (await browser.command("Page.addScriptToEvaluateOnNewDocument", {
    source:
      "Object.defineProperty(window, 'indexedDB', { get: () => { throw new DOMException('refused', 'SecurityError'); } }); Object.defineProperty(window, 'localStorage', { get: () => { throw new DOMException('refused', 'SecurityError'); } });",
  })) as { identifier: string };
  try {
    await open();
    await bench.tile("Rubble");
    await bench.drag([2, 5]);
    await browser.untilText(".saving", (text) => text.startsWith("saved"));
    started.postgres.stop("immediate");
    await bench.tile("Mossy stone");
    await bench.drag([2, 6]);
    await browser.untilText(".saving", (text) => text === "offline, 1 edit not kept: leave this tab open");
  } finally {
    started.postgres.restart();
    await browser.command("Page.removeScriptToEvaluateOnNewDocument", { identifier: script.identifier });
  }
});

it("the Shelf does not say that all is saved while a world has edits that only this browser has", async () => {
  await open();
  await started.kill();
  await bench.tile("Rubble");
  await bench.drag([3, 5]);
  await browser.untilText(".saving", (text) => text.startsWith("offline"));
  await browser.driver.get("about:blank");
  await started.startAgain();
  await browser.driver.get(`${started.address}/`);
  await browser.untilText(".saving", (text) => text.includes("1 edit not saved yet"));
  await browser.untilText("[data-world='saltglass-cistern']", (text) =>
    text.includes("1 edit not saved, kept in this browser"),
  );
  await open();
  await browser.untilText(".saving", (text) => text.startsWith("saved"));
});

it("an edit made just before one leaves the world is saved", async () => {
  await open();
  await bench.tile("Mossy stone");
  await bench.drag([3, 6]);
  await browser.driver.findElement(By.css(".areas a[href='/']")).click();
  await browser.wait(async () => {
    const { world } = await started.api<{ world: { tiles: { id: string }[]; rooms: { cells: number[] }[] } }>(
      "/worlds/saltglass-cistern",
    );
    return world.tiles[world.rooms[0]!.cells[6 * 20 + 3]!]!.id === "moss";
  });
  await browser.untilText(".saving", (text) => text === "all saved");
});

it("worlds, logs and rooms called like what every object has are shown on the Shelf and open", async () => {
  const demo = (await (await fetch(`${started.address}/api/worlds/saltglass-cistern/world.json`)).json()) as {
    name: string;
    rooms: { id: string; name: string }[];
  };
  const text = JSON.stringify({ ...demo, id: "constructor", name: "__proto__" }).replaceAll(
    `"${demo.rooms[0]!.id}"`,
    '"constructor"',
  );
  await started.api("/imports", {
    world: text,
    logs: { constructor: "keen-pebble-inputs 1\ntitle toString\ncheck end status playing\n---\n5 .\n" },
  });
  await browser.driver.get(`${started.address}/`);
  await browser.untilText("[data-world='constructor']", (said) => said.includes("__proto__") && said.includes("1 log"));
  await browser.driver.navigate().refresh();
  await browser.untilText("[data-world='constructor']", (said) => said.includes("__proto__"));
  await open("constructor");
  await browser.untilText("[aria-label='Log']", (said) => said.includes("toString"));
  await browser.untilText(".holding", (said) => said === "1");
  await (await browser.find(".areas a[href*='/proofs']")).click();
  await browser.untilText("main", (said) => said.includes("toString"));
  expect(await axeFindings(browser)).toEqual([]);
});

it("nine windows on one world share one stream of events, and each goes on loading", async () => {
  const first = await browser.driver.getWindowHandle();
  const tabs: string[] = [];
  // A browser opens six connections to a server at once: with a stream each, the seventh window would wait for ever.
  for (let i = 0; i < 7; i++) {
    tabs.push(await browser.newTab());
    await browser.driver.get(`${started.address}/w/saltglass-cistern/journal`);
    await browser.untilText(".status", (text) => /^\d+ revisions?/.test(text));
  }
  tabs.push(await browser.newTab());
  await open();
  await bench.tile("Rubble");
  await bench.drag([4, 5]);
  await browser.untilText(".saving", (text) => text.startsWith("saved"));
  await browser.driver.switchTo().window(tabs[0]!);
  await browser.untilText(".notice", (text) => text.includes("Changed elsewhere"));
  for (const tab of tabs) {
    await browser.driver.switchTo().window(tab);
    await browser.driver.close();
  }
  await browser.driver.switchTo().window(first);
}, 120_000);

it("damaged files of every kind, through the API and the page, are refused with a word or taken whole", async () => {
  const { faults, refused } = await damagedFiles(started, browser, 260, 40, 7);
  expect(faults).toEqual([]);
  expect(refused).toBeGreaterThan(150);
});
