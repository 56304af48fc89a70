import type { CompiledFixture, CompiledFixtures } from "../compiled/compiled-fixture.ts";
import { KEEPS_LIFE, KEEPS_VISIT, LOCK_CIRCUIT, LOCK_COLLECTED } from "../compiled/compiled-fixture.ts";
import type { Fixture, FixtureKindName } from "../world/fixtures.ts";
import { sizeOf } from "../world/fixture-area.ts";
import { FIXTURE_KINDS, KEEPS } from "../world/fixtures.ts";
import type { World } from "../world/world.ts";
import type { FixtureBehaviour, WorldNumbers } from "./fixture-behaviour.ts";
import { checkpoint } from "./kinds/checkpoint.ts";
import { door } from "./kinds/door.ts";
import { hazard } from "./kinds/hazard.ts";
import { item } from "./kinds/item.ts";
import { marker } from "./kinds/marker.ts";
import { portal } from "./kinds/portal.ts";
import { switchKind } from "./kinds/switch.ts";

/** What every kind does in a run. */
const BEHAVIOURS: { readonly [K in FixtureKindName]: FixtureBehaviour<Extract<Fixture, { kind: K }>> } = {
  item,
  door,
  hazard,
  checkpoint,
  switch: switchKind,
  portal,
  marker,
};

/** Makes a world's fixtures ready for the simulation (semantics.md section 8). */
export function compileFixtures(world: World): CompiledFixtures {
  const numbers: WorldNumbers = {
    rooms: new Map(world.rooms.map((room, i) => [room.id, i])),
    items: new Map(world.items.map((each, i) => [each.id, i])),
    circuits: new Map(world.circuits.map((circuit, i) => [circuit, i])),
  };
  const all: CompiledFixture[] = [];
  const at = world.rooms.map((room, number) => {
    if (room.fixtures.length === 0) return null;
    const first = new Int32Array(room.width * room.height).fill(-1);
    const last = new Map<number, CompiledFixture>();
    for (const fixture of room.fixtures) {
      const made = compileFixture(fixture, number, room.width, numbers);
      const before = last.get(made.cell);
      if (before) before.next = all.length;
      else first[made.cell] = all.length;
      last.set(made.cell, made);
      all.push(made);
    }
    return first;
  });
  const those = (which: (fixture: CompiledFixture) => boolean): Int32Array =>
    Int32Array.from(all.flatMap((fixture, i) => (which(fixture) ? [i] : [])));
  const giving = new Int32Array(world.items.length);
  for (const fixture of all) if (fixture.gives) giving[fixture.item]!++;
  const wide = world.rooms.map((_, number) => {
    const found = those(({ room, across, down }) => room === number && across * down > 1);
    return found.length === 0 ? null : found;
  });
  return {
    all,
    at,
    wide,
    following: those(({ lock }) => lock === LOCK_CIRCUIT || lock === LOCK_COLLECTED),
    doors: those(({ blocks }) => blocks),
    doorRooms: [...new Set(all.filter(({ blocks }) => blocks).map(({ room }) => room))],
    visit: world.rooms.map((_, number) => those(({ room, keeps }) => room === number && keeps === KEEPS_VISIT)),
    life: those(({ keeps }) => keeps === KEEPS_LIFE),
    giving,
    hasPortals: all.some(({ leads }) => leads),
    hasBodyTouch: all.some(({ touchBody }) => touchBody),
  };
}

function compileFixture(fixture: Fixture, room: number, width: number, numbers: WorldNumbers): CompiledFixture {
  const [cx, cy] = fixture.cell;
  const [across, down] = sizeOf(fixture);
  const behaviour = BEHAVIOURS[fixture.kind] as FixtureBehaviour<Fixture>;
  const made: CompiledFixture = {
    id: fixture.id,
    kind: FIXTURE_KINDS.indexOf(fixture.kind),
    touch: behaviour.touch,
    reset: behaviour.reset,
    room,
    cx,
    cy,
    across,
    down,
    cell: cy * width + cx,
    touchBody: fixture.touch === "body",
    keeps: KEEPS.indexOf(fixture.keeps),
    gives: false,
    item: -1,
    count: 0,
    blocks: false,
    lock: -1,
    spends: false,
    opensOnUse: false,
    closesBehind: false,
    circuit: -1,
    openWhileOn: true,
    leads: false,
    toRoom: -1,
    toX: 0,
    toY: 0,
    toFacing: -1,
    next: -1,
  };
  // Assigned, not spread: all fixtures stay objects of one shape, which the loop over them is quicker with.
  return Object.assign(made, behaviour.compile(fixture, numbers));
}
