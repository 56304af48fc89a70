import type { World } from "@keen-pebble/core/world";
import { addRoom } from "@keen-pebble/core/edit";
import { afterEach, beforeEach, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { hall } from "../../test-support/hall.ts";
import { isOneAct } from "../../test-support/one-act.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere } from "../../test-support/opened.ts";

const { floorplan, project } = session;
let opened: Opened;
beforeEach(async () => {
  const one = hall();
  opened = await openHere(addRoom(addRoom(one, "vault", "Vault", 6, 4), "attic", "Attic", 8, 8), {});
  floorplan.chooseRoomOnPlan(null);
});
afterEach(() => opened.close());

const world = (): World => project.store.getState().project!.world;
const room = (id: string) => world().rooms.find((each) => each.id === id)!;
const chosen = (): string | null => floorplan.store.getState().room;
const first = (): string => world().rooms[0]!.id;
/** Does something that one undo takes back. */
function oneAct(act: () => void): void {
  const before = project.store.getState().project!;
  act();
  isOneAct(before);
}
/** A side's rule at a cell, in words. */
function at(id: string, side: "north" | "east" | "south" | "west", cell: number): string {
  const edge = room(id).edges[side];
  const rule =
    "kind" in edge ? edge : (edge.find(({ from, to }) => cell >= from && cell <= to) ?? { kind: "wall" as const });
  return rule.kind === "link" ? `${rule.room} ${rule.offset}` : rule.kind;
}

it("rooms are chosen one after the other, round and back; the first where none is", () => {
  const ids = world().rooms.map(({ id }) => id);
  const seen = [1, 1, 1, 1].map(() => (floorplan.chooseNextRoom(1), chosen()));
  expect(seen).toEqual([ids[0], ids[1], ids[2], ids[0]]);
  const back = [1, 1].map(() => (floorplan.chooseNextRoom(-1), chosen()));
  expect(back).toEqual([ids[2], ids[1]]);
});

it("the chosen room is moved by cells, another one by a drag that is one act; none is where none is chosen", () => {
  const [before] = [room("vault").plan];
  floorplan.nudgeRoom(1, 1);
  expect(room("vault").plan).toEqual(before);
  floorplan.chooseRoomOnPlan("vault");
  oneAct(() => floorplan.nudgeRoom(2, -3));
  expect(room("vault").plan).toEqual([before[0] + 2, before[1] - 3]);
  oneAct(() => {
    floorplan.dragRoom("attic", 30, 5);
    floorplan.dragRoom("attic", 30, 5);
    floorplan.dragRoom("attic", 31, 7);
    floorplan.endRoomDrag();
  });
  expect(room("attic").plan).toEqual([31, 7]);
  // Each way by itself counts.
  for (const [x, y] of [
    [40, 7],
    [7, 7],
    [7, 9],
  ] as const) {
    oneAct(() => {
      floorplan.dragRoom("attic", x, y);
      floorplan.endRoomDrag();
    });
    expect(room("attic").plan).toEqual([x, y]);
  }
});

it("sides are linked where the two places meet, both ways, one way or an opening alone; walled up and wrapped", () => {
  const drop = (oneWay: boolean, opening: boolean): void =>
    floorplan.dropLink({ room: first(), side: "east", at: 3 }, { room: "vault", at: 1 }, { oneWay, opening });
  oneAct(() => drop(false, false));
  expect([at(first(), "east", 3), at("vault", "west", 1)]).toEqual(["vault -2", `${first()} 2`]);
  floorplan.chooseRoomOnPlan("vault");
  oneAct(() => floorplan.wallChosen("west"));
  expect([at("vault", "west", 1), at(first(), "east", 3)]).toEqual(["wall", "vault -2"]);
  drop(true, false);
  expect([at(first(), "east", 3), at("vault", "west", 1)]).toEqual(["vault -2", "wall"]);
  // The whole side, though there is a wall in it.
  project.changeWorld((now) => ({
    ...now,
    rooms: now.rooms.map((each) =>
      each.id === "vault" ? { ...each, cells: each.cells.map((tile, i) => (i === 2 ? 2 : tile)) } : each,
    ),
  }));
  floorplan.linkChosen("north", "attic");
  expect([0, 5].map((cell) => [at("vault", "north", cell), at("attic", "south", cell)])).toEqual([
    ["attic 0", "vault 0"],
    ["attic 0", "vault 0"],
  ]);
  oneAct(() => floorplan.wrapChosen("x"));
  expect([at("vault", "east", 0), at("vault", "west", 0)]).toEqual(["wrap", "wrap"]);
  floorplan.chooseRoomOnPlan(null);
  const before = world();
  floorplan.wrapChosen("y");
  floorplan.wallChosen("north");
  floorplan.linkChosen("south", "attic");
  expect(world()).toBe(before);
});

it("a dragged link is shown until it is let go, and a room is added and chosen", () => {
  const linking = { room: "vault", side: "north", at: 2, x: 5, y: 6 } as const;
  floorplan.dragLink(linking);
  expect(floorplan.store.getState().linking).toEqual(linking);
  floorplan.dragLink(null);
  expect(floorplan.store.getState().linking).toBeNull();
  oneAct(() => floorplan.addRoomToPlan());
  const added = world().rooms.at(-1)!;
  expect([added.name, added.width, added.height, chosen()]).toEqual(["Room 4", 12, 8, added.id]);
});
