// `npm test`: sets up what is missing, then runs everything: types, lint and import rules, core, server on a real
// PostgreSQL, command line, browser. Ends with one line over all suites.
import { chmodSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { ensureBuild, ensureNode, ensurePackages } from "./setup/build.mjs";
import { ensureDebianPackages } from "./setup/debian.mjs";
import { Postgres } from "./setup/postgres.mjs";
import { makeProvenData, makeTestData } from "./setup/proven-data.mjs";
import { ROOT, SetupError, runKept, say } from "./setup/run.mjs";

const temporary = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-test-"));
const totals = { passed: 0, failed: 0, skipped: 0 };
const began = Date.now();
/** So long the set-up took, in ms: what is missing on a machine is installed and built once. */
let setUp = 0;
/** Names of what failed, said once more at the very end: whoever sees only that should know what to look for. */
const failures = [];
/** @type {Postgres | null} */
let postgres = null;

/** The part of what Vitest said that tells of errors outside of any test, its first lines. */
function errorsOutside(said) {
  const plain = said.replace(/\x1b\[[0-9;]*m/g, "");
  const at = plain.indexOf("Unhandled Errors");
  if (at < 0) return "";
  const lines = plain.slice(at).split("\n").slice(1, 24);
  return lines.filter((line) => line.trim() !== "").join("\n    ");
}

/** A suite that is one program: it passed or it failed. What it says is shown once it is over: another one may run beside it. */
async function program(name, command, args) {
  let shown = "";
  const ok = (await runKept(command, args, {}, (text) => (shown += text))) === 0;
  say(`\n== ${name}\n${shown}`);
  totals[ok ? "passed" : "failed"]++;
  if (!ok) failures.push(name);
}

/**
 * A suite of Vitest: its tests are counted one by one.
 * @param take what shows it: one that runs beside another is shown once it is over
 */
async function vitest(name, projects, env = {}, take = (text) => void process.stdout.write(text)) {
  take(`\n== ${name}\n`);
  const report = path.join(temporary, `${name.replaceAll(" ", "-")}.json`);
  const args = [
    "--no-install",
    "vitest",
    "run",
    ...projects.flatMap((p) => ["--project", p]),
    "--reporter=default",
    "--reporter=json",
    `--outputFile.json=${report}`,
  ];
  let said = "";
  const code = await runKept("npx", args, { env: { ...process.env, ...env } }, (text) => {
    said += text;
    take(text);
  });
  /** @type {{ numPassedTests: number, numFailedTests: number, numPendingTests: number, testResults: { name: string, status: string, assertionResults: { status: string, fullName: string }[] }[] }} */
  let counted = { numPassedTests: 0, numFailedTests: 0, numPendingTests: 0, testResults: [] };
  try {
    counted = JSON.parse(readFileSync(report, "utf8"));
  } catch {
    // It did not get as far as a report.
  }
  totals.passed += counted.numPassedTests;
  totals.failed += counted.numFailedTests;
  totals.skipped += counted.numPendingTests;
  for (const file of counted.testResults) {
    const failed = file.assertionResults.filter((test) => test.status === "failed");
    for (const test of failed) failures.push(`${path.relative(process.cwd(), file.name)}: ${test.fullName}`);
    // A file that does not load has no tests that could have failed.
    if (file.status === "failed" && failed.length === 0) failures.push(path.relative(process.cwd(), file.name));
  }
  if (code !== 0 && counted.numFailedTests === 0) {
    totals.failed++;
    failures.push(`${name}: ended with ${code}\n    ${errorsOutside(said)}`);
  }
}

/** A part of the set-up. */
function set(part) {
  const from = Date.now();
  part();
  setUp += Date.now() - from;
}

const seconds = (ms) => `${Math.round(ms / 1000)} s`;

function cleanUp() {
  if (postgres) postgres.stop("immediate");
  rmSync(temporary, { recursive: true, force: true });
}
for (const signal of ["SIGINT", "SIGTERM"]) {
  process.on(signal, () => {
    cleanUp();
    process.exit(130);
  });
}

try {
  ensureNode();
  set(() => ensureDebianPackages(["postgresql", "chromium-headless-shell", "chromium-driver", "python3"]));
  set(ensurePackages);
  await program("types", "npx", ["--no-install", "tsc", "-b"]);
  set(ensureBuild);
  // Behind types: what one package knows of another's is what was built of it.
  const lint = program("lint, import rules, cycles", "npx", ["--no-install", "oxlint", "-c", "oxlint.config.js"]);
  const format = program("format", "npx", ["--no-install", "oxfmt", "--check", "."]);
  // PostgreSQL's own user must get through to its folder.
  chmodSync(temporary, 0o755);
  await makeProvenData(path.join(temporary, "proven"));
  const data = path.join(temporary, "data");
  makeTestData(data);
  postgres = await new Postgres(data).start();
  const env = {
    TEST_DATABASE_URL: postgres.url(),
    TEST_ADMIN_URL: postgres.adminUrl(),
    KEEN_PEBBLE_LOG: "silent",
    KEEN_PEBBLE_BUILT_CORE: path.join(ROOT, "core/dist"),
  };
  // The server's tests mostly wait for the database, and the browser's for the page: others use the time.
  let shown = "";
  const built = { ...env, KEEN_PEBBLE_BUILT_SERVER: path.join(ROOT, "server/dist") };
  const server = vitest("server", ["server"], built, (text) => void (shown += text));
  const speed = program("speed scripts, in short", "node", ["scripts/speed.mjs", "--short"]);
  await vitest("core, page logic and command line", ["core", "web", "web-apart", "cli"], env);
  await vitest("browser", ["e2e"], env);
  await server;
  say(shown);
  await speed;
  await Promise.all([lint, format]);
} catch (error) {
  totals.failed++;
  failures.push("set-up");
  process.stderr.write(error instanceof SetupError ? `keen-pebble: ${error.message}\n` : `${error.stack}\n`);
} finally {
  cleanUp();
}
if (failures.length > 0) say(`\nfailed:\n${failures.map((name) => `  ${name}\n`).join("")}`);
say(`\nset up in ${seconds(setUp)}, tested in ${seconds(Date.now() - began - setUp)}`);
say(`${totals.passed} passed, ${totals.failed} failed, ${totals.skipped} skipped`);
process.exitCode = totals.failed > 0 || totals.passed === 0 ? 1 : 0;
