import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, beforeAll, expect, it } from "vitest";
import { axeFindings } from "./accessible.ts";
import type { BenchDriver } from "./bench-driver.ts";
import { Browser } from "./browser.ts";
import type { Started } from "./started.ts";
import { withApplication } from "./with-application.ts";

const CLI = new URL("../cli/dist/main.js", import.meta.url).pathname;
const CONTROLLER = readFileSync(new URL("../demo/stand-in-controller.js", import.meta.url), "utf8");
const RIGHT_KEY = "\uE014";

let started: Started;
let browser: Browser;
let bench: BenchDriver;
let player: Browser;
let id: string;
let address: string;
withApplication((scene) => {
  ({ started, browser, bench } = scene);
});
beforeAll(async () => {
  player = await Browser.open();
  id = await started.copy("saltglass-cistern");
});
afterAll(async () => player.close());

/** Px of the room at which the walker of the play stands. */
async function walker(): Promise<{ readonly x: number; readonly y: number }> {
  const said = await player.driver.executeScript<string>(
    "return document.querySelector('.play-field')?.dataset.walker ?? ''",
  );
  const [, x, y] = said.split(" ").map(Number);
  return { x: x!, y: y! };
}

/** The text of a log that came in. */
async function logOf(log: string): Promise<string> {
  const { logs } = await started.api<{ logs: Record<string, string> }>(`/worlds/${id}`);
  return logs[log]!;
}

/** The lines that were pressed. */
const pressed = (text: string): string[] => text.trim().split("\n---\n")[1]!.split("\n");

/** What the command line makes of a log. */
async function replayed(log: string): Promise<{ fingerprint: string; frames: number }> {
  const folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-played-"));
  const world = await fetch(`${started.address}/api/worlds/${id}/world.json`);
  writeFileSync(path.join(folder, "w.world.json"), await world.text());
  writeFileSync(path.join(folder, "l.inputs"), await logOf(log));
  const answer = spawnSync("node", [CLI, "replay", "w.world.json", "l.inputs", "--json"], {
    cwd: folder,
    encoding: "utf8",
  });
  rmSync(folder, { recursive: true });
  return JSON.parse(answer.stdout) as { fingerprint: string; frames: number };
}

async function say(name: string, opinion: string): Promise<void> {
  await player.press("header button", "Say what you think");
  const field = await player.find(".tell input");
  await player.driver.executeScript("arguments[0].select()", field);
  await field.sendKeys(name);
  await (await player.find(".tell textarea")).sendKeys(opinion);
  await player.press(".tell button", "Send");
  await player.untilText(".tell", (text) => text.startsWith("Sent"));
}

it("the link is switched on in the Journal, and a second browser plays the world by keys and sends it", async () => {
  await browser.driver.get(`${started.address}/w/${id}/journal`);
  await browser.click(".playtest input");
  address = await browser.untilText(".playtest a", (text) => text.startsWith("http://"));
  expect(new URL(address).origin).not.toBe(started.address);
  await player.driver.get(address);
  await player.find(".play-field");
  expect(await axeFindings(player)).toEqual([]);
  const { x } = await walker();
  await player.driver.actions().keyDown(RIGHT_KEY).perform();
  await player.wait(async () => (await walker()).x > x);
  await player.driver.actions().keyUp(RIGHT_KEY).perform();
  await player.press("header button", "Say what you think");
  await player.find(".tell textarea");
  expect(await axeFindings(player)).toEqual([]);
  await player.press(".tell button", "Play on");
  await say("Ada", "Where is the crank?");
  expect(await axeFindings(player)).toEqual([]);
  await browser.untilText(".revisions", (text) => text.includes("Where is the crank?") && text.includes("by Ada"));
  const text = await logOf("playtest-1");
  expect(pressed(text)).toContainEqual(expect.stringMatching(/^\d+ R$/));
  const { fingerprint } = await replayed("playtest-1");
  expect(text).toContain(`note Its run there: ${fingerprint}\n`);
});

it("the log is on the board as one from outside, and opens on the Bench", async () => {
  await browser.driver.get(`${started.address}/w/${id}/proofs?log=playtest-1`);
  await browser.untilText("[data-log=playtest-1]", (text) => /Playtest 1: Ada.*outside/s.test(text));
  await browser.driver.get(`${started.address}/w/${id}/bench?log=playtest-1`);
  await bench.ready();
  const { frames } = await replayed("playtest-1");
  await browser.untilText("main", (text) => text.includes(`of ${frames}`) || text.includes(`/ ${frames}`));
});

it("a game controller walks, and fingers do", async () => {
  await player.press(".tell button", "Play again");
  await player.driver.executeScript(CONTROLLER);
  await player.wait(() => player.driver.executeScript<boolean>("return document.querySelector('.tell') === null"));
  const from = await walker();
  await player.driver.executeScript("standInController.hold('right', 'a')");
  await player.wait(async () => (await walker()).x > from.x);
  await player.driver.executeScript("standInController.hold(); standInController.stick(0, 1)");
  await player.wait(async () => (await walker()).y > from.y);
  await player.driver.executeScript("standInController.stick(0, 0)");
  await say("Ben", "");
  expect(pressed(await logOf("playtest-2")).join(" ")).toMatch(/\d+ RA\b.*\d+ D\b/);

  await player.command("Emulation.setTouchEmulationEnabled", { enabled: true, maxTouchPoints: 2 });
  await player.driver.navigate().refresh();
  const stick = await player.find(".stick");
  const { x, y, width, height } = await stick.getRect();
  const touch = (type: string, points: readonly (readonly [number, number])[]): Promise<unknown> =>
    player.command("Input.dispatchTouchEvent", {
      type,
      touchPoints: points.map(([px, py], id) => ({ x: px, y: py, id })),
    });
  const before = await walker();
  await touch("touchStart", [[x + width - 8, y + height / 2]]);
  await player.wait(async () => (await walker()).x > before.x);
  await touch("touchMove", [[x + width / 2, y + height - 8]]);
  await player.wait(async () => (await walker()).y > before.y);
  await touch("touchEnd", []);
  await say("Cleo", "By hand.");
  expect(pressed(await logOf("playtest-3")).join(" ")).toMatch(/\d+ R\b.*\d+ D\b/);
});

it("what cannot be sent stays, and is sent once it can be; a link that is switched off is closed", async () => {
  await player.press(".tell button", "Play again");
  await player.press("header button", "Say what you think");
  await (await player.find(".tell textarea")).sendKeys("Kept.");
  started.postgres.stop("immediate");
  await player.press(".tell button", "Send");
  await player.untilText(".tell [role=alert]", (text) => text.includes("What you typed is still here"));
  started.postgres.restart();
  await player.wait(async () => (await fetch(`${started.address}/api/health`)).ok);
  await player.press(".tell button", "Send");
  await player.untilText(".tell", (text) => text.startsWith("Sent"));
  expect(await logOf("playtest-4")).toContain("title Playtest 4: Cleo");
  expect(await logOf("playtest-5")).toBeUndefined();
  // A server that was killed serves the link again.
  await started.kill();
  await expect(fetch(address)).rejects.toThrow();
  await started.startAgain();
  expect((await fetch(address)).status).toBe(200);
  const off = await fetch(`${started.address}/api/worlds/${id}/playtest`, {
    method: "PUT",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ on: false }),
  });
  expect(off.status).toBe(200);
  await expect(fetch(address)).rejects.toThrow();
});
