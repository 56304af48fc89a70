import type { EditStep } from "@keen-pebble/core/edit";
import fc from "fast-check";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { FakeServer, Tab, name, paint, problem } from "../../test-support/saver-tab.ts";

beforeEach(() => {
  vi.useFakeTimers();
});
/** Lets all that waits for a while happen. */
const rest = (): Promise<unknown> => vi.advanceTimersByTimeAsync(60_000);

describe("what the server refuses", () => {
  const refusedName = (step: EditStep): boolean =>
    step.kind === "change-parts" && step.parts.some(({ after }) => after === "");

  it("is named, and everything else goes on being saved; a correction is saved in its place", async () => {
    const tab = new Tab(new FakeServer());
    tab.server.refuses = refusedName;
    tab.edit(paint(tab.project, 3, 1));
    tab.edit(name("Cellar", ""));
    for (const cell of [5, 6, 7]) tab.edit(paint(tab.project, cell, 1));
    await rest();
    expect(tab.state).toMatchObject({ state: "saved", refused: [{ step: name("Cellar", ""), refused: "refused" }] });
    expect(tab.server.project.world.rooms).toEqual(tab.project.world.rooms);
    expect(tab.entry!.waiting).toHaveLength(1);
    tab.edit(paint(tab.project, 8, 1));
    tab.edit(name("", "Attic"));
    await rest();
    expect(tab.state).toMatchObject({ state: "saved", waiting: 0, refused: [] });
    expect(tab.server.project).toEqual(tab.project);
  });

  it("comes to nothing once it is undone, and can be forgotten", async () => {
    const tab = new Tab(new FakeServer());
    tab.server.refuses = refusedName;
    tab.edit(name("Cellar", ""));
    await rest();
    expect(tab.state!.refused).toHaveLength(1);
    tab.edit(name("", "Cellar"));
    await rest();
    expect(tab.state).toMatchObject({ refused: [], waiting: 0, state: "saved" });
    tab.edit(name("Cellar", ""));
    await rest();
    void tab.saver.discardRefused();
    await rest();
    expect(tab.state).toMatchObject({ refused: [], waiting: 0, state: "saved" });
  });

  it("what stands beside what is forgotten stays, and what others did comes in below it", async () => {
    const tab = new Tab(new FakeServer());
    const other = new Tab(tab.server);
    tab.server.refuses = refusedName;
    tab.edit(name("Cellar", ""));
    await rest();
    other.edit(paint(other.project, 5, 1));
    await rest();
    tab.edit(paint(tab.project, 3, 1));
    void tab.saver.discardRefused();
    await vi.advanceTimersByTimeAsync(0);
    expect(tab.state).toMatchObject({ refused: [], waiting: 1, revision: 2 });
    await rest();
    expect(tab.state).toMatchObject({ waiting: 0, state: "saved" });
    expect(tab.project.world.name).toBe("Cellar");
    expect([3, 5].map((cell) => tab.server.project.world.rooms[0]!.cells[cell])).toEqual([1, 1]);
    expect(tab.server.project).toEqual(tab.project);
  });

  it("is forgotten only once what is under way is answered: that is stored once", async () => {
    let answer: () => void = () => undefined;
    const server = new FakeServer();
    const tab = new Tab(server, {
      storeBatch: async (world, batch) => {
        await new Promise<void>((resolve) => (answer = resolve));
        return server.store(world, batch);
      },
    });
    server.refuses = refusedName;
    tab.edit(name("Cellar", ""));
    await rest();
    answer();
    await rest();
    expect(tab.state!.refused).toHaveLength(1);
    tab.edit(paint(tab.project, 3, 1));
    await rest();
    // It is sent, and not answered yet.
    const forgotten = tab.saver.discardRefused();
    await rest();
    expect(tab.state!.refused).toHaveLength(1);
    answer();
    await rest();
    await forgotten;
    expect(tab.state).toMatchObject({ state: "saved", waiting: 0, refused: [], revision: 2 });
    expect(server.project).toEqual(tab.project);
  });

  it("is not forgotten where what was sent is not answered, and nothing is lost by it", async () => {
    const tab = new Tab(new FakeServer());
    tab.server.refuses = refusedName;
    tab.edit(name("Cellar", ""));
    await rest();
    tab.server.down = true;
    tab.edit(paint(tab.project, 3, 1));
    await vi.advanceTimersByTimeAsync(400);
    await expect(tab.saver.discardRefused()).rejects.toThrow("down");
    expect(tab.state).toMatchObject({ state: "offline", waiting: 2, refused: [{}] });
    tab.server.down = false;
    await rest();
    expect(tab.state).toMatchObject({ state: "saved", waiting: 1, refused: [{}] });
    expect(tab.server.project.world.rooms[0]!.cells[3]).toBe(1);
  });

  it("while the world is left does not keep the others from being stored", async () => {
    const tab = new Tab(new FakeServer());
    tab.server.refuses = refusedName;
    for (const cell of [3, 5, 7, 9]) tab.edit(paint(tab.project, cell, 1));
    tab.edit(name("Cellar", ""));
    const left = tab.saver.leave();
    await rest();
    await left;
    expect(tab.server.project.world.rooms).toEqual(tab.project.world.rooms);
    expect(tab.entry).toMatchObject({ sent: null, waiting: [{ refused: "refused" }] });
  });

  it("is found by halves among many, wherever it stands", async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.boolean(), { minLength: 1, maxLength: 24 }), async (bad) => {
        const tab = new Tab(new FakeServer());
        tab.server.refuses = (step) => step.kind === "set-cells" && step.after[0] === 1 && bad[step.cells[0]!] === true;
        // Every other one is another kind of step, so that they stay apart.
        bad.forEach((_, cell) => {
          tab.edit(paint(tab.project, cell, 1));
          tab.edit(name(tab.project.world.name, `Cellar ${cell}`));
        });
        await rest();
        await rest();
        expect(
          tab.state!.refused.map(({ step }) => (step as Extract<EditStep, { kind: "set-cells" }>).cells[0]),
        ).toEqual(bad.flatMap((is, cell) => (is ? [cell] : [])));
        expect(tab.state!.state).toBe("saved");
        const cells = tab.server.project.world.rooms[0]!.cells;
        expect(bad.map((_, cell) => cells[cell] === 1)).toEqual(bad.map((is) => !is));
      }),
      { seed: 20_261_127, numRuns: 40 },
    );
  });

  it("and what has a limit or is away for a while is no refusal", async () => {
    for (const code of ["too-many-requests", "busy", "no-database", "not-found"]) {
      let says = 3;
      const server = new FakeServer();
      const tab = new Tab(server, {
        storeBatch: (world, batch) => (says-- > 0 ? Promise.reject(problem(code, 429)) : server.store(world, batch)),
      });
      tab.edit(paint(tab.project, 3, 1));
      await vi.advanceTimersByTimeAsync(300);
      expect(tab.state).toMatchObject({ state: "offline", refused: [] });
      await rest();
      expect(server.project).toEqual(tab.project);
    }
  });

  it("is forgotten once, however often that is asked for at once", async () => {
    let [asking, most] = [0, 0];
    const server = new FakeServer();
    const tab = new Tab(server, {
      openWorld: async () => {
        most = Math.max(most, ++asking);
        await new Promise((resolve) => setTimeout(resolve, 300));
        asking--;
        return { revision: server.revision, project: server.project };
      },
    });
    server.refuses = refusedName;
    tab.edit(name("Cellar", ""));
    await rest();
    tab.edit(paint(tab.project, 3, 1));
    void tab.saver.discardRefused();
    void tab.saver.discardRefused();
    await rest();
    expect(most).toBe(1);
    expect(tab.state).toMatchObject({ state: "saved", waiting: 0, refused: [], revision: 2 });
    expect(server.project).toEqual(tab.project);
  });
});
