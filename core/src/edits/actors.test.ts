import { expect, it } from "vitest";
import { readLog } from "../logs/read-log.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import type { Actor } from "../world/actors.ts";
import type { Look, World } from "../world/world.ts";
import { actorsChanged } from "./actor-words.ts";
import { changeActor, placeActor, removeActor, renameActor } from "./actors.ts";
import { copiedActors, flippedActors, layActors, turnedActors } from "./copied-actors.ts";
import { copiedFixtures, layFixtures } from "./copied-fixtures.ts";
import { differences } from "./differences.ts";
import type { Project } from "./project.ts";
import { copyRoom, removeRoom, resizeRoom } from "./rooms.ts";
import { addRoom } from "./rooms.ts";
import { summary } from "./summary.ts";

const LOG = `keen-pebble-inputs 1
with actor actor-1 2 1 left
check never meets actor-1
check ever event meet actor-1
---
5 R until meets actor-1
`;

function project(): Project {
  const { world } = placeActor(tinyWorld(["S    ", "     "]), "a", [1, 1]);
  const walking = changeActor(world, "actor-1", (actor) => ({
    ...actor,
    plan: [
      {
        frames: 60,
        do: "path",
        then: "round",
        cells: [
          [1, 1],
          [4, 0],
        ],
      },
    ],
  }));
  return { world: walking, logs: new Map([["log", LOG]]) };
}
const actors = ({ rooms }: World): string[] =>
  rooms.flatMap((room) =>
    room.actors.map(({ cell, id, plan }) =>
      [room.id, id, cell.join(), ...plan.map((phase) => (phase.do === "path" ? phase.cells.join(" ") : phase.do))].join(
        " ",
      ),
    ),
  );

it("a new actor has an id that no fixture and no actor has", () => {
  const { world } = project();
  expect(placeActor(world, "a", [0, 0]).id).toBe("actor-2");
});

it("a renamed actor is called so in logs too; one that is deleted goes with what was about it", () => {
  const renamed = renameActor(project(), "actor-1", "crab").project;
  expect(actors(renamed.world)).toEqual(["a crab 1,1 1,1 4,0"]);
  expect(renamed.logs.get("log")).toBe(LOG.replaceAll("actor-1", "crab"));
  const { fellAway, project: without } = removeActor(project(), "actor-1");
  expect(actors(without.world)).toEqual([]);
  expect(fellAway).toEqual([
    "log: check never meets actor-1",
    "log: check ever event meet actor-1",
    "log: the end of an until line",
    "log: with actor",
  ]);
  expect(readLog(without.logs.get("log")!).with).toEqual([]);
});

it("a room that grows or is cut takes its actors, their paths and where logs put them along, and tells what was cut off", () => {
  const grown = resizeRoom(project(), "a", { north: 0, east: 0, south: 0, west: 2 })!;
  expect(actors(grown.project.world)).toEqual(["a actor-1 3,1 3,1 6,0"]);
  expect(grown.project.logs.get("log")).toContain("with actor actor-1 4 1 left");
  const cut = resizeRoom(project(), "a", { north: 0, east: -2, south: 0, west: 0 })!;
  expect(actors(cut.project.world)).toEqual(["a actor-1 1,1 1,1"]);
  expect(cut.fellAway).toEqual(["cells of the path of actor-1 that were cut off"]);
  const gone = resizeRoom(project(), "a", { north: 0, east: 0, south: -1, west: 0 })!;
  expect(actors(gone.project.world)).toEqual([]);
  expect(gone.fellAway[0]).toBe("actor-1, which stood in what was cut off");
});

it("a copied room has actors of its own ids; with a room its actors go, and what logs say of them", () => {
  const { logs, world } = project();
  expect(actors(copyRoom(world, "a"))).toEqual(["a actor-1 1,1 1,1 4,0", "a-2 actor-2 1,1 1,1 4,0"]);
  const two = addRoom(world, "b", "B", 3, 3);
  const { fellAway, project: left } = removeRoom({ world: two, logs }, "a");
  expect(actors(left.world)).toEqual([]);
  expect(fellAway).toContain("log: check never meets actor-1");
});

it("the Journal says which actors came and went, and what changed of one in numbers", () => {
  const before = project();
  const placed = placeActor(before.world, "a", [0, 0]).world;
  const after = { ...before, world: changeActor(placed, "actor-1", (actor) => ({ ...actor, speed: 3 })) };
  expect(summary(before.world, differences(before, after))).toBe("A: actor-1: speed 1 to 3; actor-2 added");
  expect(summary(after.world, differences(after, before))).toBe("A: actor-1: speed 3 to 1; actor-2 deleted");
  const [actor] = before.world.rooms[0]!.actors;
  const path = { frames: null, do: "path", then: "round", cells: [[0, 0]] } as const;
  const other: Actor = {
    id: "actor-1",
    name: "Crab",
    cell: [2, 2],
    facing: "left",
    speed: 0.5,
    blockedBy: [],
    doors: "all",
    turnsBack: "last",
    touch: "hurt",
    body: [1, 2, 3, 4],
    keeps: "visit",
    plan: [{ frames: 30, do: "wander" }, path],
    look: { sheet: "s", rect: [0, 0, 1, 1] } as unknown as Look,
  };
  expect(actorsChanged([actor!], [other])).toEqual([
    "actor-1: named actor-1 to Crab, cell 1,1 to 2,2, facing down to left, speed 1 to 0.5, " +
      "stopped by solid to nothing, doors shut to it open to all, turns back freely to last, touch none to hurt, " +
      "body 0 0 16 16 to 1 2 3 4, keeps run to visit, phase 1 walks a path to wanders, phase 1 frames 60 to 30, " +
      "phase 2 added, walks a path, picture",
  ]);
  const turned = { ...other, plan: [other.plan[0]!, { ...path, then: "back", cells: [[1, 0]] } as const] };
  expect(actorsChanged([other], [turned])).toEqual(["Crab: phase 2 then round to back, cells of the path of phase 2"]);
  expect(actorsChanged([other], [{ ...other, plan: [other.plan[0]!] }])).toEqual(["Crab: phase 2 deleted"]);
});

it("what is copied out of a room and laid anew does not take an id that an actor has", () => {
  const { world } = project();
  const mark = { id: "actor-2", kind: "marker", name: "M", cell: [0, 0], touch: "cell", keeps: "run" } as const;
  const marked: World = { ...world, rooms: [{ ...world.rooms[0]!, fixtures: [mark] }] };
  const piece = copiedFixtures(marked.rooms[0]!, { x: 0, y: 0, width: 1, height: 1 });
  expect(layFixtures(marked, "a", piece, [2, 0]).ids).toEqual(["actor-3"]);
});

it("a copied rectangle takes the actors that begin in it along, flipped and turned too; cut ones move under their ids", () => {
  const { world } = project();
  const piece = copiedActors(world.rooms[0]!, { x: 1, y: 0, width: 3, height: 2 });
  // Only those: one cell more or less on each side and it is another one.
  const takes = (x: number, y: number, width: number, height: number): number =>
    copiedActors(world.rooms[0]!, { x, y, width, height }).length;
  expect([takes(1, 1, 1, 1), takes(0, 1, 1, 1), takes(2, 1, 1, 1), takes(1, 0, 1, 1), takes(1, 2, 1, 1)]).toEqual([
    1, 0, 0, 0, 0,
  ]);
  const laid = (made: readonly Actor[], at: [number, number], moved: string[] = []): string[] =>
    actors(layActors(world, "a", made, at, new Set(moved)));
  expect(laid(piece, [2, 0])).toEqual(["a actor-1 1,1 1,1 4,0", "a actor-2 2,1 2,1"]);
  expect(laid(piece, [0, 0], ["actor-1"])).toEqual(["a actor-1 0,1 0,1 3,0"]);
  // Where it would begin outside it stays.
  expect(laid(piece, [0, 1], ["actor-1"])).toEqual(["a actor-1 1,1 1,1 4,0"]);
  const here = (made: readonly Actor[]): string[] =>
    made.map(
      ({ cell, facing, plan }) =>
        `${cell.join()} ${facing} ${plan.map((phase) => (phase.do === "path" ? phase.cells.join(" ") : phase.do)).join()}`,
    );
  expect(here(piece)).toEqual(["0,1 down 0,1 3,0"]);
  expect(here(flippedActors(piece, [3, 2], "x"))).toEqual(["2,1 down 2,1 -1,0"]);
  expect(here(flippedActors(piece, [3, 2], "y"))).toEqual(["0,0 up 0,0 3,1"]);
  expect(here(turnedActors(piece, 2))).toEqual(["0,0 left 0,0 1,3"]);
});

it("no more actors are laid than a room may have", () => {
  const { world } = project();
  const [room] = world.rooms;
  const crowd = Array.from({ length: 63 }, (_, i): Actor => ({ ...room!.actors[0]!, id: `crab-${i}` }));
  const counts = [62, 63, 64].map((before) => {
    const full = {
      ...room!,
      actors: [...crowd, ...crowd.map((each) => ({ ...each, id: `${each.id}-b` }))].slice(0, before),
    };
    return layActors({ ...world, rooms: [full] }, "a", crowd.slice(0, 2), [0, 0]).rooms[0]!.actors.length;
  });
  expect(counts).toEqual([64, 64, 64]);
});
