import net from "node:net";
import path from "node:path";
import { stopApplication } from "./application.mjs";
import { ensureNode } from "./build.mjs";
import { dataFolder, takeDataFolder } from "./data-folder.mjs";
import { Postgres } from "./postgres.mjs";
import { SetupError, say } from "./run.mjs";

function wantedPort() {
  const port = Number(process.env.KEEN_PEBBLE_PORT ?? 4870);
  if (!Number.isInteger(port) || port < 1 || port > 65535) throw new SetupError(`KEEN_PEBBLE_PORT must be a port number, found ${process.env.KEEN_PEBBLE_PORT}`);
  return port;
}

function ensurePortIsFree(port) {
  return new Promise((resolve, reject) => {
    const probe = net.createServer();
    probe.on("error", () => reject(new SetupError(`port ${port} is taken, perhaps by another copy of Keen Pebble; stop it, or name another with KEEN_PEBBLE_PORT`)));
    probe.listen(port, "127.0.0.1", () => probe.close(resolve));
  });
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
  let postgres = null;
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
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) {
    process.on(signal, () => {
      if (!stopping) say("\nstopping");
      void stop(0);
    });
  }
  try {
    ensureNode();
    const port = wantedPort();
    const folder = dataFolder();
    release = takeDataFolder(folder, port);
    await ensurePortIsFree(port);
    await run({
      port,
      folder,
      database: async () => {
        postgres = new Postgres(path.join(folder, "postgres"));
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
