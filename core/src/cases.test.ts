import { readFileSync, readdirSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { readWorld } from "./formats/read-world.ts";
import { readLog } from "./logs/read-log.ts";
import { compile } from "./simulation/compile.ts";
import { run } from "./replay/run.ts";
import { traceText } from "./simulation/trace.ts";

/** Worlds and logs with the traces and verdicts that an independent implementation gave; `cases/run` compares by the command line. */
const folder = new URL("../../cases/", import.meta.url);
const read = (name: string): string => readFileSync(new URL(name, folder), "utf8");
const files = readdirSync(folder);

/** What asks for something that is not built yet: of each of them something must be refused or differ, or it belongs to the others. */
const NOT_YET = /^(actors|hand-actor)/;

const cases = files.filter((name) => name.endsWith(".trace.csv")).map((name) => name.slice(0, -".trace.csv".length));
const built = cases.filter((name) => !NOT_YET.test(name));

/** Trace and verdicts of a case as this program has them. */
function seen(name: string): { readonly trace: string; readonly verdicts: string } {
  const world = readWorld(read(`${name}.world.json`), name);
  const log = readLog(read(`${name}.inputs`), name);
  const c = compile(world, log.rules ?? undefined);
  const { rows, verdicts } = run(c, log, { rows: true, checks: true });
  return {
    trace: [...traceText(c, rows!)].join(""),
    verdicts: verdicts.map(({ verdict, frame, check }) => `${verdict} ${frame} ${check}\n`).join(""),
  };
}

describe("the reference cases", () => {
  it.each(built)("%s walks as it should, and its checks end as they should", (name) => {
    const { trace, verdicts } = seen(name);
    expect(trace).toBe(read(`${name}.trace.csv`));
    if (files.includes(`${name}.verdicts`)) expect(verdicts).toBe(read(`${name}.verdicts`));
  });

  it("that wait for something that is not built yet are known, and are none of what is", () => {
    const waiting = cases.filter((name) => NOT_YET.test(name));
    const works = waiting.filter((name) => {
      try {
        const { trace, verdicts } = seen(name);
        return (
          trace === read(`${name}.trace.csv`) &&
          (!files.includes(`${name}.verdicts`) || verdicts === read(`${name}.verdicts`))
        );
      } catch {
        return false;
      }
    });
    expect(works).toEqual([]);
    expect([built.length, waiting.length]).toEqual([130, 18]);
  });
});
