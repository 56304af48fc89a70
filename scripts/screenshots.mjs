// `npm run screenshots`: one current picture of each main view, made from the demo, into docs/screenshots.
import { ensureBuild, ensureNode, ensurePackages } from "./setup/build.mjs";
import { ensureDebianPackages } from "./setup/debian.mjs";
import { SetupError, runShown } from "./setup/run.mjs";

try {
  ensureNode();
  ensureDebianPackages(["postgresql", "chromium-headless-shell", "chromium-driver"]);
  ensurePackages();
  ensureBuild();
  process.exitCode = await runShown("npx", ["--no-install", "tsx", "e2e/screenshots.ts"]);
} catch (error) {
  process.stderr.write(error instanceof SetupError ? `keen-pebble: ${error.message}\n` : `${error.stack}\n`);
  process.exitCode = 1;
}
