import type { EditStep } from "@keen-pebble/core/edit";
import { toPlain } from "@keen-pebble/core/formats";
import type { World } from "@keen-pebble/core/world";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { session } from "../../page-session.ts";
import { FakeEventSource } from "../../test-support/fake-event-source.ts";
import { ALONG, hall } from "../../test-support/hall.ts";
import type { Answering, Opened } from "../../test-support/opened.ts";
import { openHere, problem, until } from "../../test-support/opened.ts";
import { name } from "../../test-support/saver-tab.ts";
import type { OwnStep, SentBatch } from "./outbox.ts";
import { Saver } from "./saving.ts";

/** The world that is left and opened again; the server has it at revision 5. */
const nave = (): World => ({ ...hall("nave"), name: "Nave" });
const speed = (before: number, after: number): EditStep => ({
  kind: "change-rules",
  rules: "main",
  setting: "glide.speed",
  before,
  after,
});
const own = (step: EditStep): OwnStep => ({ step, refused: null });

let opened: Opened;
/** Batches that came to the server. */
let batches: SentBatch[];
let copies: { readonly world: string }[];

beforeEach(async () => {
  batches = [];
  copies = [];
  const store: Answering = (body) => {
    batches.push(body as SentBatch);
    return Response.json({ revision: 5 + batches.length, summary: "" });
  };
  opened = await openHere(hall(), {}, [
    ["GET /worlds/nave", { revision: 5, world: toPlain(nave()), logs: { along: ALONG } }],
    ["GET /worlds/nave/revisions/4", { revision: 4, world: toPlain({ ...nave(), name: "Old" }), logs: {} }],
    ["POST /worlds/nave/revisions", store],
    ["GET /worlds", { worlds: [{ id: "nave" }, { id: "nave-mine" }] }],
    [
      "POST /imports",
      (body: unknown) => {
        copies.push(body as (typeof copies)[number]);
        return Response.json({ id: "nave-mine-2", name: "", made: "world", revision: 1, summary: "", steps: [] });
      },
    ],
  ]);
});
afterEach(async () => {
  opened.close();
  await session.outbox.write({ world: "nave", base: null, sent: null, waiting: [], left: [] });
});

const state = () => session.project.store.getState();
const world = (): World => state().project!.world;
const notice = (): string => state().notice?.text ?? "";
const leave = (waiting: readonly OwnStep[], sent: SentBatch | null = null, base: number | null = 4): Promise<boolean> =>
  session.outbox.write({ world: "nave", base, sent, waiting, left: [] });
const open = (): Promise<void> => session.project.openProject("nave");

describe("a world that cannot be opened", () => {
  it("is missing where the shelf has none of that name, and failed where nobody can say", async () => {
    await session.project.openProject("gone");
    expect(state()).toMatchObject({
      phase: "missing",
      worldId: "gone",
      project: null,
      message: "There is no world gone on the shelf.",
    });
    opened.answers.set("GET /worlds/Odd!", (() => problem(400, "bad-id", "no id")) satisfies Answering);
    await session.project.openProject("Odd!");
    expect(state().phase).toBe("missing");
    opened.answers.set("GET /worlds/nave", (() =>
      problem(403, "foreign-request", "not from here")) satisfies Answering);
    await open();
    expect(state()).toMatchObject({ phase: "failed", message: "not from here" });
    opened.answers.set("GET /worlds/nave", new TypeError("fetch failed"));
    await open();
    expect(state()).toMatchObject({ phase: "failed", project: null, message: "the server does not answer" });
    // An answer that is none of ours is told too, and is no matter of the server's.
    opened.answers.set("GET /worlds/nave", { revision: 5 });
    await expect(open()).rejects.toThrow(TypeError);
    expect(state()).toMatchObject({ phase: "failed", project: null });
    // It can be edited by nobody.
    expect(session.project.changeWorld((now) => ({ ...now, name: "X" }))).toBe(false);
    expect(session.project.edit(name("Nave", "X"))).toBe(false);
    expect(session.project.travel("undo")).toBe(false);
  });

  it("is no more what is shown once another one is asked for", async () => {
    let answer: (response: Response) => void = () => undefined;
    opened.answers.set("GET /worlds/slow", () => new Promise((resolve) => (answer = resolve)));
    const release = vi.spyOn(session.outbox, "release");
    for (const told of [
      () => problem(404, "not-found", "gone"),
      () => Response.json({ revision: 1, world: toPlain(hall("slow")), logs: {} }),
    ]) {
      const before = opened.asked.length;
      const first = session.project.openProject("slow");
      await until(() => opened.asked.slice(before).includes("GET /worlds/slow"));
      await open();
      release.mockClear();
      answer(told());
      await first;
      expect([state().phase, state().worldId, world().name]).toEqual(["ready", "nave", "Nave"]);
      // Other tabs may have its edits.
      if (told().ok) expect(release.mock.calls).toEqual([["slow"]]);
    }
    // Asked for twice it is the same world: its edits stay this tab's.
    const twice = session.project.openProject("slow");
    await until(() => opened.asked.at(-1) === "GET /worlds/slow");
    const late = answer;
    const again = session.project.openProject("slow");
    await until(() => answer !== late);
    release.mockClear();
    for (const each of [late, answer]) each(Response.json({ revision: 1, world: toPlain(hall("slow")), logs: {} }));
    await Promise.all([twice, again]);
    expect([state().worldId, release.mock.calls]).toEqual(["slow", []]);
    release.mockRestore();
  });
});

describe("what was not acknowledged on the last visit", () => {
  it("is put on top, said, and sent", async () => {
    await leave([own(speed(2, 4)), own(name("Nave", "Crypt"))]);
    await open();
    expect([world().name, world().rules[0]!.glide.speed]).toEqual(["Crypt", 4]);
    expect(state().notice).toEqual({ tone: "info", text: "2 edits from your last visit brought back." });
    await until(() => session.saveStore.getState().state === "saved");
    expect(batches.map(({ base, steps }) => [base, steps])).toEqual([[5, [speed(2, 4), name("Nave", "Crypt")]]]);
  });

  it("and was sent is sent again, as the same batch, and nothing is brought back where the server has it", async () => {
    const sent = { batch: "11111111-2222-4333-8444-555555555555", base: 4, steps: [name("Old", "Nave")] };
    await leave([], sent);
    await open();
    expect(batches).toEqual([sent]);
    expect([state().notice, world().name]).toEqual([null, "Nave"]);
    expect(await session.outbox.unsaved()).toEqual(new Map());
  });

  it("and is refused now waits before what waited, as an edit of its own", async () => {
    const answers: (() => Response)[] = [() => problem(409, "stale-base", "too old")];
    const stores = opened.answers.get("POST /worlds/nave/revisions") as Answering;
    opened.answers.set(
      "POST /worlds/nave/revisions",
      ((body) => answers.shift()?.() ?? stores(body)) satisfies Answering,
    );
    await leave([own(speed(4, 3))], { batch: "11111111-2222-4333-8444-555555555555", base: 4, steps: [speed(2, 4)] });
    await open();
    expect([world().rules[0]!.glide.speed, notice()]).toEqual([3, "2 edits from your last visit brought back."]);
    await until(() => session.saveStore.getState().state === "saved");
    expect(batches.at(-1)).toMatchObject({ base: 5 });
  });

  it("stays where the server cannot be asked: the world is not opened over it", async () => {
    opened.answers.set("POST /worlds/nave/revisions", new TypeError("fetch failed"));
    await leave([], { batch: "11111111-2222-4333-8444-555555555555", base: 4, steps: [speed(2, 4)] });
    await open();
    expect(state().phase).toBe("failed");
    expect(await session.outbox.unsaved()).toEqual(new Map([["nave", 1]]));
  });

  it("and fits no more is kept as a copy of the world as it was then, and named; the rest is brought back", async () => {
    await leave([own(name("Old", "Mine")), own(speed(2, 4))]);
    await open();
    expect([world().name, world().rules[0]!.glide.speed]).toEqual(["Nave", 4]);
    expect(notice()).toMatch(
      /^This world was changed elsewhere\. 1 edit of yours could be put on top; not .*name.*\. The world as it was here is kept on the shelf as nave-mine-2\.$/,
    );
    expect(copies).toHaveLength(1);
    expect(copies[0]!.world).toContain('"name": "Mine, as here"');
    await until(() => session.saveStore.getState().state === "saved");
    expect(await session.outbox.unsaved()).toEqual(new Map());
  });

  it("and can be kept nowhere on the shelf is saved as a file, and stays in this browser", async () => {
    opened.answers.set("POST /imports", (() => problem(413, "too-large", "too large")) satisfies Answering);
    const saved: [string, string][] = [];
    let last: Blob | null = null;
    vi.spyOn(URL, "createObjectURL").mockImplementation((blob) => {
      last = blob as Blob;
      return "blob:mine";
    });
    const revoke = vi.spyOn(URL, "revokeObjectURL").mockImplementation(() => undefined);
    vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(function (this: HTMLAnchorElement) {
      saved.push([this.download, this.href]);
    });
    await leave([own(name("Old", "Mine"))]);
    await open();
    expect(saved).toEqual([["nave.not-saved.json", "blob:mine"]]);
    expect(revoke).toHaveBeenCalledWith("blob:mine");
    const file = JSON.parse(await last!.text()) as Record<string, unknown>;
    expect(file).toMatchObject({ world: { id: "nave", name: "Mine" }, logs: {}, edits: [name("Old", "Mine")] });
    expect(notice()).toContain("No copy could be put on the shelf (too large); it was saved as a file instead.");
    expect(await session.outbox.unsaved()).toEqual(new Map([["nave", 1]]));
    vi.restoreAllMocks();
  });
});

describe("an open world", () => {
  it("has what waits sent at once where that is asked for", async () => {
    await open();
    session.project.edit(speed(2, 4));
    const send = vi.spyOn(Saver.prototype, "sendNow");
    session.project.saveNow();
    expect(send).toHaveBeenCalledOnce();
    send.mockRestore();
    await until(() => session.saveStore.getState().state === "saved");
    expect(batches.map(({ steps }) => steps)).toEqual([[speed(2, 4)]]);
  });

  it("asks what was saved while nobody listened once the stream is open, and takes it in", async () => {
    await open();
    const { length } = opened.asked;
    opened.answers.set("GET /worlds/nave/steps?since=5", { revision: 6, steps: [name("Nave", "Choir")] });
    FakeEventSource.all.at(-1)!.say("open");
    await until(() => opened.asked.length > length);
    await until(() => world().name === "Choir", JSON.stringify(opened.asked.slice(length)));
    expect(state().notice).toMatchObject({
      tone: "info",
      text: expect.stringContaining("Changed elsewhere: ") as string,
    });
    // What is saved from then on is taken in as it is heard of.
    opened.answers.set("GET /worlds/nave/steps?since=6", { revision: 7, steps: [name("Choir", "Apse")] });
    FakeEventSource.all.at(-1)!.say("saved", { world: "nave", revision: 7 });
    await until(() => world().name === "Apse");
    // Of another world nothing is heard.
    FakeEventSource.all.at(-1)!.say("saved", { world: "hall", revision: 9 });
    expect(opened.asked.slice(length).filter((each) => each.includes("/worlds/hall/"))).toEqual([]);
  });

  it("says nothing where nobody saved anything meanwhile", async () => {
    await open();
    const { length } = opened.asked;
    const told = new Set<string>();
    const unlisten = session.project.store.subscribe(({ notice: now }) => void (now !== null && told.add(now.text)));
    opened.answers.set("GET /worlds/nave/steps?since=5", { revision: 5, steps: [] });
    FakeEventSource.all.at(-1)!.say("open");
    await until(() => opened.asked.slice(length).includes("GET /worlds/nave/steps?since=5"));
    opened.answers.set("GET /worlds/nave/steps?since=5", { revision: 6, steps: [name("Nave", "Choir")] });
    FakeEventSource.all.at(-1)!.say("saved", { world: "nave", revision: 6 });
    await until(() => world().name === "Choir");
    unlisten();
    expect([...told]).toEqual([expect.stringMatching(/^Changed elsewhere: ./)]);
  });

  it("that is opened again at the revision that one left has the last 50 acts to undo", async () => {
    await open();
    for (let seed = 100; seed < 155; seed++) session.project.changeWorld((now) => ({ ...now, seed }));
    session.project.saveNow();
    await until(() => session.saveStore.getState().state === "saved");
    const { revision } = session.saveStore.getState();
    opened.answers.set("GET /worlds/nave", { revision, world: toPlain(world()), logs: { along: ALONG } });
    await open();
    let undone = 0;
    while (session.project.travel("undo")) undone++;
    expect([undone, world().seed]).toEqual([50, 104]);
    // At another one nothing can be undone.
    await until(() => session.saveStore.getState().state === "saved");
    opened.answers.set("GET /worlds/nave", { revision: revision + 9, world: toPlain(world()), logs: {} });
    await open();
    expect(session.project.travel("undo", true)).toBe(false);
  });

  it("says what cannot be undone any more, and leaves it", async () => {
    await open();
    session.project.changeWorld((now) => ({ ...now, name: "Mine" }));
    session.project.store.setState(({ project }) => ({
      project: { ...project!, world: { ...project!.world, name: "Theirs" } },
    }));
    expect(session.project.travel("undo")).toBe(false);
    expect(notice()).toContain("That cannot be undone any more: ");
    expect(world().name).toBe("Theirs");
  });

  it("tells what a change took along and which logs it stops, the first dozen of them", async () => {
    await open();
    session.project.change((project) => ({
      project: { ...project, world: { ...project.world, seed: 3 } },
      fellAway: ["one link"],
    }));
    expect(state().notice).toEqual({ tone: "info", text: "Fell away with it: one link. Undo brings it back." });
    const many = Array.from({ length: 14 }, (_, i) => `thing ${i}`);
    session.project.change((project) => ({
      project: { ...project, world: { ...project.world, seed: 4 } },
      fellAway: many,
    }));
    expect(notice()).toBe(`Fell away with it: ${many.slice(0, 12).join("; ")}; and 2 more. Undo brings it back.`);
    session.project.change((project) => ({
      project: { ...project, world: { ...project.world, seed: 5 } },
      fellAway: many.slice(0, 12),
    }));
    expect(notice()).toBe(`Fell away with it: ${many.slice(0, 12).join("; ")}. Undo brings it back.`);
    session.project.changeWorld((now) => ({ ...now, seed: 6 }));
    expect(state().notice).toBeNull();
    const text = "keen-pebble-inputs 1\nstart annex 1 1 down\n---\n1 .\n";
    session.project.changeWorld((now) => ({ ...now, rooms: [...now.rooms, { ...now.rooms[0]!, id: "annex" }] }));
    session.project.edit({ kind: "add-log", log: "there", text });
    session.project.changeWorld((now) => ({ ...now, rooms: now.rooms.slice(0, 1) }));
    expect(notice()).toMatch(/^Logs: .*there.*\. Undo brings it back\.$/);
    expect(session.project.change(() => null)).toBe(false);
  });

  it("makes no edit that the reader of world files would not take", async () => {
    await open();
    expect(session.project.changeWorld((now) => ({ ...now, frameRate: 0 }))).toBe(false);
    expect(notice()).toBe("frameRate: must be a whole number from 1 to 240");
    expect(world().frameRate).toBe(60);
    expect(session.project.travel("undo", true)).toBe(false);
  });
});

describe("a copy of what was refused", () => {
  it("goes into a file where the server does not take it, and nothing is discarded where it cannot be asked", async () => {
    await open();
    opened.answers.set("POST /imports", (() => problem(422, "refused", "no such world")) satisfies Answering);
    vi.spyOn(URL, "createObjectURL").mockReturnValue("blob:mine");
    vi.spyOn(URL, "revokeObjectURL").mockImplementation(() => undefined);
    const click = vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(() => undefined);
    await session.project.keepRefused();
    expect(click).toHaveBeenCalledTimes(1);
    expect(notice()).toBe("The server takes no world like this (no such world); it was saved as a file.");
    vi.restoreAllMocks();
    opened.answers.set("GET /worlds/nave", new TypeError("fetch failed"));
    await session.project.discardRefused();
    expect(notice()).toBe("the server does not answer; nothing was discarded.");
    session.project.closeProject();
    await session.project.keepRefused();
    await session.project.discardRefused();
    expect(state().notice).toBeNull();
  });
});
