import { spawnSync } from "node:child_process";
import { chmodSync, chownSync, existsSync, mkdirSync } from "node:fs";
import net from "node:net";
import path from "node:path";
import { postgresFolder } from "./debian.mjs";
import { SetupError, runQuietly } from "./run.mjs";

const USER = "keen_pebble";

/** A port on loopback that nothing listens on. */
export function freePort() {
  return new Promise((resolve, reject) => {
    const probe = net.createServer();
    probe.on("error", reject);
    probe.listen(0, "127.0.0.1", () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
}

/**
 * A PostgreSQL cluster of our own on loopback. PostgreSQL refuses to run as root, so as root it runs as the user
 * that Debian's package makes.
 */
export class Postgres {
  /** @param {string} folder data folder; made where it is missing */
  constructor(folder) {
    this.folder = folder;
    this.port = 0;
  }

  as(program, args) {
    const binary = path.join(postgresFolder(), program);
    return process.getuid() === 0 ? ["runuser", ["-u", "postgres", "--", binary, ...args]] : [binary, args];
  }

  /** Makes the cluster if need be and starts it on a free port. */
  async start() {
    if (!existsSync(path.join(this.folder, "PG_VERSION"))) {
      mkdirSync(this.folder, { recursive: true });
      if (process.getuid() === 0) {
        const id = (flag) => Number(runQuietly("id", [flag, "postgres"]).trim());
        chownSync(this.folder, id("-u"), id("-g"));
      }
      chmodSync(this.folder, 0o700);
      const [command, args] = this.as("initdb", ["-D", this.folder, "-U", USER, "--auth=trust", "--encoding=UTF8", "--locale=C"]);
      runQuietly(command, args, { what: "making the database", cwd: "/" });
    }
    this.port = await freePort();
    return this.restart();
  }

  /** Starts the cluster on the port that it has. */
  async restart() {
    const options = `-c listen_addresses=127.0.0.1 -p ${this.port} -c unix_socket_directories=''`;
    const [command, args] = this.as("pg_ctl", ["-D", this.folder, "-l", path.join(this.folder, "server.log"), "-w", "-o", options, "start"]);
    // Its own session, and no pipe that the server would keep open.
    const started = spawnSync("setsid", ["-w", command, ...args], { cwd: "/", stdio: ["ignore", "ignore", "ignore"] });
    if (started.status !== 0) throw new SetupError(`PostgreSQL did not start; it says why in ${path.join(this.folder, "server.log")}`);
    return this;
  }

  /** Stops the cluster; waits until it has. */
  stop(mode = "fast") {
    const [command, args] = this.as("pg_ctl", ["-D", this.folder, "-m", mode, "-w", "stop"]);
    spawnSync(command, args, { cwd: "/", stdio: "ignore" });
  }

  /** Address of a database in the cluster, `postgres` unless said otherwise. */
  url(database = "postgres") {
    return `postgres://${USER}@127.0.0.1:${this.port}/${database}`;
  }
}
