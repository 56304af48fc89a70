import type { WebElement, Origin } from "selenium-webdriver";
import { Key } from "selenium-webdriver";
import { Select } from "selenium-webdriver/lib/select.js";
import type { Browser } from "./browser.ts";

/** How long between two looks at a walk that goes on meanwhile, in ms. */
const WALKS_ON = 40;

/** A pebble as the page tells it: `passes at frame 12: end cell 3 4`. */
export type Told = string;

/** What a person does and reads on the Bench. */
export class BenchDriver {
  constructor(private readonly browser: Browser) {}

  /** Waits until a run is shown. */
  async ready(): Promise<void> {
    await this.browser.untilText(".status", (text) => text.includes("frames in"));
  }

  /** Presses and lets go of a key, with the page itself as what has the keyboard. */
  async key(...keys: string[]): Promise<void> {
    const actions = this.browser.driver.actions();
    for (const key of keys) actions.keyDown(key);
    for (const key of [...keys].reverse()) actions.keyUp(key);
    await actions.perform();
  }

  /** Starts to walk in a world that nobody walks in yet. The page may be shown a moment before it hears keys. */
  async walk(): Promise<void> {
    await this.browser.untilText(".status", (text) => text.includes("No walker"));
    await this.browser.wait(async () => {
      await this.key("r");
      return this.browser.driver
        .wait(async () => {
          const text = await this.browser.driver.executeScript<string>(
            "return document.querySelector('.status')?.textContent ?? ''",
          );
          return /Walker \d/.test(text);
        }, 2_000)
        .catch(() => false);
    }, "nobody walks");
  }

  /**
   * Holds a key until the walker's cell fits, as one does when one walks. It may have gone on by the time that is seen. A
   * frame has passed meanwhile: a walk goes on by itself too, and a key counts in the frames in which it is down.
   */
  async hold(key: string, fits: (x: number, y: number) => boolean): Promise<void> {
    await this.browser.driver.actions().keyDown(key).perform();
    const before = await this.frame();
    const arrived = (text: string): boolean => {
      const [, x, y] = /Walker (\d+),(\d+)/.exec(text) ?? [];
      return x !== undefined && y !== undefined && fits(Number(x), Number(y));
    };
    await this.browser.untilText(".status", arrived, WALKS_ON);
    await this.browser.wait(async () => (await this.frame()) > before, "the walk stands still", WALKS_ON);
    await this.browser.driver.actions().keyUp(key).perform();
  }

  private async frame(): Promise<number> {
    return this.browser.driver.executeScript<number>(
      "return parseInt(document.querySelector('.frame-count')?.textContent ?? '-1', 10)",
    );
  }

  /** The pebbles on the line, once they are as wanted. */
  async pebbles(fits: (pebbles: Told[]) => boolean): Promise<Told[]> {
    return this.browser.untilGives<Told[]>(
      "return [...document.querySelectorAll('.lane-pebble')].map((e) => e.getAttribute('aria-label'))",
      fits,
      "pebbles",
    );
  }

  /** Drags on the field from one cell to another; a click where they are the same. Cells are 32 px in a room of 20 x 16. */
  async drag(from: readonly [number, number], to: readonly [number, number] = from): Promise<void> {
    const canvas = await this.browser.find(".field-canvas");
    const { width, height } = await canvas.getRect();
    const at = ([x, y]: readonly [number, number]) => ({
      x: Math.round((x - 9.5) * 32),
      y: Math.round((y - 7.5) * 32),
      origin: canvas as unknown as Origin,
    });
    if (width < 640 || height < 512) throw new Error("the field is smaller than the room at 2x");
    await this.browser.driver.actions().move(at(from)).press().move(at(to)).release().perform();
  }

  /** Drags on the field from one px of the room to another, whatever the zoom. */
  async dragPixels(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
    await this.beginPixels(from, to);
    await this.browser.driver.actions().release().perform();
  }

  /** A drag as `dragPixels` does, the button still down: the canvas tells how the room lies on it. */
  async beginPixels(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
    const canvas = await this.browser.find(".field-canvas");
    const { width, height } = await canvas.getRect();
    const [zoom = 1, left = 0, top = 0] = ((await canvas.getAttribute("data-view")) ?? "").split(" ").map(Number);
    const at = ([x, y]: readonly [number, number]) => ({
      x: Math.round(left + x * zoom - width / 2),
      y: Math.round(top + y * zoom - height / 2),
      origin: canvas as unknown as Origin,
    });
    await this.browser.driver.actions().move(at(from)).press().move(at(to)).perform();
  }

  /** Moves the pointer to a cell, as `drag` counts them. */
  async point([x, y]: readonly [number, number]): Promise<void> {
    const canvas = await this.browser.find(".field-canvas");
    await this.browser.driver
      .actions()
      .move({ x: Math.round((x - 9.5) * 32), y: Math.round((y - 7.5) * 32), origin: canvas })
      .perform();
  }

  /** Chooses a tile to paint with. */
  async tile(name: string): Promise<void> {
    await (await this.browser.find(`.swatches [title="${name}"]`)).click();
  }

  /** Types a value into a number field. */
  async number(label: string, value: string): Promise<void> {
    const field = await this.field(label);
    await field.click();
    await field.sendKeys(Key.chord(Key.CONTROL, "a"), value, Key.ENTER);
  }

  /** The field of the anatomy with that label, once it is there. */
  private field(label: string): Promise<WebElement> {
    return this.browser.wait(
      () =>
        this.browser.driver.executeScript<WebElement>(
          "return document.getElementById([...document.querySelectorAll('.anatomy label')].find((l) => l.textContent === arguments[0])?.htmlFor ?? '')",
          label,
        ),
      `no ${label} in the anatomy`,
    );
  }

  /** Chooses a value in a field with a list. */
  async choose(label: string, value: string): Promise<void> {
    await new Select(await this.field(label)).selectByVisibleText(value);
  }
}
