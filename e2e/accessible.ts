import { AxeBuilder } from "@axe-core/webdriverjs";
import type { Browser } from "./browser.ts";

/** What axe-core finds serious or worse on the page as it stands; nothing is as it should be. */
export async function seriousFindings(browser: Browser): Promise<string[]> {
  const { violations } = await atRest(browser, () => new AxeBuilder(browser.driver).analyze());
  return violations
    .filter((violation) => violation.impact === "serious" || violation.impact === "critical")
    .map((violation) => `${violation.id}: ${violation.nodes.map((node) => node.target.join(" ")).join("; ")}`);
}

/**
 * Looks at the page as one sees it who wants no motion, once what moves has come to rest: a colour halfway between that
 * of a button that can be pressed and of one that cannot is nobody's.
 */
async function atRest<T>(browser: Browser, look: () => Promise<T>): Promise<T> {
  const motion = (value: string): Promise<unknown> => browser.command("Emulation.setEmulatedMedia", { features: [{ name: "prefers-reduced-motion", value }] });
  await motion("reduce");
  try {
    await browser.driver.wait(() => browser.driver.executeScript<boolean>("return document.getAnimations().every((each) => each.playState !== 'running' || each.effect.getComputedTiming().endTime === Infinity)"), 5000);
    return await look();
  } finally {
    await motion("");
  }
}
