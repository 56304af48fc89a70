import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { AxeResults, RunOptions } from "axe-core";
import type { Browser } from "./browser.ts";

/** Its small form: it is sent to every page that is looked at. */
const AXE = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

/** Rules that ask for colours: another theme can break no other. */
const OF_COLOURS = ["color-contrast", "link-in-text-block"];

/**
 * What axe-core finds on the page as it stands, of whatever weight; nothing is as it should be.
 * @param rules null: all of them
 * @param within the part that is looked at
 */
export async function axeFindings(
  browser: Browser,
  rules: readonly string[] | null = null,
  within = "html",
): Promise<string[]> {
  const options: RunOptions = {
    resultTypes: ["violations"],
    // Style sheets and media are loaded again only for rules about locked orientation and sound that plays by itself.
    preload: false,
    ...(rules === null ? {} : { runOnly: { type: "rule", values: [...rules] } }),
  };
  const { violations } = await atRest(browser, async () => {
    // It is half a megabyte: a page that has it already is not sent it once more.
    if (!(await browser.driver.executeScript<boolean>("return 'axe' in window")))
      await browser.driver.executeScript(AXE);
    return browser.driver.executeScript<AxeResults>("return axe.run(arguments[0], arguments[1])", within, options);
  });
  return violations.map(
    (violation) =>
      `${violation.impact ?? "unknown"} ${violation.id}: ${violation.nodes.map((node) => node.target.join(" ")).join("; ")}`,
  );
}

/** The same in either theme, each with the theme in which it was found; the page is as it was after it. */
export async function axeFindingsInBothThemes(browser: Browser, within = "html"): Promise<string[]> {
  const found: string[] = [];
  for (const rules of [null, OF_COLOURS]) {
    const theme = await browser.driver.executeScript<string>("return document.documentElement.dataset.theme");
    for (const finding of await axeFindings(browser, rules, within)) found.push(`${theme}: ${finding}`);
    await browser.click(".top [aria-label$=' theme']");
  }
  return found;
}

/**
 * Looks at the page as one sees it who wants no motion, once what moves has come to rest: a colour halfway between that
 * of a button that can be pressed and of one that cannot is nobody's.
 */
async function atRest<T>(browser: Browser, look: () => Promise<T>): Promise<T> {
  const motion = (value: string): Promise<unknown> =>
    browser.command("Emulation.setEmulatedMedia", { features: [{ name: "prefers-reduced-motion", value }] });
  await motion("reduce");
  try {
    await browser.wait(() =>
      browser.driver.executeScript<boolean>(
        "return document.getAnimations().every((each) => each.playState !== 'running' || each.effect.getComputedTiming().endTime === Infinity)",
      ),
    );
    return await look();
  } finally {
    await motion("");
  }
}
