// How long somebody else waits for the server while it reads what is large or hostile, and how long that takes.
import { Worker } from "node:worker_threads";
import { crc32, deflateSync } from "node:zlib";
import { say, sized } from "./measure.mjs";
import { ownServer } from "./own-server.mjs";
import { worldOf } from "./worlds.mjs";

const chunk = (type, data) => {
  const body = Buffer.concat([Buffer.from(type, "latin1"), data]);
  const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
  length.writeUInt32BE(data.length);
  sum.writeUInt32BE(crc32(body));
  return Buffer.concat([length, body, sum]);
};
const png = (width, height, bytes) => {
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 6, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk("IHDR", head),
    chunk("IDAT", deflateSync(Buffer.alloc(bytes))),
    chunk("IEND", Buffer.alloc(0)),
  ]);
};
/** @returns {[string, string, string, string]} */
const json = (value) => ["POST", "/imports", "application/json", JSON.stringify(value)];
const SIDE = sized(512, 64);
const large = worldOf(SIDE, SIDE);
const PICTURE = sized(4096, 256);
const BRACKETS = sized(10_000_000, 100_000);
/** @type {Record<string, [method: string, route: string, type: string, body: string | Uint8Array<ArrayBuffer>]>} */
const files = {
  "a picture of 4096 x 4096 px": [
    "PUT",
    "/worlds/reading/sheets/a.png",
    "image/png",
    png(PICTURE, PICTURE, PICTURE * (1 + 4 * PICTURE)),
  ],
  "a picture that unpacks to 500 MB": [
    "PUT",
    "/worlds/reading/sheets/b.png",
    "image/png",
    png(64, 64, sized(500_000_000, 5_000_000)),
  ],
  "a log of a million lines": json({
    logs: { long: `keen-pebble-inputs 1\n---\n${"1 R\n1 L\n".repeat(sized(500_000, 500))}` },
    into: "reading",
  }),
  "ten MB of brackets": ["POST", "/imports", "application/json", "[".repeat(BRACKETS)],
  "ten MB of brackets as a world": json({ world: "[".repeat(BRACKETS) }),
  "three million values": json({ world: `{"rooms":[${"{},".repeat(sized(2_000_000, 2000))}{}]}` }),
  "seven rooms of 512 x 512 cells": json({
    world: JSON.stringify({
      ...large,
      id: "largest",
      rooms: Array.from({ length: 7 }, (_, i) => ({ ...large.rooms[0], id: `r${i}` })),
      start: { ...large.start, room: "r0" },
    }),
  }),
};

const server = await ownServer();
/** Asks one small thing after the other, from a thread of its own, and tells the longest wait since it was last asked. */
const pinger = new Worker(
  `const { parentPort, workerData } = require("node:worker_threads");
   let longest = 0;
   parentPort.on("message", () => { parentPort.postMessage(longest); longest = 0; });
   (async () => {
     for (;;) {
       const began = performance.now();
       await fetch(workerData).then((answer) => answer.arrayBuffer());
       longest = Math.max(longest, performance.now() - began);
       // Below the limit of its rate.
       await new Promise((resolve) => setTimeout(resolve, 4));
     }
   })();`,
  { eval: true, workerData: `${server.address}/api/health` },
);
const longest = () =>
  new Promise((resolve) => {
    pinger.once("message", resolve);
    pinger.postMessage(null);
  });
try {
  await server.ask("/imports", "POST", { world: JSON.stringify({ ...worldOf(16, 16), id: "reading" }) });
  for (const [what, [method, route, type, body]] of Object.entries(files)) {
    const took = [];
    const waits = [];
    for (let i = 0; i < sized(3, 1); i++) {
      await longest();
      const began = performance.now();
      const answer = await fetch(`${server.address}/api${route}`, { method, headers: { "content-type": type }, body });
      await answer.arrayBuffer();
      if (answer.status >= 500) throw new Error(`${what}: ${answer.status}`);
      took.push(performance.now() - began);
      waits.push(await longest());
    }
    const middle = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];
    say("read what came from outside", what, middle(took), "ms", 0, Math.min(...took));
    say("longest wait of somebody else meanwhile", what, Math.max(...waits), "ms", 0);
  }
} finally {
  await pinger.terminate();
  await server.stop();
}
