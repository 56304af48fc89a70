import { Worker } from "node:worker_threads";
import { expect, it } from "vitest";
import { threadOptions } from "./thread-options.ts";

it("a thread loads its file by import alone: one that is ended while it loads by require would end the server", async () => {
  const answer = (execArgv: string[]): Promise<unknown> =>
    new Promise((resolve, reject) => {
      const code = `import("node:worker_threads").then(({ parentPort }) => { let loaded = "by require"; try { require(process.argv[2]); } catch (error) { loaded = error.code; } parentPort.postMessage(loaded); })`;
      // Not our own file, which wants the loader of TypeScript.
      new Worker(code, {
        eval: true,
        execArgv,
        argv: [new URL("../../../node_modules/idb/build/index.js", import.meta.url).pathname],
      })
        .once("message", resolve)
        .once("error", reject);
    });
  expect(await answer([])).toBe("by require");
  expect(await answer(threadOptions.execArgv.filter((flag) => flag.startsWith("--no-")))).toBe("ERR_REQUIRE_ESM");
});
