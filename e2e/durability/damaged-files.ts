import { randomUUID } from "node:crypto";
import { readFileSync, readdirSync } from "node:fs";
import path from "node:path";
import { zipSync, strToU8 } from "fflate";
import { numbersFrom } from "../../scripts/speed/worlds.mjs";
import type { Browser } from "../browser.ts";
import type { Started } from "../started.ts";
import { processMemory } from "./process-memory.ts";

/** What came of files that are not in order. */
export interface DamagedFiles {
  readonly files: number;
  /** Of them through the page. */
  readonly byPage: number;
  readonly refused: number;
  readonly taken: number;
  /** Answers that are faults, worlds that are not whole, a server that is another one. */
  readonly faults: readonly string[];
  readonly slowestMs: number;
  readonly peakMiB: number;
}

type Draw = (below: number) => number;
interface Damaged {
  readonly kind: string;
  readonly bytes: Uint8Array;
}

const demo = path.resolve(import.meta.dirname, "../../demo/saltglass-cistern");

/** Files of every kind that the server or the page reads. */
function goodFiles(): Damaged[] {
  const world = strToU8(
    readFileSync(path.join(demo, "saltglass-cistern.world.json"), "utf8").replace(
      '"id": "saltglass-cistern"',
      '"id": "damaged"',
    ),
  );
  const logs = readdirSync(path.join(demo, "logs")).slice(0, 4);
  const log = (name: string): Uint8Array => readFileSync(path.join(demo, "logs", name));
  const [sheet] = readdirSync(path.join(demo, "sheets"));
  const png = readFileSync(path.join(demo, "sheets", sheet!));
  const bundle = zipSync({
    "world.json": world,
    [`logs/${logs[0]!}`]: log(logs[0]!),
    [`sheets/${sheet!}`]: png,
    "journal.md": strToU8("# Journal\n"),
  });
  const csv = strToU8("frame,keys\n1,R\n20,RU\n40,.\n41,L\n");
  const edit = strToU8(
    JSON.stringify({
      batch: randomUUID(),
      base: 1,
      steps: [
        { kind: "set-cells", room: "intake-hall", cells: [1, 2], before: [1, 1], after: [0, 0] },
        { kind: "change-parts", parts: [{ part: "name", before: "Saltglass Cistern", after: "Damaged" }] },
      ],
    }),
  );
  return [
    { kind: "world", bytes: world },
    { kind: "world", bytes: world },
    ...logs.map((name) => ({ kind: "log", bytes: log(name) })),
    { kind: "csv", bytes: csv },
    { kind: "bundle", bytes: bundle },
    { kind: "bundle", bytes: bundle },
    { kind: "sheet", bytes: png },
    { kind: "edit", bytes: edit },
  ];
}

const ODD = [
  "\0",
  "\ufeff",
  "\ud800",
  "\r\n",
  "1e999",
  "-0",
  "[".repeat(2000),
  '{"a":'.repeat(2000),
  "constructor",
  "__proto__",
  "9".repeat(400),
  "é".repeat(300),
  '"\\u0000"',
  '"\\ud800"',
  "]",
  "}",
  "---",
  "until",
];

/** A copy with bits flipped, cut short, a stretch doubled or moved, or odd characters put in. */
function damaged(bytes: Uint8Array, pick: Draw): Uint8Array {
  const at = (): number => pick(bytes.length);
  switch (pick(5)) {
    case 0: {
      const copy = Uint8Array.from(bytes);
      for (let i = 0; i < 1 + pick(6); i++) copy[at()]! ^= 1 << pick(8);
      return copy;
    }
    case 1:
      return bytes.slice(0, at());
    case 2: {
      const [from, to] = [at(), at()].sort((a, b) => a - b) as [number, number];
      return Buffer.concat([bytes.slice(0, to), bytes.slice(from)]);
    }
    case 3: {
      const [from, to] = [at(), at()].sort((a, b) => a - b) as [number, number];
      return Buffer.concat([bytes.slice(0, from), bytes.slice(to)]);
    }
    default: {
      const into = at();
      return Buffer.concat([bytes.slice(0, into), Buffer.from(ODD[pick(ODD.length)]!), bytes.slice(into)]);
    }
  }
}

/** Sends damaged files to the server and through the page's own ways in. */
export async function damagedFiles(
  started: Started,
  browser: Browser | null,
  files: number,
  byPage: number,
  seed: number,
): Promise<DamagedFiles> {
  const pick = numbersFrom(seed);
  const good = goodFiles();
  const faults: string[] = [];
  const fault = (what: string): void => {
    if (faults.length < 20) faults.push(what);
  };
  let refused = 0;
  let taken = 0;
  let slowestMs = 0;
  const { pid } = started;
  const send = async ({ kind, bytes }: Damaged): Promise<Response> => {
    const post = (route: string, type: string, body: Uint8Array | string, method = "POST"): Promise<Response> =>
      fetch(`${started.address}/api${route}`, {
        method,
        headers: { "content-type": type },
        body: typeof body === "string" ? body : new Uint8Array(body),
      });
    // As the page reads a file before it sends it.
    const text = new TextDecoder().decode(bytes);
    switch (kind) {
      case "world":
        return post("/imports", "application/json", JSON.stringify({ world: text }));
      case "log":
        return post(
          "/imports",
          "application/json",
          JSON.stringify({ logs: { damaged: text }, into: "trying-grounds" }),
        );
      case "csv":
        return post(
          "/imports",
          "application/json",
          JSON.stringify({ csvLogs: { damaged: text }, into: "trying-grounds" }),
        );
      case "bundle":
        return post("/imports", "application/zip", bytes);
      case "sheet":
        return post("/worlds/trying-grounds/sheets/damaged.png", "image/png", bytes, "PUT");
      default:
        return post("/worlds/trying-grounds/revisions", "application/json", bytes);
    }
  };
  for (let n = 0; n < files - byPage; n++) {
    const file = good[pick(good.length)]!;
    const bytes = damaged(file.bytes, pick);
    const began = performance.now();
    let answer: Response;
    try {
      answer = await send({ kind: file.kind, bytes });
      if (answer.status === 429) {
        await new Promise((resolve) => setTimeout(resolve, 1000));
        answer = await send({ kind: file.kind, bytes });
      }
    } catch (error) {
      fault(`${file.kind}: ${(error as Error).message}`);
      continue;
    }
    slowestMs = Math.max(slowestMs, performance.now() - began);
    const said = (await answer.json().catch(() => null)) as { detail?: string } | null;
    if (answer.status >= 500 || said === null || (!answer.ok && !said.detail))
      fault(`${file.kind} ${n}: ${answer.status} ${JSON.stringify(said).slice(0, 200)}`);
    if (answer.ok) taken++;
    else refused++;
  }
  if (browser !== null) {
    const page = await damagedByPage(started, browser, byPage, pick, good, fault);
    refused += page.refused;
    taken += page.taken;
    slowestMs = Math.max(slowestMs, page.slowestMs);
  }
  // Nothing half done: every world that is there opens, and its file and its bundle go out.
  const { worlds } = await started.api<{ worlds: { id: string }[] }>("/worlds");
  for (const { id } of worlds) {
    for (const route of ["", "/world.json", "/bundle.zip"]) {
      const answer = await fetch(`${started.address}/api/worlds/${id}${route}`);
      if (!answer.ok) fault(`${id}${route}: ${answer.status}`);
      await answer.arrayBuffer();
    }
  }
  if (started.pid !== pid) fault("the server is another one");
  return {
    files,
    byPage: browser === null ? 0 : byPage,
    refused,
    taken,
    faults,
    slowestMs: Math.round(slowestMs),
    peakMiB: Math.round(processMemory(pid).peak),
  };
}

/** Hands files to the page as its fields for files take them, and waits until it says what became of each. */
async function damagedByPage(
  started: Started,
  browser: Browser,
  files: number,
  pick: Draw,
  good: readonly Damaged[],
  fault: (what: string) => void,
): Promise<{ refused: number; taken: number; slowestMs: number }> {
  const ENDINGS = new Map([
    ["world", "json"],
    ["log", "inputs"],
    ["csv", "csv"],
    ["bundle", "zip"],
    ["sheet", "png"],
  ]);
  const readable = good.filter(({ kind }) => ENDINGS.has(kind));
  let refused = 0;
  let taken = 0;
  let slowestMs = 0;
  const give = async (field: string, name: string, bytes: Uint8Array): Promise<{ text: string; ms: number }> =>
    browser.driver.executeAsyncScript(
      `const [field, name, base64, done] = arguments;
       const began = performance.now();
       const input = document.querySelector(field);
       document.querySelector(".notice .btn-icon")?.click();
       document.querySelector(":is(.bring-map, .bring-recording) .btn-close")?.click();
       requestAnimationFrame(() => {
         const files = new DataTransfer();
         files.items.add(new File([Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))], name));
         input.files = files.files;
         input.dispatchEvent(new Event("change", { bubbles: true }));
         const look = () => {
           // What is no file of ours may be a map or a recording from elsewhere, which is asked about.
           const said = document.querySelector(":is(.bring-map, .bring-recording) [role=status]");
           const told = document.querySelector(".notice") ?? (said?.textContent ? said : null);
           if (told || performance.now() - began > 5000) done({ text: told?.textContent ?? "", ms: performance.now() - began });
           else setTimeout(look, 2);
         };
         look();
       });`,
      field,
      name,
      Buffer.from(bytes).toString("base64"),
    );
  const places = [
    { address: "/", field: "input[type=file]", kinds: ["world", "log", "csv", "bundle", "sheet"] },
    { address: "/w/trying-grounds/proofs", field: "input[type=file]", kinds: ["log", "csv"] },
  ];
  await browser.driver.manage().setTimeouts({ script: 20_000 });
  for (const { address, field, kinds } of places) {
    await browser.driver.get(`${started.address}${address}`);
    await browser.find("main");
    await browser.wait(async () =>
      browser.driver.executeScript("return document.querySelector(arguments[0]) !== null", field),
    );
    const fits = readable.filter(({ kind }) => kinds.includes(kind));
    for (let n = 0; n < Math.ceil(files / places.length); n++) {
      const { kind, bytes } = fits[pick(fits.length)]!;
      const { text, ms } = await give(field, `damaged.${ENDINGS.get(kind)!}`, damaged(bytes, pick));
      slowestMs = Math.max(slowestMs, ms);
      if (text === "") fault(`${address}: the page says nothing of a ${kind}`);
      else if (/is on the shelf|revision \d|just like that|taken in/.test(text)) taken++;
      else refused++;
      if (
        /Unexpected Application Error|Cannot (read|set) properties/.test(
          await browser.driver.executeScript<string>("return document.body.textContent"),
        )
      ) {
        fault(`${address}: the page died of a ${kind}`);
        await browser.driver.get(`${started.address}${address}`);
        await browser.find("main");
      }
    }
  }
  return { refused, taken, slowestMs };
}
