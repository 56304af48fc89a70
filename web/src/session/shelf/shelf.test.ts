import type { Imported, ServerEvents, ShelfEntry } from "@keen-pebble/server/api";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Outbox } from "../project/outbox.ts";
import type { ServerStream } from "../project/server-events.ts";
import { name } from "../../test-support/saver-tab.ts";
import { ShelfSession } from "./shelf.ts";
import { PATIENCE } from "../../test-support/patience.ts";

/** A server in memory: its worlds and the deleted ones by their keys. */
let worlds: Map<string, ShelfEntry>;
let deleted: Map<number, ShelfEntry>;
let asked: string[];
/** What comes instead of an answer. */
let instead: (() => Response) | null;
let shelf: ShelfSession;
let tell: (event: { readonly event: keyof ServerEvents | "lost" }) => void;
let written: () => void;
let unsaved: ReadonlyMap<string, number>;
/** What came of files that were brought in. */
let imported: Imported;

const entry = (id: string, more: object = {}): ShelfEntry =>
  ({ id, name: id.toUpperCase(), revision: 1, outcomes: [], roomNames: ["Hall"], ...more }) as unknown as ShelfEntry;
const problem = (detail: string): Response =>
  Response.json({ type: "about:blank", title: "", status: 409, detail, code: "conflict" }, { status: 409 });

function answer(method: string, path: string, body: unknown): unknown {
  const [, first, id = "", last] = path.split("/");
  if (path === "/shelf") return { worlds: [...worlds.values()] };
  if (path === "/deleted-worlds") return { worlds: [...deleted].map(([key, { id, name }]) => ({ key, id, name })) };
  if (first === "deleted-worlds") {
    const back = deleted.get(Number(id))!;
    deleted.delete(Number(id));
    worlds.set(back.id, back);
    return { id: back.id };
  }
  if (first === "imports") return imported;
  const world = worlds.get(id)!;
  if (method === "DELETE") {
    const key = 7 + deleted.size;
    worlds.delete(id);
    deleted.set(key, world);
    return { key, id, name: world.name };
  }
  if (last === "copy") {
    worlds.set(`${id}-2`, entry(`${id}-2`));
    return { id: `${id}-2` };
  }
  if (last === "revisions") {
    const [step] = (body as { steps: { parts: { before: string; after: string }[] }[] }).steps;
    expect(step!.parts[0]!.before).toBe(world.name);
    worlds.set(id, { ...world, name: step!.parts[0]!.after, revision: world.revision + 1 });
    return { revision: world.revision + 1, summary: "" };
  }
  return { revision: world.revision, world: {}, logs: {} };
}

beforeEach(() => {
  worlds = new Map([["a", entry("a")]]);
  deleted = new Map();
  asked = [];
  instead = null;
  unsaved = new Map();
  imported = { id: "new", name: "New", made: "world", revision: 1, summary: "", steps: [] };
  vi.stubGlobal("fetch", (path: string, init: RequestInit = {}) => {
    const [method, name] = [init.method ?? "GET", path.replace(/^\/api/, "")];
    asked.push(`${method} ${name}`);
    if (instead !== null) return Promise.resolve().then(instead);
    const body: unknown = typeof init.body === "string" ? JSON.parse(init.body) : null;
    return Promise.resolve(Response.json(answer(method, name, body)));
  });
  const outbox = {
    unsaved: () => Promise.resolve(unsaved),
    onWritten: (listener: () => void) => {
      written = listener;
      return () => (written = () => undefined);
    },
  } as unknown as Outbox;
  const stream = {
    onServerEvent: (listener: (event: { readonly event: keyof ServerEvents | "lost" }) => void) => {
      tell = listener;
      return () => (tell = () => undefined);
    },
  } as unknown as ServerStream;
  shelf = new ShelfSession(outbox, stream);
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const state = () => shelf.store.getState();
const names = (): string[] => (state().worlds ?? []).map(({ name }) => name);
/** Until the act is over and what came of it is shown. */
const settled = (): Promise<void> =>
  vi.waitFor(() => {
    if (state().busy || asked.at(-1) !== "GET /deleted-worlds") throw new Error("busy");
  }, PATIENCE);
const world = () => state().worlds![0]!;

describe("the shelf", () => {
  it("shows each world's logs by title, those that were run, with the check that fails first", async () => {
    const check = (frame: number, verdict: string) => ({ check: `at ${frame} still`, verdict, frame, seen: null });
    const outcome = (checks: object[]) => ({ holds: false, refused: null, frames: 9, checks });
    const outcomes = [
      {
        log: "two",
        title: "Walk 10",
        outcome: outcome([check(2, "pass"), check(8, "fail"), check(5, "fail"), check(9, "fail")]),
      },
      { log: "one", title: "Walk 9", outcome: outcome([check(1, "pass")]) },
      { log: "new", title: null, outcome: null },
      { log: "twin", title: "Walk 9", outcome: outcome([]) },
    ];
    worlds.set("a", entry("a", { outcomes }));
    unsaved = new Map([["a", 3]]);
    await shelf.loadShelf();
    expect(world().shownLogs.map(({ log, title, first }) => [log, title, first?.frame ?? null])).toEqual([
      ["one", "Walk 9", null],
      ["twin", "Walk 9", null],
      ["two", "Walk 10", 5],
    ]);
    expect(world().names).toBe("Hall new Walk 9 Walk 9 Walk 10");
    expect([state().unsaved.get("a"), state().fault]).toEqual([3, null]);
  });

  it("says why it cannot be shown, keeps what it showed, and is well again by itself", async () => {
    await shelf.loadShelf();
    instead = () => problem("no database");
    await shelf.loadShelf();
    expect([state().fault, names()]).toEqual(["no database", ["A"]]);
    instead = null;
    await shelf.loadShelf();
    expect(state().fault).toBeNull();
  });

  it("follows what happens elsewhere, once for much at a time, and what waits in this browser", async () => {
    vi.useFakeTimers();
    const stop = shelf.followShelf();
    for (const event of ["lost", "search"] as const) tell({ event });
    await vi.advanceTimersByTimeAsync(500);
    expect(asked).toEqual([]);
    for (let i = 0; i < 5; i++) tell({ event: "proofs" });
    await vi.advanceTimersByTimeAsync(199);
    expect(asked).toEqual([]);
    await vi.advanceTimersByTimeAsync(1);
    expect(asked.filter((each) => each === "GET /shelf")).toHaveLength(1);
    unsaved = new Map([["a", 2]]);
    written();
    await vi.advanceTimersByTimeAsync(1);
    expect(state().unsaved.get("a")).toBe(2);
    // Stopped, nothing is asked any more: not what waited either.
    tell({ event: "proofs" });
    stop();
    tell({ event: "proofs" });
    unsaved = new Map([["a", 5]]);
    written();
    await vi.advanceTimersByTimeAsync(500);
    expect(asked.filter((each) => each === "GET /shelf")).toHaveLength(1);
    expect(state().unsaved.get("a")).toBe(2);
  });
});

describe("what is done on the shelf", () => {
  beforeEach(() => shelf.loadShelf());
  const undo = async (): Promise<void> => {
    expect(shelf.travelOnShelf("undo")).toBe(true);
    await settled();
  };
  const redo = async (): Promise<void> => {
    expect(shelf.travelOnShelf("redo")).toBe(true);
    await settled();
  };

  it("a name is given, taken back and given again; asked whether there is something to undo, nothing happens", async () => {
    expect([shelf.travelOnShelf("undo", true), shelf.travelOnShelf("undo"), shelf.travelOnShelf("redo")]).toEqual([
      false,
      false,
      false,
    ]);
    shelf.renameWorld(world(), "Cistern");
    // One thing at a time.
    expect(state().busy).toBe(true);
    shelf.renameWorld(world(), "Other");
    expect(shelf.travelOnShelf("undo")).toBe(false);
    await settled();
    expect([names(), worlds.get("a")!.revision]).toEqual([["Cistern"], 2]);
    const before = asked.length;
    expect([shelf.travelOnShelf("undo", true), shelf.travelOnShelf("redo", true)]).toEqual([true, false]);
    expect([asked.length, state().busy, names()]).toEqual([before, false, ["Cistern"]]);
    await undo();
    expect([names(), shelf.travelOnShelf("undo", true), shelf.travelOnShelf("redo", true)]).toEqual([
      ["A"],
      false,
      true,
    ]);
    await redo();
    expect([names(), shelf.travelOnShelf("redo", true)]).toEqual([["Cistern"], false]);
    await undo();
    // Something else done is where it goes on from.
    shelf.renameWorld(world(), "Sluice");
    await settled();
    expect([names(), shelf.travelOnShelf("redo", true)]).toEqual([["Sluice"], false]);
    // Of several acts the last one is taken back, then the one before.
    shelf.renameWorld(world(), "Weir");
    await settled();
    await undo();
    expect(names()).toEqual(["Sluice"]);
    await undo();
    expect(names()).toEqual(["A"]);
    await redo();
    expect(names()).toEqual(["Sluice"]);
    await redo();
    expect([names(), shelf.travelOnShelf("redo", true)]).toEqual([["Weir"], false]);
  });

  it("a copy comes and goes, with the key under which it went", async () => {
    shelf.copyOfWorld(world());
    await settled();
    expect([names(), state().told?.text]).toEqual([["A", "A-2"], "A copied as a-2."]);
    await undo();
    expect([names(), state().deleted.map(({ key }) => key)]).toEqual([["A"], [7]]);
    await redo();
    expect([names(), state().deleted]).toEqual([["A", "A-2"], []]);
  });

  it("a world goes off the shelf and comes back, by undo or from the deleted ones, and each can be undone", async () => {
    shelf.takeOffShelf(world());
    await settled();
    expect([names(), state().deleted.map(({ id }) => id)]).toEqual([[], ["a"]]);
    await undo();
    expect(names()).toEqual(["A"]);
    await redo();
    shelf.putBack(state().deleted[0]!);
    await settled();
    expect([names(), state().deleted]).toEqual([["A"], []]);
    await undo();
    expect([names(), state().deleted.map(({ id }) => id)]).toEqual([[], ["a"]]);
    await redo();
    expect(names()).toEqual(["A"]);
  });

  it("what is refused is told, nothing is done, and there is nothing to undo; without the server the same", async () => {
    instead = () => problem("a has gone");
    shelf.takeOffShelf(world());
    await vi.waitFor(() => expect(state().busy).toBe(false), PATIENCE);
    expect([state().told, state().done]).toEqual([{ tone: "attention", text: "a has gone" }, []]);
    instead = () => {
      throw new TypeError("fetch failed");
    };
    shelf.copyOfWorld(world());
    await vi.waitFor(() => expect(state().busy).toBe(false), PATIENCE);
    expect(state().told?.text).toMatch(/; nothing was changed\.$/);
    expect([state().told?.tone, state().done]).toEqual(["attention", []]);
    instead = null;
    shelf.tellOnShelf(null);
    expect(state().told).toBeNull();
  });

  it("files come in, are told of, and go with undo; what is refused says whose it is and that nothing was kept", async () => {
    const made: string[] = [];
    const file = new File(["{}"], "new.world.json");
    shelf.bringIn([file], null, "made", (id) => made.push(id));
    await settled();
    expect([made, state().told, state().done.length]).toEqual([
      ["new"],
      { tone: "info", text: "New is on the shelf." },
      1,
    ]);
    // A world that is there already gets a revision, which undo takes back, or is just like that.
    imported = {
      ...imported,
      id: "a",
      name: "A",
      made: "revision",
      revision: 2,
      summary: "named",
      steps: [name("B", "A")],
    };
    shelf.bringIn([file], null);
    await settled();
    expect([state().told?.text, state().done.length]).toEqual(["A, revision 2: named.", 2]);
    await undo();
    expect(names()).toEqual(["B"]);
    imported = { ...imported, made: "nothing", steps: [] };
    shelf.bringIn([file], null);
    await settled();
    expect([state().told?.text, state().done.length]).toEqual(["A is just like that already.", 1]);
    instead = () => problem("line 1: no world");
    shelf.bringIn([file], null);
    await vi.waitFor(() => expect(state().busy).toBe(false), PATIENCE);
    expect(state().told).toEqual({
      tone: "attention",
      text: "new.world.json: line 1: no world. Nothing of it was kept.",
    });
    expect(await shelf.makeOf(new File([], "b.keenpebble.zip"))).toEqual({ fault: "line 1: no world" });
    instead = () => new Response("<p>not ours</p>");
    await expect(shelf.makeOf(new File([], "b.keenpebble.zip"))).rejects.toThrow(SyntaxError);
    instead = null;
    imported = { ...imported, id: "new", made: "world" };
    expect(await shelf.makeOf(new File([], "b.keenpebble.zip"))).toBe("new");
    expect(state().done).toHaveLength(2);
  });
});
