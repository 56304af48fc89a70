import { numbersFrom } from "../../scripts/speed/worlds.mjs";
import { BenchDriver } from "../bench-driver.ts";
import type { Browser } from "../browser.ts";
import type { Started } from "../started.ts";

/** What came of two tabs that edit one world while the database is away. */
export interface TwoTabs {
  readonly seconds: number;
  readonly strokes: number;
  /** How long it took until both were saved once the database was back. */
  readonly savedAfterMs: number;
  /** Painted cells that hold neither what one of the tabs painted last, nor stand so in a copy. */
  readonly lost: number;
  /** Whether both tabs and the server show the same room in the end. */
  readonly equal: boolean;
}

const WIDTH = 20;

/** Paints in two tabs, in cells of their own and in shared ones, for so long without a database. */
export async function twoTabs(started: Started, browser: Browser, seconds: number, seed: number): Promise<TwoTabs> {
  const pick = numbersFrom(seed);
  const bench = new BenchDriver(browser);
  const open = async (): Promise<void> => {
    await browser.driver.get(`${started.address}/w/saltglass-cistern/bench?room=intake-hall`);
    await bench.ready();
  };
  await open();
  const first = await browser.driver.getWindowHandle();
  const second = await browser.newTab();
  await open();
  const tabs = [
    { handle: first, tile: "Mossy stone", id: "moss", columns: [2, 3] },
    { handle: second, tile: "Salt crust", id: "crust", columns: [16, 17] },
  ] as const;
  for (const { handle, tile } of tabs) {
    await browser.driver.switchTo().window(handle);
    await bench.tile(tile);
  }
  started.postgres.stop("immediate");
  const painted = new Map<number, Set<string>>();
  const began = performance.now();
  let strokes = 0;
  while (performance.now() - began < seconds * 1000) {
    const { handle, id, columns } = tabs[pick(2)]!;
    await browser.driver.switchTo().window(handle);
    for (let i = 0; i < 4; i++) {
      // Now and then where the other one paints too.
      const [x, y] = [pick(6) === 0 ? 18 : columns[pick(2)]!, 3 + pick(7)];
      await bench.drag([x, y]);
      painted.set(y * WIDTH + x, (painted.get(y * WIDTH + x) ?? new Set()).add(id));
      strokes++;
    }
    await browser.untilText(".saving", (text) => text.startsWith("offline") && text.includes("kept here"));
  }
  started.postgres.restart();
  const back = performance.now();
  for (const { handle } of tabs) {
    await browser.driver.switchTo().window(handle);
    await browser.untilText(".saving", (text) => text.startsWith("saved"));
  }
  const savedAfterMs = Math.round(performance.now() - back);
  interface Opened {
    readonly revision: number;
    readonly world: {
      readonly tiles: readonly { readonly id: string }[];
      readonly rooms: readonly { readonly id: string; readonly cells: readonly number[] }[];
    };
  }
  const read = async (id: string): Promise<(cell: number) => string> => {
    const { world } = await started.api<Opened>(`/worlds/${id}`);
    const { cells } = world.rooms.find((room) => room.id === "intake-hall")!;
    return (cell) => world.tiles[cells[cell]!]!.id;
  };
  const { worlds } = await started.api<{ worlds: { id: string }[] }>("/worlds");
  const all = await Promise.all(
    worlds.filter(({ id }) => id.startsWith("saltglass-cistern")).map(({ id }) => read(id)),
  );
  let lost = 0;
  // Whatever a tab painted stands in the world or in a copy.
  for (const [cell, ids] of painted) for (const id of ids) if (!all.some((at) => at(cell) === id)) lost++;
  const { revision } = await started.api<Opened>("/worlds/saltglass-cistern");
  const texts = new Set<string>();
  for (const { handle } of tabs) {
    await browser.driver.switchTo().window(handle);
    await browser.untilText(".saving", (text) => text === `saved, revision ${revision}`);
    await browser.press(".kit-head [role=tab]", "Room");
    await browser.driver.executeScript(
      "[...document.querySelectorAll('button')].find((each) => each.textContent === 'Type this room as text').click()",
    );
    texts.add(String(await (await browser.find("[aria-label='Room text']")).getAttribute("value")));
  }
  await browser.driver.close();
  await browser.driver.switchTo().window(first);
  // What both show is what a tab shows that is opened anew.
  await open();
  await browser.press(".kit-head [role=tab]", "Room");
  await browser.driver.executeScript(
    "[...document.querySelectorAll('button')].find((each) => each.textContent === 'Type this room as text').click()",
  );
  texts.add(String(await (await browser.find("[aria-label='Room text']")).getAttribute("value")));
  return { seconds, strokes, savedAfterMs, lost, equal: texts.size === 1 };
}
