import { apply } from "@keen-pebble/core/edit";
import fc from "fast-check";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { FakeServer, Tab, name, paint, speed, speedOf, start } from "../../test-support/saver-tab.ts";
import { OfflineError } from "./server-answer.ts";
import type { Saver } from "./saving.ts";

beforeEach(() => {
  vi.useFakeTimers();
});
/** Lets all that waits for a while happen. */
const rest = (): Promise<unknown> => vi.advanceTimersByTimeAsync(60_000);

describe("the saver", () => {
  it("stores what is painted in order, and keeps it in the browser until it is acknowledged", async () => {
    const tab = new Tab(new FakeServer());
    tab.server.down = true;
    tab.edit(paint(tab.project, 3, 1));
    tab.edit(name("Cellar", "Attic"));
    await rest();
    expect(tab.state).toMatchObject({ state: "offline", waiting: 2 });
    expect([...(tab.entry!.sent?.steps ?? []), ...tab.entry!.waiting]).toHaveLength(2);
    tab.server.down = false;
    await rest();
    expect(tab.server.project).toEqual(tab.project);
    expect(tab.state).toMatchObject({ state: "saved", waiting: 0, revision: 2 });
    expect(tab.entry).toMatchObject({ sent: null, waiting: [] });
  });

  it("stores a batch once whose answer got lost", async () => {
    const tab = new Tab(new FakeServer());
    tab.server.losesAnswer = true;
    tab.edit(paint(tab.project, 3, 1));
    await rest();
    expect([tab.server.revision, tab.state!.state, tab.server.project]).toEqual([2, "saved", tab.project]);
  });

  it("makes one revision of a number that is tuned, and does not wait for one that is tuned for ever", async () => {
    const tab = new Tab(new FakeServer());
    for (const value of [2, 3, 4, 5, 6, 7]) {
      tab.edit(speed(tab.project, value));
      await vi.advanceTimersByTimeAsync(900);
    }
    await rest();
    expect(tab.server.steps.map((steps) => steps.length)).toEqual([1]);
    expect(speedOf(tab.server.project)).toBe(7);
    for (let i = 0; i < 60; i++) {
      tab.edit(speed(tab.project, 1 + i / 8));
      await vi.advanceTimersByTimeAsync(1000);
    }
    expect(tab.server.revision).toBeGreaterThan(3);
    expect(tab.server.revision).toBeLessThan(9);
  });

  it("sends what waits when the world is left", async () => {
    const tab = new Tab(new FakeServer());
    tab.edit(paint(tab.project, 3, 1));
    const left = tab.saver.leave();
    await rest();
    await left;
    expect(tab.server.project).toEqual(tab.project);
  });

  it("leaves what cannot be sent to the next visit when the world is left", async () => {
    const tab = new Tab(new FakeServer());
    tab.server.down = true;
    tab.edit(paint(tab.project, 3, 1));
    const left = tab.saver.leave();
    await rest();
    await left;
    expect([...tab.entry!.waiting, ...(tab.entry!.sent?.steps ?? [])]).toHaveLength(1);
  });
});

describe("two tabs", () => {
  it("take in at once what the other has saved", async () => {
    const server = new FakeServer();
    const [one, other] = [new Tab(server), new Tab(server)];
    one.edit(paint(one.project, 3, 1));
    await rest();
    other.saver.heard(server.revision);
    await rest();
    expect(other.project).toEqual(one.project);
    expect(other.state).toMatchObject({ state: "saved", revision: 2 });
  });

  it("hear what was saved while nobody listened once they look, and give up quietly where they cannot", async () => {
    const server = new FakeServer();
    const asked: number[] = [];
    const other = new Tab(server, {
      stepsSince: (_world, base) => (
        asked.push(base),
        server.down ? Promise.reject(new OfflineError("down")) : Promise.resolve(server.since(base))
      ),
    });
    const one = new Tab(server);
    one.edit(paint(one.project, 3, 1));
    await rest();
    server.down = true;
    other.saver.heard(server.revision);
    await rest();
    expect([asked.length, other.state!.state]).toEqual([1, "saved"]);
    server.down = false;
    other.saver.look();
    await rest();
    expect(other.project).toEqual(one.project);
  });

  it("say why of one batch; what is said while it is under way goes with the next", async () => {
    const server = new FakeServer();
    const notes: (string | undefined)[] = [];
    const tab = new Tab(server, {
      storeBatch: (world, batch) => {
        notes.push(batch.note);
        if (notes.length === 1) tab.saver.note("and this");
        return server.store(world, batch);
      },
    });
    tab.saver.note("because");
    for (const cell of [3, 4, 5]) {
      tab.edit(paint(tab.project, cell, 1));
      await rest();
    }
    expect(notes).toEqual(["because", "and this", undefined]);
  });

  it.each([
    ["look", (saver: Saver) => saver.look(), [1, 2, 3]],
    ["are told", (saver: Saver, revision: number) => saver.heard(revision), [1]],
  ])(
    "that %s ask once at a time, and not while a batch is under way that may be stored or not",
    async (_, act, all) => {
      const server = new FakeServer();
      const asked: number[] = [];
      const answers: (() => void)[] = [];
      const tab = new Tab(server, {
        stepsSince: async (_world, base) => {
          asked.push(base);
          await new Promise<void>((resolve) => answers.push(resolve));
          return server.since(base);
        },
      });
      tab.saver.heard(1);
      expect(asked).toEqual([]);
      const other = new Tab(server);
      other.edit(paint(other.project, 4, 1));
      await rest();
      act(tab.saver, 2);
      act(tab.saver, 2);
      expect(asked).toEqual([1]);
      while (answers.length > 0) {
        answers.pop()!();
        await rest();
      }
      server.losesAnswer = true;
      tab.edit(paint(tab.project, 3, 1));
      while (tab.state!.state !== "offline") await vi.advanceTimersByTimeAsync(10);
      // It is stored, and this tab does not know: taken in from others it would stand there twice.
      act(tab.saver, 3);
      expect(asked).toEqual(all.filter((base) => base < 3));
      await rest();
      answers.pop()?.();
      await rest();
      expect([asked, tab.state!.state, server.revision, tab.project]).toEqual([all, "saved", 3, server.project]);
    },
  );

  it("that cannot take in what was saved say so, wait, and go on once they can", async () => {
    const server = new FakeServer();
    const one = new Tab(server);
    const other = new Tab(server, {
      openWorld: () =>
        server.down
          ? Promise.reject(new OfflineError("no answer"))
          : Promise.resolve({ revision: server.revision, project: server.project }),
    });
    one.edit(paint(one.project, 3, 1));
    await rest();
    server.down = true;
    other.edit(paint(other.project, 4, 1));
    await vi.advanceTimersByTimeAsync(1000);
    expect(other.state).toMatchObject({ state: "offline", waiting: 1 });
    server.down = false;
    await rest();
    expect([other.state, [...server.project.world.rooms[0]!.cells.slice(3, 5)]]).toMatchObject([
      { state: "saved" },
      [1, 1],
    ]);
  });

  it("lose nothing where what stood below the edits cannot be made out: they go on top of the whole world", async () => {
    const server = new FakeServer();
    const [one, other] = [new Tab(server), new Tab(server)];
    one.edit(paint(one.project, 3, 1));
    await rest();
    other.edit(paint(other.project, 4, 1));
    // As a project that was changed behind the saver's back.
    other.project = {
      ...start,
      world: {
        ...start.world,
        rooms: start.world.rooms.map((room) => ({ ...room, cells: new Uint16Array(room.cells.length).fill(1) })),
      },
    };
    other.project = apply(other.project, paint(other.project, 4, 0));
    await rest();
    expect([...server.project.world.rooms[0]!.cells.slice(3, 5)]).toEqual([1, 1]);
    expect(other.project).toEqual(server.project);
  });

  it("that meet: what fits no more stays in the browser, and nothing is called saved or left, until it is kept elsewhere", async () => {
    for (const kept of [true, false]) {
      const server = new FakeServer();
      const [one, other] = [new Tab(server), new Tab(server)];
      let finish!: (kept: boolean) => void;
      other.copied = () => new Promise((resolve) => (finish = resolve));
      one.edit(name("Cellar", "Attic"));
      await rest();
      const mine = [name("Cellar", "Loft"), paint(other.project, 4, 1)];
      for (const step of mine) other.edit(step);
      await rest();
      expect(server.project.world.name).toBe("Attic");
      expect(other.state).toMatchObject({ state: "saving", waiting: 0 });
      // The whole visit on its base: what is opened after a crash can make the same copy of it.
      expect(other.entry!.left).toEqual([
        { base: 1, sent: null, waiting: mine.map((step) => ({ step, refused: null })) },
      ]);
      let gone = false;
      const left = other.saver.leave().then(() => (gone = true));
      await rest();
      expect(gone).toBe(false);
      finish(kept);
      await rest();
      await left;
      expect(other.entry!.left).toHaveLength(kept ? 0 : 1);
    }
  });

  it("that edit, lose answers and come and go all end as the server has it, and every edit is there or in a copy", async () => {
    const act = fc.oneof(
      fc.record({ kind: fc.constant("paint" as const), tab: fc.nat(1), cell: fc.nat(6), tile: fc.nat(1) }),
      fc.record({ kind: fc.constant("speed" as const), tab: fc.nat(1), value: fc.integer({ min: 1, max: 5 }) }),
      fc.record({ kind: fc.constantFrom("down" as const, "up" as const, "lose" as const) }),
      fc.record({ kind: fc.constant("rest" as const), ms: fc.integer({ min: 1, max: 4000 }) }),
      fc.record({ kind: fc.constantFrom("hear" as const, "discard" as const), tab: fc.nat(1) }),
    );
    let copied = 0;
    await fc.assert(
      fc.asyncProperty(fc.array(act, { maxLength: 40 }), async (acts) => {
        const server = new FakeServer();
        server.refuses = (step) => step.kind === "change-rules" && step.after === 5;
        const tabs = [new Tab(server), new Tab(server)] as const;
        for (const each of acts) {
          const tab = "tab" in each ? tabs[each.tab]! : tabs[0];
          if (each.kind === "paint" && tab.project.world.rooms[0]!.cells[each.cell] !== each.tile)
            tab.edit(paint(tab.project, each.cell, each.tile));
          else if (each.kind === "speed" && speedOf(tab.project) !== each.value)
            tab.edit(speed(tab.project, each.value));
          else if (each.kind === "down" || each.kind === "up") server.down = each.kind === "down";
          else if (each.kind === "lose") server.losesAnswer = true;
          else if (each.kind === "rest") await vi.advanceTimersByTimeAsync(each.ms);
          else if (each.kind === "hear") tab.saver.heard(server.revision);
          else if (each.kind === "discard") void tab.saver.discardRefused().catch(() => undefined);
          // Writing it is a matter of a moment.
          await vi.advanceTimersByTimeAsync(0);
          // All that a tab has made and the server has not stands in the browser, whatever happens.
          for (const { state, entry } of tabs)
            if (state!.waiting > 0)
              expect((entry?.sent?.steps.length ?? 0) + (entry?.waiting.length ?? 0)).toBeGreaterThan(0);
        }
        server.down = false;
        server.losesAnswer = false;
        for (let i = 0; i < 4; i++) {
          await rest();
          for (const tab of tabs) tab.saver.heard(server.revision);
        }
        await rest();
        for (const tab of tabs) void tab.saver.discardRefused();
        await rest();
        for (const tab of tabs) {
          expect(tab.state).toMatchObject({ state: "saved", waiting: 0, refused: [] });
          expect(tab.project).toEqual(server.project);
          copied += tab.copies.length;
        }
      }),
      { seed: 20_261_127, numRuns: 150 },
    );
    expect(copied).toBeGreaterThan(5);
  });
});
