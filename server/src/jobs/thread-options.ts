/** Whether this runs from its sources, as the tests and `npm run dev` do. */
export const fromSource = import.meta.url.endsWith(".ts");

/** From sources, threads want the same loader as their process. */
export const threadOptions = { execArgv: fromSource ? ["--import", "tsx", "--conditions=source"] : [] };
