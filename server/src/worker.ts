import { pino } from "pino";
import { readConfig } from "./config/config.ts";
import { connect } from "./database/connect.ts";
import { Desk } from "./desk/desk.ts";
import { endWell } from "./end-well.ts";
import { Jobs } from "./jobs/jobs.ts";
import { migrate } from "./migrations/index.ts";

// `npm run worker` with a `DATABASE_URL`: another process, here or on another machine, that takes jobs from the queue.
process.umask(0o077);
const config = readConfig(process.env);
const logger = pino({ level: config.logLevel }, pino.destination(2));
await migrate(config.databaseUrl);
const db = connect(config.databaseUrl);
const desk = new Desk(config.databaseUrl, logger);
const jobs = new Jobs({ databaseUrl: config.databaseUrl, db, desk, logger, works: true });
await jobs.start();
process.stdout.write(`working on jobs as process ${process.pid}; Ctrl-C stops it\n`);

endWell(async () => {
  await jobs.stop();
  await desk.stop();
  await db.destroy();
});
