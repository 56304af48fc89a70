import "fake-indexeddb/auto";
import type { EditStep } from "@keen-pebble/core/edit";
import { changeActor, placeActor } from "@keen-pebble/core/edit";
import type { World } from "@keen-pebble/core/world";
import { fromPlain, writeWorld } from "@keen-pebble/core/formats";
import { emptyWorld } from "@keen-pebble/core/world";
import type { ShelfSummary, WorldRevision } from "@keen-pebble/server/api";
import fc from "fast-check";
import { IDBFactory } from "fake-indexeddb";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { FakeEventSource } from "../../test-support/fake-event-source.ts";
import { FakeLocks } from "../../test-support/fake-locks.ts";
import { FakeWorker } from "../../test-support/fake-worker.ts";
import type { Served } from "../../test-support/served.ts";
import { served } from "../../test-support/served.ts";
import { Tab } from "../../test-support/tab.ts";
import { PATIENCE } from "../../test-support/patience.ts";

let server: Served;
let locks: FakeLocks;
let worlds = 0;
let tabs: Tab[] = [];
let opened = 0;

beforeAll(async () => {
  server = await served();
}, 120_000);
afterAll(() => server?.stop());
beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
  locks = new FakeLocks();
});
afterEach(async () => {
  for (const tab of tabs) await tab.kill();
  for (const worker of FakeWorker.all.splice(0)) worker.terminate();
  FakeEventSource.all = [];
  tabs = [];
  vi.unstubAllGlobals();
});

/** Puts an empty world on the shelf. */
async function newWorld(): Promise<string> {
  const id = `well-${++worlds}`;
  await server.api("/imports", {
    world: writeWorld(emptyWorld(id, "Well", 16)),
    logs: { stand: "keen-pebble-inputs 1\ncheck end still\n---\n4 .\n" },
  });
  return id;
}

async function tabOn(world: string): Promise<Tab> {
  const tab = await Tab.open(`tab-${++opened}`, locks, server.address);
  tabs.push(tab);
  await tab.openWorld(world);
  return tab;
}

const worldOf = (tab: Tab): World => tab.session.project.store.getState().project!.world;
const stored = async (id: string): Promise<WorldRevision> => server.api<WorldRevision>(`/worlds/${id}`);
const storedWorld = async (id: string): Promise<World> => fromPlain((await stored(id)).world);
const shelf = async (): Promise<string[]> => (await server.api<ShelfSummary>("/shelf")).worlds.map(({ id }) => id);
const notice = (tab: Tab): string => tab.session.project.store.getState().notice?.text ?? "";

/** Paints a cell with the tile that it does not have. */
function paint(tab: Tab, cell: number): boolean {
  const room = worldOf(tab).rooms[0]!;
  const before = room.cells[cell]!;
  const step: EditStep = { kind: "set-cells", room: room.id, cells: [cell], before: [before], after: [1 - before] };
  return tab.in(() => tab.session.project.edit(step));
}
const speedOf = (world: World): number => world.rules[0]!.glide.speed;
const setSpeed = (tab: Tab, after: number): boolean =>
  tab.in(() =>
    tab.session.project.edit({
      kind: "change-rules",
      rules: "main",
      setting: "glide.speed",
      before: speedOf(worldOf(tab)),
      after,
    }),
  );
const save = async (tab: Tab): Promise<void> => {
  tab.in(() => tab.session.project.saveNow());
  await tab.until();
};

describe("a world that is opened", () => {
  it("has what the server has, and what is edited is there when it is opened again", async () => {
    const id = await newWorld();
    const first = await tabOn(id);
    expect(first.session.project.store.getState()).toMatchObject({ phase: "ready", worldId: id, notice: null });
    expect([...first.session.project.store.getState().project!.logs.keys()]).toEqual(["stand"]);
    expect(setSpeed(first, 4)).toBe(true);
    expect(first.session.saveStore.getState()).toMatchObject({ state: "saving", waiting: 1 });
    await save(first);
    expect(first.session.saveStore.getState()).toMatchObject({ state: "saved", revision: 2, waiting: 0 });
    const second = await tabOn(id);
    expect(speedOf(worldOf(second))).toBe(4);
  });

  it("that is not on the shelf is missing; one that the server cannot give is failed, and can be opened later", async () => {
    const nowhere = await tabOn("nowhere");
    expect(nowhere.session.project.store.getState()).toMatchObject({
      phase: "missing",
      message: "There is no world nowhere on the shelf.",
      project: null,
    });
    const id = await newWorld();
    const tab = await tabOn("nowhere");
    tab.offline = true;
    await tab.openWorld(id);
    expect(tab.session.project.store.getState()).toMatchObject({
      phase: "failed",
      message: "the server does not answer",
    });
    tab.offline = false;
    await tab.openWorld(id);
    expect(tab.session.project.store.getState()).toMatchObject({ phase: "ready", worldId: id });
  });

  it("while another one is asked for is left alone: the last one asked for is shown", async () => {
    const [one, other] = [await newWorld(), await newWorld()];
    const tab = await tabOn(one);
    const both = [tab.openWorld(one), tab.openWorld(other)];
    await Promise.all(both);
    expect(tab.session.project.store.getState()).toMatchObject({ phase: "ready", worldId: other });
  });

  it("is no world any more once it is closed, and edits do nothing", async () => {
    const tab = await tabOn(await newWorld());
    tab.in(() => tab.session.project.closeProject());
    expect(tab.session.project.simulationClient()).toBeNull();
    await tab.openWorld("nowhere");
    expect(tab.in(() => tab.session.project.edit({ kind: "add-log", log: "a", text: "" }))).toBe(false);
    expect(
      tab.in(() => [tab.session.project.travel("undo"), tab.session.project.changeWorld((world) => world)]),
    ).toEqual([false, false]);
  });
});

describe("what a closed tab had not had acknowledged", () => {
  it("is sent once more and stored once, where the answer got lost", async () => {
    const id = await newWorld();
    const first = await tabOn(id);
    first.losesAnswers = 1;
    setSpeed(first, 4);
    first.in(() => first.session.project.saveNow());
    await vi.waitFor(async () => expect((await stored(id)).revision).toBe(2), PATIENCE);
    await first.kill();
    const second = await tabOn(id);
    expect(speedOf(worldOf(second))).toBe(4);
    await second.until();
    expect((await stored(id)).revision).toBe(2);
    // Nothing waits any more, so nothing was brought back.
    expect(notice(second)).toBe("");
  });

  it("is put on top and saved, where it had not been sent", async () => {
    const id = await newWorld();
    const first = await tabOn(id);
    first.neverSends = true;
    paint(first, 3);
    paint(first, 4);
    setSpeed(first, 8);
    // Neighbouring strokes are one step.
    await first.keeps(id, 2);
    await first.kill();
    const second = await tabOn(id);
    // A slow machine had begun to send them: such a batch is sent again as it was, and there is nothing to bring back.
    expect(notice(second)).toBe("2 edits from your last visit brought back.");
    expect([worldOf(second).rooms[0]!.cells[3], worldOf(second).rooms[0]!.cells[4], speedOf(worldOf(second))]).toEqual([
      worldOf(first).rooms[0]!.cells[3],
      worldOf(first).rooms[0]!.cells[4],
      8,
    ]);
    await save(second);
    expect(await storedWorld(id)).toEqual(worldOf(second));
    // The next visit has nothing to bring back.
    await second.kill();
    expect(notice(await tabOn(id))).toBe("");
  });

  it("is kept as a copy where it fits no more, and what fits is put on top all the same", async () => {
    const id = await newWorld();
    const first = await tabOn(id);
    const was = speedOf(worldOf(first));
    first.offline = true;
    setSpeed(first, 8);
    paint(first, 3);
    await first.keeps(id, 2);
    await first.kill();
    const other = await tabOn("nowhere");
    await server.api(`/worlds/${id}/revisions`, {
      batch: crypto.randomUUID(),
      base: 1,
      steps: [
        {
          kind: "change-rules",
          rules: "main",
          setting: "glide.speed",
          before: speedOf(await storedWorld(id)),
          after: 3,
        },
      ],
    });
    await other.openWorld(id);
    await other.until(() => notice(other).includes("kept on the shelf"));
    expect(notice(other)).toBe(
      `This world was changed elsewhere. 1 edit of yours could be put on top; not Main: speed ${was} to 8. The world as it was here is kept on the shelf as ${id}-mine.`,
    );
    await save(other);
    const [mine, theirs] = [await storedWorld(`${id}-mine`), await storedWorld(id)];
    expect([speedOf(mine), speedOf(theirs)]).toEqual([8, 3]);
    expect(theirs.rooms[0]!.cells[3]).toBe(mine.rooms[0]!.cells[3]);
  });

  it("stays in the browser while the server cannot be reached, over any number of visits", async () => {
    const id = await newWorld();
    const first = await tabOn(id);
    first.offline = true;
    setSpeed(first, 8);
    await first.keeps(id, 1);
    await first.kill();
    for (let visit = 0; visit < 3; visit++) {
      const tab = await Tab.open(`offline-${visit}`, locks, server.address);
      tabs.push(tab);
      tab.offline = true;
      await tab.openWorld(id);
      expect(tab.session.project.store.getState().phase).toBe("failed");
      await tab.kill();
    }
    const last = await tabOn(id);
    expect(speedOf(worldOf(last))).toBe(8);
    await save(last);
    expect(speedOf(await storedWorld(id))).toBe(8);
  });
});

describe("undo", () => {
  it("goes on over a reload while nothing else was stored meanwhile, and not past what somebody else did", async () => {
    const id = await newWorld();
    const first = await tabOn(id);
    const was = speedOf(worldOf(first));
    setSpeed(first, 4);
    setSpeed(first, 8);
    await save(first);
    await vi.waitFor(async () => expect((await stored(id)).revision).toBeGreaterThan(1), PATIENCE);
    await first.kill();
    const again = await tabOn(id);
    await vi.waitFor(
      () => expect(again.session.project.store.getState().history.done.length).toBeGreaterThan(0),
      PATIENCE,
    );
    expect(again.in(() => again.session.project.travel("undo"))).toBe(true);
    expect([4, was]).toContain(speedOf(worldOf(again)));
    await save(again);
    await again.kill();
    // Somebody else's revision ends what can be taken back.
    const { revision, world } = await stored(id);
    await server.api(`/worlds/${id}/revisions`, {
      batch: crypto.randomUUID(),
      base: revision,
      steps: [{ kind: "change-parts", parts: [{ part: "name", before: fromPlain(world).name, after: "Dry well" }] }],
    });
    const third = await tabOn(id);
    expect(third.in(() => third.session.project.travel("undo", true))).toBe(false);
  });

  it("of a stroke takes back the whole stroke, and again gives it back; a new edit forgets what was undone", async () => {
    const tab = await tabOn(await newWorld());
    const before = worldOf(tab);
    for (const after of [2, 3, 5])
      tab.in(() =>
        tab.session.project.edit(
          { kind: "change-rules", rules: "main", setting: "glide.speed", before: speedOf(worldOf(tab)), after },
          "drag",
        ),
      );
    tab.in(() => tab.session.project.endStroke());
    paint(tab, 7);
    expect(
      tab.in(() => [
        tab.session.project.travel("undo"),
        tab.session.project.travel("undo"),
        tab.session.project.travel("undo"),
      ]),
    ).toEqual([true, true, false]);
    expect(worldOf(tab)).toEqual(before);
    expect(tab.in(() => tab.session.project.travel("redo"))).toBe(true);
    expect(speedOf(worldOf(tab))).toBe(5);
    paint(tab, 8);
    expect(tab.in(() => tab.session.project.travel("redo", true))).toBe(false);
  });

  it("an edit that may not be is told and changes nothing", async () => {
    const tab = await tabOn(await newWorld());
    const before = worldOf(tab);
    expect(
      tab.in(() =>
        tab.session.project.edit({ kind: "change-parts", parts: [{ part: "frameRate", before: 60, after: 9999 }] }),
      ),
    ).toBe(false);
    expect(notice(tab)).toMatch(/^frameRate: /);
    expect(setSpeed(tab, 4)).toBe(true);
    expect(notice(tab)).toBe("");
    expect(
      tab.in(() =>
        tab.session.project.edit({ kind: "change-rules", rules: "main", setting: "glide.speed", before: 99, after: 1 }),
      ),
    ).toBe(false);
    expect(worldOf(tab)).toEqual({
      ...before,
      rules: [{ ...before.rules[0]!, glide: { ...before.rules[0]!.glide, speed: 4 } }],
    });
  });
});

describe("two tabs on one world", () => {
  it("take in what the other saves below their own edits, at once when they hear of it", async () => {
    const id = await newWorld();
    const [a, b] = [await tabOn(id), await tabOn(id)];
    paint(a, 1);
    await save(a);
    paint(b, 2);
    await save(b);
    a.hear();
    await a.until(() => worldOf(a).rooms[0]!.cells[2] === worldOf(b).rooms[0]!.cells[2]);
    expect(worldOf(a)).toEqual(worldOf(b));
    expect(await storedWorld(id)).toEqual(worldOf(a));
    expect(notice(b)).toBe("This world was changed elsewhere; your edits were put on top.");
    expect(notice(a)).toMatch(/^Changed elsewhere: /);
  });

  it("actors of one room that each of them changed come together, and each undoes its own alone", async () => {
    const id = await newWorld();
    const [a, b] = [await tabOn(id), await tabOn(id)];
    const placed = (tab: Tab, cell: [number, number]): string => {
      let made = "";
      tab.in(() =>
        tab.session.project.changeWorld((world) => {
          const placing = placeActor(world, world.rooms[0]!.id, cell);
          made = placing.id;
          return placing.world;
        }),
      );
      return made;
    };
    const faster = (tab: Tab, actor: string): boolean =>
      tab.in(() =>
        tab.session.project.changeWorld((world) => changeActor(world, actor, (is) => ({ ...is, speed: 3 }))),
      );
    const told = (world: World): string[] => world.rooms[0]!.actors.map((actor) => `${actor.id} ${actor.speed}`);
    const [first, second] = [placed(a, [1, 1]), placed(a, [2, 1])];
    await save(a);
    b.hear();
    await b.until(() => worldOf(b).rooms[0]!.actors.length === 2);
    faster(a, first);
    faster(b, second);
    await save(a);
    await save(b);
    a.hear();
    await a.until(() => told(worldOf(a)).every((actor) => actor.endsWith(" 3")));
    expect(told(await storedWorld(id))).toEqual([`${first} 3`, `${second} 3`]);
    expect(notice(b)).toBe("This world was changed elsewhere; your edits were put on top.");
    expect(a.in(() => a.session.project.travel("undo"))).toBe(true);
    await save(a);
    expect(told(await storedWorld(id))).toEqual([`${first} 1`, `${second} 3`]);
    expect(await shelf()).not.toContain(`${id}-mine`);
  });

  it("one of two changes of the same number wins, and the other is kept as a copy", async () => {
    const id = await newWorld();
    const [a, b] = [await tabOn(id), await tabOn(id)];
    setSpeed(a, 4);
    setSpeed(b, 8);
    await save(a);
    await save(b);
    await b.until(() => notice(b).includes("kept on the shelf"));
    expect([speedOf(worldOf(b)), speedOf(await storedWorld(id)), speedOf(await storedWorld(`${id}-mine`))]).toEqual([
      4, 4, 8,
    ]);
    expect(b.in(() => b.session.project.travel("undo", true))).toBe(false);
  });
});

/** What two tabs may do, and what must then be so. */
interface Model {
  /** Cells that were painted and not undone, by any tab. */
  readonly painted: Set<number>;
}

interface Two {
  readonly id: string;
  readonly tabs: [Tab, Tab];
}

/** Paints a cell that nobody paints a second time, so that all of them must be there at the end. */
class Paint implements fc.AsyncCommand<Model, Two> {
  constructor(
    private readonly tab: number,
    private readonly cell: number,
  ) {}
  check = ({ painted }: Readonly<Model>): boolean => !painted.has(this.cell);
  async run({ painted }: Model, { tabs: both }: Two): Promise<void> {
    expect(paint(both[this.tab]!, this.cell)).toBe(true);
    painted.add(this.cell);
    // A crash in the middle of a write may lose what nobody was told is kept.
    await both[this.tab]!.isKept();
  }
  toString = (): string => `tab ${this.tab} paints ${this.cell}`;
}

class Do implements fc.AsyncCommand<Model, Two> {
  constructor(
    private readonly name: string,
    private readonly tab: number,
    private readonly act: (two: Two, tab: number) => Promise<void> | void,
  ) {}
  check = (): boolean => true;
  async run(_model: Model, two: Two): Promise<void> {
    await this.act(two, this.tab);
  }
  toString = (): string => `tab ${this.tab} ${this.name}`;
}

const anyTab = fc.constantFrom(0, 1);
const doing = (name: string, act: (two: Two, tab: number) => Promise<void> | void): fc.Arbitrary<Do> =>
  anyTab.map((tab) => new Do(name, tab, act));
const commands = [
  fc.tuple(anyTab, fc.nat(60)).map(([tab, cell]) => new Paint(tab, cell)),
  fc.tuple(anyTab, fc.nat(60)).map(([tab, cell]) => new Paint(tab, cell)),
  doing("sends", async ({ tabs: both }, tab) => {
    both[tab]!.in(() => both[tab]!.session.project.saveNow());
    await both[tab]!.isKept();
  }),
  doing("saves", async ({ tabs: both }, tab) => {
    if (!both[tab]!.offline) await save(both[tab]!);
  }),
  doing("hears what was saved", ({ tabs: both }, tab) => both[tab]!.hear()),
  doing("loses its connection", ({ tabs: both }, tab) => void (both[tab]!.offline = true)),
  doing("is connected again", ({ tabs: both }, tab) => void (both[tab]!.offline = false)),
  doing("loses an answer", ({ tabs: both }, tab) => void both[tab]!.losesAnswers++),
  doing("is killed and opened anew", async ({ id, tabs: both }, tab) => {
    await both[tab]!.kill();
    both[tab] = await tabOn(id);
  }),
];

it("whatever two tabs do, once both are saved they show what the server has, and every painted cell is in it", async () => {
  const seen = { runs: 0, painted: 0 };
  await fc.assert(
    fc.asyncProperty(fc.commands(commands, { maxCommands: 24, size: "+1" }), async (all) => {
      const id = await newWorld();
      const two: Two = { id, tabs: [await tabOn(id), await tabOn(id)] };
      const model: Model = { painted: new Set() };
      const before = await storedWorld(id);
      await fc.asyncModelRun(() => ({ model, real: two }), all);
      for (const tab of two.tabs) Object.assign(tab, { offline: false, losesAnswers: 0 });
      for (const tab of two.tabs) await save(tab);
      for (const tab of two.tabs) tab.hear();
      const truth = await storedWorld(id);
      for (const tab of two.tabs)
        await vi.waitFor(() => expect(worldOf(tab)).toEqual(truth), { timeout: 20_000, interval: 10 });
      const changed = [...truth.rooms[0]!.cells].flatMap((tile, i) => (tile === before.rooms[0]!.cells[i] ? [] : [i]));
      expect(changed).toEqual([...model.painted].sort((a, b) => a - b));
      expect((await shelf()).filter((each) => each.startsWith(`${id}-mine`))).toEqual([]);
      seen.runs++;
      seen.painted += changed.length;
      for (const tab of two.tabs) await tab.kill();
    }),
    { seed: 20_260_811, numRuns: 9, endOnFailure: true },
  );
  expect(seen.painted).toBeGreaterThan(20);
}, 240_000);
