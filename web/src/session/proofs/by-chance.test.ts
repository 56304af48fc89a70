import type { World } from "@keen-pebble/core/world";
import { newActor } from "@keen-pebble/core/world";
import { readLog } from "@keen-pebble/core/check";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { FakeWorker } from "../../test-support/fake-worker.ts";
import { hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";

const { byChance, randomWalks, benchStore, project } = session;
/** A hall with a crab in it that wanders near the start, and a law that some walks break. */
function wandered(): World {
  const bare = hall();
  const [room] = bare.rooms;
  const crab = { ...newActor("crab", [4, 2], bare), plan: [{ frames: null, do: "wander" }] } as const;
  return { ...bare, rooms: [{ ...room!, actors: [crab] }], laws: ["never meets crab"] };
}
const STILL = "keen-pebble-inputs 1\ntitle Still\n---\n120 .\n";

let opened: Opened;
let stop: () => void;
beforeEach(async () => {
  opened = await openHere(wandered(), { still: STILL });
  stop = byChance.followProject();
});
afterEach(() => {
  stop();
  byChance.cancel();
  randomWalks.forgetRandomWalks();
  opened.close();
});
const state = () => byChance.store.getState();
const walks = () => randomWalks.store.getState();
const logs = () => project.store.getState().project!.logs;

describe("a log over many seeds", () => {
  it("is run over all that one asks for; the smallest that breaks it is kept as a log that fails", async () => {
    byChance.chooseSeeds(250);
    await byChance.start("still");
    const { broken, held, phase, tried } = state();
    expect([phase, tried]).toEqual(["done", 250]);
    expect(held).toBeGreaterThan(0);
    expect(held).toBeLessThan(250);
    byChance.keepBroken();
    const kept = benchStore.getState().log!;
    expect(readLog(logs().get(kept)!)).toMatchObject({ title: `Still, seed ${broken!.seed}`, seed: broken!.seed });
    await until(() => benchStore.getState().run !== null);
    // Nothing is left of it once the world is another one.
    expect(state()).toMatchObject({ phase: "none", tried: 0, broken: null, log: null });
    await byChance.start(kept);
    expect(state().broken?.seed).toBe(broken!.seed);
  });

  it("tries as many as there are where none breaks it, and keeps nothing then", async () => {
    project.changeWorld((world) => ({ ...world, laws: [] }));
    byChance.chooseSeeds(120);
    await byChance.start("still");
    expect(state()).toMatchObject({ phase: "done", tried: 120, held: 120, broken: null, refused: null });
    const before = logs();
    byChance.keepBroken();
    expect(logs()).toBe(before);
  });

  it("is called off with what was found so far, and refused where the log cannot be run", async () => {
    byChance.chooseSeeds(100_000);
    const stopped = byChance.store.subscribe(({ tried }) => {
      if (tried > 0) byChance.cancel();
    });
    // Workers that are gone do not answer any more.
    void byChance.start("still");
    await until(() => state().phase === "done");
    stopped();
    expect(state().phase).toBe("done");
    expect(state().tried).toBeLessThan(100_000);
    project.changeWorld((world) => ({ ...world, rules: world.rules.slice(0, 1) }));
    project.edit({ kind: "add-log", log: "free", text: STILL.replace("title", "rules free\ntitle") });
    await byChance.start("free");
    expect(state()).toMatchObject({ phase: "done", tried: 0 });
    expect(state().refused).toContain("free");
  });
});

it("a log over many seeds is forgotten with the world that it was run in, also while it is run", async () => {
  byChance.chooseSeeds(100_000);
  const stopped = byChance.store.subscribe(({ tried }) => {
    if (tried === 0) return;
    stopped();
    project.changeWorld((world) => ({ ...world, laws: [] }));
  });
  void byChance.start("still");
  await until(() => project.store.getState().project!.world.laws.length === 0);
  const seen: number[] = [];
  const stopLooking = byChance.store.subscribe(({ tried }) => seen.push(tried));
  await new Promise((resolve) => setTimeout(resolve, 200));
  stopLooking();
  expect([seen, state()]).toMatchObject([[], { phase: "none", tried: 0, log: null }]);
});

describe("random walks", () => {
  it("find what breaks a law, shrunk, and are kept as a log that is shown at the frame", async () => {
    randomWalks.askRandomWalks({ runs: 60, frames: 300 });
    await randomWalks.randomWalks();
    expect([walks().phase, walks().walked]).toEqual(["done", 60]);
    const [finding] = walks().findings;
    expect([walks().findings.length, finding!.law]).toEqual([1, "never meets crab"]);
    randomWalks.keepFinding(finding!);
    expect([...logs().keys()]).toContain(benchStore.getState().log);
    expect(benchStore.getState().frame).toBe(finding!.frame);
    await until(() => benchStore.getState().run?.verdicts.some(({ verdict }) => verdict === "fail"));
    randomWalks.keepFinding(finding!);
    expect(logs().size).toBe(3);
    randomWalks.forgetRandomWalks();
    expect(walks()).toMatchObject({ phase: "none", walked: 0, findings: [] });
  });

  it("are all taken, a part at a time, by workers that know the world for themselves", async () => {
    FakeWorker.ownModules = true;
    randomWalks.askRandomWalks({ runs: 450, frames: 300 });
    await randomWalks.randomWalks();
    expect(walks()).toMatchObject({ phase: "done", walked: 450, refused: null });
  });

  it("go by the rules that one chooses, and stop when they are called off", async () => {
    randomWalks.chooseRandomWalkRules("free");
    randomWalks.askRandomWalks({ runs: 5000, frames: 300 });
    const stopped = randomWalks.store.subscribe(({ walked }) => {
      if (walked > 0) randomWalks.stopRandomWalks();
    });
    void randomWalks.randomWalks();
    await until(() => walks().phase === "done");
    stopped();
    expect(walks().phase).toBe("done");
    expect(walks().walked).toBeLessThan(5000);
    expect(walks().findings.every(({ log }) => log.rules === "free")).toBe(true);
  });

  it("are refused under rules that there are not", async () => {
    randomWalks.chooseRandomWalkRules("gone");
    await randomWalks.randomWalks();
    expect(walks()).toMatchObject({ phase: "done", walked: 0, findings: [] });
    expect(walks().refused).toContain("gone");
    randomWalks.chooseRandomWalkRules("main");
    randomWalks.askRandomWalks({ runs: 1, frames: 10 });
    await randomWalks.randomWalks();
    expect(walks().refused).toBeNull();
  });
});
