import type { ChildProcess } from "node:child_process";
import { spawn } from "node:child_process";
import { readFileSync } from "node:fs";
import net from "node:net";
import type { Knex } from "knex";
import { afterAll, beforeAll, expect, it } from "vitest";
import { connect } from "./database/connect.ts";
import { ALL_PLAY } from "./services/proofs.ts";
import { OutcomeRow } from "./models/outcome-row.ts";
import { PendingProofRow } from "./models/pending-proof-row.ts";
import { ProofRunRow } from "./models/proof-run-row.ts";
import { TakenJobRow } from "./models/taken-job-row.ts";
import type { OwnDatabase } from "./test-support/own-database.ts";
import { ownDatabase } from "./test-support/own-database.ts";
import { demo, demoFolder } from "./test-support/demo-world.ts";

const round = readFileSync(`${demoFolder}logs/round-the-basin.inputs`, "utf8").replace("world saltglass-cistern\n", "");
const dist = new URL("../dist/", import.meta.url).pathname;
const LOGS = 1000;

let database: OwnDatabase;
let db: Knex;
let url: string;
let port: number;
const children: ChildProcess[] = [];

beforeAll(async () => {
  database = await ownDatabase();
  ({ url } = database);
  db = connect(url);
  port = await freePort();
});
afterAll(async () => {
  for (const child of children) child.kill("SIGKILL");
  await db.destroy();
  await database.drop();
});

/** Starts the built server or worker, one log a job, and resolves once it says that it is there. */
async function start(program: "main" | "worker"): Promise<ChildProcess> {
  const child = spawn(process.execPath, [`${dist}${program}.js`], {
    env: {
      ...process.env,
      DATABASE_URL: url,
      KEEN_PEBBLE_PORT: String(port),
      KEEN_PEBBLE_JOB_LOGS: "1",
      KEEN_PEBBLE_LOG: "silent",
      KEEN_PEBBLE_DEMO: "",
    },
    stdio: ["ignore", "pipe", "inherit"],
  });
  children.push(child);
  await new Promise<void>((resolve, reject) => {
    child.stdout.on("data", (data: Buffer) => {
      if (/listening|working/.test(String(data))) resolve();
    });
    child.once("exit", (code) => reject(new Error(`${program} ended with ${code}`)));
  });
  return child;
}

async function kill(child: ChildProcess): Promise<void> {
  const gone = new Promise((resolve) => child.once("exit", resolve));
  child.kill("SIGKILL");
  await gone;
}

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = net.createServer().listen(0, "127.0.0.1", () => {
      const { port: free } = probe.address() as net.AddressInfo;
      probe.close(() => resolve(free));
    });
  });
}

const count = (): Promise<number> => OutcomeRow.query(db).resultSize();
async function until(what: () => Promise<boolean>): Promise<void> {
  while (!(await what())) await new Promise((resolve) => setTimeout(resolve, 20));
}

it("server and worker killed in the middle of 1,000 jobs: after a restart all are done once, none twice, none lost; both share the load", async () => {
  const [server, worker] = [await start("main"), await start("worker")];
  const logs = Object.fromEntries(
    Array.from({ length: LOGS }, (_, i) => [`r-${i}`, round.replace("title Round", `title ${i} round`)]),
  );
  const ask = async (path: string, init: RequestInit = {}): Promise<Response> => {
    const answer = await fetch(`http://127.0.0.1:${port}/api${path}`, {
      ...init,
      headers: { "content-type": "application/json" },
    });
    expect(answer.ok, `${path}: ${answer.status}`).toBe(true);
    return answer;
  };
  await ask("/imports", { method: "POST", body: JSON.stringify({ world: demo, logs }) });
  await ask("/worlds/saltglass-cistern/proofs", { method: "POST" });
  await until(async () => (await count()) >= 200);
  await Promise.all([kill(server), kill(worker)]);
  const half = await count();
  expect(half).toBeLessThan(LOGS);
  const before = await OutcomeRow.query(db).distinct("worker");
  expect(before).toHaveLength(2);

  await Promise.all([start("main"), start("worker")]);
  await until(async () => (await ProofRunRow.query(db))[0]!.state === "done");
  const [run] = await ProofRunRow.query(db);
  expect(run).toMatchObject({ total: LOGS, holds: LOGS });
  const rows = await OutcomeRow.query(db);
  // The world's reach checks are one more, judged once too.
  expect(rows).toHaveLength(LOGS + 1);
  expect(new Set(rows.map(({ logHash }) => logHash)).size).toBe(LOGS + 1);
  expect(rows.filter(({ logHash }) => logHash === ALL_PLAY)).toHaveLength(1);
  // What was stored before the kill stands as it was; the rest was shared by the two that came after.
  const shares = [...new Set(rows.map(({ worker }) => worker))].map((each) => ({
    old: before.some(({ worker: old }) => old === each),
    logs: rows.filter((row) => row.worker === each).length,
  }));
  expect(shares.filter(({ old }) => old).reduce((sum, { logs: n }) => sum + n, 0)).toBe(half);
  const after = shares.filter(({ old }) => !old).map(({ logs: n }) => n);
  expect(after).toHaveLength(2);
  expect(Math.min(...after)).toBeGreaterThan((LOGS - half) / 10);
  // Nothing waits any more, and no job is left over.
  expect(await PendingProofRow.query(db)).toEqual([]);
  expect(await TakenJobRow.query(db)).toEqual([]);
  const states = await db.raw<{ rows: { state: string; n: string }[] }>(
    "select state, count(*) as n from pgboss.job where name = 'prove' group by state",
  );
  expect(states.rows.map(({ state }) => state)).toEqual(["completed"]);
}, 120_000);
