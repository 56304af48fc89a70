import { afterAll, beforeAll, inject } from "vitest";
import { Application } from "./application.ts";
import { BenchDriver } from "./bench-driver.ts";
import { Browser } from "./browser.ts";
import { Started } from "./started.ts";

/** What a browser test works with. */
export interface Scene<A extends Application> {
  readonly started: A;
  readonly browser: Browser;
  readonly bench: BenchDriver;
}

/**
 * Starts the application and a browser for the tests of a file, and ends both after them.
 * @param ready is handed them
 * @param proves whether the server runs logs: that takes as long as all else that it does, where nobody looks at it
 */
export function withApplication(ready: (scene: Scene<Started>) => void, { proves } = { proves: true }): void {
  withBrowser(
    () => Started.start(proves),
    ready,
    (started) => started.stop(),
  );
}

/**
 * Hands the tests of a file the application that others use meanwhile too, and a browser of their own. They work in worlds
 * that they make, and leave those of the demo as they are.
 */
export function withSharedApplication(ready: (scene: Scene<Application>) => void): void {
  withBrowser(
    () => new Application(inject("sharedApplication")),
    ready,
    () => {},
  );
}

function withBrowser<A extends Application>(
  start: () => A | Promise<A>,
  ready: (scene: Scene<A>) => void,
  stop: (started: A) => void | Promise<void>,
): void {
  let scene: Partial<Scene<A>> = {};
  beforeAll(async () => {
    const started = await start();
    scene = { started };
    const browser = await Browser.open();
    scene = { started, browser };
    ready({ started, browser, bench: new BenchDriver(browser) });
  });
  afterAll(async () => {
    await scene.browser?.close();
    if (scene.started !== undefined) await stop(scene.started);
  });
}
