import { expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { hall } from "../../test-support/hall.ts";
import { openHere } from "../../test-support/opened.ts";

it("a setting that is given the value which it has is not changed, and nothing of it can be undone", async () => {
  const { close } = await openHere(hall(), {});
  expect(session.ruleSets.changeSetting("main", "glide.speed", 2, 2, null)).toBe(true);
  expect(session.project.travel("undo", true)).toBe(false);
  expect(session.ruleSets.changeSetting("main", "glide.speed", 2, 3, null)).toBe(true);
  expect(session.project.travel("undo", true)).toBe(true);
  close();
});
