import { pino } from "pino";
import { readConfig } from "./config/config.ts";
import { connect } from "./database/connect.ts";
import { endWell } from "./end-well.ts";
import { Jobs } from "./jobs/jobs.ts";
import { migrate } from "./migrations/index.ts";

// `npm run worker` with a `DATABASE_URL`: another process, here or on another machine, that takes jobs from the queue.
process.umask(0o077);
const config = readConfig(process.env);
const logger = pino({ level: config.logLevel }, pino.destination(2));
const db = connect(config.databaseUrl);
await migrate(db);
const jobs = new Jobs({ databaseUrl: config.databaseUrl, db, logger, works: true });
await jobs.start();
process.stdout.write(`working on jobs as process ${process.pid}; Ctrl-C stops it\n`);

endWell(async () => {
  await jobs.stop();
  await db.destroy();
});
