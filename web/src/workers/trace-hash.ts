import type { TextHash } from "@keen-pebble/core/simulate";
import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";

/** SHA-256 for the core's fingerprints. */
export function traceHash(): TextHash {
  const hash = sha256.create();
  return { update: (piece) => void hash.update(utf8ToBytes(piece)), hex: () => bytesToHex(hash.digest()) };
}
