import { sizeOf } from "../world/fixture-area.ts";
import type { Fixture, FixtureKindName } from "../world/fixtures.ts";
import { refersTo } from "../world/fixture-references.ts";
import { kindOfFixture } from "../world/fixtures.ts";
import { NOTHING_CHANGES, follow } from "./references.ts";
import { allFixtures, fixtureById, thingIds } from "../world/queries.ts";
import type { Project } from "./project.ts";
import type { Item, Pair, Room, World } from "../world/world.ts";
import type { Followed } from "./references.ts";
import { FreeIds, freeId } from "./tiles.ts";

/** What is placed: a kind, and the item or circuit that it gives, works or asks for; null for the world's first. */
export interface NewFixture {
  readonly kind: FixtureKindName;
  readonly about: string | null;
}

/**
 * The world with new fixtures of a kind, one in each of some cells, at the end of a room's list, with everything at its
 * default and ids that are numbered on: `bead-1`, `bead-2`. An item or a circuit that they need and the world does not
 * have is made.
 */
export function placeFixtures(
  world: World,
  room: string,
  { kind, about }: NewFixture,
  cells: readonly Pair[],
): { readonly world: World; readonly ids: readonly string[] } {
  const { needs, stem, place } = kindOfFixture(kind);
  let made = world;
  if (needs === "item" && made.items.length === 0) made = addItem(made, "key").world;
  if (needs === "circuit" && made.circuits.length === 0) made = addCircuit(made).world;
  const known = needs === "circuit" ? made.circuits : made.items.map((item) => item.id);
  // What it was to be about may have gone meanwhile.
  const of = about !== null && known.includes(about) ? about : (known[0] ?? null);
  const free = new FreeIds(thingIds(made));
  const placed = cells.map((cell): Fixture => {
    const id = free.take(`${stem(of).slice(0, 38)}-1`.replace(/-1-1$/, "-1"));
    return { ...place(of, room, cell), id, cell, touch: "cell", keeps: "run" };
  });
  return { world: inRoom(made, room, (fixtures) => [...fixtures, ...placed]), ids: placed.map(({ id }) => id) };
}

/** Cells of a room in which one more of a kind can stand where nothing stands twice: inside, and none of that kind there. */
export function freeCells(room: Room, kind: FixtureKindName, cells: readonly Pair[]): readonly Pair[] {
  const taken = new Set(room.fixtures.flatMap((each) => (each.kind === kind ? [each.cell.join()] : [])));
  return cells.filter(([x, y]) => x >= 0 && y >= 0 && x < room.width && y < room.height && !taken.has(`${x},${y}`));
}

/** The world with some fixtures changed. */
export function changeFixtures(world: World, ids: readonly string[], how: (fixture: Fixture) => Fixture): World {
  return {
    ...world,
    rooms: world.rooms.map((room) =>
      room.fixtures.some(({ id }) => ids.includes(id))
        ? { ...room, fixtures: room.fixtures.map((fixture) => (ids.includes(fixture.id) ? how(fixture) : fixture)) }
        : room,
    ),
  };
}

/**
 * The world with some fixtures of a room moved by so many cells, or null where one would leave the room or two doors
 * of a kind that stands alone would share a cell.
 */
export function moveFixtures(world: World, ids: readonly string[], dx: number, dy: number): World | null {
  const moved = changeFixtures(world, ids, (fixture) => ({
    ...fixture,
    cell: [fixture.cell[0] + dx, fixture.cell[1] + dy],
  }));
  const fits = moved.rooms.every((room) => {
    const alone = room.fixtures
      .filter(({ kind }) => kindOfFixture(kind).alone)
      .map(({ kind, cell }) => `${kind} ${cell.join()}`);
    return new Set(alone).size === alone.length && room.fixtures.every((fixture) => isInside(room, fixture));
  });
  return fits ? moved : null;
}

/** The world with copies of some fixtures, each a cell further right where there is room, and the copies' ids. */
export function copyFixtures(
  world: World,
  ids: readonly string[],
): { readonly world: World; readonly copies: readonly string[] } {
  const wanted = new Set(ids);
  const free = new FreeIds(thingIds(world));
  const copies: string[] = [];
  const rooms = world.rooms.map((room) => {
    const made = room.fixtures.flatMap((fixture): Fixture[] => {
      if (!wanted.has(fixture.id)) return [];
      const cell = freeCell(room, fixture);
      if (cell === null) return [];
      const id = free.take(fixture.id);
      copies.push(id);
      return [{ ...fixture, id, cell }];
    });
    return made.length === 0 ? room : { ...room, fixtures: [...room.fixtures, ...made] };
  });
  return { world: { ...world, rooms }, copies };
}

/** Whether all cells of a fixture lie in the room. */
function isInside(room: Room, fixture: Fixture): boolean {
  const [[x, y], [across, down]] = [fixture.cell, sizeOf(fixture)];
  return x >= 0 && y >= 0 && x + across <= room.width && y + down <= room.height;
}

function freeCell(room: World["rooms"][number], fixture: Fixture): Pair | null {
  const used = new Set(room.fixtures.map(({ cell }) => String(cell)));
  const [across] = sizeOf(fixture);
  for (let x = fixture.cell[0] + 1; x + across <= room.width; x++)
    if (!used.has(String([x, fixture.cell[1]]))) return [x, fixture.cell[1]];
  return kindOfFixture(fixture.kind).alone ? null : fixture.cell;
}

/** The project without some fixtures; checks, goals and `with` lines that were about them fall away and are told. */
export function removeFixtures(project: Project, ids: readonly string[]): Followed {
  const { world } = project;
  const rooms = world.rooms.map((room) =>
    room.fixtures.some(({ id }) => ids.includes(id))
      ? { ...room, fixtures: room.fixtures.filter(({ id }) => !ids.includes(id)) }
      : room,
  );
  const lostGoal = world.goal?.kind === "marker" && ids.includes(world.goal.fixture);
  const kept = (id: string): string | null => (ids.includes(id) ? null : id);
  const followed = follow(
    { ...project, world: { ...world, rooms, goal: lostGoal ? null : world.goal } },
    { ...NOTHING_CHANGES, fixture: kept },
  );
  return lostGoal ? { ...followed, fellAway: ["the goal", ...followed.fellAway] } : followed;
}

/** A fixture under another id; every reference follows, in logs too. */
export function renameFixture(project: Project, from: string, to: string): Followed {
  const { world } = project;
  const other = (id: string): string => (id === from ? to : id);
  const goal = world.goal?.kind === "marker" ? { ...world.goal, fixture: other(world.goal.fixture) } : world.goal;
  const renamed = { ...changeFixtures(world, [from], (fixture) => ({ ...fixture, id: to })), goal };
  return follow({ ...project, world: renamed }, { ...NOTHING_CHANGES, fixture: other });
}

const COLOURS = ["#c89b3c", "#5fb7a5", "#c4491d", "#3d5a98", "#8a6fb0"];

/** The world with another item. */
export function addItem(world: World, role: Item["role"]): { readonly world: World; readonly id: string } {
  const id = freeId(
    role === "key" ? "key" : "treasure",
    world.items.map((item) => item.id),
  );
  const name = `${id[0]!.toUpperCase()}${id.slice(1).replaceAll("-", " ")}`;
  return {
    world: {
      ...world,
      items: [...world.items, { id, name, role, colour: COLOURS[world.items.length % COLOURS.length]! }],
    },
    id,
  };
}

/** The world with an item called or drawn otherwise; its id stays. */
export function changeItem(world: World, id: string, how: (item: Item) => Item): World {
  return { ...world, items: world.items.map((item) => (item.id === id ? how(item) : item)) };
}

/** Whether something in the world or its logs names an item, and so it cannot be taken away. */
export function isItemUsed(project: Project, id: string): boolean {
  const { world } = project;
  return (
    allFixtures(world).some((fixture) => refersTo(fixture, "item", id)) ||
    (world.goal?.kind === "collect" && world.goal.item === id) ||
    isWordOfChecks(project, id)
  );
}

/** Whether a law, a check about all play or a log has an id among its words. */
function isWordOfChecks({ world, logs }: Project, id: string): boolean {
  const word = new RegExp(` ${id}(?: |$)`, "m");
  return [...world.laws, ...world.reachChecks, ...logs.values()].some((text) => word.test(text));
}

/** The world with another circuit. */
export function addCircuit(world: World): { readonly world: World; readonly id: string } {
  const id = freeId("circuit-1", world.circuits);
  return { world: { ...world, circuits: [...world.circuits, id] }, id };
}

/** Whether something in the world or its logs names a circuit. */
export function isCircuitUsed(project: Project, id: string): boolean {
  return allFixtures(project.world).some((fixture) => refersTo(fixture, "circuit", id)) || isWordOfChecks(project, id);
}

/** Pairs of fixtures that have to do with each other: what opens a door and the door, a portal and where it leads. */
export function threadsOf(world: World, id: string): readonly { readonly from: string; readonly to: string }[] {
  const found = fixtureById(world, id)?.fixture;
  if (found === undefined) return [];
  const all = allFixtures(world);
  const opens = (one: Fixture, door: Fixture): boolean => {
    if (door.kind !== "door") return false;
    if (one.kind === "item") return "item" in door.lock && door.lock.item === one.give;
    return one.kind === "switch" && door.lock.kind === "circuit" && door.lock.circuit === one.circuit;
  };
  return all.flatMap((other) =>
    opens(found, other) ? [{ from: id, to: other.id }] : opens(other, found) ? [{ from: other.id, to: id }] : [],
  );
}

function inRoom(world: World, id: string, how: (fixtures: readonly Fixture[]) => readonly Fixture[]): World {
  return {
    ...world,
    rooms: world.rooms.map((room) => (room.id === id ? { ...room, fixtures: how(room.fixtures) } : room)),
  };
}
