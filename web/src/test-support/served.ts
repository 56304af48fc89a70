/** The built application on a database of its own. */
export interface Served {
  readonly address: string;
  /** Asks the API as another program would. */
  readonly api: <T>(path: string, body?: unknown) => Promise<T>;
  readonly stop: () => Promise<void>;
}

/** Starts it as `npm start` does: what the page's session does is tried against the server itself. */
export async function served(): Promise<Served> {
  // A script of the checkout, which the page's own types know nothing of.
  const script = new URL("../../../scripts/setup/own-application.mjs", import.meta.url).href;
  const { ownApplication } = (await import(/* @vite-ignore */ script)) as {
    readonly ownApplication: () => Promise<{ readonly address: string; readonly stop: () => Promise<void> }>;
  };
  const { address, stop } = await ownApplication();
  const ask = globalThis.fetch;
  const api = async <T>(path: string, body?: unknown): Promise<T> => {
    const init =
      body === undefined
        ? {}
        : { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) };
    const response = await ask(`${address}/api${path}`, init);
    if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`);
    return (await response.json()) as T;
  };
  return { address, api, stop };
}
