/** A running application, as browser tests see it. */
export class Application {
  constructor(readonly address: string) {}

  /** Asks the server's API; throws where it says no. */
  async api<T>(route: string, body?: unknown, method = "GET"): Promise<T> {
    const init =
      body === undefined
        ? { method }
        : { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) };
    const response = await fetch(`${this.address}/api${route}`, init);
    if (!response.ok) throw new Error(`${route}: ${response.status} ${await response.text()}`);
    return (await response.json()) as T;
  }

  /** Makes a copy of a world; gives back its id. */
  async copy(world: string): Promise<string> {
    return (await this.api<{ id: string }>(`/worlds/${world}/copy`, {})).id;
  }
}
