import { pathToFileURL } from "node:url";

/** Whether this runs from its sources, as the tests and `npm run dev` do. */
const fromSource = import.meta.url.endsWith(".ts");

/** The folder of the built server: a run of all tests takes its threads from there, since they start in a third of the time. */
const built = process.env["KEEN_PEBBLE_BUILT_SERVER"];

/**
 * A thread that is ended while it loads its file by `require` takes the whole process with it ("IsGraphAsync must be used
 * on an instantiated module"); loading by `import` may be ended at any moment.
 */
const LOADS_BY_IMPORT = ["--no-experimental-require-module"].filter((flag) =>
  process.allowedNodeEnvironmentFlags.has(flag),
);

/** Where the threads' sources are. */
const SOURCES = { desk: "../desk/desk.thread.ts", prove: "./prove.thread.ts" };

/** From sources, threads want the same loader as their process. */
export const threadOptions = {
  execArgv: [
    ...LOADS_BY_IMPORT,
    ...(fromSource && built === undefined ? ["--import", "tsx", "--conditions=source"] : []),
  ],
};

/** The address of a thread's file: built, it lies beside whatever asks for it. */
export function threadFile(name: "desk" | "prove"): string {
  if (!fromSource) return new URL(`./${name}.thread.js`, import.meta.url).href;
  if (built !== undefined) return new URL(`${name}.thread.js`, pathToFileURL(`${built}/`)).href;
  return new URL(SOURCES[name], import.meta.url).href;
}
