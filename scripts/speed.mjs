// `npm run speed [PART...] [--short]`: figures as JSON lines: what, size, median, best, unit, spread (median
// deviation as a share of the median). Other work on the machine shows in the spread; the best is what the code can do.
import { ensureBuild, ensureNode, ensurePackages } from "./setup/build.mjs";
import { ensureDebianPackages } from "./setup/debian.mjs";
import { SetupError, runShown } from "./setup/run.mjs";
import { shareServer } from "./speed/own-server.mjs";

const parts = [
  { name: "core", command: "node", args: ["--expose-gc", "scripts/speed/core.mjs"] },
  { name: "proofs", command: "node", args: ["scripts/speed/proofs.mjs"] },
  { name: "reach", command: "node", args: ["scripts/speed/reach.mjs"] },
  { name: "faults", command: "node", args: ["scripts/speed/faults.mjs"] },
  { name: "wander", command: "node", args: ["scripts/speed/wander.mjs"] },
  { name: "rules", command: "node", args: ["scripts/speed/rules.mjs"] },
  { name: "readers", command: "node", args: ["scripts/speed/readers.mjs"] },
  { name: "page", command: "npx", args: ["--no-install", "tsx", "e2e/speed.ts"] },
];

try {
  ensureNode();
  ensureDebianPackages(["postgresql", "chromium-headless-shell", "chromium-driver"]);
  ensurePackages();
  ensureBuild();
  const short = process.argv.includes("--short") ? ["--short"] : [];
  const wanted = process.argv.slice(2).filter((each) => each !== "--short");
  const asked = parts.filter(({ name }) => wanted.length === 0 || wanted.includes(name));
  const run = async (each) => {
    for (const { command, args } of each)
      if ((await runShown(command, [...args, ...short])) !== 0) process.exitCode = 1;
  };
  // In short nobody reads the figures: the page waits for most of its time, and the others can have it.
  const isPage = ({ name }) => name === "page";
  if (short.length > 0) {
    const stop = await shareServer();
    try {
      await Promise.all([run(asked.filter(isPage)), run(asked.filter((each) => !isPage(each)))]);
    } finally {
      await stop();
    }
  } else await run(asked);
} catch (error) {
  process.stderr.write(error instanceof SetupError ? `keen-pebble: ${error.message}\n` : `${error.stack}\n`);
  process.exitCode = 1;
}
