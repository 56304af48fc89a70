import { writeFileSync } from "node:fs";
import type { WebDriver, WebElement, WebElementCondition, WebElementPromise } from "selenium-webdriver";
import { Builder, By, until } from "selenium-webdriver";
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
/** How long between two looks at it, in ms. */
const POLL = 40;

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

  /** What a condition gives, once that is something; looked at often, since a test is mostly waiting. */
  wait(condition: WebElementCondition, message?: string): WebElementPromise;
  wait<T>(condition: () => Promise<T>, message?: string): Promise<T>;
  wait<T>(condition: WebElementCondition | (() => Promise<T>), message?: string): Promise<T | WebElement> {
    return this.driver.wait(condition as () => Promise<T>, PATIENCE, message, POLL);
  }

  /** The element, once it is there and shown. */
  async find(css: string): Promise<WebElement> {
    const found = await this.wait(until.elementLocated(By.css(css)), `no ${css}`);
    return this.wait(until.elementIsVisible(found), `${css} is not shown`);
  }

  /** Clicks the first element that matches, once there is one, wherever it lies. */
  async click(css: string): Promise<void> {
    await this.wait(
      () =>
        this.driver.executeScript<boolean>(
          "const e = document.querySelector(arguments[0]); e?.click(); return e !== null",
          css,
        ),
      `no ${css}`,
    );
  }

  /** Clicks the element that matches and says these words, or else one that holds them, once there is one. */
  async press(css: string, words: string): Promise<void> {
    let seen: string[] | null = [];
    await this.wait(async () => {
      seen = await this.driver.executeScript<string[] | null>(
        "const all = [...document.querySelectorAll(arguments[0])]; const e = all.find((each) => each.textContent.trim() === arguments[1]) ?? all.find((each) => each.textContent.includes(arguments[1])); e?.click(); return e ? null : all.map((each) => each.textContent)",
        css,
        words,
      );
      return seen === null;
    }).catch(() => {
      throw new Error(`no ${css} says "${words}", only ${JSON.stringify(seen)}`);
    });
  }

  /** The text of the element, once it fits. */
  async untilText(css: string, fits: (text: string) => boolean): Promise<string> {
    let last = "";
    await this.wait(async () => {
      last = await this.driver.executeScript<string>(
        "const e = document.querySelector(arguments[0]); return e ? e.textContent : ''",
        css,
      );
      return fits(last);
    }).catch(() => {
      throw new Error(`${css} stayed at "${last}"`);
    });
    return last;
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
