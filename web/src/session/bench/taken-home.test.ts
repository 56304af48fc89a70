import { strFromU8, unzipSync } from "fflate";
import { afterEach, beforeEach, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { ALONG, hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere } from "../../test-support/opened.ts";

const { takenHome, benchStore } = session;
const notice = () => session.project.store.getState().notice;

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), { along: ALONG });
});
afterEach(() => opened.close());

it("the rules become a folder with the logs that can run in it, the same bytes each time, one at a time", async () => {
  const [first, second] = [takenHome.make("main"), takenHome.make("main")];
  expect(takenHome.store.getState().making).toBe(true);
  expect(await second).toBeNull();
  const bytes = new Uint8Array(await (await first)!.arrayBuffer());
  expect([takenHome.store.getState().making, notice()]).toEqual([false, null]);
  const files = unzipSync(bytes);
  expect(Object.keys(files)).toContain("PORTING.md");
  expect(
    Object.entries(files)
      .filter(([name]) => name.endsWith(".inputs"))
      .map(([, text]) => strFromU8(text)),
  ).toEqual([expect.stringContaining("title Along")]);
  expect(new Uint8Array(await (await takenHome.make("main"))!.arrayBuffer())).toEqual(bytes);
});

it("logs that cannot run are left out and named; rules that there are not are refused", async () => {
  session.project.edit({ kind: "add-log", log: "lost", text: ALONG.replace("title", "start gone 1 1 down\ntitle") });
  expect(await takenHome.make("main")).not.toBeNull();
  expect(notice()).toMatchObject({
    text: "Without the logs that cannot run: lost. All else is in the folder.",
    tone: "info",
  });
  expect(await takenHome.make("gone")).toBeNull();
  expect(notice()!.text).toMatch(/^The rules cannot be taken home: .*gone.*\.$/);
});

it("the program takes the field's place and gives it back; what one points at is lit", () => {
  takenHome.toggle();
  expect(benchStore.getState().showsProgram).toBe(true);
  takenHome.point("glide.speed");
  expect(takenHome.store.getState().pointed).toBe("glide.speed");
  takenHome.point(null);
  takenHome.toggle();
  expect([takenHome.store.getState().pointed, benchStore.getState().showsProgram]).toEqual([null, false]);
});
