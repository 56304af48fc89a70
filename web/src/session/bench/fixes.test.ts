// @vitest-environment happy-dom
import "fake-indexeddb/auto";
import { session } from "../../page-session.ts";
import type { World } from "@keen-pebble/core/world";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { hall } from "../../test-support/hall.ts";
import { FakeWorker } from "../../test-support/fake-worker.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";

/** A speed that does not divide the cell, and a leg that is only over when it comes out even: the classic runaway. */
const runaway: World = (() => {
  const world = hall();
  const [main, ...others] = world.rules;
  return { ...world, rules: [{ ...main!, glide: { ...main!.glide, speed: 3, arrive: "equal" } }, ...others] };
})();
const LOG = "keen-pebble-inputs 1\ntitle To the right\ncheck end cell 5 2\ncheck always aligned\n---\n12 R\n8 .\n";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(runaway, { right: LOG }, [], [session.fixes.startFixes]);
  // Several of them try changes side by side.
  FakeWorker.ownModules = true;
  session.shownLog.selectLog("right");
  await until(() => session.fixes.store.getState().findings !== null);
});
afterEach(() => opened.close());

const fixes = () => session.fixes.store.getState();
const texts = (changes: readonly { readonly change: unknown }[]): string[] =>
  changes.map(({ change }) => JSON.stringify(change));
const found = (): number => fixes().findings!.findIndex(({ cures }) => cures.length > 0);

describe("findings of the shown run", () => {
  it("come with the cures that take them away, each once, and go when one of them is made", async () => {
    await until(() => fixes().cures.some((cures) => cures.length > 0));
    const at = found();
    const cures = texts(fixes().cures[at]!);
    expect(cures.length).toBeGreaterThan(0);
    expect(new Set(cures).size).toBe(cures.length);
    // Each of them is one of those that the finding names, in its order.
    const named = fixes().findings![at]!.cures.map((cure) => JSON.stringify(cure));
    expect(cures).toEqual(named.filter((each) => cures.includes(each)));
    const { kind } = fixes().findings![at]!;
    session.ruleSets.changeSetting("main", "glide.arrive", "equal", "land", null);
    await until(() => fixes().findings !== null && !fixes().findings!.some((finding) => finding.kind === kind));
    expect(session.fixes.isBroken()).toBe(false);
    session.project.travel("undo");
    await until(() => fixes().findings!.some((finding) => finding.kind === kind));
    expect(session.fixes.isBroken()).toBe(true);
  });

  it("are forgotten with the log", async () => {
    session.shownLog.selectLog(null);
    await until(() => fixes().findings === null);
    expect(fixes()).toEqual({ findings: null, cures: [], search: null });
  });
});

describe("every single change", () => {
  it("that mends is listed, smallest first, with how long the search took; nothing is changed by it", async () => {
    const before = session.project.store.getState().project;
    await until(() => fixes().cures.some((cures) => cures.length > 0));
    const cures = fixes().cures.map(texts);
    await session.fixes.searchFixes();
    await until(() => fixes().search?.took !== null && fixes().search !== null);
    const { done, all, fixes: isFix } = fixes().search!;
    expect(done).toBe(all);
    expect(texts(isFix).some((each) => each.includes("glide.arrive") && each.includes("land"))).toBe(true);
    expect(new Set(texts(isFix)).size).toBe(isFix.length);
    expect(session.project.store.getState().project).toBe(before);
    // It tried the findings' cures too, and found the same ones.
    expect(fixes().cures.map(texts)).toEqual(cures);
  });

  it("is not looked for where no check fails, and what was found goes with the next change", async () => {
    await session.fixes.searchFixes();
    await until(() => fixes().search?.took !== null && fixes().search !== null);
    session.ruleSets.changeSetting("main", "glide.arrive", "equal", "land", null);
    await until(() => session.benchStore.getState().run?.verdicts.every(({ verdict }) => verdict === "pass"));
    expect(fixes().search).toBeNull();
    await session.fixes.searchFixes();
    expect(fixes().search).toBeNull();
  });

  it("is of the rule set that the shown log goes by", () => {
    expect(session.fixes.shownRules()!.id).toBe("main");
  });
});
