import { IDBFactory } from "fake-indexeddb";
import type { EditStep } from "@keen-pebble/core/edit";
import { beforeEach, describe, expect, it } from "vitest";
import { FakeLocks } from "../../test-support/fake-locks.ts";
import type { OutboxEntry, OwnStep } from "./outbox.ts";
import { Outbox, openOutbox } from "./outbox.ts";

const speed = (before: number, after: number): EditStep => ({
  kind: "change-rules",
  rules: "main",
  setting: "glide.speed",
  before,
  after,
});
const own = (...steps: EditStep[]): OwnStep[] => steps.map((step) => ({ step, refused: null }));
const entry = (waiting: readonly OwnStep[], more: Partial<OutboxEntry> = {}): OutboxEntry => ({
  world: "cellar",
  base: 3,
  sent: null,
  waiting,
  left: [],
  ...more,
});

let locks: FakeLocks;
beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
  locks = new FakeLocks();
});
const tab = (name: string): Outbox => new Outbox(openOutbox, locks.of(name), name);

describe("what closed tabs left", () => {
  it("is taken over whole, what was sent and what waited, and is nobody else's then", async () => {
    const first = tab("first");
    await first.claim("cellar");
    const sent = { batch: "b", base: 3, steps: [speed(1, 2)], note: "why" };
    expect(await first.write(entry(own(speed(2, 3)), { sent }))).toBe(true);
    locks.close("first");
    const second = tab("second");
    await second.claim("cellar");
    expect(await second.takeOver("cellar")).toEqual([{ base: 3, sent, waiting: own(speed(2, 3)) }]);
    // It stays with the one that took it over, until that one writes something else.
    const third = tab("third");
    await third.claim("cellar");
    expect(await third.takeOver("cellar")).toEqual([]);
    locks.close("second");
    expect(await third.takeOver("cellar")).toEqual([{ base: 3, sent, waiting: own(speed(2, 3)) }]);
  });

  it("goes to one of two tabs that open at the same time", async () => {
    const closed = tab("closed");
    await closed.claim("cellar");
    await closed.write(entry(own(speed(1, 2))));
    locks.close("closed");
    const two = [tab("one"), tab("other")];
    await Promise.all(two.map((each) => each.claim("cellar")));
    const taken = await Promise.all(two.map((each) => each.takeOver("cellar")));
    expect(taken.map((edits) => edits.length).sort()).toEqual([0, 1]);
  });

  it("is left alone while its tab lives, and taken over by the same tab that comes back", async () => {
    const first = tab("first");
    await first.claim("cellar");
    await first.write(entry(own(speed(1, 2))));
    const second = tab("second");
    await second.claim("cellar");
    expect(await second.takeOver("cellar")).toEqual([]);
    first.release("cellar");
    await first.claim("cellar");
    expect(await first.takeOver("cellar")).toEqual([{ base: 3, sent: null, waiting: own(speed(1, 2)) }]);
  });

  it("of which there is nothing is nothing, and no sign that the browser keeps none", async () => {
    const first = tab("first");
    const said: boolean[] = [];
    first.onKeeps((keeps) => said.push(keeps));
    await first.claim("cellar");
    expect([await first.takeOver("cellar"), first.keeps, said]).toEqual([[], true, []]);
  });

  it("is in a database of the third version, which pages as they are now can open beside each other", async () => {
    const db = await openOutbox();
    expect([db.version, [...db.objectStoreNames]]).toEqual([3, ["drafts", "entries", "histories", "walks"]]);
    db.close();
  });

  it("as an older version wrote it is read too", async () => {
    const db = await openOutbox();
    await db.put(
      "entries",
      {
        world: "cellar",
        sent: { batch: "b", base: 7, steps: [speed(1, 2)] },
        waiting: [speed(2, 3)],
      } as unknown as OutboxEntry,
      "cellar/old",
    );
    db.close();
    const now = tab("now");
    await now.claim("cellar");
    expect(await now.takeOver("cellar")).toEqual([
      { base: 7, sent: { batch: "b", base: 7, steps: [speed(1, 2)] }, waiting: own(speed(2, 3)) },
    ]);
    expect(await now.unsaved()).toEqual(new Map([["cellar", 2]]));
  });
});

it("what a bucket painted comes back as it was, from the entry and from what could be undone", async () => {
  const cells = Array.from({ length: 5000 }, (_, i) => 2 * i);
  const bucket: EditStep = {
    kind: "set-cells",
    room: "room-1",
    cells,
    before: cells.map(() => 0),
    after: cells.map((_, i) => i % 7),
  };
  const old = tab("old");
  await old.claim("cellar");
  await old.write({
    world: "cellar",
    base: 3,
    sent: { batch: "b", base: 3, steps: [bucket] },
    waiting: own(bucket),
    left: [{ base: 2, sent: null, waiting: own(bucket) }],
  });
  await old.keepHistory("cellar", { revision: 3, history: { done: [[bucket]], undone: [[bucket]], open: null } });
  old.release("cellar");
  const now = tab("now");
  await now.claim("cellar");
  const left = await now.takeOver("cellar");
  expect(left).toEqual([
    { base: 2, sent: null, waiting: own(bucket) },
    { base: 3, sent: { batch: "b", base: 3, steps: [bucket] }, waiting: own(bucket) },
  ]);
  // As it is sent: JSON knows no typed arrays.
  expect(JSON.parse(JSON.stringify(left))).toEqual(left);
  expect(await now.keptHistory("cellar", 3)).toEqual({ done: [[bucket]], undone: [[bucket]], open: null });
});

it("a browser that refuses to keep anything says so, and everything goes on", async () => {
  const refusing = new Outbox(() => Promise.reject(new DOMException("refused", "SecurityError")), locks.of("a"), "a");
  const said: boolean[] = [];
  refusing.onKeeps((keeps) => said.push(keeps));
  await refusing.claim("cellar");
  expect(await refusing.takeOver("cellar")).toEqual([]);
  expect(await refusing.write(entry(own(speed(1, 2))))).toBe(false);
  expect([
    refusing.keeps,
    await refusing.keptHistory("cellar", 1),
    await refusing.keptDraft("cellar", "room/a"),
    (await refusing.unsaved()).size,
  ]).toEqual([false, null, null, 0]);
  expect(said).toEqual([false]);
});

it("a write that fails is not called kept; one that works again is", async () => {
  const db = await openOutbox();
  const outbox = new Outbox(() => Promise.resolve(db), null, "a");
  expect(await outbox.write(entry(own(speed(1, 2))))).toBe(true);
  // What cannot be cloned cannot be written: as a full disk refuses it.
  expect(await outbox.write(entry([{ step: (() => undefined) as unknown as EditStep, refused: null }]))).toBe(false);
  expect(outbox.keeps).toBe(false);
  expect(await outbox.write(entry(own(speed(1, 3))))).toBe(true);
  expect(outbox.keeps).toBe(true);
});

it("walks and texts in work are kept by world and place until they are done with", async () => {
  const outbox = tab("a");
  await outbox.keepWalk("cellar", { log: "keen-pebble-inputs 1\n---\n4 R\n", onto: null, discarded: true });
  await outbox.keepDraft("cellar", "room/constructor", "##");
  expect(await outbox.keptWalk("cellar")).toMatchObject({ discarded: true });
  expect(await outbox.keptWalk("attic")).toBeNull();
  expect(await outbox.keptDraft("cellar", "room/constructor")).toBe("##");
  expect(await outbox.keptDraft("cellar", "room/a")).toBeNull();
  await outbox.keepWalk("cellar", null);
  await outbox.keepDraft("cellar", "room/constructor", null);
  expect([await outbox.keptWalk("cellar"), await outbox.keptDraft("cellar", "room/constructor")]).toEqual([null, null]);
});
