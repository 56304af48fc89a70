import { cpSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import { accountCan, giveToAccount, servingAccount } from "./account.mjs";
import { buildStamp } from "./build.mjs";
import { ROOT, runQuietly, say } from "./run.mjs";

/** What must be readable of a checkout for the application to run from it. */
const NEEDED = [
  "server/dist/main.js",
  "web/dist/index.html",
  "web/dist-play/play.html",
  "demo/saltglass-cistern",
  "node_modules/express/package.json",
];

/**
 * The folder and the Node with which the serving account can run the built application: the checkout's, or, where that
 * lies where only root gets in, a copy of what is needed in the data folder.
 * @returns {{ root: string, node: string }}
 */
export function programFor(data) {
  const known = found.get(data);
  if (known !== undefined) return known;
  const program = look(data);
  found.set(data, program);
  return program;
}

const found = new Map();

function look(data) {
  const account = servingAccount();
  if (account === null) return { root: ROOT, node: process.execPath };
  const readable = NEEDED.every((file) => accountCan("r", path.join(ROOT, file)));
  const runs = accountCan("x", process.execPath);
  if (readable && runs) return { root: ROOT, node: process.execPath };
  const copy = path.join(data, "program");
  const stamp = path.join(copy, "stamp");
  const build = buildStamp();
  if (!existsSync(stamp) || readFileSync(stamp, "utf8") !== build) {
    say(
      `the server does not run as root: what it needs is copied to ${copy}, because the account ${account.name} cannot read ${readable ? process.execPath : ROOT}`,
    );
    rmSync(copy, { recursive: true, force: true });
    mkdirSync(copy, { recursive: true });
    for (const folder of ["server/dist", "server/package.json", "web/dist", "web/dist-play", "demo"])
      cpSync(path.join(ROOT, folder), path.join(copy, folder), { recursive: true });
    for (const folder of productionPackages())
      cpSync(path.join(ROOT, folder), path.join(copy, folder), { recursive: true, dereference: true });
    cpSync(process.execPath, path.join(copy, "node"));
    writeFileSync(stamp, build);
    runQuietly("chmod", ["-R", "u=rwX,go=", copy], { what: "narrowing the copy down" });
    runQuietly("chown", ["-R", "-h", `${account.uid}:${account.gid}`, copy], { what: "giving the copy away" });
    giveToAccount(copy);
  }
  return { root: copy, node: path.join(copy, "node") };
}

/** Folders of the packages that the server needs, below the checkout. */
function productionPackages() {
  const listed = runQuietly("npm", ["ls", "--omit=dev", "--all", "--parseable", "-w", "server"], {
    what: "npm ls",
  }).split("\n");
  return listed
    .map((line) => path.relative(ROOT, line.trim()))
    .filter((folder) => /^node_modules\/(@(?!keen-pebble)[^/]+\/[^/]+|[^@/][^/]*)$/.test(folder));
}
