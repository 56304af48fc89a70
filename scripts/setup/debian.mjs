import { spawnSync } from "node:child_process";
import { existsSync, readdirSync } from "node:fs";
import { SetupError, runQuietly, say } from "./run.mjs";

const BINARIES = "/usr/lib/postgresql";

/** Folder of PostgreSQL's own programs, the newest version; null where it is not installed. */
export function postgresFolder() {
  if (!existsSync(BINARIES)) return null;
  const versions = readdirSync(BINARIES).filter((v) => existsSync(`${BINARIES}/${v}/bin/postgres`));
  versions.sort((a, b) => Number(b) - Number(a));
  return versions.length === 0 ? null : `${BINARIES}/${versions[0]}/bin`;
}

const PACKAGES = {
  postgresql: () => postgresFolder() !== null,
  "chromium-headless-shell": () => existsSync("/usr/lib/chromium/chromium-headless-shell"),
  python3: () => existsSync("/usr/bin/python3"),
  "chromium-driver": () => existsSync("/usr/bin/chromedriver"),
};

/**
 * Installs the Debian packages that are missing: as root, or through sudo where it needs no password.
 * @param {("postgresql" | "chromium-headless-shell" | "chromium-driver" | "python3")[]} wanted
 */
export function ensureDebianPackages(wanted) {
  const missing = wanted.filter((name) => !PACKAGES[name]());
  if (missing.length === 0) return;
  const prefix = process.getuid?.() === 0 ? [] : ["sudo", "-n"];
  const please = `please install Debian's packages ${missing.join(", ")} first: sudo apt-get install ${missing.join(" ")}`;
  if (prefix.length > 0 && spawnSync("sudo", ["-n", "true"], { stdio: "ignore" }).status !== 0)
    throw new SetupError(please);
  say(`installing Debian's packages: ${missing.join(", ")}`);
  // The package would make and start a cluster of its own; ours is the only one that is wanted.
  const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive" };
  const apt = (...args) => {
    const [command, ...rest] = [...prefix, "apt-get", ...args];
    runQuietly(command, rest, { what: `apt-get ${args[0]}`, env });
  };
  try {
    apt("update");
    apt("install", "-y", "--no-install-recommends", ...missing);
  } catch (error) {
    throw new SetupError(`${error.message}\n${please}`);
  }
  const still = missing.filter((name) => !PACKAGES[name]());
  if (still.length > 0) throw new SetupError(please);
}
