import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { Key } from "selenium-webdriver";
import { expect, it } from "vitest";
import { axeFindings } from "./accessible.ts";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import type { Started } from "./started.ts";
import { withApplication } from "./with-application.ts";

const root = path.resolve(import.meta.dirname, "..");
let started: Started;
let browser: Browser;
let bench: BenchDriver;

withApplication((scene) => {
  ({ started, browser, bench } = scene);
});

const openBench = async (world: string, query = ""): Promise<void> => {
  await browser.driver.get(`${started.address}/w/${world}/bench${query}`);
  await bench.ready();
};

/** The demo's world with a few things changed, under another id, on the shelf. */
async function bringIn(id: string, change: (text: string) => string, logs: Record<string, string> = {}): Promise<void> {
  const demo = readFileSync(path.join(root, "demo/saltglass-cistern/saltglass-cistern.world.json"), "utf8");
  await started.api("/imports", { world: change(demo.replace('"id": "saltglass-cistern"', `"id": "${id}"`)), logs });
}

it("walk a room with the arrow keys, keep the walk, paint a wall into it, see the check break, take the wall back", async () => {
  await browser.driver.get(started.address);
  await browser.untilText('[data-world="saltglass-cistern"]', (text) => text.includes("125 pass"));
  expect(await axeFindings(browser)).toEqual([]);
  await (await browser.find('[data-world="saltglass-cistern"] .world-foot .btn')).click();
  await bench.ready();

  await bench.key("r");
  await browser.untilText(".status", (text) => text.includes("Walking:"));
  await bench.hold(Key.ARROW_UP, (_x, y) => y <= 9);
  await bench.hold(Key.ARROW_LEFT, (x) => x <= 2);
  await browser.untilText(".status", (text) => text.includes("on the grid"));
  await bench.key(Key.ESCAPE);
  const title = await browser.find(".keep-walk .title");
  await title.sendKeys("Up to the west wall");
  expect(await axeFindings(browser)).toEqual([]);
  await title.sendKeys(Key.ENTER);

  const [end, always, law] = await bench.pebbles(
    (pebbles) => pebbles.length === 3 && pebbles.every((p) => p.startsWith("passes")),
  );
  expect(end).toMatch(/^passes at frame \d+: end cell [12] \d in intake-hall$/);
  expect(always).toMatch(/^passes at frame \d+: always aligned$/);
  expect(law).toMatch(/^passes at frame \d+: law never status escaped$/);
  const frames = Number(/frame (\d+)/.exec(end!)![1]);
  await browser.untilText(".saving", (text) => text === "saved, revision 2");

  await bench.tile("Coping");
  await bench.drag([4, 10]);
  const [broken] = await bench.pebbles((pebbles) => pebbles[0]?.startsWith("fails") ?? false);
  expect(broken).toMatch(
    new RegExp(`^fails at frame ${frames}: end cell [12] \\d in intake-hall; seen: cell 4 11 in intake-hall$`),
  );
  await browser.untilText(".saving", (text) => text === "saved, revision 3");

  // A link to the log, and from its beginning on to the next mark: the frame in which the wall was met says what stopped it.
  await browser.driver.get(`${await addressWithLog()}&f=0`);
  await bench.ready();
  await bench.key(".");
  await browser.untilText(
    "[aria-label=Contact]",
    (text) => text.includes("stopped the walker") && text.includes("4,10Copingsolidblocks top"),
  );
  await browser.untilText("[aria-label=Aftermath]", (text) => text.includes("bump"));
  expect(await axeFindings(browser)).toEqual([]);

  await bench.tile("Flagstone");
  await bench.drag([4, 10]);
  await bench.pebbles((pebbles) => pebbles.length === 3 && pebbles.every((p) => p.startsWith("passes")));
  await bench.key(Key.CONTROL, "z");
  await bench.pebbles((pebbles) => pebbles[0]?.startsWith("fails") ?? false);
  await bench.key(Key.CONTROL, Key.SHIFT, "z");
  await bench.pebbles((pebbles) => pebbles.length === 3 && pebbles.every((p) => p.startsWith("passes")));
});

async function addressWithLog(): Promise<string> {
  await browser.wait(async () => (await browser.driver.getCurrentUrl()).includes("log=up-to-the-west-wall"));
  return `${started.address}/w/saltglass-cistern/bench?log=up-to-the-west-wall`;
}

it("the same log has the same fingerprint in the page, on the server and on the command line", async () => {
  const demo = path.join(root, "demo/saltglass-cistern");
  const log = path.join(demo, "logs/round-the-basin.inputs");
  await bringIn("printed", (text) => text, { "round-the-basin": readFileSync(log, "utf8") });
  await openBench("printed", "?log=round-the-basin");
  await (await browser.find("[aria-label='More about this log']")).click();
  await browser.press(".dropdown-menu.show .dropdown-item", "Fingerprint");
  const shown = await browser.untilText(".notice", (text) => /[0-9a-f]{64}/.test(text));
  const page = /[0-9a-f]{64}/.exec(shown)![0];
  // The server takes it where a walk was accepted.
  await started.api("/imports", {
    into: "printed",
    logs: { "round-the-basin": readFileSync(log, "utf8").replace("check by", `accept ${page}\ncheck by`) },
  });
  expect(
    (await started.api<{ outcomes: { fingerprint: string; accepted: boolean }[] }>("/worlds/printed/outcomes"))
      .outcomes[0],
  ).toMatchObject({ fingerprint: page, accepted: true });
  const printed = execFileSync(
    process.execPath,
    ["cli/bin/keen-pebble.js", "replay", path.join(demo, "saltglass-cistern.world.json"), log],
    { cwd: root, encoding: "utf8" },
  );
  expect(printed).toContain(`fingerprint ${page}`);
});

it("tile 40 and speed 7: equal runs off, past ends off the grid, land holds; the page says which speeds fit", async () => {
  const log = "keen-pebble-inputs 1\ntitle Right\ncheck always aligned\n---\n18 R\n";
  await bringIn(
    "forty",
    (text) =>
      text.replace('"tileSize": 16', '"tileSize": 40').replace('"box": [0, 0, 16, 16]', '"box": [0, 0, 40, 40]'),
    { right: log },
  );
  await openBench("forty");
  await bench.number("Speed", "7");
  await bench.pebbles((pebbles) => pebbles[0] === "passes at frame 18: always aligned");
  await browser.untilText(
    "[aria-label=Motion]",
    (text) => text.includes("7 px does not divide 40: 40 = 5 x 7 + 5") && text.includes("Speeds that do:1245810"),
  );
  await bench.choose("Arrive", "equal");
  await bench.pebbles(
    (pebbles) =>
      pebbles[0] === "fails at frame 6: always aligned; seen: 2 px off the grid at 202 480, the leg runs on at 42 px",
  );
  await bench.choose("Arrive", "past");
  await bench.pebbles(
    (pebbles) => pebbles[0] === "fails at frame 6: always aligned; seen: 2 px off the grid at 202 480",
  );

  const folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-forty-"));
  try {
    await browser.untilText(".saving", (text) => text.startsWith("saved"));
    const { world } = await started.api<{ world: unknown }>("/worlds/forty");
    writeFileSync(path.join(folder, "forty.world.json"), JSON.stringify(world));
    writeFileSync(path.join(folder, "right.inputs"), log);
    expect(() =>
      execFileSync(
        process.execPath,
        ["cli/bin/keen-pebble.js", "verify", path.join(folder, "forty.world.json"), folder],
        { cwd: root, encoding: "utf8", stdio: "pipe" },
      ),
    ).toThrow("Command failed");
  } finally {
    rmSync(folder, { recursive: true });
  }
  await bench.key(Key.CONTROL, "z");
  await bench.key(Key.CONTROL, "z");
  await bench.pebbles((pebbles) => pebbles[0] === "passes at frame 18: always aligned");
});

it("a wrong world, room or log in the address, and a log that cannot be run, are told clearly", async () => {
  await browser.driver.get(`${started.address}/w/nowhere/bench`);
  await browser.untilText(".empty", (text) => text.includes("There is no world nowhere on the shelf."));
  await openBench("saltglass-cistern", "?room=attic&log=gone");
  await browser.untilText(".notice", (text) => text.includes("no room attic and no log gone"));
  await bringIn("odd-log", (text) => text, { stand: "keen-pebble-inputs 1\nwith open sluice-9\n---\n5 .\n" });
  await browser.driver.get(`${started.address}/w/odd-log/bench`);
  await browser.untilText(".lanes-empty", (text) =>
    text.includes("`with open` in a log names fixture sluice-9, which this world does not have"),
  );
  await browser.driver.get(`${started.address}/somewhere`);
  await browser.untilText(".empty", (text) => text.includes("There is no such page."));
});

it("every gait walks the same log, each with its own settings in the anatomy", async () => {
  await bringIn("gaits", (text) => text.replace('"laws": ["never status escaped"]', '"laws": []'), {
    up: "keen-pebble-inputs 1\nstart intake-hall 4 12 up\n---\n60 U\n30 .\n",
  });
  await openBench("gaits", "?log=up&f=30");
  const gait = (name: string): Promise<void> => browser.press("[aria-label=Gait] label", name);
  const walkerAt = (y: number): Promise<string> => browser.untilText(".status", (text) => text.includes(`px 64,${y}`));
  await gait("Hop");
  await browser.untilText("[aria-label=Motion]", (text) => text.includes("Repeat after"));
  await walkerAt(12 * 16 - 16 * 3);
  await gait("Roam");
  await browser.untilText("[aria-label=Motion]", (text) => text.includes("Speed x"));
  await walkerAt(12 * 16 - 30);
  await bench.number("Speed y", "1.5");
  await walkerAt(12 * 16 - 45);
  await browser.untilText("[aria-label=Contact]", (text) => text.includes("Response") && text.includes("Nudge"));
  await gait("Drift");
  await browser.untilText("[aria-label=Motion]", (text) => text.includes("Accel") && text.includes("Drag"));
  expect(await axeFindings(browser)).toEqual([]);
  await bench.key(Key.CONTROL, "z");
  await browser.untilText("[aria-label=Motion]", (text) => text.includes("Speed x"));
});

it("every act of an area is found by name or key, even out of a field; what cannot be done now does nothing", async () => {
  await openBench("saltglass-cistern", "?log=turn-in-time&f=10");
  const typed = (...keys: string[]): Promise<void> =>
    browser.driver
      .switchTo()
      .activeElement()
      .sendKeys(...keys);
  const found = (names: string): Promise<string> => browser.untilText(".acts-list", (text) => text === names);
  await (await browser.find("input[aria-label='Search tiles']")).click();
  await typed(Key.chord(Key.CONTROL, "k"));
  await browser.untilText(".acts-list", (text) => text.includes("First frame") && text.includes("What would fix it"));
  await typed("last");
  await found("Last frameEnd");
  expect(await axeFindings(browser)).toEqual([]);
  await typed(Key.ENTER);
  await browser.untilText(".frame-count .frame", (text) => text === "48");

  // Nothing is broken, so that nothing is to be mended.
  await browser.driver.executeScript("document.activeElement.blur()");
  await bench.key("?");
  await typed("would", Key.ENTER);
  await found("What would fix itY");
  await typed(Key.chord(Key.CONTROL, "a"), "frame back", Key.ARROW_DOWN, Key.ENTER);
  await browser.untilText(".frame-count .frame", (text) => text === "38");
});

it("edits made while the database is stopped stay here, over a closed tab too, and go out when it is back", async () => {
  await bringIn("stopped", (text) => text, { stand: "keen-pebble-inputs 1\n---\n5 .\n" });
  await openBench("stopped");
  await browser.untilText(".saving", (text) => text === "saved, revision 1");
  started.postgres.stop("immediate");
  await bench.tile("Mossy stone");
  await bench.drag([13, 4], [13, 8]);
  await browser.untilText(".saving", (text) => /^offline, \d edits? kept here$/.test(text));
  started.postgres.restart();
  await browser.untilText(".saving", (text) => text.startsWith("saved"));

  started.postgres.stop("immediate");
  await bench.drag([14, 8], [18, 8]);
  await browser.untilText(".saving", (text) => text.startsWith("offline"));
  await browser.driver.get("about:blank");
  await browser.driver.get(`${started.address}/w/stopped/bench`);
  await browser.untilText(
    ".empty",
    (text) => text.includes("the database does not answer") && text.includes("kept in this browser"),
  );
  started.postgres.restart();
  await (await browser.find(".empty .btn")).click();
  await browser.untilText(".saving", (text) => text.startsWith("saved"));
  const { world } = await started.api<{ world: { rooms: { cells: number[] }[] } }>("/worlds/stopped");
  const cells = world.rooms[0]!.cells;
  expect([4, 5, 6, 7, 8].map((y) => cells[y * 20 + 13])).toEqual([10, 10, 10, 10, 10]);
  expect([14, 15, 16, 17, 18].map((x) => cells[8 * 20 + x])).toEqual([10, 10, 10, 10, 10]);
});
