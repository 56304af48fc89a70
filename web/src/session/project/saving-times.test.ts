import type { EditStep } from "@keen-pebble/core/edit";
import type { StoredRevision } from "@keen-pebble/server/api";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { FakeServer, Tab, name, paint, problem, speed } from "../../test-support/saver-tab.ts";
import { makeSaveStore } from "./saving.ts";
import { OfflineError } from "./server-answer.ts";

let online: (() => void)[];
beforeEach(() => {
  vi.useFakeTimers();
  online = [];
  vi.stubGlobal(
    "addEventListener",
    (name: string, listener: () => void) => void (name === "online" && online.push(listener)),
  );
  vi.stubGlobal(
    "removeEventListener",
    (_name: string, listener: () => void) => void (online = online.filter((each) => each !== listener)),
  );
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});
const pass = (ms: number): Promise<unknown> => vi.advanceTimersByTimeAsync(ms);
/** A tab whose sendings are counted with their times, in ms. */
function timed(server = new FakeServer()): { readonly tab: Tab; readonly at: number[] } {
  const at: number[] = [];
  const began = Date.now();
  const tab = new Tab(server, {
    storeBatch: (world, batch) => {
      at.push(Date.now() - began);
      return server.store(world, batch);
    },
  });
  return { tab, at };
}

describe("when edits are sent", () => {
  it("is a quarter of a second after the last one, but for a number or a log alone: those rest for two and a half", async () => {
    const { tab, at } = timed();
    tab.edit(paint(tab.project, 3, 1));
    await pass(200);
    tab.edit(paint(tab.project, 4, 1));
    await pass(249);
    expect(at).toEqual([]);
    await pass(1);
    expect(at).toEqual([450]);
    tab.edit(speed(tab.project, 3));
    await pass(2499);
    expect(at).toHaveLength(1);
    await pass(1);
    expect(at).toHaveLength(2);
    // Two of them are no number that is tuned.
    tab.edit(speed(tab.project, 4));
    tab.edit(paint(tab.project, 5, 1));
    await pass(250);
    expect(at).toHaveLength(3);
    const text = "keen-pebble-inputs 1\n---\n1 .\n";
    tab.edit({ kind: "add-log", log: "a", text });
    await pass(250);
    expect(at).toHaveLength(4);
    tab.edit({ kind: "change-log", log: "a", before: text, after: `${text}2 R\n` });
    await pass(2499);
    expect(at).toHaveLength(4);
    await pass(1);
    expect(at).toHaveLength(5);
  });

  it("is after 15 seconds of tuning at the latest, counted anew behind each sending", async () => {
    const { tab, at } = timed();
    for (let i = 0; i < 31; i++) {
      tab.edit(speed(tab.project, 1 + i / 32));
      await pass(1000);
    }
    expect(at).toEqual([15_000, 30_000]);
  });

  it("is at once where one asks for it, and not again while the server is away", async () => {
    const { tab, at } = timed();
    tab.edit(speed(tab.project, 3));
    tab.saver.sendNow();
    await pass(0);
    expect(at).toEqual([0]);
    tab.server.down = true;
    tab.edit(speed(tab.project, 4));
    tab.saver.sendNow();
    await pass(0);
    tab.saver.sendNow();
    await pass(0);
    expect(at).toHaveLength(2);
  });

  it("is tried again after 0.5, 1, 2 and then every 4 seconds; at once where the network is back", async () => {
    const { tab, at } = timed();
    tab.server.down = true;
    tab.edit(paint(tab.project, 3, 1));
    await pass(16_000);
    expect(at).toEqual([250, 750, 1750, 3750, 7750, 11_750, 15_750]);
    // An edit more does not hurry it.
    tab.edit(paint(tab.project, 4, 1));
    await pass(3000);
    expect(at).toHaveLength(7);
    tab.server.down = false;
    expect(online).toHaveLength(1);
    online[0]!();
    await pass(0);
    expect(at).toHaveLength(8);
    await pass(250);
    expect(tab.state).toMatchObject({ state: "saved", waiting: 0 });
  });

  it("is one batch after the other, a thousand steps each", async () => {
    const { tab, at } = timed();
    for (let i = 0; i < 1001; i++)
      tab.edit({ kind: "add-log", log: `l${i}`, text: "keen-pebble-inputs 1\n---\n1 .\n" });
    await pass(5000);
    expect(tab.server.steps.map((steps) => steps.length)).toEqual([1000, 1]);
    expect(at).toHaveLength(2);
  });
});

describe("what is told meanwhile", () => {
  it("is that it saves while the answer is under way, how much waits, and why it cannot", async () => {
    let answer: (stored: StoredRevision) => void = () => undefined;
    const tab = new Tab(new FakeServer(), { storeBatch: () => new Promise((resolve) => (answer = resolve)) });
    expect(tab.state).toMatchObject({ state: "saved", waiting: 0, revision: 1, message: null });
    tab.edit(paint(tab.project, 3, 1));
    await pass(250);
    tab.edit(name("Cellar", "Attic"));
    expect(tab.state).toMatchObject({ state: "saving", waiting: 2, revision: 1 });
    answer({ revision: 2, summary: "" });
    await pass(0);
    expect(tab.state).toMatchObject({ state: "saving", waiting: 1, revision: 2 });
    await pass(250);
    answer({ revision: 3, summary: "" });
    await pass(0);
    expect(tab.state).toMatchObject({ state: "saved", waiting: 0, revision: 3 });
  });

  it("is the server's reason where it asks for patience, and that edits are kept where the world is gone", async () => {
    const says = { error: new OfflineError("the database does not answer") };
    const tab = new Tab(new FakeServer(), { storeBatch: () => Promise.reject(says.error) });
    tab.edit(paint(tab.project, 3, 1));
    await pass(250);
    expect(tab.state).toMatchObject({ state: "offline", message: "the database does not answer", waiting: 1 });
    says.error = problem("busy", 503);
    await pass(500);
    expect(tab.state).toMatchObject({ state: "offline", message: "busy" });
    says.error = problem("not-found", 404);
    await pass(1000);
    expect(tab.state!.message).toBe(
      "this world is not on the shelf any more; its edits go on being kept, and are saved once it is put back",
    );
    expect(tab.state!.refused).toEqual([]);
  });
});

describe("a saver that is left", () => {
  it("waits for what is under way, is left once, tells nothing more and hears of no network", async () => {
    let answer: (stored: StoredRevision) => void = () => undefined;
    const batches: number[] = [];
    const released: string[] = [];
    const tab = new Tab(new FakeServer(), {
      storeBatch: (_world, { steps }) => {
        batches.push(steps.length);
        return new Promise((resolve) => (answer = resolve));
      },
      outbox: { write: () => Promise.resolve(true), release: (world) => void released.push(world), keeps: true },
    });
    tab.edit(paint(tab.project, 3, 1));
    await pass(250);
    tab.edit(name("Cellar", "Attic"));
    const told = tab.state;
    const left = tab.saver.leave();
    await tab.saver.leave();
    expect([released, online]).toEqual([[], []]);
    answer({ revision: 2, summary: "" });
    await pass(10);
    answer({ revision: 3, summary: "" });
    await pass(10);
    await left;
    expect([batches, released, tab.state]).toEqual([[1, 1], ["cellar"], told]);
    await pass(60_000);
    expect(batches).toHaveLength(2);
  });
});

describe("an edit that takes back what was refused", () => {
  it("has what was refused behind it tried again, the very next one too", async () => {
    const tab = new Tab(new FakeServer());
    let refuses = true;
    tab.server.refuses = (step) => refuses && step.kind === "change-parts";
    tab.edit(name("Cellar", ""));
    await pass(1000);
    const seed = (before: number, after: number): EditStep => ({
      kind: "change-parts",
      parts: [{ part: "seed", before, after }],
    });
    tab.edit(seed(1, 5));
    await pass(1000);
    expect(tab.state!.refused).toHaveLength(2);
    refuses = false;
    tab.edit(name("", "Cellar"));
    await pass(1000);
    expect(tab.state).toMatchObject({ state: "saved", refused: [], waiting: 0 });
    expect(tab.server.steps).toEqual([[seed(1, 5)]]);
  });

  it("and what is forgotten is kept in this browser no more", async () => {
    const tab = new Tab(new FakeServer());
    tab.server.refuses = () => true;
    tab.edit(name("Cellar", ""));
    await pass(1000);
    expect(tab.entry!.waiting).toHaveLength(1);
    void tab.saver.discardRefused();
    await pass(0);
    expect(tab.entry!.waiting).toEqual([]);
  });
});

describe("one batch at a time", () => {
  it("is sent, whoever asks for more meanwhile; what came of others is asked for behind it", async () => {
    const server = new FakeServer();
    const answers: ((stored: StoredRevision) => void)[] = [];
    const asked: string[] = [];
    const tab = new Tab(server, {
      storeBatch: () => new Promise((resolve) => answers.push(resolve)),
      stepsSince: (_world, base) => {
        asked.push(`since ${base}`);
        return Promise.resolve({ revision: 3, steps: [name("Cellar", "Attic")] });
      },
      openWorld: () => {
        asked.push("whole");
        return Promise.resolve({ revision: 3, project: server.project });
      },
    });
    tab.edit(paint(tab.project, 3, 1));
    await pass(250);
    tab.edit(paint(tab.project, 4, 1));
    tab.saver.sendNow();
    online[0]!();
    await pass(5000);
    expect(answers).toHaveLength(1);
    tab.saver.heard(3);
    answers[0]!({ revision: 2, summary: "" });
    await pass(0);
    tab.saver.sendNow();
    await pass(0);
    expect([answers.length, asked]).toEqual([2, []]);
    answers[1]!({ revision: 2, summary: "" });
    await pass(0);
    // Steps are enough: the whole world is not asked for.
    expect([asked, tab.project.world.name]).toEqual([["since 2"], "Attic"]);
  });

  it("is sent until nothing is left when the world is left", async () => {
    const tab = new Tab(new FakeServer());
    for (let i = 0; i < 1001; i++)
      tab.edit({ kind: "add-log", log: `l${i}`, text: "keen-pebble-inputs 1\n---\n1 .\n" });
    const left = tab.saver.leave();
    await pass(100);
    await left;
    expect(tab.server.steps.map((steps) => steps.length)).toEqual([1000, 1]);
  });

  it("is sent at once where an earlier visit had made it", async () => {
    const { tab, at } = timed();
    tab.saver.adopt([], []);
    await pass(5000);
    expect(at).toEqual([]);
    tab.saver.adopt([{ step: paint(tab.project, 3, 1), refused: "no" }], []);
    await pass(5000);
    expect(at).toEqual([]);
    tab.saver.adopt([{ step: paint(tab.project, 4, 1), refused: null }], []);
    await pass(0);
    expect(at).toHaveLength(1);
  });
});

it("a page that shows no world yet has nothing to save", () => {
  expect(makeSaveStore().getState()).toMatchObject({ state: "saved", revision: 0, waiting: 0, keeps: true });
});

describe("word of other revisions", () => {
  it("that came while a batch was refused as stale is asked for, though nothing of the batch is left to send", async () => {
    const server = new FakeServer();
    let answered: () => void = () => undefined;
    const tab = new Tab(server, {
      storeBatch: (world, batch) =>
        new Promise((resolve, reject) => {
          const told = server.store(world, batch);
          answered = () => void told.then(resolve, reject);
          told.catch(() => undefined);
        }),
    });
    const other = new Tab(server);
    other.edit(name("Cellar", "Theirs"));
    await pass(300);
    tab.edit(name("Cellar", "Mine"));
    await pass(300);
    other.edit(paint(other.project, 4, 1));
    await pass(300);
    tab.saver.look();
    answered();
    await pass(10_000);
    expect([tab.copies.length, tab.state!.waiting, tab.project]).toEqual([1, 0, server.project]);
  });

  it("that are this tab's own, or older ones, asks for nothing", async () => {
    const server = new FakeServer();
    const asked: number[] = [];
    const tab = new Tab(server, {
      stepsSince: (_world, base) => {
        asked.push(base);
        return Promise.resolve(server.since(base));
      },
    });
    tab.edit(paint(tab.project, 3, 1));
    await pass(300);
    tab.saver.heard(2);
    tab.saver.heard(1);
    await pass(10_000);
    expect(asked).toEqual([]);
    const other = new Tab(server);
    other.edit(paint(other.project, 4, 1));
    await pass(300);
    tab.saver.heard(3);
    await pass(0);
    expect([asked, tab.project]).toEqual([[2], server.project]);
  });

  it.each<[string, (tab: Tab) => void]>([
    ["an earlier question", (tab) => tab.saver.look()],
    ["a batch", (tab) => tab.edit(paint(tab.project, 3, 1))],
  ])("behind %s under way, which may have been answered before, is asked for once more", async (_, act) => {
    const server = new FakeServer();
    const asked: number[] = [];
    let answered: () => void = () => undefined;
    const slowly = <T>(answer: T): Promise<T> => new Promise((resolve) => (answered = () => resolve(answer)));
    const tab = new Tab(server, {
      storeBatch: async (world, batch) => slowly(await server.store(world, batch)),
      stepsSince: (_world, base) => {
        asked.push(base);
        return slowly(server.since(base));
      },
    });
    act(tab);
    await pass(300);
    // Saved by another one before the stream is open, which is before the answer is here.
    const other = new Tab(server);
    other.edit(paint(other.project, 4, 1));
    await pass(300);
    const before = asked.length;
    tab.saver.look();
    tab.saver.look();
    await pass(0);
    expect(asked).toHaveLength(before);
    answered();
    await pass(300);
    answered();
    await pass(10_000);
    expect(tab.project).toEqual(server.project);
    expect(asked).toHaveLength(before + 1);
  });
});
