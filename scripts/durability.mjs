// `npm run durability`: kills the server and stops the database for real, for longer than `npm test` does; figures as JSON lines.
import { ensureBuild, ensureNode, ensurePackages } from "./setup/build.mjs";
import { ensureDebianPackages } from "./setup/debian.mjs";
import { SetupError, runShown } from "./setup/run.mjs";

try {
  ensureNode();
  ensureDebianPackages(["postgresql", "chromium-headless-shell", "chromium-driver"]);
  ensurePackages();
  ensureBuild();
  process.exitCode = await runShown("npx", ["--no-install", "tsx", "e2e/durability/main.ts", ...process.argv.slice(2)]);
} catch (error) {
  process.stderr.write(error instanceof SetupError ? `keen-pebble: ${error.message}\n` : `${error.stack}\n`);
  process.exitCode = 1;
}
