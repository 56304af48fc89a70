import { readFileSync, readdirSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { readWorld } from "./formats/read-world.ts";
import { readLog } from "./logs/read-log.ts";
import { compile } from "./simulation/compile.ts";
import { run } from "./replay/run.ts";
import { actorTraceText } from "./simulation/actor-rows.ts";
import { traceText } from "./simulation/trace.ts";

/** Worlds and logs with the traces and verdicts that an independent implementation gave; `cases/run` compares by the command line. */
const folder = new URL("../../cases/", import.meta.url);
const read = (name: string): string => readFileSync(new URL(name, folder), "utf8");
const files = readdirSync(folder);

const cases = files.filter((name) => name.endsWith(".trace.csv")).map((name) => name.slice(0, -".trace.csv".length));
/** The traces of walker and actors and the verdicts of a case as this program has them. */
function seen(name: string): { readonly actors: string; readonly trace: string; readonly verdicts: string } {
  const world = readWorld(read(`${name}.world.json`), name);
  const log = readLog(read(`${name}.inputs`), name);
  const c = compile(world, log.rules ?? undefined);
  const { rows, verdicts } = run(c, log, { rows: true, checks: true });
  return {
    actors: [...actorTraceText(c, rows!)].join(""),
    trace: [...traceText(c, rows!)].join(""),
    verdicts: verdicts.map(({ verdict, frame, check }) => `${verdict} ${frame} ${check}\n`).join(""),
  };
}

describe("the reference cases", () => {
  it.each(cases)("%s walks as it should, and its checks end as they should", (name) => {
    const { actors, trace, verdicts } = seen(name);
    expect(trace).toBe(read(`${name}.trace.csv`));
    if (files.includes(`${name}.actors.csv`)) expect(actors).toBe(read(`${name}.actors.csv`));
    if (files.includes(`${name}.verdicts`)) expect(verdicts).toBe(read(`${name}.verdicts`));
  });
});
