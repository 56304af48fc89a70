// `npm run worker` with a DATABASE_URL: another process that takes jobs from the queue, here or on another machine.
import { spawn } from "node:child_process";
import { ensureBuild, ensureNode, ensurePackages } from "./setup/build.mjs";
import { ROOT, SetupError } from "./setup/run.mjs";

try {
  ensureNode();
  if (!process.env.DATABASE_URL) throw new SetupError("name the database that holds the jobs: DATABASE_URL=postgres://... npm run worker");
  ensurePackages();
  ensureBuild();
  const child = spawn(process.execPath, ["server/dist/worker.js"], { cwd: ROOT, stdio: ["ignore", "inherit", "inherit"] });
  for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => child.kill(signal));
  child.on("exit", (code) => process.exit(code ?? 1));
} catch (error) {
  process.stderr.write(error instanceof SetupError ? `keen-pebble: ${error.message}\n` : `${error.stack}\n`);
  process.exitCode = 1;
}
