import { createHash } from "node:crypto";
import type { TextHash } from "@keen-pebble/core/simulate";

/** SHA-256 of a text, in hex: what outcomes and revisions are told apart by. */
export function contentHash(text: string): string {
  return createHash("sha256").update(text, "utf8").digest("hex");
}

/** SHA-256 for the core's fingerprints. */
export function traceHash(): TextHash {
  const hash = createHash("sha256");
  return { update: (text) => void hash.update(text, "latin1"), hex: () => hash.digest("hex") };
}
