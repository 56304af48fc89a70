import { stopApplication } from "./application.mjs";
import { ensureNode } from "./build.mjs";
import { dataFolder, takeDataFolder } from "./data-folder.mjs";
import { ensureDebianPackages } from "./debian.mjs";
import { isFree } from "./free-port.mjs";
import { Postgres } from "./postgres.mjs";
import { SetupError, say } from "./run.mjs";

function wantedPort() {
  const port = Number(process.env.KEEN_PEBBLE_PORT ?? 4870);
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new SetupError(`KEEN_PEBBLE_PORT must be a port number, found ${process.env.KEEN_PEBBLE_PORT}`);
  return port;
}

/** After its supervisor was killed a server needs a moment to end by itself. */
const LEAVING_MS = 15_000;

async function ensurePortIsFree(port, leftBehind) {
  for (
    const until = Date.now() + (leftBehind ? LEAVING_MS : 0);
    !(await isFree(port));
    await new Promise((resolve) => setTimeout(resolve, 100))
  ) {
    if (Date.now() >= until)
      throw new SetupError(
        `port ${port} is taken, perhaps by another copy of Keen Pebble; stop it, or name another with KEEN_PEBBLE_PORT`,
      );
  }
}

/** npm may end without a word to what it runs: who started it with `npm` wants it to end with `npm`. */
function whenNpmEnds(stop) {
  if (process.env.npm_lifecycle_event === undefined) return;
  const parent = process.ppid;
  setInterval(() => {
    if (process.ppid !== parent) stop();
  }, 250).unref();
}

/**
 * Runs the application for as long as the person at the terminal wants: takes the data folder and the port, and at
 * Ctrl-C (or when one of its programs ends) stops all that was started, the database last.
 * @param {(session: { port: number, folder: string, database: () => Promise<string>, keep: (child: import("node:child_process").ChildProcess) => void }) => Promise<void>} run
 *   `database()` starts PostgreSQL and gives its address; `keep(child)` hands over a program to stop in the end
 */
export async function runSession(run) {
  const children = [];
  let release = () => {};
  /** @type {Postgres | null} */
  let postgres = null;
  /** @type {Promise<never> | null} */
  let stopping = null;
  const stop = (code) => {
    stopping ??= (async () => {
      await Promise.all(children.map(stopApplication));
      if (postgres) postgres.stop();
      release();
      process.exit(code);
    })();
    return stopping;
  };
  const end = () => {
    if (!stopping) say("\nstopping");
    void stop(0);
  };
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, end);
  whenNpmEnds(end);
  try {
    ensureNode();
    const port = wantedPort();
    const folder = dataFolder();
    ensureDebianPackages(["postgresql"]);
    const taken = takeDataFolder(folder, port);
    release = taken.release;
    await ensurePortIsFree(port, taken.leftBehind);
    await run({
      port,
      folder,
      database: async () => {
        postgres = new Postgres(folder);
        return (await postgres.start()).url();
      },
      keep: (child) => {
        children.push(child);
        child.on("exit", (code) => void stop(code ?? 1));
      },
    });
  } catch (error) {
    if (stopping) return;
    process.stderr.write(error instanceof SetupError ? `keen-pebble: ${error.message}\n` : `${error.stack}\n`);
    await stop(1);
  }
}
