import { writeFileSync } from "node:fs";
import { setTimeout as pause } from "node:timers/promises";
import type { WebDriver, WebElement } from "selenium-webdriver";
import { Builder } from "selenium-webdriver";
import { Options, ServiceBuilder } from "selenium-webdriver/chrome.js";

const FLAGS = [
  "--headless",
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  "--hide-scrollbars",
  "--force-device-scale-factor=1",
];

/** How long a condition of the page may take at the most, in ms. */
const PATIENCE = 30_000;
/** How long between the first looks at it, and at the most, in ms: a look costs both page and driver some of the machine. */
const FIRST_PAUSE = 30;
const LONGEST_PAUSE = 160;
const LONGER = 1.4;
/** How long the page looks for a change by itself, and how often, in ms. */
const IN_PAGE_MS = 1000;
const LOOK_MS = 25;

/**
 * A headless Chromium with a page of exactly 1280 by 800 and a profile of its own. The build without a window loads a page for
 * a third less of the machine than the whole browser in its headless mode.
 */
export class Browser {
  private constructor(readonly driver: WebDriver) {}

  static async open(): Promise<Browser> {
    const options = new Options();
    // Not the script of that name in /usr/bin: it stays before the browser, which would live on when ChromeDriver ends it.
    options.setChromeBinaryPath("/usr/lib/chromium/chromium-headless-shell");
    options.addArguments(...FLAGS);
    const driver = await new Builder()
      .forBrowser("chrome")
      .setChromeOptions(options)
      .setChromeService(new ServiceBuilder("/usr/bin/chromedriver"))
      .build();
    const browser = new Browser(driver);
    await browser.command("Emulation.setDeviceMetricsOverride", {
      width: 1280,
      height: 800,
      deviceScaleFactor: 1,
      mobile: false,
    });
    return browser;
  }

  /** Drops files on what a selector names, as a browser reports it; each with its name and its bytes. */
  async drop(css: string, files: readonly (readonly [name: string, content: string | Buffer])[]): Promise<void> {
    await this.driver.executeScript(
      `const data = new DataTransfer();
       for (const [name, bytes] of arguments[1]) data.items.add(new File([Uint8Array.from(atob(bytes), (c) => c.charCodeAt(0))], name));
       const target = document.querySelector(arguments[0]);
       for (const kind of ["dragenter", "dragover", "drop"]) target.dispatchEvent(new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: data }));`,
      css,
      files.map(([name, content]) => [name, Buffer.from(content).toString("base64")]),
    );
  }

  /** Opens another tab of the same size and turns to it; gives back its handle. */
  async newTab(): Promise<string> {
    await this.driver.switchTo().newWindow("tab");
    await this.command("Emulation.setDeviceMetricsOverride", {
      width: 1280,
      height: 800,
      deviceScaleFactor: 1,
      mobile: false,
    });
    return this.driver.getWindowHandle();
  }

  /** Sends a DevTools command. */
  async command(name: string, parameters: Record<string, unknown>): Promise<unknown> {
    return (
      this.driver as unknown as { sendAndGetDevToolsCommand: (n: string, p: object) => Promise<unknown> }
    ).sendAndGetDevToolsCommand(name, parameters);
  }

  /**
   * What a condition gives, once that is something.
   * @param longest how long between two looks at it at the most, in ms
   */
  async wait<T>(condition: () => Promise<T>, message = "it did not come", longest = LONGEST_PAUSE): Promise<T> {
    const end = Date.now() + PATIENCE;
    for (let ms = FIRST_PAUSE; ; ms = Math.min(ms * LONGER, longest)) {
      const given = await condition();
      if (given) return given;
      if (Date.now() > end) throw new Error(`${message}, in ${PATIENCE} ms`);
      await pause(ms);
    }
  }

  /**
   * What a script gives in the page, once that is something else than before, or after a second. The page looks by itself:
   * that costs a hundredth of asking it.
   */
  private async other<T>(script: string, before: T, ...given: unknown[]): Promise<T> {
    try {
      return await this.driver.executeScript<T>(
        `const [before, ...given] = arguments;
         const give = function () { ${script} };
         const end = performance.now() + ${IN_PAGE_MS};
         return new Promise((done) => {
           const look = () => {
             const value = give(...given);
             if (value !== before || performance.now() > end) done(value);
             else setTimeout(look, ${LOOK_MS});
           };
           look();
         });`,
        before,
        ...given,
      );
    } catch (error) {
      // The page that was looked at is gone: the next look is at the one that came.
      if (/aborted by navigation|document unloaded|execution context|frame detached/i.test(String(error)))
        return before;
      throw error;
    }
  }

  /**
   * What a script gives in the page, as JSON, once it fits.
   * @param longest as for `wait`
   * @param given arguments of the script
   * @throws {Error} with what was there instead
   */
  async untilGives<T>(
    script: string,
    fits: (value: T) => boolean,
    what: string,
    longest = LONGEST_PAUSE,
    ...given: unknown[]
  ): Promise<T> {
    let last: string | null = null;
    const value = (): T => JSON.parse(last!) as T;
    await this.wait(
      async () => {
        const text: string | null = await this.other<string | null>(
          `return JSON.stringify((function () { ${script} }).apply(null, arguments))`,
          last,
          ...given,
        );
        last = text;
        return text !== null && fits(value());
      },
      "",
      longest,
    ).catch((error: unknown) => {
      if (last === null) throw error;
      throw new Error(`${what} stayed at ${last}`);
    });
    return value();
  }

  /** The first element that matches, once it is there and shown. */
  async find(css: string): Promise<WebElement> {
    const found = await this.wait(
      () =>
        this.other<WebElement | null>(
          "const e = document.querySelector(arguments[0]); return e?.checkVisibility({ opacityProperty: true, visibilityProperty: true }) && e.getBoundingClientRect().width > 0 ? e : null",
          null,
          css,
        ),
      `no ${css}, or it is not shown`,
    );
    return found!;
  }

  /** Clicks the first element that matches, once there is one, wherever it lies. */
  async click(css: string): Promise<void> {
    await this.wait(
      () => this.other("const e = document.querySelector(arguments[0]); e?.click(); return e !== null", false, css),
      `no ${css}`,
    );
  }

  /** Clicks the element that matches and says these words, or else one that holds them, once there is one. */
  async press(css: string, words: string): Promise<void> {
    await this.wait(() =>
      this.other(
        "const all = [...document.querySelectorAll(arguments[0])]; const e = all.find((each) => each.textContent.trim() === arguments[1]) ?? all.find((each) => each.textContent.includes(arguments[1])); e?.click(); return e !== undefined",
        false,
        css,
        words,
      ),
    ).catch(async () => {
      const seen = await this.driver.executeScript<string[]>(
        "return [...document.querySelectorAll(arguments[0])].map((each) => each.textContent)",
        css,
      );
      throw new Error(`no ${css} says "${words}", only ${JSON.stringify(seen)}`);
    });
  }

  /**
   * The text of the element, once it fits.
   * @param longest as for `wait`
   */
  untilText(css: string, fits: (text: string) => boolean, longest = LONGEST_PAUSE): Promise<string> {
    return this.untilGives<string>(
      "return document.querySelector(arguments[0])?.textContent ?? ''",
      fits,
      css,
      longest,
      css,
    );
  }

  /** Writes the page as a PNG, once what moves to an end has come there. */
  async picture(file: string): Promise<void> {
    await this.driver.executeScript(
      "return Promise.all([document.fonts.ready, ...document.getAnimations().filter((each) => each.effect.getComputedTiming().endTime !== Infinity).map((each) => each.finished.catch(() => undefined))]).then(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))))",
    );
    writeFileSync(file, await this.driver.takeScreenshot(), "base64");
  }

  async close(): Promise<void> {
    await this.driver.quit();
  }
}
