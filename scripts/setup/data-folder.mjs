import { chmodSync, existsSync, mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { giveToAccount } from "./account.mjs";
import { SetupError } from "./run.mjs";

/** Where worlds are kept: `KEEN_PEBBLE_DATA`, or the usual place for such things, outside the checkout. */
export function dataFolder() {
  const given = process.env.KEEN_PEBBLE_DATA;
  if (given) return path.resolve(given);
  if (process.getuid?.() === 0) return "/var/lib/keen-pebble";
  return path.join(process.env.XDG_STATE_HOME ?? path.join(os.homedir(), ".local/state"), "keen-pebble");
}

/**
 * Makes the data folder, for the account that runs the database alone; one that is there is narrowed down to it.
 * @throws {SetupError} where the folder holds something else
 */
export function makeDataFolder(folder) {
  const cannot = (why) =>
    new SetupError(`the data folder ${folder} cannot be used (${why}); name another with KEEN_PEBBLE_DATA`);
  try {
    if (existsSync(folder)) {
      if (!statSync(folder).isDirectory()) throw cannot("it is no folder");
      const ours = readdirSync(folder).every((name) =>
        /^(postgres|postgres\.part|taken\.json|passwords\.json|database-url|initial-password|program|.*\.part)$/.test(
          name,
        ),
      );
      if (!ours) throw cannot("it holds other things");
    }
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    giveToAccount(folder);
    chmodSync(folder, 0o700);
  } catch (error) {
    if (error instanceof SetupError) throw error;
    throw cannot(error.code);
  }
}

/**
 * Takes the data folder for this process alone.
 * @param {number} port the application's port, for whoever finds the folder taken
 * @returns {{ release: () => void, leftBehind: boolean }} gives it back; whether its last owner was killed
 */
export function takeDataFolder(folder, port) {
  makeDataFolder(folder);
  const lock = path.join(folder, "taken.json");
  const owner = readLock(lock);
  if (owner !== null && isAlive(owner.pid)) {
    throw new SetupError(
      `the data folder ${folder} is taken by another copy (process ${owner.pid}, http://127.0.0.1:${owner.port}); stop that one, or name another folder with KEEN_PEBBLE_DATA`,
    );
  }
  try {
    rmSync(lock, { force: true });
    // Of two that start at the same time one finds it there.
    writeFileSync(lock, JSON.stringify({ pid: process.pid, port }), { flag: "wx", mode: 0o600 });
  } catch (error) {
    throw new SetupError(
      `the data folder ${folder} cannot be written (${error.code}); name another with KEEN_PEBBLE_DATA`,
    );
  }
  return { leftBehind: owner !== null, release: () => rmSync(lock, { force: true }) };
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
