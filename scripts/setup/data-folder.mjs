import { chmodSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { SetupError } from "./run.mjs";

/** Where worlds are kept: `KEEN_PEBBLE_DATA`, or the usual place for such things, outside the checkout. */
export function dataFolder() {
  const given = process.env.KEEN_PEBBLE_DATA;
  if (given) return path.resolve(given);
  if (process.getuid() === 0) return "/var/lib/keen-pebble";
  return path.join(process.env.XDG_STATE_HOME ?? path.join(os.homedir(), ".local/state"), "keen-pebble");
}

/**
 * Takes the data folder for this process alone.
 * @param {number} port the application's port, for whoever finds the folder taken
 * @returns {() => void} gives it back
 */
export function takeDataFolder(folder, port) {
  try {
    mkdirSync(folder, { recursive: true });
    // PostgreSQL's own user must get through to its part.
    if (process.getuid() === 0) chmodSync(folder, 0o755);
  } catch (error) {
    throw new SetupError(`the data folder ${folder} cannot be used (${error.code}); name another with KEEN_PEBBLE_DATA`);
  }
  const lock = path.join(folder, "taken.json");
  const claim = () => writeFileSync(lock, JSON.stringify({ pid: process.pid, port }), { flag: "wx" });
  try {
    claim();
  } catch (error) {
    if (error.code !== "EEXIST") throw new SetupError(`the data folder ${folder} cannot be written (${error.code}); name another with KEEN_PEBBLE_DATA`);
    const owner = readLock(lock);
    if (owner !== null && isAlive(owner.pid)) {
      throw new SetupError(`the data folder ${folder} is taken by another copy (process ${owner.pid}, http://127.0.0.1:${owner.port}); stop that one, or name another folder with KEEN_PEBBLE_DATA`);
    }
    rmSync(lock);
    claim();
  }
  return () => rmSync(lock, { force: true });
}

function readLock(lock) {
  try {
    return JSON.parse(readFileSync(lock, "utf8"));
  } catch {
    return null;
  }
}

function isAlive(pid) {
  // A process number may have been given to somebody else's program since.
  const cmdline = `/proc/${pid}/cmdline`;
  return existsSync(cmdline) && /scripts\/(start|dev)\.mjs/.test(readFileSync(cmdline, "utf8"));
}
