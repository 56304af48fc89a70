import { expose } from "comlink";
import { proofs } from "./proofs.ts";
import { reach } from "./reach.ts";
import { simulation } from "./simulation.ts";
import { trials } from "./trials.ts";
import { whichRules } from "./which-rules.ts";

/** What a worker of the page may be asked for, by the name that it was started with: all of them share this one file. */
const ROLES: ReadonlyMap<string, object> = new Map<string, object>([
  ["simulation", simulation],
  ["trials", trials],
  ["proofs", proofs],
  ["reach", reach],
  ["which-rules", whichRules],
]);

expose(ROLES.get((globalThis as unknown as { readonly name: string }).name));
