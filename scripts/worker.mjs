// `npm run worker`: another process that takes jobs from the queue, here or on another machine. It finds the database by
// the file that `npm start` keeps in the data folder, or by DATABASE_URL or DATABASE_URL_FILE; never by an argument.
import { spawn } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";
import path from "node:path";
import { servingAccount } from "./setup/account.mjs";
import { asServer, serverEnvironment } from "./setup/application.mjs";
import { ensureBuild, ensureNode, ensurePackages } from "./setup/build.mjs";
import { dataFolder } from "./setup/data-folder.mjs";
import { ensureDebianPackages } from "./setup/debian.mjs";
import { programFor } from "./setup/program.mjs";
import { SetupError } from "./setup/run.mjs";

function databaseUrl() {
  if (process.env.DATABASE_URL) return process.env.DATABASE_URL;
  const file = process.env.DATABASE_URL_FILE ?? path.join(dataFolder(), "database-url");
  if (!existsSync(file))
    throw new SetupError(
      `no database is known: start Keen Pebble here first, or name the file that holds its address with DATABASE_URL_FILE`,
    );
  return readFileSync(file, "utf8").trim();
}

try {
  ensureNode();
  const url = databaseUrl();
  // As root it becomes the account that Debian's package makes.
  if (process.getuid?.() === 0) ensureDebianPackages(["postgresql"]);
  ensurePackages();
  ensureBuild();
  const { root, node } = programFor(servingAccount() === null ? "" : dataFolder());
  const child = spawn(node, ["server/dist/worker.js"], {
    ...asServer(root, serverEnvironment(root, url)),
    stdio: ["pipe", "inherit", "inherit"],
  });
  for (const signal of /** @type {const} */ (["SIGINT", "SIGTERM"])) process.on(signal, () => child.kill(signal));
  child.on("exit", (code) => process.exit(code ?? 1));
} catch (error) {
  process.stderr.write(error instanceof SetupError ? `keen-pebble: ${error.message}\n` : `${error.stack}\n`);
  process.exitCode = 1;
}
