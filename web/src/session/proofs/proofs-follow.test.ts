import { session } from "../../page-session.ts";
import { toPlain } from "@keen-pebble/core/formats";
import type { BreakSearch, WorldProofs } from "@keen-pebble/server/api";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { FakeEventSource } from "../../test-support/fake-event-source.ts";
import { FakeWorker } from "../../test-support/fake-worker.ts";
import { ALONG, DOWN, hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";
import { tally } from "./proofs.ts";

const SEARCH = "11111111-2222-4333-8444-555555555555";
const search = (state: BreakSearch["state"], more: Partial<BreakSearch> = {}): BreakSearch => ({
  id: SEARCH,
  log: "along",
  check: "by 40 cell 6 2",
  state,
  good: 1,
  bad: 5,
  found: null,
  ...more,
});
const told = (more: Partial<WorldProofs> = {}): WorldProofs => ({
  proofs: { revision: 1, state: "done", done: 2, total: 2, holds: 2 },
  history: [],
  ...more,
});

let opened: Opened;
beforeEach(async () => {
  const slower = {
    ...hall(),
    rules: hall().rules.map((rules, i) => (i === 0 ? { ...rules, glide: { ...rules.glide, speed: 1 } } : rules)),
  };
  opened = await openHere(
    hall(),
    { along: ALONG, down: DOWN },
    [
      ["GET /worlds/hall/proofs", told()],
      ["GET /worlds/hall/revisions/3", { revision: 3, world: toPlain(slower), logs: { along: ALONG, down: DOWN } }],
      ["GET /worlds/hall/revisions/4", { revision: 4, world: toPlain(hall()), logs: { along: ALONG } }],
    ],
    [session.proofs.startProofs],
  );
});
afterEach(() => opened.close());

const proofs = () => session.proofs.store.getState();
const holds = (): string =>
  [...proofs().proofs]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([log, proof]) => `${log} ${proof.refused ?? (proof.holds ? "holds" : "breaks")}`)
    .join(", ");
const looked = (): Promise<void> =>
  until(
    () => proofs().took !== null && proofs().proofs.size === session.project.store.getState().project!.logs.size,
    "not all logs were run",
  );
const events = (): FakeEventSource => FakeEventSource.all.at(-1)!;
const reading = (path: string): number => opened.asked.filter((each) => each === `GET /worlds/hall${path}`).length;

const aWhile = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 20));

/** The stream opens. Gives back how often the proofs were read by then: one that was open already is told of at once. */
async function opens(): Promise<number> {
  const before = reading("/proofs");
  events().say("open");
  await until(() => reading("/proofs") > before);
  await aWhile();
  return reading("/proofs");
}

describe("all logs", () => {
  it("are run when the world is opened and after each change: all of them for the world, one for its text", async () => {
    await looked();
    expect([holds(), proofs().total, proofs().done]).toEqual(["along holds, down holds", 2, 2]);
    session.ruleSets.changeSetting("main", "glide.speed", 2, 1, null);
    await until(() => holds() === "along breaks, down breaks");
    expect(proofs().total).toBe(2);
    session.project.travel("undo");
    await until(() => holds() === "along holds, down holds");
    session.project.edit({ kind: "change-log", log: "down", before: DOWN, after: DOWN.replace("16 D", "8 D") });
    await until(() => holds() === "along holds, down breaks");
    expect(proofs()).toMatchObject({ total: 1, done: 1 });
  });

  it("that come are run, that go are forgotten, and one that cannot be run says why", async () => {
    await looked();
    session.project.edit({
      kind: "add-log",
      log: "roof",
      text: "keen-pebble-inputs 1\nstart roof 1 1 down\n---\n4 R\n",
    });
    await until(() => proofs().proofs.size === 3);
    expect(proofs().proofs.get("roof")).toMatchObject({
      holds: false,
      refused: expect.stringContaining("roof") as string,
    });
    session.project.edit({ kind: "remove-log", log: "along", text: ALONG });
    expect([...proofs().proofs.keys()].sort()).toEqual(["down", "roof"]);
    expect(proofs().paths.has("along")).toBe(false);
  });

  it("stay as they are by an edit, until they are run", async () => {
    await looked();
    const { proofs: before, paths } = proofs();
    session.project.edit({ kind: "change-log", log: "down", before: DOWN, after: DOWN.replace("16 D", "8 D") });
    expect(proofs().proofs).toBe(before);
    expect(proofs().paths).toBe(paths);
  });

  it("whose world changes while they are run are run no further for the older one", async () => {
    await looked();
    for (let i = 0; i < 28; i++) session.project.edit({ kind: "add-log", log: `more-${i}`, text: ALONG });
    await looked();
    // One worker; a dozen logs each time.
    const post = vi.spyOn(FakeWorker.prototype, "postMessage");
    const proved = (): number =>
      post.mock.calls.filter(([message]) => (message as { readonly path?: string[] }).path?.at(-1) === "prove").length;
    const stop = session.proofs.store.subscribe(({ done }) => {
      if (done !== 12) return;
      stop();
      session.ruleSets.changeSetting("main", "glide.speed", 1, 2, null);
    });
    session.ruleSets.changeSetting("main", "glide.speed", 2, 1, null);
    await until(() => proofs().proofs.get("along")?.holds === false);
    await until(() => proofs().took !== null && proofs().proofs.get("along")?.holds === true);
    // What was asked for meanwhile is answered, and the third part of thirty is not asked for; then all three.
    expect([proofs().total, proofs().done, proved()]).toEqual([30, 30, 5]);
    post.mockRestore();
  });

  it("while a number is dragged are run once it rests", async () => {
    await looked();
    for (let value = 2; value < 9; value++)
      session.ruleSets.changeSetting("main", "glide.speed", value, value + 1, "drag");
    expect(holds()).toBe("along holds, down holds");
    await until(() => holds() === "along holds, down breaks");
    expect(proofs()).toMatchObject({ total: 2, done: 2 });
  });
});

describe("what the server says", () => {
  it("is asked for when its stream opens, told as it comes, and kept where the stream is lost", async () => {
    events().say("open");
    await until(() => proofs().server !== null);
    expect(proofs()).toMatchObject({ reached: true, server: { revision: 1, state: "done" } });
    events().say("proofs", { world: "hall", revision: 2, state: "running", done: 1, total: 2, holds: 1 });
    expect(proofs().server).toEqual({ revision: 2, state: "running", done: 1, total: 2, holds: 1 });
    // Another world's are none of this one's.
    events().say("proofs", { world: "well", revision: 9, state: "done", done: 7, total: 7, holds: 7 });
    expect(proofs().server!.revision).toBe(2);
    events().say("error");
    expect(proofs()).toMatchObject({ reached: false, server: { revision: 2, state: "running" } });
  });

  it("while nobody listened is asked for once the stream is open again", async () => {
    await opens();
    events().say("error");
    opened.answers.set(
      "GET /worlds/hall/proofs",
      told({
        proofs: { revision: 2, state: "done", done: 2, total: 2, holds: 1 },
        history: [{ revision: 2, summary: "Main: speed 2 to 4", logs: { along: "breaks", down: "holds" } }],
      }),
    );
    events().say("open");
    await until(() => proofs().server?.revision === 2);
    expect(proofs()).toMatchObject({ reached: true, server: { holds: 1 } });
    expect([...proofs().history[0]!.logs]).toEqual([
      ["along", "breaks"],
      ["down", "holds"],
    ]);
  });

  it("of a run that ended reads what it came to, once", async () => {
    const before = await opens();
    const done = { world: "hall", revision: 2, state: "done", done: 2, total: 2, holds: 2 };
    events().say("proofs", { ...done, state: "running", done: 0 });
    expect(reading("/proofs")).toBe(before);
    events().say("proofs", done);
    events().say("proofs", done);
    await until(() => reading("/proofs") > before);
    await aWhile();
    expect(reading("/proofs")).toBe(before + 1);
  });

  it("where it cannot be asked leaves what was said before", async () => {
    events().say("open");
    await until(() => proofs().server !== null);
    opened.answers.set("GET /worlds/hall/proofs", new TypeError("no connection"));
    await opens();
    expect(proofs().server).toMatchObject({ revision: 1, state: "done" });
  });
});

describe("paths", () => {
  const history = [3, 4].map((revision) => ({ revision, summary: `Revision ${revision}`, logs: {} }));

  it("are compared with the last revision that was proven before the newest, unless somebody chose one", async () => {
    session.saveStore.setState({ revision: 5 });
    opened.answers.set("GET /worlds/hall/proofs", told({ history }));
    events().say("open");
    await until(() => proofs().compared?.revision === 4 && proofs().paths.get("along")?.kind === "same");
    // It had no such log then.
    expect(proofs().paths.get("down")).toEqual({ kind: "unknown" });
    await session.proofs.compareWithRevision(3);
    await until(() => proofs().paths.get("along")?.kind === "differs");
    expect(proofs().compared).toMatchObject({ revision: 3, summary: "Revision 3" });
    await opens();
    expect(proofs().compared!.revision).toBe(3);
    session.ruleSets.changeSetting("main", "glide.speed", 2, 1, null);
    await until(() => [...proofs().paths.values()].every(({ kind }) => kind === "same"));
  });

  it("with a revision that cannot be had are not compared", async () => {
    await looked();
    await session.proofs.compareWithRevision(99);
    expect(proofs().compared).toBeNull();
  });
});

describe("what broke it", () => {
  it("is searched for among what is saved, and followed to its end, over a lost stream too", async () => {
    opened.answers.set("POST /worlds/hall/searches", search("running"));
    opened.answers.set(`GET /worlds/hall/searches/${SEARCH}`, search("running", { good: 3 }));
    await session.proofs.searchBreak("along", "by 40 cell 6 2");
    await until(() => proofs().search?.good === 3);
    opened.answers.set(`GET /worlds/hall/searches/${SEARCH}`, search("running", { good: 4 }));
    events().say("search", { world: "hall", id: SEARCH });
    await until(() => proofs().search?.good === 4);
    // It ends while nobody hears of it.
    events().say("error");
    opened.answers.set(
      `GET /worlds/hall/searches/${SEARCH}`,
      search("found", { found: { revision: 5, summary: "Main: speed 2 to 1", frame: 40, seen: "cell 4 2" } }),
    );
    events().say("open");
    await until(() => proofs().search?.state === "found");
    expect(proofs().search!.found).toMatchObject({ revision: 5, frame: 40 });
    // One that is over is not asked for again.
    const asked = reading(`/searches/${SEARCH}`);
    events().say("search", { world: "hall", id: SEARCH });
    await aWhile();
    expect(reading(`/searches/${SEARCH}`)).toBe(asked);
  });

  it("waits for a change that is not saved, which goes out at once, with a word", async () => {
    session.saveStore.setState({ state: "saving" });
    const save = vi.spyOn(session.project, "saveNow");
    await session.proofs.searchBreak("along", "by 40 cell 6 2");
    expect(save).toHaveBeenCalledOnce();
    save.mockRestore();
    expect(proofs().search).toBeNull();
    expect(session.project.store.getState().notice?.text).toContain("wait until this change is saved");
    session.project.notice(null);
  });

  it("and runs on the server that it refuses are told", async () => {
    session.saveStore.setState({ state: "saved" });
    await session.proofs.searchBreak("along", "by 40 cell 6 2");
    expect(proofs().search).toBeNull();
    expect(session.project.store.getState().notice?.text).toContain("no POST /worlds/hall/searches");
    opened.answers.set("POST /worlds/hall/proofs", { revision: 1, state: "running", done: 0, total: 2, holds: 0 });
    await session.proofs.runOnServer();
    // Asked while it runs it takes that back.
    opened.answers.set("DELETE /worlds/hall/proofs", { revision: 1, state: "cancelled", done: 0, total: 2, holds: 0 });
    session.proofs.store.setState({ server: { revision: 1, state: "running", done: 0, total: 2, holds: 0 } });
    await session.proofs.runOnServer();
    expect(opened.asked.filter((each) => each.endsWith("/worlds/hall/proofs") && !each.startsWith("GET"))).toEqual([
      "POST /worlds/hall/proofs",
      "DELETE /worlds/hall/proofs",
    ]);
  });
});

describe("an earlier revision", () => {
  const at = (revision: number): number => reading(`/revisions/${revision}`);

  it("is asked for once, the four that were asked for last", async () => {
    for (let revision = 10; revision < 15; revision++)
      opened.answers.set(`GET /worlds/hall/revisions/${revision}`, { revision, world: toPlain(hall()), logs: {} });
    for (const revision of [10, 11, 12, 13, 10]) await session.proofs.projectAt(revision);
    expect([at(10), at(13)]).toEqual([1, 1]);
    await session.proofs.projectAt(14);
    await session.proofs.projectAt(11);
    expect([at(11), at(14)]).toEqual([1, 1]);
    await session.proofs.projectAt(10);
    expect(at(10)).toBe(2);
    expect(await session.proofs.projectAt(99)).toBeNull();
  });

  it("of a world that is left meanwhile, or of none, is none", async () => {
    const read = session.proofs.projectAt(3);
    session.project.store.setState({ worldId: "other" });
    expect(await read).toBeNull();
    session.project.store.setState({ worldId: null });
    const { length } = opened.asked;
    expect(await session.proofs.projectAt(3)).toBeNull();
    await session.proofs.runOnServer();
    await session.proofs.searchBreak("along", "by 40 cell 6 2");
    expect(opened.asked.length).toBe(length);
    session.project.store.setState({ worldId: "hall" });
  });

  it("is named by its summary when it is chosen to compare with", async () => {
    session.proofs.store.setState({ history: [{ revision: 3, summary: "Slower", logs: new Map() }] });
    await session.proofs.compareWithRevision(3);
    expect(proofs().compared).toMatchObject({ revision: 3, summary: "Slower" });
    await until(() => proofs().paths.get("along")?.kind === "differs");
    await session.proofs.compareWithRevision(4);
    expect(proofs().compared).toMatchObject({ revision: 4, summary: "" });
    await until(() => proofs().paths.get("along")?.kind === "same");
  });
});

describe("a search that is put away", () => {
  it("is called off on the server while it runs, and no answer of it comes back", async () => {
    const called = (): number =>
      opened.asked.filter((each) => each === `DELETE /worlds/hall/searches/${SEARCH}`).length;
    session.proofs.store.setState({ search: search("running") });
    session.proofs.endSearchBreak();
    expect([proofs().search, called()]).toEqual([null, 1]);
    events().say("search", { world: "hall", id: SEARCH });
    await aWhile();
    expect(reading(`/searches/${SEARCH}`)).toBe(0);
    session.proofs.store.setState({ search: search("found") });
    session.proofs.endSearchBreak();
    expect([proofs().search, called()]).toEqual([null, 1]);
    // One that was begun meanwhile is not answered by an older one.
    session.proofs.store.setState({ search: search("running") });
    opened.answers.set(`GET /worlds/hall/searches/${SEARCH}`, search("running", { good: 3, id: "another" }));
    events().say("search", { world: "hall", id: SEARCH });
    await until(() => reading(`/searches/${SEARCH}`) === 1);
    await aWhile();
    expect(proofs().search).toMatchObject({ id: SEARCH, good: 1 });
  });
});

it("the tally counts logs that were run, and those of them that hold", () => {
  const proof = (holds: boolean) => ({ holds }) as never;
  expect(
    tally({
      proofs: new Map([
        ["a", proof(true)],
        ["b", proof(false)],
        ["c", proof(true)],
      ]),
    } as never),
  ).toEqual({
    logs: 3,
    holding: 2,
  });
});
