import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import path from "node:path";
import { numbersFrom } from "../../scripts/speed/worlds.mjs";
import type { Started } from "../started.ts";
import { processMemory } from "./process-memory.ts";

/** What came of many programs that use the server at the same time. */
export interface ManyClients {
  readonly clients: number;
  readonly seconds: number;
  readonly requests: number;
  /** Answers that were none of success, and connections that broke. */
  readonly errors: readonly string[];
  /** Acknowledged edits that are not there in the end. */
  readonly lost: number;
  readonly slowestMs: number;
  /** Memory of the server in MiB after the first tenth of the time, and in the end. */
  readonly memoryEarly: number;
  readonly memoryEnd: number;
}

const CELLS = 320;

/** Each client has a world of its own, edits it, and reads those of others; every second one asks for proofs too. */
export async function manyClients(started: Started, clients: number, seconds: number): Promise<ManyClients> {
  const demo = readFileSync(
    path.resolve(import.meta.dirname, "../../demo/saltglass-cistern/saltglass-cistern.world.json"),
    "utf8",
  );
  const log = "keen-pebble-inputs 1\nstart intake-hall 4 12 up\ncheck always aligned\n---\n72 U\n48 R\n";
  const errors: string[] = [];
  /** Worlds that are there. */
  const made: string[] = [];
  let requests = 0;
  let lost = 0;
  let slowestMs = 0;
  let over = false;
  const ask = async <T>(route: string, body?: unknown, method = "GET"): Promise<T | null> => {
    const began = performance.now();
    requests++;
    try {
      return await started.api<T>(route, body, method);
    } catch (error) {
      if (errors.length < 20) errors.push((error as Error).message.slice(0, 200));
      return null;
    } finally {
      slowestMs = Math.max(slowestMs, performance.now() - began);
    }
  };
  const client = async (n: number): Promise<void> => {
    const pick = numbersFrom(1000 + n);
    const id = `client-${n}`;
    await ask("/imports", { world: demo.replace('"id": "saltglass-cistern"', `"id": "${id}"`), logs: { round: log } });
    const opened = await ask<{ revision: number; world: { rooms: { cells: number[] }[] } }>(`/worlds/${id}`);
    if (opened === null) return;
    made.push(id);
    const cells = [...opened.world.rooms[0]!.cells];
    let { revision } = opened;
    while (!over) {
      const at = [...new Set(Array.from({ length: 1 + pick(5) }, () => pick(CELLS)))];
      const step = {
        kind: "set-cells",
        room: "intake-hall",
        cells: at,
        before: at.map((cell) => cells[cell]!),
        after: at.map(() => pick(9)),
      };
      const stored = await ask<{ revision: number }>(`/worlds/${id}/revisions`, {
        batch: randomUUID(),
        base: revision,
        steps: [step],
      });
      if (stored === null) return;
      ({ revision } = stored);
      at.forEach((cell, i) => (cells[cell] = step.after[i]!));
      const what = pick(12);
      if (what === 0) await ask(`/worlds/${made[pick(made.length)]!}`);
      if (what === 1) await ask("/shelf");
      if (what === 2 && n % 2 === 0) await ask(`/worlds/${id}/proofs`, undefined, "POST");
      if (what === 3) await ask(`/worlds/${id}/revisions`);
      if (what === 4) await ask(`/worlds/${id}/proofs`);
      // As people do: some edits a second.
      await new Promise((resolve) => setTimeout(resolve, 100 + pick(700)));
    }
    const end = await ask<{ revision: number; world: { rooms: { cells: number[] }[] } }>(`/worlds/${id}`);
    if (end === null) return;
    if (end.revision !== revision) lost++;
    lost += end.world.rooms[0]!.cells.filter((tile, cell) => tile !== cells[cell]).length;
  };
  const running = Promise.all(Array.from({ length: clients }, (_, n) => client(n)));
  await new Promise((resolve) => setTimeout(resolve, seconds * 100));
  const memoryEarly = processMemory(started.pid).now;
  await new Promise((resolve) => setTimeout(resolve, seconds * 900));
  over = true;
  await running;
  const memoryEnd = processMemory(started.pid).now;
  return {
    clients,
    seconds,
    requests,
    errors,
    lost,
    slowestMs: Math.round(slowestMs),
    memoryEarly: Math.round(memoryEarly),
    memoryEnd: Math.round(memoryEnd),
  };
}
