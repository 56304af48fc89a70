import type { InputLog, Proof } from "@keen-pebble/core/check";
import { Prover } from "@keen-pebble/core/check";
import { fromPlain } from "@keen-pebble/core/formats";
import { workerData } from "piscina";
import { sha256 } from "./files.ts";
import type { ProveShared } from "./prove-all.ts";

const { world, prints } = workerData as ProveShared;
const prover = new Prover(fromPlain(world), sha256);

/** Proves some logs. */
export default function prove(logs: readonly InputLog[]): Proof[] {
  return logs.map((log) => prover.prove(log, prints));
}
