import { expect, it } from "vitest";
import { axeFindings, axeFindingsInBothThemes } from "./accessible.ts";
import type { BenchDriver } from "./bench-driver.ts";
import type { Browser } from "./browser.ts";
import type { Started } from "./started.ts";
import { withApplication } from "./with-application.ts";

let started: Started;
let browser: Browser;
let bench: BenchDriver;
withApplication((scene) => ({ started, browser, bench } = scene));

const AREAS = ["", "bench", "floorplan", "reach", "proofs", "journal"] as const;
/** What is there once an area is whole. */
const WHOLE = {
  "": [".worlds", "125 pass"],
  bench: [".status", "frames in"],
  floorplan: [".status", "5 rooms"],
  reach: [".reach-sentence", "can be reached"],
  proofs: [".holding", "25"],
  journal: [".revisions", "came with the demo"],
} as const;
const KIT = ["Fixtures", "Actors", "Bag", "Room", "World", "Feel", "Game"];

const size = (width: number, height: number): Promise<unknown> =>
  browser.command("Emulation.setDeviceMetricsOverride", { width, height, deviceScaleFactor: 1, mobile: false });
/** What axe-core finds in either theme, with what it was looking at. */
const seen = async (what: string, within?: string): Promise<string[]> =>
  (await axeFindingsInBothThemes(browser, within)).map((finding) => `${what}: ${finding}`);

it.each(AREAS)(
  "axe-core finds nothing in /%s, light and dark, at 1280 and 1024, with its commands open too",
  async (area) => {
    await size(1280, 800);
    await browser.driver.get(area === "" ? started.address : `${started.address}/w/saltglass-cistern/${area}`);
    const [place, words] = WHOLE[area];
    await browser.untilText(place, (text) => text.includes(words));
    const found = await seen("1280");
    if (area === "bench")
      for (const tab of KIT) {
        await browser.press(".kit-head [role=tab]", tab);
        found.push(...(await seen(`Kit, ${tab}`, ".kit")));
      }
    await size(1024, 700);
    found.push(...(await seen("1024")));
    if (area !== "") {
      await bench.key("?");
      await browser.find(".modal-body");
      for (const finding of await axeFindings(browser)) found.push(`commands: ${finding}`);
    }
    expect(found).toEqual([]);
  },
);
