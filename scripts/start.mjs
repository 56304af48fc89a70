// `npm start`: sets up what is missing, starts the database and the application, and prints the address.
import net from "node:net";
import path from "node:path";
import { startApplication, stopApplication } from "./setup/application.mjs";
import { ensureBuild, ensureNode, ensurePackages } from "./setup/build.mjs";
import { dataFolder, takeDataFolder } from "./setup/data-folder.mjs";
import { ensureDebianPackages } from "./setup/debian.mjs";
import { Postgres } from "./setup/postgres.mjs";
import { SetupError, say } from "./setup/run.mjs";

const port = Number(process.env.KEEN_PEBBLE_PORT ?? 4870);

function ensurePortIsFree() {
  return new Promise((resolve, reject) => {
    const probe = net.createServer();
    probe.on("error", () => reject(new SetupError(`port ${port} is taken, perhaps by another copy of Keen Pebble; stop it, or name another with KEEN_PEBBLE_PORT`)));
    probe.listen(port, "127.0.0.1", () => probe.close(resolve));
  });
}

let release = () => {};
let postgres = null;
let application = null;
let stopping = null;

function stop(code) {
  stopping ??= (async () => {
    if (application) await stopApplication(application);
    if (postgres) postgres.stop();
    release();
    process.exit(code);
  })();
  return stopping;
}

for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) {
  process.on(signal, () => {
    say("\nstopping");
    void stop(0);
  });
}

try {
  ensureNode();
  if (!Number.isInteger(port) || port < 1 || port > 65535) throw new SetupError(`KEEN_PEBBLE_PORT must be a port number, found ${process.env.KEEN_PEBBLE_PORT}`);
  const folder = dataFolder();
  release = takeDataFolder(folder, port);
  await ensurePortIsFree();
  ensureDebianPackages(["postgresql"]);
  ensurePackages();
  ensureBuild();
  postgres = new Postgres(path.join(folder, "postgres"));
  await postgres.start();
  const started = await startApplication({ databaseUrl: postgres.url(), port });
  application = started.child;
  for (const line of started.lines) if (!line.startsWith("listening")) say(line);
  say(`worlds are kept in ${folder}`);
  say(`Keen Pebble is at ${started.address}  (Ctrl-C stops it)`);
  application.on("exit", (code) => void stop(code ?? 1));
} catch (error) {
  if (!stopping) {
    process.stderr.write(error instanceof SetupError ? `keen-pebble: ${error.message}\n` : `${error.stack}\n`);
    await stop(1);
  }
}
