import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import path from "node:path";
import { numbersFrom } from "../../scripts/speed/worlds.mjs";
import type { Started } from "../started.ts";

/** What came of sending batches to a server that is killed all the time. */
export interface KillRounds {
  readonly batches: number;
  readonly kills: number;
  readonly acknowledged: number;
  /** Attempts that broke off without an answer: such a batch may be stored or not. */
  readonly brokenOff: number;
  /** What is wrong afterwards; empty where nothing is. */
  readonly faults: readonly string[];
}

interface Step {
  readonly kind: "set-cells";
  readonly room: string;
  readonly cells: number[];
  readonly before: number[];
  readonly after: number[];
}

const CELLS = 320;

/**
 * Sends batches of several steps one after the other while the server is killed at random moments and started again.
 * A batch whose answer did not come is sent again as it was, as the page does, or now and then given up.
 */
export async function killRounds(
  started: Started,
  min: { readonly batches: number; readonly kills: number },
  seed: number,
): Promise<KillRounds> {
  const pick = numbersFrom(seed);
  const demo = readFileSync(
    path.resolve(import.meta.dirname, "../../demo/saltglass-cistern/saltglass-cistern.world.json"),
    "utf8",
  );
  const id = `killed-${seed}`;
  await started.api("/imports", { world: demo.replace('"id": "saltglass-cistern"', `"id": "${id}"`) });
  const { world } = await started.api<{ world: { rooms: { cells: number[] }[] } }>(`/worlds/${id}`);
  let cells = [...world.rooms[0]!.cells];
  let revision = 1;
  let acknowledged = 0;
  let brokenOff = 0;
  let kills = 0;
  let over = false;

  const killer = (async (): Promise<void> => {
    while (!over) {
      await new Promise((resolve) => setTimeout(resolve, 5 + pick(60)));
      if (over) break;
      await started.kill();
      kills++;
      await started.startAgain();
      // Some work gets done in between.
      const until = acknowledged + 1 + pick(3);
      while (!over && acknowledged < until) await new Promise((resolve) => setTimeout(resolve, 1));
    }
  })();

  const stepsOf = (): { steps: Step[]; after: number[] } => {
    const after = [...cells];
    const steps = Array.from({ length: 1 + pick(4) }, (): Step => {
      const at = [...new Set(Array.from({ length: 1 + pick(5) }, () => pick(CELLS)))];
      const step: Step = {
        kind: "set-cells",
        room: "intake-hall",
        cells: at,
        before: at.map((cell) => after[cell]!),
        after: at.map(() => pick(9)),
      };
      at.forEach((cell, i) => (after[cell] = step.after[i]!));
      return step;
    });
    return { steps, after };
  };
  const faults: string[] = [];
  let n = 0;
  for (; n < min.batches || kills < min.kills; n++) {
    const { steps, after } = stepsOf();
    const body = { batch: randomUUID(), base: revision, steps };
    for (;;) {
      const answer = await started
        .api<{ revision: number }>(`/worlds/${id}/revisions`, body)
        .catch((error: Error) => error);
      if (!(answer instanceof Error)) {
        acknowledged++;
        if (answer.revision !== revision + 1)
          faults.push(`batch ${n} became revision ${answer.revision}, not ${revision + 1}`);
        revision = answer.revision;
        cells = after;
        break;
      }
      if (/: \d{3} /.test(answer.message)) {
        faults.push(`batch ${n}: ${answer.message}`);
        break;
      }
      brokenOff++;
      // As soon as it listens again, and without taking the machine from it until then.
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  }
  over = true;
  await killer;
  const found = await started.api<{ revision: number; world: { rooms: { cells: number[] }[] } }>(`/worlds/${id}`);
  if (found.revision !== revision)
    faults.push(`the newest revision is ${found.revision}, the last that was acknowledged ${revision}`);
  const differ = found.world.rooms[0]!.cells.filter((tile, cell) => tile !== cells[cell]).length;
  if (differ > 0) faults.push(`${differ} cells are not as they were acknowledged`);
  return { batches: n, kills, acknowledged, brokenOff, faults };
}
