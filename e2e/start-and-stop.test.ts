import type { ChildProcess } from "node:child_process";
import { spawn } from "node:child_process";
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, beforeAll, expect, it } from "vitest";
import { freePort, isFree } from "../scripts/setup/free-port.mjs";
import { ROOT } from "../scripts/setup/run.mjs";

let folder: string;
let port: number;
const children: ChildProcess[] = [];

beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-start-"));
  chmodSync(folder, 0o755);
  port = (await freePort()) as number;
});
afterAll(() => {
  for (const child of children) child.kill("SIGKILL");
  rmSync(folder, { recursive: true, force: true });
});

const data = (): string => path.join(folder, "data");

/** `npm start`, once it has printed the address. */
async function npmStart(): Promise<ChildProcess> {
  const env = { ...process.env, KEEN_PEBBLE_DATA: data(), KEEN_PEBBLE_PORT: String(port) };
  const child = spawn("npm", ["start"], { cwd: ROOT, env, stdio: ["ignore", "pipe", "pipe"] });
  children.push(child);
  let said = "";
  await new Promise<void>((resolve, reject) => {
    const hear = (piece: Buffer): void => {
      said += String(piece);
      if (said.includes(`Keen Pebble is at http://127.0.0.1:${port}`)) resolve();
    };
    child.stdout.on("data", hear);
    child.stderr.on("data", hear);
    child.on("exit", () => reject(new Error(said)));
  });
  return child;
}

const until = async (what: () => boolean | Promise<boolean>): Promise<void> => {
  while (!(await what())) await new Promise((resolve) => setTimeout(resolve, 50));
};
const databasePort = (): number => Number(new URL(readFileSync(path.join(data(), "database-url"), "utf8").trim()).port);
const allGone = async (database: number): Promise<boolean> =>
  ((await isFree(port)) as boolean) &&
  ((await isFree(database)) as boolean) &&
  !existsSync(path.join(data(), "postgres/postmaster.pid"));
const supervisor = (): number =>
  (JSON.parse(readFileSync(path.join(data(), "taken.json"), "utf8")) as { pid: number }).pid;

it("one signal to `npm start` ends server and database; after everything was killed outright, one start recovers", async () => {
  const first = await npmStart();
  const worlds = async (): Promise<number> =>
    ((await (await fetch(`http://127.0.0.1:${port}/api/worlds`)).json()) as { worlds: unknown[] }).worlds.length;
  await fetch(`http://127.0.0.1:${port}/api/worlds/trying-grounds/copy`, { method: "POST" });
  const database = databasePort();
  first.kill("SIGTERM");
  await until(() => allGone(database));

  const second = await npmStart();
  expect(await worlds()).toBe(3);
  const orphaned = databasePort();
  // npm too: nobody is left to clean up.
  const pid = supervisor();
  second.kill("SIGKILL");
  process.kill(pid, "SIGKILL");
  expect(await isFree(orphaned)).toBe(false);

  await npmStart();
  expect(await worlds()).toBe(3);
  expect(await isFree(orphaned)).toBe(true);
  const last = databasePort();
  // As the terminal does with Ctrl-C: what it runs hears of it.
  process.kill(supervisor(), "SIGINT");
  await until(() => allGone(last));
});
