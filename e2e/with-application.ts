import { afterAll, beforeAll } from "vitest";
import { BenchDriver } from "./bench-driver.ts";
import { Browser } from "./browser.ts";
import { Started } from "./started.ts";

/** What a browser test works with. */
export interface Scene {
  readonly started: Started;
  readonly browser: Browser;
  readonly bench: BenchDriver;
}

/**
 * Starts the application and a browser for the tests of a file, and ends both after them.
 * @param ready is handed them
 * @param proves whether the server runs logs: that takes as long as all else that it does, where nobody looks at it
 */
export function withApplication(ready: (scene: Scene) => void, { proves } = { proves: true }): void {
  let scene: Partial<Scene> = {};
  beforeAll(async () => {
    const started = await Started.start(proves);
    scene = { started };
    const browser = await Browser.open();
    scene = { started, browser };
    ready({ started, browser, bench: new BenchDriver(browser) });
  });
  afterAll(async () => {
    await scene.browser?.close();
    await scene.started?.stop();
  });
}
