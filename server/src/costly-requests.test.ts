import { pino } from "pino";
import request from "supertest";
import { describe, expect, it } from "vitest";
import { apiRoutes, createApp } from "./app.ts";
import type { TestApplication } from "./test-support/application.ts";
import { newId, worldFile } from "./test-support/demo-world.ts";
import { withTestApplication } from "./test-support/application.ts";
import { listening } from "./test-support/listening.ts";
import { blankPng, bombPng, profileBombPng } from "./test-support/odd-pngs.ts";

let test: TestApplication;
withTestApplication((made) => {
  test = made;
});

const api = () => request(test.server);
const bringIn = async (files: object): Promise<void> => void (await api().post("/api/imports").send(files).expect(200));
/** The application as it is served, with nothing that looks at what it answers. */
const ownServer = () => {
  const { db, desk, services } = test;
  const logger = pino({ level: "silent" });
  return listening(createApp({ db, desk, services, logger, webFolder: null, hosts: ["127.0.0.1"] }));
};

describe("what is large or costly", () => {
  it("is read while others are answered at once", async () => {
    const id = newId();
    await bringIn({ world: worldFile(id) });
    const server = await ownServer();
    const address = `${server.address}/api`;
    const long = `keen-pebble-inputs 1\n---\n${"1 R\n1 L\n".repeat(250_000)}`;
    const json = (value: unknown): RequestInit => ({
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(value),
    });
    const png = (bytes: Buffer): RequestInit => ({
      method: "PUT",
      headers: { "content-type": "image/png" },
      body: new Uint8Array(bytes),
    });
    // A thread of each kind is there.
    await fetch(`${address}/worlds/${id}`);
    const sent = [blankPng(4096, 4096), bombPng(), profileBombPng()];
    const bodies = [
      json({ logs: { long }, into: id }),
      { ...json(null), body: `{"world": ${JSON.stringify("[".repeat(5_000_000))}}` },
      { ...json(null), body: `{"logs": {"a": ${"[".repeat(5_000_000)}` },
    ];
    const costly = Promise.all([
      ...sent.map((picture, i) => fetch(`${address}/worlds/${id}/sheets/${i}.png`, png(picture))),
      ...bodies.map((body) => fetch(`${address}/imports`, body)),
    ]);
    let over = false;
    void costly.finally(() => (over = true)).catch(() => undefined);
    let answered = 0;
    while (!over) {
      // So many are answered that there may be too many.
      expect([200, 429]).toContain((await fetch(`${address}/health`)).status);
      answered++;
    }
    expect((await costly).map(({ status }) => status)).toEqual([200, 422, 200, 200, 422, 400]);
    await server.close();
    // Were they read where the answers are made, there would be none in between.
    expect(answered).toBeGreaterThan(100);
  });

  it("a log is refused where its frames times its checks would hold a thread for minutes", async () => {
    const heavy = `keen-pebble-inputs 1\n${"check always aligned\n".repeat(10_000)}---\n1000000 .\n`;
    await api()
      .post("/api/imports")
      .send({ world: worldFile(newId()), logs: { heavy } })
      .expect(422, /10000 checks over 1000000 frames are too many/);
  });

  it("a log of many checks is proven in turns, all of them in order, laws and what ran out behind them", async () => {
    const id = newId();
    const checks = Array.from({ length: 250 }, (_, i) => `at ${i} room intake-hall`);
    const log = `keen-pebble-inputs 1\n${checks.map((check) => `check ${check}\n`).join("")}---\n300 .\n5 . until cell 0 0\n`;
    await bringIn({ world: worldFile(id).replace('"laws": []', '"laws": ["never overlap"]'), logs: { log } });
    const { outcomes } = (await api().get(`/api/worlds/${id}/outcomes`).expect(200)).body as {
      outcomes: { checks: { check: string }[] }[];
    };
    const said = outcomes[0]!.checks.map(({ check }) => check);
    expect(said.slice(0, 250)).toEqual(checks);
    expect(said.at(-1)).toBe("until cell 0 0");
    expect(new Set(said).size).toBe(said.length);
  });
});

it("whoever asks too often is told to ask again later", async () => {
  const routes = apiRoutes({
    db: test.db,
    desk: test.desk,
    services: test.services,
    logger: pino({ level: "silent" }),
  });
  const { often } = routes.find(({ path }) => path === "/events")!;
  const server = await ownServer();
  const address = `${server.address}/api/events`;
  try {
    let answer: Response | null = null;
    for (let i = 0; i <= often!; i++) {
      const abort = new AbortController();
      answer = await fetch(address, { signal: abort.signal });
      if (answer.ok) abort.abort();
    }
    expect(answer!.status).toBe(429);
    expect(answer!.headers.get("retry-after")).toBe("1");
    expect(await answer!.json()).toMatchObject({ code: "too-many-requests" });
  } finally {
    await server.close();
  }
});
