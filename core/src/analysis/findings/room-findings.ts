import { isSolidFor, allFixtures, rulesById } from "../../world/queries.ts";
import { seamsOf } from "../../edits/links.ts";
import type { World } from "../../world/world.ts";
import type { Finding } from "./finding.ts";

/** What cannot work between rooms and fixtures: keys that nobody can have, portals onto what is solid, openings that do not meet. */
export function roomFindings(world: World): Finding[] {
  return [
    ...lockFindings(world),
    ...unaskedItems(world),
    ...hadTwice(world),
    ...portalFindings(world),
    ...seamFindings(world),
  ];
}

function lockFindings(world: World): Finding[] {
  const all = allFixtures(world);
  const given = (item: string): number =>
    all.reduce(
      (sum, fixture) =>
        sum +
        (fixture.kind === "item" && fixture.give === item ? (fixture.keeps === "run" ? fixture.count : Infinity) : 0),
      0,
    );
  const switched = new Set(all.flatMap((fixture) => (fixture.kind === "switch" ? [fixture.circuit] : [])));
  const findings: Finding[] = [];
  world.rooms.forEach((room, i) =>
    room.fixtures.forEach((fixture, n) => {
      if (fixture.kind !== "door") return;
      const { lock } = fixture;
      const say = (message: string): number =>
        findings.push({ place: `rooms[${i}].fixtures[${n}]`, message: `${fixture.id} in ${room.name} ${message}` });
      if (lock.kind === "item" && given(lock.item) < lock.count)
        say(`needs ${lock.count} ${lock.item}, ${given(lock.item) === 0 ? "none" : given(lock.item)} can be had`);
      if (lock.kind === "collected" && given(lock.item) === 0)
        say(`waits for every ${lock.item}, and there is none: it never opens`);
      if (lock.kind === "circuit" && !switched.has(lock.circuit))
        say(`follows ${lock.circuit}, which nothing switches`);
    }),
  );
  return findings;
}

/** Keys that no lock and no goal asks for; a treasure may be there to be had, and no more. */
function unaskedItems(world: World): Finding[] {
  const asked = new Set(
    allFixtures(world).flatMap((fixture) =>
      fixture.kind === "door" && (fixture.lock.kind === "item" || fixture.lock.kind === "collected")
        ? [fixture.lock.item]
        : [],
    ),
  );
  if (world.goal?.kind === "collect") asked.add(world.goal.item);
  const unasked = new Set(world.items.flatMap(({ id, role }) => (role === "key" && !asked.has(id) ? [id] : [])));
  return world.rooms.flatMap((room, i) =>
    room.fixtures.flatMap((fixture, n): Finding[] =>
      fixture.kind === "item" && unasked.has(fixture.give)
        ? [
            {
              place: `rooms[${i}].fixtures[${n}].give`,
              message: `${fixture.id} in ${room.name} gives ${fixture.give}, which no lock and no goal asks for`,
            },
          ]
        : [],
    ),
  );
}

/** Items that a death puts back while the bag keeps what they gave. */
function hadTwice(world: World): Finding[] {
  if (world.respawnRestores !== "keeps" || !allFixtures(world).some(({ kind }) => kind === "hazard")) return [];
  return world.rooms.flatMap((room, i) =>
    room.fixtures.flatMap((fixture, n): Finding[] =>
      fixture.kind === "item" && fixture.keeps === "life"
        ? [
            {
              place: `rooms[${i}].fixtures[${n}].keeps`,
              message: `${fixture.id} in ${room.name} can be had twice: a death puts it back, and the bag keeps ${fixture.give}; let it keep for the run, or let a death give back all as at the checkpoint or the start`,
            },
          ]
        : [],
    ),
  );
}

function portalFindings(world: World): Finding[] {
  const blockedBy = rulesById(world, world.activeRules)?.walker.blockedBy ?? [];
  const findings: Finding[] = [];
  world.rooms.forEach((room, i) =>
    room.fixtures.forEach((fixture, n) => {
      if (fixture.kind !== "portal") return;
      const target = world.rooms.find(({ id }) => id === fixture.to.room);
      const tile = target && world.tiles[target.cells[fixture.to.cell[1] * target.width + fixture.to.cell[0]]!];
      if (tile !== undefined && isSolidFor(blockedBy, tile))
        findings.push({
          place: `rooms[${i}].fixtures[${n}].to`,
          message: `${fixture.id} in ${room.name} leads onto ${tile.name}, which blocks the walker`,
        });
    }),
  );
  return findings;
}

function seamFindings(world: World): Finding[] {
  return seamsOf(world).flatMap(({ room, side, rule, unmet, oneWay }): Finding[] => {
    if (unmet.length === 0 || rule.kind !== "link") return [];
    // A seam that is answered is told once, from the room that stands first.
    if (!oneWay && world.rooms.findIndex(({ id }) => id === rule.room) < world.rooms.findIndex(({ id }) => id === room))
      return [];
    const at = unmet.length === 1 ? `${unmet[0]}` : `${unmet[0]} to ${unmet.at(-1)}`;
    return [
      {
        place: `rooms[${world.rooms.findIndex(({ id }) => id === room)}].edges.${side}`,
        message: `openings of ${room} and ${rule.room} do not meet on the ${side} side at ${at}`,
      },
    ];
  });
}
