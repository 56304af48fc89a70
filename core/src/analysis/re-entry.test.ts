import type { Fixture } from "../world/fixtures.ts";
import { expect, it } from "vitest";
import { checkText } from "../checks/check.ts";
import { USE } from "../world/keys.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import type { World } from "../world/world.ts";
import { compile } from "../simulation/compile.ts";
import { reEntry } from "./re-entry.ts";
import { run } from "../replay/run.ts";

function house(fixture: Partial<Fixture> & { readonly keeps: Fixture["keeps"] }, oneWay = false): World {
  const base = tinyWorld(["S.#", "...", ".#."], { glide: { speed: 4 } });
  const room = base.rooms[0]!;
  const item = { id: "key-1", kind: "item", cell: [1, 0], give: "key", count: 1, touch: "cell", ...fixture } as Fixture;
  const here = {
    ...room,
    edges: { ...room.edges, south: { kind: "link", room: "b", offset: 0 } },
    fixtures: [item],
  } as const;
  const there = {
    ...room,
    id: "b",
    edges: {
      ...room.edges,
      north: oneWay ? ({ kind: "wall" } as const) : ({ kind: "link", room: "a", offset: 0 } as const),
    },
  } as const;
  return { ...base, items: [{ id: "key", name: "Key", role: "key", colour: "#c89b3c" }], rooms: [here, there] };
}
const tried = (world: World) => {
  const c = compile(world);
  const log = tinyLog("4 R,4 L");
  return reEntry(c, log, run(c, log).lineEnds, 8);
};
const found = (world: World) => tried(world).found!;

it("walks out and back by the shortest way, and tells what is another", () => {
  const visit = found(house({ keeps: "visit" }));
  expect([visit.before.taken, visit.after.taken]).toEqual([[1], [0]]);
  const c = compile(house({ keeps: "visit" }));
  const { rows } = run(c, visit.log, { rows: true });
  expect([rows!.count - 1, rows!.room.at(-1), new Set(rows!.room).size]).toEqual([visit.to, 0, 2]);
  const stays = found(house({ keeps: "run" }));
  expect([stays.before.taken, stays.after.taken]).toEqual([[1], [1]]);
});

it("keeps the checks that the walk proves: where it was, that it is back, what stays taken and open", () => {
  const { log } = found(house({ keeps: "run" }));
  expect(log.checks.map(checkText)).toEqual([
    expect.stringMatching(/^at \d+ room b$/),
    "end room a",
    "end taken key-1",
  ]);
  expect(
    run(compile(house({ keeps: "run" })), log, { checks: true }).verdicts.every(({ verdict }) => verdict === "pass"),
  ).toBe(true);
  // What comes back is not there to be checked.
  expect(found(house({ keeps: "visit" })).log.checks.map(checkText)).toHaveLength(2);
});

it("waits until what was pressed early is used up, and comes out another way where the nearest one leads nowhere", () => {
  const early = house({ keeps: "run" });
  const buffering = {
    ...early,
    rules: early.rules.map((each) => ({ ...each, glide: { ...each.glide, bufferFrames: 9 } })),
  };
  const c = compile(buffering);
  // On its way to the right down is pressed, and not held any more where the leg ends.
  const log = tinyLog("2 R,1 D,1 .");
  const { found: walk } = reEntry(c, log, run(c, log).lineEnds, 4);
  const { rows } = run(c, walk!.log, { rows: true });
  expect([rows!.count - 1, rows!.room.at(-1)]).toEqual([walk!.to, 0]);
  // Straight down there is a pit; the way round leads back.
  const [a, b] = early.rooms as [World["rooms"][number], World["rooms"][number]];
  const west = { kind: "link", room: "pit", offset: 0 } as const;
  const pit = { ...b, id: "pit", edges: { ...b.edges, north: { kind: "wall" } as const } };
  const trapped = { ...early, rooms: [{ ...a, edges: { ...a.edges, west } }, b, pit] };
  const out = found(trapped);
  expect(run(compile(trapped), out.log, { rows: true }).rows!.room.at(-1)).toBe(0);
});

it("presses use where a door on the way wants it", () => {
  const shut = (opensOn: "use" | "push"): World => {
    const world = house({ keeps: "run" });
    const door = {
      id: "door-1",
      kind: "door",
      cell: [1, 1],
      lock: { kind: "none" },
      opensOn,
      closes: "never",
      touch: "cell",
      keeps: "run",
    } as const;
    // A wall with the door in its middle between the walker and the way out.
    const [a, b] = world.rooms as [World["rooms"][number], World["rooms"][number]];
    const cells = a.cells.map((tile, i) => (i === 3 || i === 5 ? 1 : i === 7 ? 0 : tile));
    return {
      ...world,
      rooms: [
        { ...a, cells, fixtures: [...a.fixtures, door] },
        { ...b, cells: b.cells.map((tile, i) => (i === 1 || i === 7 ? 0 : tile)) },
      ],
    };
  };
  for (const opensOn of ["use", "push"] as const) {
    const { log, to } = found(shut(opensOn));
    expect(log.lines.some((line) => line.kind === "keys" && (line.keys & USE) !== 0)).toBe(opensOn === "use");
    const { rows } = run(compile(shut(opensOn)), log, { rows: true });
    expect([rows!.count - 1, rows!.room.at(-1)]).toEqual([to, 0]);
    expect(log.checks.map(checkText)).toContain("end open door-1");
  }
});

it("says that there is no way only where all play was looked at", () => {
  const closed = tinyWorld(["S.#", "..."], { glide: { speed: 4 } });
  expect(tried(closed)).toMatchObject({ found: null, exhaustive: true });
  const roaming = { ...closed, rules: closed.rules.map((each) => ({ ...each, gait: "roam" as const })) };
  expect(tried(roaming)).toMatchObject({ found: null, exhaustive: false });
  // It came out, and did not come back from there: it may have been the wrong way out.
  const { found: none, exhaustive, states } = tried(house({ keeps: "run" }, true));
  expect([none, exhaustive]).toEqual([null, false]);
  expect(states).toBeGreaterThan(2);
});
