// `npm run planted-faults [-- --seed N --count N --only PROJECT]`: plants faults one by one, by seed, in a copy of the
// checkout: a turned operator, a bound that is off by one, a missing case. Says for each which test found it, and lists
// those that none did. Faults of `planted-faults-equivalent.json` are left out: somebody looked at them, and they change
// nothing that anybody could see.
import { spawn } from "node:child_process";
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
import ts from "typescript";
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
  { folder: "core/src", projects: ["core", "web"], share: 38, skip: /test|^[^/]+$/ },
  {
    folder: "web/src/session",
    projects: ["web"],
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

/** Ways to break a token, by what it is. */
const TURNED = new Map([
  ["<", "<="],
  ["<=", "<"],
  [">", ">="],
  [">=", ">"],
  ["===", "!=="],
  ["!==", "==="],
  ["&&", "||"],
  ["||", "&&"],
  ["+", "-"],
  ["-", "+"],
  ["*", "+"],
  ["true", "false"],
  ["false", "true"],
]);

/** Every place of a source at which a fault can be planted: from where to where, and what stands there then. */
function sitesOf(text, file) {
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const sites = [];
  const add = (node, to) => sites.push({ from: node.getStart(), to: node.getEnd(), text: to });
  const visit = (node) => {
    if (
      ts.isTypeNode(node) ||
      ts.isInterfaceDeclaration(node) ||
      ts.isTypeAliasDeclaration(node) ||
      ts.isImportDeclaration(node)
    )
      return;
    if (ts.isBinaryExpression(node)) {
      const turned = TURNED.get(node.operatorToken.getText());
      const isText = [node.left, node.right].some((side) => ts.isStringLiteral(side) || ts.isTemplateExpression(side));
      if (turned && !(isText && node.operatorToken.getText() === "+")) add(node.operatorToken, turned);
    } else if (node.kind === ts.SyntaxKind.TrueKeyword || node.kind === ts.SyntaxKind.FalseKeyword)
      add(node, TURNED.get(node.getText()));
    else if (ts.isNumericLiteral(node) && !ts.isPropertyAssignment(node.parent))
      add(node, String(Number(node.getText().replaceAll("_", "")) + 1));
    else if (ts.isIfStatement(node) && !node.elseStatement) add(node, ";");
    else if (ts.isExpressionStatement(node) && ts.isCallExpression(node.expression)) add(node, ";");
    ts.forEachChild(node, visit);
  };
  visit(source);
  return sites;
}

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

/** Files of tests that take longer than this, in ms, run after all the others: most faults are found before them. */
const QUICK = 1000;
/** @typedef {{ name: string, status: string, startTime: number, endTime: number, assertionResults: { status: string, fullName: string, failureMessages: string[] }[] }} FileResult */

/**
 * Runs vitest, to its first failure, with the workers that it starts as one group: a fault that makes one of them run for
 * ever ends with it.
 * @param {string[]} args
 * @param {number} patience in ms
 * @returns {Promise<FileResult[] | null>} what came of each file; null where it ran for ever
 */
function runTests(args, patience) {
  const report = path.join(copy, "report.json");
  rmSync(report, { force: true });
  const more = ["--bail", "1", "--passWithNoTests", "--reporter=json", `--outputFile=${report}`];
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [path.join(tree, "node_modules/vitest/vitest.mjs"), ...args, ...more], {
      cwd: tree,
      env,
      detached: true,
      stdio: ["ignore", "ignore", "pipe"],
    });
    let stderr = "";
    let isEndless = false;
    endTests = () => process.kill(-(/** @type {number} */ (child.pid)), "SIGKILL");
    const timer = setTimeout(() => {
      isEndless = true;
      endTests();
    }, patience);
    child.stderr.on("data", (text) => (stderr += text));
    child.on("error", reject);
    child.on("close", (status) => {
      clearTimeout(timer);
      endTests = () => {};
      if (isEndless) return resolve(null);
      // A suite that does not even start says nothing of the fault.
      if (!existsSync(report))
        return reject(new Error(`the tests did not run (${args.join(" ")}):\n${stderr.slice(-2000)}`));
      const { testResults } = JSON.parse(readFileSync(report, "utf8"));
      if (status !== 0 && failureOf(testResults) === null)
        return resolve([...testResults, { name: tree, status: "failed", assertionResults: [] }]);
      resolve(testResults);
    });
  });
}

/** Ends the tests that run. */
let endTests = () => {};
for (const signal of ["SIGINT", "SIGTERM"])
  process.on(signal, () => {
    endTests();
    postgres.stop("immediate");
    rmSync(copy, { recursive: true, force: true });
    process.exit(130);
  });

/** The first test that failed, or the file that did not load; null where all passed. */
function failureOf(/** @type {FileResult[]} */ results) {
  for (const { name, status, assertionResults } of results) {
    const failed = assertionResults.find((each) => each.status === "failed");
    if (failed) return `${path.relative(tree, name)}: ${failed.fullName.trim()}`;
    if (status === "failed") return `${path.relative(tree, name)}: does not load`;
  }
  return null;
}

/**
 * What runs the tests of a project, once they pass with no fault: else each fault would be found by what fails anyway.
 * @returns {Promise<(file: string) => Promise<string | null>>} of the file in which a fault stands, the test that finds it
 */
async function finderOf(/** @type {string} */ project) {
  const began = Date.now();
  const whole = await runTests(["run", "--project", project], 1_800_000);
  const already = whole === null ? "runs for ever" : failureOf(whole);
  if (already !== null) {
    const said = (whole ?? []).flatMap(({ assertionResults }) =>
      assertionResults.flatMap((each) => each.failureMessages),
    );
    throw new Error(`with no fault planted, this fails: ${already}\n${said.join("\n")}`);
  }
  const patience = 60_000 + 2 * (Date.now() - began);
  const isSlow = ({ startTime, endTime }) => endTime - startTime > QUICK;
  const names = (of) => (whole ?? []).filter(of).map(({ name }) => path.relative(tree, name));
  const [slow, quick] = [names(isSlow), names((each) => !isSlow(each))];
  return async (file) => {
    for (const { others, most } of [
      { others: slow, most: 60_000 },
      { others: quick, most: patience },
    ]) {
      // The server's threads load their files by name, which nobody can follow: all of its tests are related.
      const related = project === "server" ? ["run"] : ["related", file, "--run"];
      const excluded = others.flatMap((name) => ["--exclude", name]);
      const ran = await runTests([...related, "--project", project, ...excluded], most);
      const found = ran === null ? "runs for ever" : failureOf(ran);
      if (found !== null) return found;
    }
    return null;
  };
}

const missed = [];
let planted = 0;
let leftOut = 0;
try {
  const pick = numbersFrom(Number(values.seed));
  for (const { folder, projects, share, skip } of PLACES) {
    if (values.only !== undefined && values.only !== projects[0]) continue;
    const finders = [];
    for (const project of projects) finders.push(await finderOf(project));
    const finder = async (file) => {
      for (const find of finders) {
        const found = await find(file);
        if (found !== null) return found;
      }
      return null;
    };
    const files = filesIn(folder, skip);
    const whole = new Map(files.map((name) => [name, readFileSync(path.join(tree, folder, name), "utf8")]));
    const sites = files.flatMap((name) => sitesOf(whole.get(name), name).map((site) => ({ name, ...site })));
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
      const found = await finder(path.join(folder, name));
      writeFileSync(file, before);
      planted++;
      const fault = { fault: `${folder}/${name}:${at}`, was: is.was.slice(0, 80), is: text, found };
      if (found === null) missed.push(fault);
      process.stdout.write(`${JSON.stringify(fault)}\n`);
    }
  }
} finally {
  postgres.stop("immediate");
  rmSync(copy, { recursive: true, force: true });
}
process.stdout.write(
  `${JSON.stringify({ planted, leftOut, found: planted - missed.length, share: Number(((planted - missed.length) / planted).toFixed(3)), missed: missed.map(({ fault }) => fault) })}\n`,
);
