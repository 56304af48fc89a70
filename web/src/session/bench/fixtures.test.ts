import type { Fixture, World } from "@keen-pebble/core/world";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere } from "../../test-support/opened.ts";

const { fixtures, benchStore } = session;
const project = () => session.project.store.getState().project!;
const world = (): World => project().world;
const notice = (): string => session.project.store.getState().notice?.text ?? "";
const named = (id: string): Fixture | undefined => world().rooms[0]!.fixtures.find((each) => each.id === id);
const ids = (): string[] => world().rooms[0]!.fixtures.map(({ id }) => id);
const chosen = () => benchStore.getState().fixtures;

const common = { touch: "cell", keeps: "run" } as const;
const door = (id: string, x: number): Fixture =>
  ({
    ...common,
    id,
    kind: "door",
    cell: [x, 4],
    lock: { kind: "none" },
    opensOn: "push",
    closesBehind: false,
  }) as unknown as Fixture;
const marker: Fixture = { ...common, id: "end", kind: "marker", name: "End", cell: [9, 9] };
const LOG = "keen-pebble-inputs 1\ncheck end open gate\n---\n9 .\n";

let opened: Opened;
beforeEach(async () => {
  const bare = hall();
  const [room] = bare.rooms;
  opened = await openHere(
    { ...bare, rooms: [{ ...room!, fixtures: [door("gate", 4), door("hatch", 6), marker] }] },
    { log: LOG },
  );
});
afterEach(() => {
  fixtures.chooseFixtures([]);
  opened.close();
});

describe("chosen fixtures", () => {
  it("are changed together, in one act; one is kept for longer by itself", () => {
    fixtures.chooseFixtures(["gate", "hatch"]);
    const before = project();
    fixtures.changeChosen((fixture) => ({ ...fixture, keeps: "life" }));
    expect([named("gate")!.keeps, named("hatch")!.keeps, named("end")!.keeps]).toEqual(["life", "life", "run"]);
    isOneAct(before);
    fixtures.keepFor("gate", "visit");
    expect([named("gate")!.keeps, named("hatch")!.keeps]).toEqual(["visit", "life"]);
  });

  it("are given locks; what a lock asks for is made where the world has none, in the same act", () => {
    fixtures.chooseFixtures(["gate", "hatch", "end"]);
    for (const [kind, made] of [
      ["item", () => world().items.length],
      ["circuit", () => world().circuits.length],
    ] as const) {
      const before = project();
      expect(made()).toBe(0);
      fixtures.chooseLock(kind);
      expect([made(), named("gate"), named("hatch")]).toMatchObject([1, { lock: { kind } }, { lock: { kind } }]);
      expect(named("end")).not.toHaveProperty("lock");
      isOneAct(before);
    }
    fixtures.chooseLock("item");
    expect(world().items).toHaveLength(1);
    fixtures.chooseLock("none");
    expect(named("gate")).toMatchObject({ lock: { kind: "none" } });
  });

  it("are copied, and the copies chosen; taken away, none is", () => {
    fixtures.chooseFixtures(["hatch", "end"]);
    const before = project();
    fixtures.copyChosenFixtures();
    expect(chosen()).toHaveLength(2);
    expect(chosen().map((id) => named(id)?.kind)).toEqual(["door", "marker"]);
    expect(chosen()).not.toContain("hatch");
    isOneAct(before);
    fixtures.chooseFixtures(["hatch-2", "end-2"]);
    fixtures.removeChosenFixtures();
    expect([chosen(), ids()]).toEqual([[], ["gate", "hatch", "end"]]);
    fixtures.copyChosenFixtures();
    expect([chosen(), ids()]).toEqual([[], ["gate", "hatch", "end"]]);
  });

  it("get another id, in checks too; none that is taken, or no id", () => {
    const before = project();
    fixtures.renameChosen("gate", "hatch");
    expect(notice()).toBe("There is a fixture hatch already; gate keeps its id.");
    fixtures.renameChosen("gate", "The gate");
    expect(notice()).toBe(`A fixture's id has 1 to 40 small letters, digits and hyphens; "The gate" was not taken.`);
    fixtures.renameChosen("gate", "gate");
    expect(project()).toBe(before);
    fixtures.renameChosen("gate", "sluice");
    expect([named("gate"), named("sluice")?.kind, chosen()]).toEqual([undefined, "door", ["sluice"]]);
    expect(project().logs.get("log")).toContain("check end open sluice");
    isOneAct(before);
  });
});

it("items and circuits are made, changed, and deleted where nothing names them", () => {
  fixtures.makeItem("treasure");
  const [item] = world().items;
  expect(item!.role).toBe("treasure");
  fixtures.setItem(item!.id, { name: "Salt", colour: "#112233" });
  expect(world().items[0]).toEqual({ ...item, name: "Salt", colour: "#112233" });
  fixtures.makeCircuit();
  const [circuit] = world().circuits;
  fixtures.chooseFixtures(["gate"]);
  fixtures.changeChosen(
    (fixture) => ({ ...fixture, lock: { kind: "item", item: item!.id, count: 1, spends: true } }) as Fixture,
  );
  fixtures.removeItem(item!.id);
  expect([notice(), world().items.length]).toEqual([
    `${item!.id} is given, asked for or named in a check or a log: it stays.`,
    1,
  ]);
  fixtures.chooseLock("circuit");
  fixtures.removeCircuit(circuit!);
  expect([notice(), world().circuits]).toEqual([`${circuit!} is used: it stays.`, [circuit]]);
  fixtures.chooseLock("none");
  fixtures.removeItem(item!.id);
  fixtures.removeCircuit(circuit!);
  expect([world().items, world().circuits]).toEqual([[], []]);
});
