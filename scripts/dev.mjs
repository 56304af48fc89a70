// `npm run dev`: the server and the page from their sources; both follow every change of a file.
import { spawn } from "node:child_process";
import path from "node:path";
import { servingAccount } from "./setup/account.mjs";
import { ensurePackages } from "./setup/build.mjs";
import { ROOT, say } from "./setup/run.mjs";
import { runSession } from "./setup/session.mjs";

await runSession(async ({ port, folder, database, keep }) => {
  ensurePackages();
  const bin = (name) => path.join(ROOT, "node_modules/.bin", name);
  const server = {
    ...process.env,
    DATABASE_URL: await database(),
    KEEN_PEBBLE_PORT: String(port),
    KEEN_PEBBLE_DEMO: path.join(ROOT, "demo"),
    NODE_OPTIONS: "--conditions=source",
  };
  // Neither serves as root; where the checkout is root's alone, they say what they cannot read.
  const account = servingAccount();
  const as = account === null ? {} : { uid: account.uid, gid: account.gid };
  const page = {
    ...process.env,
    KEEN_PEBBLE_API: `http://127.0.0.1:${port}`,
    ...(account === null ? {} : { KEEN_PEBBLE_VITE_CACHE: path.join(folder, "vite.part") }),
  };
  keep(
    spawn(bin("tsx"), ["watch", "--clear-screen=false", "server/src/main.ts"], {
      cwd: ROOT,
      env: server,
      ...as,
      stdio: ["ignore", "inherit", "inherit"],
    }),
  );
  keep(
    spawn(bin("vite"), [], { cwd: path.join(ROOT, "web"), env: page, ...as, stdio: ["ignore", "inherit", "inherit"] }),
  );
  say(`worlds are kept in ${folder}`);
});
