// `npm run planted-faults [-- --seed N --count N --only PROJECT]`: plants faults one by one, by seed, in a copy of the
// checkout: a turned operator, a bound that is off by one, a missing case. Says for each which test found it, and lists
// those that none did. Faults of `planted-faults-equivalent.json` are left out: somebody looked at them, and they change
// nothing that anybody could see.
import {
  chmodSync,
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import os from "node:os";
import path from "node:path";
import { parseArgs } from "node:util";
import { sitesOf } from "./planted/sites.mjs";
import { Suite } from "./planted/suite.mjs";
import { ensureBuild, ensureNode, ensurePackages } from "./setup/build.mjs";
import { makeDataFolder } from "./setup/data-folder.mjs";
import { ensureDebianPackages } from "./setup/debian.mjs";
import { Postgres } from "./setup/postgres.mjs";
import { ROOT } from "./setup/run.mjs";
import { numbersFrom } from "./speed/worlds.mjs";

const { values } = parseArgs({
  options: {
    seed: { type: "string", default: "1" },
    count: { type: "string", default: "60" },
    only: { type: "string" },
  },
});
const count = Number(values.count);
/** @type {string[]} */
const WORKSPACES = JSON.parse(readFileSync(path.join(ROOT, "package.json"), "utf8")).workspaces;
/** Where faults are planted, and how many of sixty. */
const PLACES = [
  // What the core does is tested in the page's session too.
  { folder: "core/src", projects: ["core", "web", "web-apart"], share: 38, skip: /test|^[^/]+$/ },
  {
    folder: "web/src/session",
    projects: ["web", "web-apart"],
    share: 12,
    skip: /test|handle|sound|shelf-|feel|commands|hooks|api-client|journal|server-events/,
  },
  { folder: "server/src/services", projects: ["server"], share: 10, skip: /test|demo|errors/ },
];

/**
 * Faults that nobody can find, each with the reason: by file, the line of the source and what is done to it. Where that line
 * changes, somebody has to look again.
 * @type {readonly { file: string, line: string, was: string, is: string, why: string }[]}
 */
const EQUIVALENT = JSON.parse(readFileSync(path.join(ROOT, "scripts/planted-faults-equivalent.json"), "utf8"));

/** Links a workspace's packages one by one into the copy, our own ones to the copy's. */
function linkPackages(/** @type {string} */ workspace) {
  const from = path.join(ROOT, workspace, "node_modules");
  if (!existsSync(from)) return;
  const to = path.join(tree, workspace, "node_modules");
  mkdirSync(path.join(to, "@keen-pebble"), { recursive: true });
  for (const name of readdirSync(from))
    if (name !== "@keen-pebble") symlinkSync(path.join(from, name), path.join(to, name));
  for (const name of WORKSPACES) symlinkSync(path.join(tree, name), path.join(to, "@keen-pebble", name));
}

const filesIn = (folder, skip) =>
  readdirSync(path.join(ROOT, folder), { recursive: true, encoding: "utf8" })
    .filter((name) => name.endsWith(".ts") && !skip.test(name))
    .sort();

ensureNode();
ensureDebianPackages(["postgresql"]);
ensurePackages();
ensureBuild();
const copy = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-planted-"));
chmodSync(copy, 0o755);
const skipped = new Set(["node_modules", ".git", "build"]);
cpSync(ROOT, path.join(copy, "tree"), { recursive: true, filter: (from) => !skipped.has(path.basename(from)) });
const tree = path.join(copy, "tree");
linkPackages(".");
for (const workspace of WORKSPACES) linkPackages(workspace);
const data = path.join(copy, "data");
makeDataFolder(data);
const postgres = await new Postgres(data).start();
const env = {
  ...process.env,
  TEST_DATABASE_URL: postgres.url(),
  TEST_ADMIN_URL: postgres.adminUrl(),
  KEEN_PEBBLE_LOG: "silent",
};

/** @type {Suite[]} */
const suites = [];
for (const signal of ["SIGINT", "SIGTERM"])
  process.on(signal, () => {
    cleanUp();
    process.exit(130);
  });

function cleanUp() {
  for (const suite of suites.splice(0)) suite.end();
  postgres.stop("immediate");
  rmSync(copy, { recursive: true, force: true });
}

const missed = [];
let planted = 0;
let leftOut = 0;
try {
  const pick = numbersFrom(Number(values.seed));
  for (const { folder, projects, share, skip } of PLACES) {
    if (values.only !== undefined && values.only !== projects[0]) continue;
    const begun = projects.map((project) => new Suite(tree, project, env));
    suites.push(...begun);
    for (const suite of begun) await suite.begin();
    const files = filesIn(folder, skip);
    const whole = new Map(files.map((name) => [name, readFileSync(path.join(tree, folder, name), "utf8")]));
    const sites = files.flatMap((name) => sitesOf(whole.get(name) ?? "", name).map((site) => ({ name, ...site })));
    for (let i = 0; i < Math.round((count * share) / 60);) {
      const { name, from, to, text } = sites[pick(sites.length)];
      const before = /** @type {string} */ (whole.get(name));
      const file = path.join(tree, folder, name);
      const at = before.slice(0, from).split("\n").length;
      const is = {
        file: `${folder}/${name}`,
        line: before.split("\n")[at - 1].trim(),
        was: before.slice(from, to),
        is: text,
      };
      if (EQUIVALENT.some((each) => Object.entries(is).every(([key, value]) => each[key] === value))) {
        leftOut++;
        continue;
      }
      i++;
      writeFileSync(file, before.slice(0, from) + text + before.slice(to));
      /** @type {string | null} */
      let found = null;
      for (const suite of begun) found ??= await suite.find(file);
      writeFileSync(file, before);
      planted++;
      const fault = { fault: `${folder}/${name}:${at}`, was: is.was.slice(0, 80), is: text, found };
      if (found === null) missed.push(fault);
      process.stdout.write(`${JSON.stringify(fault)}\n`);
    }
    for (const suite of begun) suite.end();
  }
} finally {
  cleanUp();
}
process.stdout.write(
  `${JSON.stringify({ planted, leftOut, found: planted - missed.length, share: Number(((planted - missed.length) / planted).toFixed(3)), missed: missed.map(({ fault }) => fault) })}\n`,
);
