import { spawnSync } from "node:child_process";
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { asAccount, giveToAccount } from "../scripts/setup/account.mjs";
import { makeDataFolder } from "../scripts/setup/data-folder.mjs";
import { postgresFolder } from "../scripts/setup/debian.mjs";
import { freePort } from "../scripts/setup/free-port.mjs";
import { Postgres } from "../scripts/setup/postgres.mjs";
import { startApplication, stopApplication } from "../scripts/setup/application.mjs";
import { Started } from "./started.ts";

interface Said {
  readonly status: number | null;
  readonly text: string;
}

/** Runs a program as an account that has nothing to do with the application. */
function asStranger(command: string, ...args: string[]): Said {
  const prefix = process.getuid!() === 0 ? ["runuser", "-u", "nobody", "--"] : ["sudo", "-n", "-u", "nobody", "--"];
  const { status, stdout, stderr } = spawnSync(prefix[0]!, [...prefix.slice(1), command, ...args], {
    cwd: "/",
    encoding: "utf8",
  });
  return { status, text: `${stdout}${stderr}` };
}

const canBeStranger = asStranger("true").status === 0;
const psql = (): string => path.join(postgresFolder()!, "psql");
/** A command in the database, with the password that the address has, if any. */
const inDatabase = (url: string, command: string): Said => asStranger(psql(), "-w", url, "-c", command);

describe.runIf(canBeStranger)("another account of the machine", () => {
  let started: Started;
  beforeAll(async () => {
    started = await Started.start();
  });
  afterAll(() => started.stop());

  it("does not get into the database under any name without its password", () => {
    for (const role of ["keen_pebble", "keen_pebble_app", "postgres"]) {
      for (const database of ["keen_pebble", "template1"]) {
        const said = inDatabase(
          `postgres://${role}@127.0.0.1:${started.postgres.port}/${database}`,
          "copy (select 1) to program 'true'",
        );
        expect(said.text).toMatch(/no password supplied|password authentication failed/);
        expect(said.status).not.toBe(0);
      }
    }
  });

  it("with the application's password, should it ever get out, runs no program, reads no file, and has no other database", () => {
    const url = started.postgres.url();
    expect(inDatabase(url, "select 1").status).toBe(0);
    expect(inDatabase(url, "copy (select 1) to program 'true'").text).toContain("must be superuser");
    expect(inDatabase(url, "select pg_read_file('postgresql.conf')").text).toContain("permission denied");
    expect(inDatabase(url, "create role other").text).toContain("permission denied");
    expect(inDatabase(url, "create database other").text).toContain("permission denied");
    expect(inDatabase(started.postgres.url("template1"), "select 1").text).toContain("permission denied");
    const owned = inDatabase(
      url,
      "select string_agg(datname, ',') from pg_database where pg_get_userbyid(datdba) = current_user",
    );
    expect(owned.text).toMatch(/\n keen_pebble\n/);
  });

  it("sees nothing of the data folder, and every file in it is for its account alone", () => {
    const { data } = started.postgres;
    for (const command of ["ls", "cat"])
      expect(asStranger(command, path.join(data, command === "ls" ? "" : "passwords.json")).text).toContain(
        "Permission denied",
      );
    expect(statSync(data).mode & 0o777).toBe(0o700);
    const files = readdirSync(data, { recursive: true, withFileTypes: true }).filter((entry) => entry.isFile());
    const open = files
      .map((entry) => path.join(entry.parentPath, entry.name))
      .filter((file) => (statSync(file).mode & 0o077) !== 0);
    expect(files.length).toBeGreaterThan(10);
    expect(open).toEqual([]);
  });

  it("reads nothing of the process and cannot end it; the process is not root's, and its command line has no password", async () => {
    const { pid } = started;
    expect(asStranger("cat", `/proc/${pid}/environ`).text).toContain("Permission denied");
    expect(asStranger("kill", "-KILL", String(pid)).status).not.toBe(0);
    expect(statSync(`/proc/${pid}`).uid).not.toBe(0);
    const lines = readdirSync("/proc")
      .filter((name) => /^\d+$/.test(name))
      .map((name) => {
        try {
          return readFileSync(`/proc/${name}/cmdline`, "utf8");
        } catch {
          return "";
        }
      });
    for (const password of Object.values(started.postgres.passwords as Record<string, string>))
      expect(lines.filter((line) => line.includes(password) && !line.includes("psql"))).toEqual([]);
    await started.api("/health");
  });
});

describe("a data folder", () => {
  let folder: string;
  beforeAll(() => {
    folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-old-"));
    chmodSync(folder, 0o755);
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  it("of an older version, with a database that trusts everybody and runs on after its programs were killed, is brought over with its worlds", async () => {
    const data = path.join(folder, "data");
    const cluster = path.join(data, "postgres");
    mkdirSync(cluster, { recursive: true });
    chmodSync(data, 0o755);
    giveToAccount(cluster);
    chmodSync(cluster, 0o700);
    const program = (name: string, args: string[]): void => {
      const [command, all] = asAccount(path.join(postgresFolder()!, name), args) as [string, string[]];
      expect(spawnSync(command, all, { cwd: "/", stdio: "ignore" }).status).toBe(0);
    };
    program("initdb", ["-D", cluster, "-U", "keen_pebble", "--auth=trust", "--encoding=UTF8", "--locale=C"]);
    const oldPort = (await freePort()) as number;
    program("pg_ctl", [
      "-D",
      cluster,
      "-l",
      path.join(cluster, "server.log"),
      "-w",
      "-o",
      `-c listen_addresses=127.0.0.1 -p ${oldPort} -c unix_socket_directories=''`,
      "start",
    ]);
    const port = (await freePort()) as number;
    const before = await startApplication({
      databaseUrl: `postgres://keen_pebble@127.0.0.1:${oldPort}/postgres`,
      port,
      data,
      log: "silent",
    });
    const copied = (await (
      await fetch(`${before.address}/api/worlds/saltglass-cistern/copy`, { method: "POST" })
    ).json()) as { id: string };
    await stopApplication(before.child);

    makeDataFolder(data);
    const postgres = await new Postgres(data).start();
    try {
      const after = await startApplication({ databaseUrl: postgres.url(), port, data, log: "silent" });
      const { worlds } = (await (await fetch(`${after.address}/api/worlds`)).json()) as { worlds: { id: string }[] };
      expect(worlds.map(({ id }) => id).sort()).toEqual(["saltglass-cistern", copied.id, "trying-grounds"].sort());
      // What belongs to the queue came over too.
      const outcomes = (await (await fetch(`${after.address}/api/worlds/${copied.id}/outcomes`)).json()) as {
        outcomes: { holds: boolean }[];
      };
      expect(outcomes.outcomes.length).toBe(25);
      const deleted = await fetch(`${after.address}/api/worlds/${copied.id}`, { method: "DELETE" });
      expect(deleted.status).toBe(200);
      await stopApplication(after.child);
      if (canBeStranger)
        expect(inDatabase(`postgres://keen_pebble@127.0.0.1:${postgres.port}/template1`, "select 1").text).toContain(
          "no password supplied",
        );
      expect(statSync(data).mode & 0o777).toBe(0o700);
    } finally {
      postgres.stop("immediate");
    }
  });

  it("that holds other things is left alone", () => {
    const other = path.join(folder, "other");
    mkdirSync(other);
    writeFileSync(path.join(other, "letter.txt"), "dear");
    expect(() => makeDataFolder(other)).toThrow("it holds other things");
    expect(readFileSync(path.join(other, "letter.txt"), "utf8")).toBe("dear");
  });
});
