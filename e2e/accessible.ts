import { AxeBuilder } from "@axe-core/webdriverjs";
import type { Browser } from "./browser.ts";

/** What axe-core finds serious or worse on the page as it stands; nothing is as it should be. */
export async function seriousFindings(browser: Browser): Promise<string[]> {
  const { violations } = await new AxeBuilder(browser.driver).analyze();
  return violations
    .filter((violation) => violation.impact === "serious" || violation.impact === "critical")
    .map((violation) => `${violation.id}: ${violation.nodes.map((node) => node.target.join(" ")).join("; ")}`);
}
