import { expect, it } from "vitest";
import { Key } from "selenium-webdriver";
import type { Origin } from "selenium-webdriver";
import { axeFindings } from "./accessible.ts";
import type { Application } from "./application.ts";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import { withSharedApplication } from "./with-application.ts";

let started: Application;
let browser: Browser;
let bench: BenchDriver;

withSharedApplication((scene) => ({ started, browser, bench } = scene));

interface Stored {
  readonly world: {
    readonly rooms: readonly {
      readonly id: string;
      readonly plan: readonly number[];
      readonly edges: Readonly<Record<string, unknown>>;
      readonly fixtures: readonly { readonly id: string; readonly keeps: string; readonly cell: readonly number[] }[];
    }[];
  };
  readonly logs: Readonly<Record<string, string>>;
}
const stored = (id: string): Promise<Stored> => started.api<Stored>(`/worlds/${id}`);
const until = async (id: string, fits: (project: Stored) => boolean): Promise<Stored> => {
  await browser.wait(async () => fits(await stored(id)));
  return stored(id);
};
const tab = (name: string): Promise<void> => browser.press(".kit-head [role=tab]", name);
const press = (css: string, words: string): Promise<void> => browser.press(css, words);
/** Drags on the plan from one place to another, in px from the canvas's upper left. */
async function dragPlan(
  from: readonly [number, number],
  to: readonly [number, number],
  ...held: string[]
): Promise<void> {
  const canvas = await browser.find(".plan-canvas");
  const { width, height } = await canvas.getRect();
  const at = ([x, y]: readonly [number, number]) => ({
    x: Math.round(x - width / 2),
    y: Math.round(y - height / 2),
    origin: canvas as unknown as Origin,
  });
  const actions = browser.driver.actions();
  for (const key of held) actions.keyDown(key);
  actions
    .move(at(from))
    .press()
    .move(at([(from[0] + to[0]) / 2, (from[1] + to[1]) / 2]))
    .move(at(to))
    .release();
  for (const key of held) actions.keyUp(key);
  await actions.perform();
}
/** Where a place of the plan is on the canvas: fitted as the page fits it. */
async function onPlan(id: string, x: number, y: number): Promise<readonly [number, number]> {
  const { rooms } = (await stored(id)).world as unknown as {
    rooms: { plan: [number, number]; width: number; height: number }[];
  };
  const { width, height } = await (await browser.find(".plan-canvas")).getRect();
  const [left, top] = [Math.min(...rooms.map((room) => room.plan[0])), Math.min(...rooms.map((room) => room.plan[1]))];
  const across = Math.max(...rooms.map((room) => room.plan[0] + room.width)) - left;
  const down = Math.max(...rooms.map((room) => room.plan[1] + room.height)) - top;
  const cell = Math.floor(Math.min((width - 72) / across, (height - 88) / down, 32));
  return [
    Math.round((width - across * cell) / 2 - left * cell) + x * cell,
    Math.round((height - down * cell) / 2 - top * cell) + 8 + y * cell,
  ];
}

it("two rooms are linked by drag, a key and a door placed, walked with real keys and kept; `keeps: visit` splits the pebble, and the table says why", async () => {
  const side = { kind: "wall" };
  const room = (id: string, plan: readonly [number, number]) => ({
    id,
    name: "Cellar",
    width: 10,
    height: 6,
    plan,
    edges: { north: side, east: side, south: side, west: side },
    cells: Array(60).fill(1),
    fixtures: [],
  });
  const tile = (id: string, flags: readonly string[]) => ({
    id,
    name: id,
    flags,
    shape: { kind: "full" },
    look: { fill: "#85918b", pattern: "flagstone" },
  });
  const world = {
    format: "keen-pebble-world",
    version: 1,
    id: "two-rooms",
    name: "Two rooms",
    tileSize: 16,
    flags: ["solid"],
    tiles: [tile("empty", []), tile("floor", []), tile("wall", ["solid"])],
    rules: [{ id: "main", name: "Main", gait: "glide", glide: { speed: 4, bufferFrames: 8 } }],
    activeRules: "main",
    start: { room: "cellar", cell: [2, 2], facing: "right" },
    rooms: [room("cellar", [0, 0])],
  };
  await started.api("/imports", { world: JSON.stringify(world), logs: {} });

  await browser.driver.get(`${started.address}/w/two-rooms/floorplan`);
  await browser.untilText(".status", (text) => text.includes("1 room, 0 linked sides"));
  await press(".plan-tools .btn", "Room");
  await browser.untilText(".status", (text) => text.includes("2 rooms, 0 linked sides"));
  await until("two-rooms", ({ world: w }) => w.rooms.length === 2);
  // A room is moved, and taken back; then the two sides that face each other are linked.
  await dragPlan(await onPlan("two-rooms", 18, 3), await onPlan("two-rooms", 18, 4));
  await until("two-rooms", ({ world: w }) => w.rooms[1]!.plan[1] === 1);
  await bench.key(Key.CONTROL, "z");
  await until("two-rooms", ({ world: w }) => w.rooms[1]!.plan[1] === 0);
  await bench.key("]");
  await bench.key("]");
  await bench.key(Key.ALT, Key.ARROW_DOWN);
  await until("two-rooms", ({ world: w }) => w.rooms.some(({ plan }) => plan[1] === 1));
  await bench.key(Key.ALT, Key.ARROW_UP);
  await until("two-rooms", ({ world: w }) => w.rooms.every(({ plan }) => plan[1] === 0));
  await dragPlan(await onPlan("two-rooms", 10, 2.5), await onPlan("two-rooms", 12, 2.5));
  await browser.untilText(".status", (text) => text.includes("2 linked sides"));
  const linked = await until("two-rooms", ({ world: w }) =>
    JSON.stringify(w.rooms[1]!.edges["west"]).includes("cellar"),
  );
  expect([linked.world.rooms[0]!.edges["east"], linked.world.rooms[1]!.edges["west"]]).toEqual([
    { kind: "link", room: "room-1", offset: 0 },
    { kind: "link", room: "cellar", offset: 0 },
  ]);
  expect(await axeFindings(browser)).toEqual([]);

  await press(".areas a", "Bench");
  await browser.find(".field-canvas");
  await tab("Fixtures");
  await press(".kinds button", "Item");
  await bench.dragPixels([4.5 * 16, 2.5 * 16], [4.5 * 16, 2.5 * 16]);
  await browser.untilText(".fixture-list", (text) => text.includes("key-1"));
  await press(".kinds button", "Door");
  await bench.dragPixels([8.5 * 16, 2.5 * 16], [8.5 * 16, 2.5 * 16]);
  await browser.untilText(".chosen-fixture", (text) => text.includes("Door"));
  await press(".chosen-fixture .toggle label", "Spends");
  expect(
    (await until("two-rooms", ({ world: w }) => w.rooms[0]!.fixtures.length === 2)).world.rooms[0]!.fixtures.map(
      ({ id, cell }) => `${id} ${cell.join(",")}`,
    ),
  ).toEqual(["key-1 4,2", "door-1 8,2"]);
  expect(await axeFindings(browser)).toEqual([]);

  await browser.driver.executeScript("document.querySelector('.field-canvas').focus()");
  await bench.key("r");
  await browser.untilText(".status", (text) => text.includes("Walking:"));
  // Through the door to the other room's far wall, and back into the first one.
  await browser.driver.actions().keyDown(Key.ARROW_RIGHT).perform();
  await browser.wait(
    async () =>
      (await browser.driver.executeScript<string>("return document.querySelector('.room-choice').value")) === "room-1",
  );
  await browser.driver.actions().keyUp(Key.ARROW_RIGHT).keyDown(Key.ARROW_LEFT).perform();
  await browser.wait(
    async () =>
      (await browser.driver.executeScript<string>("return document.querySelector('.room-choice').value")) === "cellar",
  );
  await browser.driver.actions().keyUp(Key.ARROW_LEFT).perform();
  await browser.untilText(".status", (text) => text.includes("on the grid"));
  await bench.key(Key.ESCAPE);
  await (await browser.find(".keep-walk .title")).sendKeys("Out and back", Key.ENTER);
  await bench.pebbles((pebbles) => pebbles.length > 0 && pebbles.every((pebble) => pebble.startsWith("passes")));
  const { logs } = await until("two-rooms", (project) => project.logs["out-and-back"] !== undefined);
  const kept = logs["out-and-back"]!.replace("---\n", "check end open door-1\n---\n");
  await started.api("/worlds/two-rooms/revisions", {
    batch: crypto.randomUUID(),
    base: (await started.api<{ revision: number }>("/worlds/two-rooms")).revision,
    steps: [{ kind: "change-log", log: "out-and-back", before: logs["out-and-back"], after: kept }],
  });

  await browser.driver.get(`${started.address}/w/two-rooms/bench?log=out-and-back&f=9999`);
  await bench.ready();
  await bench.pebbles((pebbles) =>
    pebbles.some((pebble) => pebble.startsWith("passes") && pebble.includes("end open door-1")),
  );
  await tab("Fixtures");
  await press(".fixture-list button", "door-1");
  await browser.driver.executeScript(
    "const s = [...document.querySelectorAll('.chosen-fixture label')].find((l) => l.textContent === 'Keeps').nextSibling; s.value = 'visit'; s.dispatchEvent(new Event('change', { bubbles: true }));",
  );
  await bench.pebbles((pebbles) =>
    pebbles.some((pebble) => pebble.startsWith("fails") && pebble.includes("end open door-1; seen: closed")),
  );
  await tab("Bag");
  await browser.untilText(".memory", (text) => text.includes("door-1visitclosedclosed"));
  await browser.untilText(".bag", (text) => text.includes("Key0"));
  expect(await axeFindings(browser)).toEqual([]);
  await browser.driver.executeScript("document.activeElement.blur()");
  await bench.key(Key.CONTROL, "z");
  await bench.pebbles((pebbles) => pebbles.every((pebble) => pebble.startsWith("passes")));
});

it("the plan tells what a room gives back: by walking out and in again, and by pointing at what a fixture could keep for", async () => {
  const id = await started.copy("saltglass-cistern");
  await browser.driver.get(`${started.address}/w/${id}/floorplan?log=04-wheel-and-gate&f=9999`);
  await browser.untilText(".re-entry .btn", (text) => text === "Leave Settling gallery and return");
  await press(".re-entry .btn", "Leave");
  await browser.untilText(
    ".re-entry",
    (text) => text.includes("pump-gate closed again") && text.includes("pump-a off now"),
  );
  const row = "[...document.querySelectorAll('.memory tr')].find((r) => r.textContent.includes('bead-2'))";
  const cells = (): Promise<string> =>
    browser.driver.executeScript(
      `return [...${row}.querySelectorAll('td')].slice(1).map((c) => c.textContent).join(' ')`,
    );
  expect(await cells()).toBe("there taken taken taken");
  const visit = await browser.driver.executeScript(
    `return [...${row}.querySelectorAll('[role=radio]')].find((b) => b.textContent === 'visit')`,
  );
  await browser.driver
    .actions()
    .move({ origin: visit as never })
    .perform();
  await browser.wait(async () => (await cells()) === "there taken there taken");
  await browser.driver.actions().move({ x: 5, y: 5 }).perform();
  await browser.wait(async () => (await cells()) === "there taken taken taken");
  expect(await axeFindings(browser)).toEqual([]);
  await press(".re-entry .btn", "Keep as a log");
  await until(id, ({ logs }) => Object.keys(logs).some((log) => log.startsWith("out-of-settling-gallery")));
  await bench.key(Key.CONTROL, "z");
  await until(id, ({ logs }) => !Object.keys(logs).some((log) => log.startsWith("out-of-settling-gallery")));
});

it("set down with a frame's bag and doors, the walk is kept whole in itself", async () => {
  const id = await started.copy("saltglass-cistern");
  await browser.driver.get(`${started.address}/w/${id}/bench?log=02-crank-opens-sluice&f=300`);
  await bench.ready();
  await bench.dragPixels([16.5 * 16, 9.5 * 16], [16.5 * 16, 9.5 * 16]);
  await bench.key(Key.CONTROL, "z");
  await browser.driver.executeScript("document.querySelector('.field-canvas').focus()");
  await bench.key(Key.SHIFT, "s");
  await browser.untilText(".status", (text) => text.includes("Walking:"));
  // On a slow machine it is through the door before that is seen.
  await bench.hold(Key.ARROW_RIGHT, (x) => x !== 16);
  await browser.untilText(".status", (text) => text.includes("on the grid"));
  await bench.key(Key.ESCAPE);
  await (await browser.find(".keep-walk .title")).sendKeys("At the sluice with the crank", Key.ENTER);
  const { logs } = await until(id, (project) => project.logs["at-the-sluice-with-the-crank"] !== undefined);
  expect(logs["at-the-sluice-with-the-crank"]).toContain("\nwith holds brass-crank\nwith taken crank-1\n");
});
