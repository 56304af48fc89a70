/** Whether this runs from its sources, as the tests and `npm run dev` do. */
export const fromSource = import.meta.url.endsWith(".ts");

/**
 * A thread that is ended while it loads its file by `require` takes the whole process with it ("IsGraphAsync must be used
 * on an instantiated module"); loading by `import` may be ended at any moment.
 */
const LOADS_BY_IMPORT = ["--no-experimental-require-module"].filter((flag) =>
  process.allowedNodeEnvironmentFlags.has(flag),
);

/** From sources, threads want the same loader as their process. */
export const threadOptions = {
  execArgv: [...LOADS_BY_IMPORT, ...(fromSource ? ["--import", "tsx", "--conditions=source"] : [])],
};
