// @vitest-environment happy-dom
import "fake-indexeddb/auto";
import { session } from "../../page-session.ts";
import { toPlain } from "@keen-pebble/core/formats";
import { expect, it } from "vitest";
import { hall } from "../../test-support/hall.ts";
import { openHere, until } from "../../test-support/opened.ts";

it("what was edited just before one leaves a world can be undone there when one comes back", async () => {
  const answered = (id: string, revision: number, name = "Hall") => ({
    revision,
    world: toPlain({ ...hall(id), name }),
    logs: {},
  });
  const { answers, asked, close } = await openHere(hall(), {}, [["GET /worlds/other", answered("other", 1)]]);
  session.project.changeWorld((world) => ({ ...world, name: "Nave" }));
  // Left at once: the edit is stored once the other world is asked for.
  await session.project.openProject("other");
  await until(() => asked.includes("POST /worlds/hall/revisions"));
  expect(session.project.travel("undo", true)).toBe(false);
  answers.set("GET /worlds/hall", answered("hall", 2, "Nave"));
  await session.project.openProject("hall");
  expect(session.project.travel("undo")).toBe(true);
  expect(session.project.store.getState().project!.world.name).toBe("Hall");
  close();
});
