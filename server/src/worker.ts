import { pino } from "pino";
import { readConfig } from "./config/config.ts";
import { connect } from "./database/connect.ts";
import { Jobs } from "./jobs/jobs.ts";
import { migrate } from "./migrations/index.ts";

// `npm run worker` with a `DATABASE_URL`: another process, here or on another machine, that takes jobs from the queue.
const config = readConfig(process.env);
const logger = pino({ level: config.logLevel }, pino.destination(2));
const db = connect(config.databaseUrl);
await migrate(db);
const jobs = new Jobs({ databaseUrl: config.databaseUrl, db, logger, works: true });
await jobs.start();
process.stdout.write(`working on jobs as process ${process.pid}; Ctrl-C stops it\n`);

let stopping = false;
const stop = (): void => {
  if (stopping) return;
  stopping = true;
  void jobs
    .stop()
    .then(() => db.destroy())
    .then(() => process.exit(0));
};
process.on("SIGINT", stop);
process.on("SIGTERM", stop);
