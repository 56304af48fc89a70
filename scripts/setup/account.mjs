import { spawnSync } from "node:child_process";
import { chownSync } from "node:fs";
import { SetupError } from "./run.mjs";

const NAME = "postgres";

/**
 * The account as which database and server run: this one, or, for root, the one that Debian's package makes. PostgreSQL
 * refuses to run as root, and nothing that serves has a need to.
 * @typedef {{ readonly name: string, readonly uid: number, readonly gid: number }} Account
 */

/** @returns {Account | null} null where it is this very account */
export function servingAccount() {
  if (process.getuid?.() !== 0) return null;
  const number = (flag) => {
    const said = spawnSync("id", [flag, NAME], { encoding: "utf8" });
    if (said.status !== 0)
      throw new SetupError(
        `there is no account ${NAME} that database and server could run as; Debian's package postgresql makes it`,
      );
    return Number(said.stdout.trim());
  };
  return { name: NAME, uid: number("-u"), gid: number("-g") };
}

/** Gives a file or folder of ours to the account that works with it. */
export function giveToAccount(file) {
  const account = servingAccount();
  if (account !== null) chownSync(file, account.uid, account.gid);
}

/** A command as the serving account runs it. */
export function asAccount(command, args) {
  const account = servingAccount();
  return account === null ? [command, args] : ["runuser", ["-u", account.name, "--", command, ...args]];
}

/** Whether the serving account can do that to the file: `r` read it, `x` run or enter it. */
export function accountCan(what, file) {
  const [command, args] = asAccount("test", [`-${what}`, file]);
  return spawnSync(command, args, { cwd: "/", stdio: "ignore" }).status === 0;
}
