import { createHash } from "node:crypto";

/** SHA-256 of a text, in hex: what outcomes and revisions are told apart by. */
export function contentHash(text: string): string {
  return createHash("sha256").update(text, "utf8").digest("hex");
}
