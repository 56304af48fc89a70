import { readFileSync } from "node:fs";
import path from "node:path";
import type { WebElement } from "selenium-webdriver";
import { Key, Origin } from "selenium-webdriver";
import { say, sized } from "../scripts/speed/measure.mjs";
import { ownServer } from "../scripts/speed/own-server.mjs";
import { worldOf } from "../scripts/speed/worlds.mjs";
import { Application } from "./application.ts";
import { BenchDriver } from "./bench-driver.ts";
import { Browser } from "./browser.ts";

const ROUNDS = sized(21, 3) as number;
const LOGS = sized(1000, 30) as number;
const LONG_ROUNDS = sized(4166, 40) as number;
/** Lines of keys of a walk in curves, of ten frames on an average. */
const CURVES = sized(3600, 60) as number;
const FRAMES = 3600;
/** Cells along a side of a large room. */
const SIDE = sized(512, 96) as number;
const LARGE = `${SIDE}x${SIDE}`;

const server = await ownServer();
const started = new Application(server.address);
const browser = await Browser.open();
const bench = new BenchDriver(browser);

/** Median, and the median deviation as a share of it. */
function middle(values: readonly number[]): { median: number; best: number; spread: number } {
  const at = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;
  const median = at(values);
  return { median, best: Math.min(...values), spread: at(values.map((value) => Math.abs(value - median))) / median };
}

/** So long the page's scripts have run since it was loaded, in ms. */
async function scripts(): Promise<number> {
  const { metrics } = (await browser.command("Performance.getMetrics", {})) as {
    readonly metrics: readonly { readonly name: string; readonly value: number }[];
  };
  return metrics.find(({ name }) => name === "ScriptDuration")!.value * 1000;
}

/** The time between two pictures of the page while something is done, in ms. */
async function pictures(act: () => Promise<void>): Promise<{ median: number; best: number; spread: number }> {
  await browser.driver.executeScript(
    "window.gaps = []; let last = performance.now(); window.counting = true; (function tick(now) { window.gaps.push(now - last); last = now; if (window.counting) requestAnimationFrame(tick); })(last);",
  );
  await act();
  return middle(await browser.driver.executeScript<number[]>("window.counting = false; return window.gaps.slice(1)"));
}

try {
  const demo = readFileSync(
    path.resolve(import.meta.dirname, "../demo/saltglass-cistern/saltglass-cistern.world.json"),
    "utf8",
  );
  const log = `keen-pebble-inputs 1\nstart intake-hall 4 12 up\ncheck always aligned\n---\n${"72 U\n48 R\n72 D\n48 L\n".repeat(15)}`;
  await started.api("/imports", {
    world: demo.replace('"id": "saltglass-cistern"', '"id": "speed"'),
    logs: { long: log },
  });
  await browser.driver.get(`${started.address}/w/speed/bench?log=long`);
  await bench.ready();
  await bench.number("Speed", "4");
  await browser.untilText(".status", (text) => text.includes(`${FRAMES} frames in`));

  // From an edit to its picture: undo and redo change the speed to and fro, each of them re-runs the log.
  const whole: number[] = [];
  const runs: number[] = [];
  await browser.driver.executeScript("document.querySelector('.field-canvas').focus()");
  for (let i = 0; i < ROUNDS; i++) {
    const [took, run] = await browser.driver.executeAsyncScript<[number, number]>(
      `const done = arguments[1];
       const status = document.querySelector(".status");
       const began = performance.now();
       const seen = new MutationObserver(() => requestAnimationFrame(() => setTimeout(() => {
         seen.disconnect();
         done([performance.now() - began, Number(/frames in ([0-9.]+) ms/.exec(status.textContent)[1])]);
       })));
       seen.observe(document.querySelector(".frame-count"), { subtree: true, childList: true, characterData: true });
       window.dispatchEvent(new KeyboardEvent("keydown", { key: arguments[0], ctrlKey: true, bubbles: true }));`,
      i % 2 === 0 ? "z" : "y",
    );
    whole.push(took);
    runs.push(run);
  }
  const size = `${FRAMES} frames in the page`;
  const run = middle(runs);
  say("re-run of a log in the page's worker", size, run.median, "ms", run.spread, run.best);
  const all = middle(whole);
  say("from an edit to its picture", size, all.median, "ms", all.spread, all.best);

  // Frames of the page while a wall is painted and while the log plays.
  const rates: [string, () => Promise<void>][] = [
    [
      "painting a stroke",
      async () => {
        await bench.tile("Mossy stone");
        await bench.drag([13, 4], [18, 8]);
        await bench.drag([13, 8], [18, 4]);
      },
    ],
    [
      "playing the log",
      async () => {
        await bench.key(Key.SPACE);
        await browser.driver.sleep(sized(1500, 200) as number);
        await bench.key(Key.SPACE);
      },
    ],
  ];
  for (const [what, act] of rates) {
    const { median, best, spread } = await pictures(act);
    say(`between two pictures while ${what}`, size, median, "ms", spread, best);
  }

  // The speed is dragged by its label to and fro: what the status line tells of it, in screen frames too.
  await browser.driver.get(`${started.address}/w/speed/bench?log=long`);
  await bench.ready();
  const label = await browser.driver.executeScript<WebElement>(
    "return [...document.querySelectorAll('.anatomy label.drag')].find((l) => l.textContent === 'Speed')",
  );
  const dragging = browser.driver.actions();
  dragging.move({ origin: label }).press();
  for (let i = 0; i < sized(90, 12); i++)
    dragging.move({ x: i % 20 < 10 ? 8 : -8, y: 0, origin: Origin.POINTER, duration: 25 });
  await dragging.release().perform();
  const told = await browser.untilText(".status", (text) => /95% in \d+ ms/.test(text));
  const dragged = Number(/95% in (\d+) ms/.exec(told)![1]);
  say("from a dragged speed to its picture, 95th percentile", size, dragged, "ms", 0, dragged);

  // Every single change tried on a log of as many frames that fails.
  await started.api("/imports", {
    world: demo
      .replace('"id": "saltglass-cistern"', '"id": "mending"')
      .replace('"arrive": "land"', '"arrive": "equal"')
      .replace('"speed": 2', '"speed": 3'),
    logs: { long: log },
  });
  await browser.driver.get(`${started.address}/w/mending/bench?log=long`);
  await bench.ready();
  const searches: number[] = [];
  for (let i = 0; i < sized(5, 1); i++) {
    await bench.key("y");
    const list = await browser.untilText(".mends", (text) => /\d\.\d\d s/.test(text));
    searches.push(Number(/(\d+\.\d\d) s/.exec(list)![1]) * 1000);
    await browser.click(".mends .btn-icon");
  }
  const search = middle(searches);
  say("every single change tried on a failing log", size, search.median, "ms", search.spread, search.best);

  // A stroke across a room of 512 by 512, from the pointer's move to the picture and to the acknowledgement.
  await started.api("/imports", { world: JSON.stringify({ ...worldOf(SIDE, SIDE), id: "large" }) });
  await browser.driver.get(`${started.address}/w/large/bench`);
  await browser.find(".swatches [role=option]");
  await browser.untilText(".saving", (text) => text === "saved, revision 1");
  await bench.tile("wall");
  const strokes: { picture: number; saved: number }[] = [];
  for (let i = 0; i < sized(9, 2); i++) {
    strokes.push(
      await browser.driver.executeAsyncScript<{ picture: number; saved: number }>(
        `const done = arguments[1];
         const canvas = document.querySelector(".field-canvas");
         const box = canvas.getBoundingClientRect();
         const at = (x, y) => ({ bubbles: true, button: 0, buttons: 1, pointerId: 1, clientX: box.left + box.width * x, clientY: box.top + box.height * y });
         canvas.setPointerCapture = () => undefined;
         const y = 0.2 + arguments[0] * 0.06;
         canvas.dispatchEvent(new PointerEvent("pointerdown", at(0.25, y)));
         requestAnimationFrame(() => {
           const began = performance.now();
           canvas.dispatchEvent(new PointerEvent("pointermove", at(0.75, y)));
           canvas.dispatchEvent(new PointerEvent("pointerup", at(0.75, y)));
           requestAnimationFrame(() => requestAnimationFrame(() => {
             const picture = performance.now() - began;
             const saving = document.querySelector(".saving");
             const look = () => (saving.textContent.startsWith("saved") ? done({ picture, saved: performance.now() - began }) : setTimeout(look, 5));
             setTimeout(look, 50);
           }));
         });`,
        i,
      ),
    );
  }
  const large = `a line across ${LARGE}`;
  const picture = middle(strokes.map((stroke) => stroke.picture));
  say("from a stroke to the second picture after it", large, picture.median, "ms", picture.spread, picture.best);
  const kept = middle(strokes.map((stroke) => stroke.saved));
  say("from a stroke to its acknowledgement", large, kept.median, "ms", kept.spread, kept.best);

  // Walking there with a key held.
  await browser.driver.executeScript("document.querySelector('.field-canvas').focus()");
  await bench.key("r");
  await browser.find(".tools button[aria-pressed=true][aria-label^='Walk']");
  const walkedFrames = async (): Promise<number> => Number(await browser.untilText(".frame-count .frame", Boolean));
  await browser.command("Performance.enable", {});
  const [beforeFrames, before] = [await walkedFrames(), await scripts()];
  const walked = await pictures(async () => {
    await browser.driver.actions().keyDown(Key.ARROW_RIGHT).perform();
    await browser.driver.sleep(sized(2000, 200) as number);
    await browser.driver.actions().keyUp(Key.ARROW_RIGHT).perform();
  });
  const work = ((await scripts()) - before) / ((await walkedFrames()) - beforeFrames);
  say("between two pictures while walking", LARGE, walked.median, "ms", walked.spread, walked.best);
  say("scripts of the page for each frame walked", LARGE, work, "ms", 0, work);
  await bench.key(Key.ESCAPE);

  // A bucket over all of it, its undo, and the room as text: how long the page stands still for each.
  await started.api("/imports", {
    world: JSON.stringify({
      ...worldOf(SIDE, SIDE),
      id: "bare",
      rooms: worldOf(SIDE, SIDE).rooms.map((room) => ({ ...room, cells: room.cells.map(() => 0) })),
    }),
  });
  await browser.driver.get(`${started.address}/w/bare/bench`);
  await browser.find(".swatches [role=option]");
  await browser.untilText(".saving", (text) => text === "saved, revision 1");
  await bench.tile("wall");
  await browser.click("[aria-label='Fill']");
  const acts: [string, () => Promise<void>, () => Promise<unknown>][] = [
    [
      "a bucket",
      () => browser.driver.actions().move({ origin: canvas, x: 10, y: 10 }).press().release().perform(),
      () => browser.untilText(".saving", (text) => text === "saved, revision 2"),
    ],
    [
      "its undo",
      () => bench.key(Key.CONTROL, "z"),
      () => browser.untilText(".saving", (text) => text === "saved, revision 3"),
    ],
    [
      "the room as text",
      () => browser.press("button", "Type this room as text"),
      () => browser.find("[aria-label='Room text']"),
    ],
  ];
  const canvas = await browser.find(".field-canvas");
  await browser.driver.executeScript(
    "window.long = []; new PerformanceObserver((list) => window.long.push(...list.getEntries().map((each) => each.duration))).observe({ entryTypes: ['longtask'] })",
  );
  for (const [what, act, done] of acts) {
    if (what === "the room as text") await browser.press(".kit-head [role=tab]", "Room");
    else await browser.driver.executeScript("document.querySelector('.field-canvas').focus()");
    await browser.driver.executeScript("window.long.length = 0");
    await act();
    await done();
    // Tasks are told of after their end.
    await browser.driver.executeScript(
      "return new Promise((done) => requestIdleCallback(() => setTimeout(done, 100)))",
    );
    const longest = Math.max(0, ...(await browser.driver.executeScript<number[]>("return window.long")));
    say("longest that the page stands still", `${what}, ${LARGE}`, Math.max(1, longest), "ms", 0, Math.max(1, longest));
  }

  // A board of a thousand logs: all of them run in the page, and the board scrolled.
  const many = Object.fromEntries(
    Array.from({ length: LOGS }, (_, i) => [
      `walk-${i}`,
      `keen-pebble-inputs 1\ntitle Walk ${i}\ncheck always aligned\ncheck never overlap\n---\n${["72 U\n48 R\n72 D\n48 L\n", "48 R\n72 U\n48 L\n72 D\n"][i % 2]!.repeat(15)}`,
    ]),
  );
  await started.api("/imports", { world: demo.replace('"id": "saltglass-cistern"', '"id": "many"'), logs: many });
  await started.api("/worlds/many/outcomes");
  await browser.driver.get(`${started.address}/w/many/proofs`);
  const told1000 = await browser.untilText(".status", (text) => /last look at \d+ logs took \d+ ms/.test(text));
  const board = `${LOGS} logs of 3,600 frames in the page`;
  const looked = Number(/took (\d+) ms/.exec(told1000)![1]);
  say("all logs run in the page", board, looked, "ms", 0, looked);
  const scrolled = await pictures(() =>
    browser.driver.executeAsyncScript(
      "const done = arguments[1]; const box = document.querySelector('.board-rows'); let n = 0; (function on() { box.scrollTop += 90; if (n++ < arguments[0]) requestAnimationFrame(on); else done(); })();",
      sized(150, 10),
    ),
  );
  say("between two pictures while the board is scrolled", board, scrolled.median, "ms", scrolled.spread, scrolled.best);

  // Ten minutes of a walk that curves all the time: each frame of its trail is a line of its own.
  const ways = ["U", "RU", "R", "RD", "D", "LD", "L", "LU"];
  const curves = Array.from({ length: CURVES }, (_, i) => `${1 + ((i * 7) % 19)} ${ways[(i * 5 + (i >> 3)) % 8]}\n`);
  await started.api("/imports", {
    world: demo
      .replace('"id": "saltglass-cistern"', '"id": "curved"')
      .replace('"gait": "glide"', '"gait": "drift"')
      .replace('"ways": 4, "prefer"', '"ways": 8, "prefer"'),
    logs: { long: `keen-pebble-inputs 1\n---\n${curves.join("")}` },
  });
  await browser.driver.get(`${started.address}/w/curved/bench?log=long&f=${CURVES * 5}`);
  await bench.ready();
  const played = await pictures(async () => {
    await bench.key(Key.SPACE);
    await browser.driver.sleep(sized(2500, 200) as number);
    await bench.key(Key.SPACE);
  });
  const curved = `a curved walk of ${CURVES * 10} frames`;
  say("between two pictures while playing the log", curved, played.median, "ms", played.spread, played.best);

  // A log of a million frames: from a key to the explanation of the next frame.
  await started.api("/imports", {
    world: demo.replace('"id": "saltglass-cistern"', '"id": "million"'),
    logs: {
      million: `keen-pebble-inputs 1\ncheck always aligned\n---\n${"72 U\n48 R\n72 D\n48 L\n".repeat(LONG_ROUNDS)}`,
    },
  });
  await browser.driver.get(`${started.address}/w/million/bench?log=million&f=${Math.round(LONG_ROUNDS * 157)}`);
  const ran = await browser.untilText(".status", (text) => text.includes(`${LONG_ROUNDS * 240} frames in`));
  const took = Number(/frames in ([\d.]+) ms/.exec(ran)![1]);
  say("re-run of a log in the page's worker", "999,840 frames", took, "ms", 0, took);
  const explained: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    explained.push(
      await browser.driver.executeAsyncScript<number>(
        `const done = arguments[0];
         const live = [...document.querySelectorAll(".visually-hidden[role=status]")].at(-1);
         const began = performance.now();
         const seen = new MutationObserver(() => { seen.disconnect(); done(performance.now() - began); });
         seen.observe(live, { subtree: true, childList: true, characterData: true });
         window.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowRight", bubbles: true }));`,
      ),
    );
  }
  const step = middle(explained);
  say("from a key to the explanation of the next frame", "999,840 frames", step.median, "ms", step.spread, step.best);
} finally {
  await browser.close();
  await server.stop();
}
