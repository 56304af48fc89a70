// @vitest-environment happy-dom
import "fake-indexeddb/auto";
import { session } from "../../page-session.ts";
import type { World } from "@keen-pebble/core/world";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { hall } from "../../test-support/hall.ts";
import { FakeWorker } from "../../test-support/fake-worker.ts";
import { isOneAct } from "../../test-support/one-act.ts";
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
/** Ends the looking for findings. */
let stop: () => void;
/** Shows no findings any more. */
let hide: () => void;
beforeEach(async () => {
  opened = await openHere(runaway, { right: LOG }, [], [() => (stop = session.fixes.startFixes())]);
  // Several of them try changes side by side.
  FakeWorker.ownModules = true;
  hide = session.fixes.showFindings();
  session.shownLog.selectLog("right");
  await until(() => session.fixes.store.getState().findings !== null);
});
afterEach(() => {
  hide();
  return opened.close();
});

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

  it("come no more once nobody looks for them", async () => {
    const { run } = session.benchStore.getState();
    stop();
    expect(fixes().findings).toBeNull();
    session.ruleSets.changeSetting("main", "glide.speed", 3, 7, null);
    session.benchStore.setState({ run: null });
    session.benchStore.setState({ run });
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(fixes()).toEqual({ findings: null, cures: [], search: null });
  });

  it("are looked for while they are shown, by one worker: others start with a search", async () => {
    hide();
    const before = session.benchStore.getState().run;
    const workers = FakeWorker.all.length;
    session.shownLog.selectLog(null);
    session.shownLog.selectLog("right");
    await until(() => session.benchStore.getState().run !== null && session.benchStore.getState().run !== before);
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(fixes().findings).toBeNull();
    hide = session.fixes.showFindings();
    await until(() => fixes().findings !== null);
    expect(FakeWorker.all.length).toBe(workers);
    await session.fixes.searchFixes();
    expect(FakeWorker.all.length).toBeGreaterThan(workers);
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

describe("a search", () => {
  const done = (): Promise<void> => until(() => fixes().search !== null && fixes().search!.took !== null);

  it("tells how far it is, never more than all, and each fix as soon as it is found", async () => {
    const seen: [number, number, number, boolean][] = [];
    const stop = session.fixes.store.subscribe(({ search }) => {
      if (search !== null) seen.push([search.done, search.all, search.fixes.length, search.took === null]);
    });
    await session.fixes.searchFixes();
    stop();
    const [all] = seen.map(([, each]) => each);
    expect(seen[0]).toEqual([0, all, 0, true]);
    expect(seen.length).toBeGreaterThan(3);
    expect(seen.map(([tried]) => tried)).toEqual([...seen.map(([tried]) => tried)].sort((a, b) => a - b));
    expect(seen.map(([, , found]) => found)).toEqual([...seen.map(([, , found]) => found)].sort((a, b) => a - b));
    expect(seen.slice(1, -2).some(([, , found]) => found > 0)).toBe(true);
    expect(seen.filter(([tried, , , under]) => under && tried === all).length).toBeGreaterThan(0);
    expect(seen.filter(([tried, , , under]) => !under && tried !== all)).toEqual([]);
    expect(seen.at(-1)!.slice(0, 2)).toEqual([all, all]);
    expect(fixes().search!.took).toBeGreaterThan(0);
  });

  it("is of the findings that belong to the present project, also before they came by themselves", async () => {
    const { run } = session.benchStore.getState();
    session.ruleSets.changeSetting("main", "glide.speed", 3, 7, null);
    await until(() => session.benchStore.getState().run !== run);
    expect(session.fixes.isBroken()).toBe(true);
    const asked = session.fixes.searchFixes();
    await asked;
    await done();
    expect(fixes().findings!.length).toBeGreaterThan(0);
    expect(fixes().cures).toHaveLength(fixes().findings!.length);
    expect(fixes().search!.fixes.length).toBeGreaterThan(0);
  });

  it("that is ended before what is wrong was looked for anew begins no more", async () => {
    const { run } = session.benchStore.getState();
    session.ruleSets.changeSetting("main", "glide.speed", 3, 7, null);
    await until(() => session.benchStore.getState().run !== run);
    const asked = session.fixes.searchFixes();
    session.fixes.endSearch();
    const seen: unknown[] = [];
    const stopLooking = session.fixes.store.subscribe((state) => seen.push(state));
    await asked;
    stopLooking();
    expect([seen, fixes().search]).toEqual([[], null]);
  });

  it("that is ended gives no more answers and takes its preview along", async () => {
    const asked = session.fixes.searchFixes();
    await until(() => fixes().search !== null);
    session.benchStore.setState({ preview: session.benchStore.getState().run!.rows });
    session.fixes.endSearch();
    expect([fixes().search, session.benchStore.getState().preview]).toEqual([null, null]);
    await asked;
    expect(fixes().search).toBeNull();
  });
});

describe("one change", () => {
  const speed = (value: number) => ({ setting: "glide.speed", before: 3, after: value }) as never;

  it("is previewed as the walk under it, the last that was asked for alone, and nothing is changed", async () => {
    await session.fixes.searchFixes();
    const [first, second] = fixes().search!.fixes.map(({ change }) => change);
    const before = session.project.store.getState().project;
    session.fixes.showPreview(second!);
    session.fixes.showPreview(first!);
    await until(() => session.benchStore.getState().preview !== null);
    const { preview, run } = session.benchStore.getState();
    expect([...preview!.x]).not.toEqual([...run!.rows.x]);
    session.fixes.showPreview(null);
    expect(session.benchStore.getState().preview).toBeNull();
    // One that is put away before it came does not come.
    session.fixes.showPreview(first!);
    session.fixes.showPreview(null);
    await new Promise((resolve) => setTimeout(resolve, 100));
    expect(session.benchStore.getState().preview).toBeNull();
    expect(session.project.store.getState().project).toBe(before);
  });

  it("is previewed no more once there is another run, one that is still on its way neither", async () => {
    await session.fixes.searchFixes();
    const [first] = fixes().search!.fixes.map(({ change }) => change);
    const { run } = session.benchStore.getState();
    session.fixes.showPreview(first!);
    session.benchStore.setState({ run: null });
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(session.benchStore.getState().preview).toBeNull();
    session.benchStore.setState({ run });
    session.fixes.showPreview(first!);
    await until(() => session.benchStore.getState().preview !== null);
    session.ruleSets.changeSetting("main", "glide.speed", 3, 7, null);
    await until(() => session.benchStore.getState().run !== run);
    expect(session.benchStore.getState().preview).toBeNull();
  });

  it("is made in the rule set that the shown log goes by, is one act, and mends the log", async () => {
    await session.fixes.searchFixes();
    const before = session.project.store.getState().project!;
    const fix = fixes().search!.fixes[0]!.change;
    session.benchStore.setState({ preview: session.benchStore.getState().run!.rows });
    session.fixes.fixWith(fix);
    expect(session.benchStore.getState().preview).toBeNull();
    isOneAct(before);
    await until(() => session.benchStore.getState().run?.verdicts.every(({ verdict }) => verdict === "pass"));
    expect(session.fixes.isBroken()).toBe(false);
  });

  it("of no project is none, and nothing is broken while somebody walks", async () => {
    expect(session.fixes.isBroken()).toBe(true);
    session.benchStore.setState({ walk: {} as never });
    expect(session.fixes.isBroken()).toBe(false);
    session.benchStore.setState({ walk: null });
    const { project } = session.project.store.getState();
    session.project.store.setState({ project: null });
    expect(session.fixes.shownRules()).toBeNull();
    session.fixes.fixWith(speed(2));
    session.project.store.setState({ project });
    // Neither is a rule set that the log names and the world does not have.
    session.benchStore.setState({ parsed: { ...session.benchStore.getState().parsed!, rules: "gone" } });
    expect(session.fixes.shownRules()).toBeNull();
    await session.fixes.searchFixes();
    expect(fixes().search).toBeNull();
    session.benchStore.setState({ parsed: { ...session.benchStore.getState().parsed!, rules: "free" } });
    expect(session.fixes.shownRules()!.id).toBe("free");
  });
});
