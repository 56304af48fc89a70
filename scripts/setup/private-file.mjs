import { chownSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { servingAccount } from "./account.mjs";

/** Writes a file that only the serving account may read, whole or not at all, and never through a link. */
export function writePrivate(file, text) {
  const half = `${file}.${process.pid}.part`;
  try {
    writeFileSync(half, text, { flag: "wx", mode: 0o600 });
    const account = servingAccount();
    if (account !== null) chownSync(half, account.uid, account.gid);
    renameSync(half, file);
  } catch (error) {
    rmSync(half, { force: true });
    throw error;
  }
}
