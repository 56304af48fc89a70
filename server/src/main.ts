import { createServer } from "node:http";
import { pino } from "pino";
import { createApp } from "./app.ts";
import { readConfig } from "./config/config.ts";
import { connect } from "./database/connect.ts";
import { Desk } from "./desk/desk.ts";
import { endWell } from "./end-well.ts";
import { Jobs } from "./jobs/jobs.ts";
import { migrate } from "./migrations/index.ts";
import { createPlayApp } from "./play/play-app.ts";
import { PlayDoor } from "./play/play-door.ts";
import { putDemoIn } from "./services/demo.ts";
import { servicesOf } from "./services/services.ts";

// Whatever it writes is for its own account alone.
process.umask(0o077);
const config = readConfig(process.env);
const logger = pino({ level: config.logLevel }, pino.destination(2));
await migrate(config.databaseUrl);
const db = connect(config.databaseUrl);
const desk = new Desk(config.databaseUrl, logger);
const jobs = new Jobs({ databaseUrl: config.databaseUrl, db, desk, logger, works: config.works });
await jobs.start();
const services = servicesOf({ db, desk, jobs, logger, logsOfJob: config.logsOfJob, keepDays: config.keepDays });
if (config.demoFolder !== null) {
  const added = await putDemoIn(db, services.shelf, config.demoFolder);
  if (added.length > 0) process.stdout.write(`put in the demo: ${added.join(", ")}\n`);
}

await services.catchUp();
const door =
  config.playFolder === null
    ? null
    : new PlayDoor(createPlayApp(services.playtests, config.playFolder, logger), config.playHost, config.playPort);
if (door !== null) await services.playtests.openAt(door);
services.retention.start();

const hosts = ["127.0.0.1", "localhost", "[::1]", config.host];
const server = createServer(createApp({ db, desk, logger, services, webFolder: config.webFolder, hosts }));
server.listen(config.port, config.host);
server.on("listening", () => process.stdout.write(`listening on http://${config.host}:${config.port}\n`));
server.on("error", (error: NodeJS.ErrnoException) => {
  process.stderr.write(
    error.code === "EADDRINUSE" ? `port ${config.port} is taken by another program\n` : `${error.message}\n`,
  );
  process.exit(1);
});

endWell(async () => {
  const closed = new Promise((resolve) => server.close(resolve));
  server.closeIdleConnections();
  // Whoever keeps a connection open does not keep the server from stopping.
  setTimeout(() => server.closeAllConnections(), 1000).unref();
  await closed;
  await door?.close();
  await services.afterSave.stop();
  await jobs.stop();
  services.retention.stop();
  await desk.stop();
  await db.destroy();
});
