import { expect, it } from "vitest";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import type { Fixture, World } from "../world/world.ts";
import { compile } from "./compile.ts";
import { reEntry } from "./re-entry.ts";
import { run } from "./run.ts";

function house(fixture: Partial<Fixture> & { readonly keeps: Fixture["keeps"] }, oneWay = false): World {
  const base = tinyWorld(["S.#", "...", ".#."], { glide: { speed: 4 } });
  const room = base.rooms[0]!;
  const item = { id: "key-1", kind: "item", cell: [1, 0], give: "key", count: 1, touch: "cell", ...fixture } as Fixture;
  const here = { ...room, edges: { ...room.edges, south: { kind: "link", room: "b", offset: 0 } }, fixtures: [item] } as const;
  const there = { ...room, id: "b", edges: { ...room.edges, north: oneWay ? ({ kind: "wall" } as const) : ({ kind: "link", room: "a", offset: 0 } as const) } } as const;
  return { ...base, items: [{ id: "key", name: "Key", role: "key", colour: "#c89b3c" }], rooms: [here, there] };
}
const tried = (world: World) => {
  const c = compile(world);
  const log = tinyLog("4 R,4 L");
  return reEntry(c, log, run(c, log, { rows: true }).rows!.keys, 8);
};

it("walks out and back by the shortest way, and tells what is another", () => {
  const visit = tried(house({ keeps: "visit" }))!;
  expect([visit.before.taken, visit.after.taken]).toEqual([[1], [0]]);
  const c = compile(house({ keeps: "visit" }));
  const { rows } = run(c, visit.log, { rows: true });
  expect([rows!.count - 1, rows!.room.at(-1), new Set(rows!.room).size]).toEqual([visit.to, 0, 2]);
  const stays = tried(house({ keeps: "run" }))!;
  expect([stays.before.taken, stays.after.taken]).toEqual([[1], [1]]);
});

it("says that there is no way where there is none", () => {
  expect(tried(house({ keeps: "run" }, true))).toBeNull();
});
