// `npm start`: sets up what is missing, starts the database and the application, and prints the address.
import { startApplication } from "./setup/application.mjs";
import { ensureBuild, ensurePackages } from "./setup/build.mjs";
import { say } from "./setup/run.mjs";
import { runSession } from "./setup/session.mjs";

await runSession(async ({ port, folder, database, keep }) => {
  ensurePackages();
  ensureBuild();
  const databaseUrl = await database();
  const { child, address, lines } = await startApplication({ databaseUrl, port, data: folder });
  keep(child);
  for (const line of lines) if (!line.startsWith("listening")) say(line);
  say(`worlds are kept in ${folder}`);
  say("another worker for the proofs: npm run worker");
  say(`Keen Pebble is at ${address}  (Ctrl-C stops it)`);
});
