import { allActors } from "../world/queries.ts";
import { opensByItself } from "../world/fixtures/door.ts";
import type { DoorFixture } from "../world/fixtures/door.ts";
import type { Fixture } from "../world/fixtures.ts";
import { kindOfFixture } from "../world/fixtures.ts";
import { sizeOf } from "../world/fixture-area.ts";
import { isSolidFor } from "../world/queries.ts";
import type { EdgeRule, Rules, World } from "../world/world.ts";
import { SIDES } from "../world/world.ts";
import type { Uses } from "./marked-parts.ts";

/** A name that the program's marks may use: whether it holds, and which setting decides it; null where the world does. */
export interface Use {
  readonly holds: boolean;
  readonly setting: string | null;
}

/** All names that the program's marks may use, for a world and one of its rule sets. */
export function usesOf(world: World, rules: Rules): ReadonlyMap<string, Use> {
  const uses = new Map<string, Use>();
  const add = (setting: string | null, those: Readonly<Record<string, boolean>>): void => {
    for (const [name, holds] of Object.entries(those)) uses.set(name, { holds, setting });
  };
  inputUses(rules, add);
  gridUses(rules, add);
  freeUses(rules, add);
  looksUses(rules, add);
  worldUses(world, rules, add);
  return uses;
}

/** The names that hold. */
export function usedNames(uses: ReadonlyMap<string, Use>): Uses {
  return new Set([...uses].flatMap(([name, { holds }]) => (holds ? [name] : [])));
}

type Add = (setting: string | null, those: Readonly<Record<string, boolean>>) => void;

function inputUses({ gait, input, walker }: Rules, add: Add): void {
  const four = input.ways === 4;
  add("gait", { [gait]: true, grid: gait === "hop" || gait === "glide" });
  add("input.ways", { ways4: four });
  add("input.opposites", { [input.opposites]: true });
  add("input.prefer", {
    preferLatest: input.prefer === "latest",
    preferHorizontal: input.prefer === "horizontal",
    preferVertical: input.prefer === "vertical",
    ranked: input.opposites !== "cancel" || (four && input.prefer === "latest"),
  });
  const { body } = walker;
  add("walker.body", {
    box: body.kind === "box",
    probes: body.kind === "probes",
    edges: body.kind === "box" && body.flush === "blocks",
  });
  add("walker.crossesAt", { crossesWhole: walker.crossesAt === "whole" });
}

function gridUses(rules: Rules, add: Add): void {
  const { gait, input, hop, glide } = rules;
  const chooses = gait === "hop" ? hop : glide;
  const isGlide = gait === "glide";
  const lands = isGlide && glide.arrive === "land";
  add(`${gait}.slide`, { slide: chooses.slide });
  add(`${gait}.cutCorners`, { cutCorners: chooses.cutCorners, diagonals: input.ways === 8 });
  add("hop.repeatAfter", { repeat: gait === "hop" && hop.repeatAfter > 0 });
  add("hop.repeatEvery", { repeatsOn: hop.repeatEvery > 0 });
  add("glide.arrive", {
    land: lands,
    equal: isGlide && glide.arrive === "equal",
    past: isGlide && glide.arrive === "past",
  });
  add("glide.carry", { carry: carries(rules) });
  add("glide.bufferFrames", { buffer: isGlide && glide.bufferFrames > 0 });
  add("glide.keepGoing", { keepGoing: isGlide && glide.keepGoing });
  add("glide.reverse", { reverse: lands && glide.reverse });
}

function freeUses(rules: Rules, add: Add): void {
  const isFree = rules.gait === "roam" || rules.gait === "drift";
  const gait = rules.gait === "drift" ? "drift" : "roam";
  const { diagonal, response, axisOrder, nudge } = rules[gait];
  add(`${gait}.diagonal`, { evenDiagonal: diagonal === "even" });
  add(`${gait}.response`, {
    contact: isFree && response === "contact",
    undoAxis: isFree && response === "undo-axis",
    undoBoth: isFree && response === "undo-both",
    snap: isFree && response === "snap",
    ahead: isFree && response === "ahead",
  });
  add(`${gait}.axisOrder`, { xFirst: axisOrder === "x-first" });
  add(`${gait}.nudge`, { nudge: isFree && response === "contact" && nudge > 0 });
}

function looksUses({ facing, pose }: Rules, add: Add): void {
  const byPointer = facing.source === "pointer";
  add("facing.source", { pointer: byPointer });
  add("facing.ways", { facing8: facing.ways === 8 });
  const four = facing.ways === 4;
  add("facing.tie", {
    tieKeep: four && facing.tie === "keep",
    tieHorizontal: four && facing.tie === "horizontal",
    tieVertical: four && facing.tie === "vertical",
  });
  add("facing.idle", { idleReset: facing.idle === "reset" });
  add("pose.advance", {
    poseOff: pose.advance === "off",
    poseDistance: pose.advance === "distance",
    poseFrames: pose.advance === "frames",
  });
}

function worldUses(world: World, rules: Rules, add: Add): void {
  const fixtures = world.rooms.flatMap((room) => room.fixtures);
  const doors = fixtures.filter((fixture) => fixture.kind === "door");
  groundUses(world, rules, add);
  add(null, { actors: allActors(world).length > 0 });
  doorUses(doors, rules, add);
  fixtureUses(world, rules, fixtures, add);
  const { goal } = world;
  add(null, {
    goal: goal !== null,
    goalMarker: goal?.kind === "marker",
    goalCollect: goal?.kind === "collect",
  });
}

function groundUses(world: World, rules: Rules, add: Add): void {
  const shapes = solidShapes(world, rules);
  const polys = shapes.includes("poly");
  const gait = rules.gait === "drift" ? "drift" : "roam";
  add(null, { boxes: shapes.includes("boxes"), polys, wholeCells: asWholeCells(rules, shapes) });
  add(`${gait}.slopes`, { slopes: polys && rules[gait].slopes === "slide" });
  const [links, wrap] = [leads(world, "link"), leads(world, "wrap")];
  add(null, { wrap, links, seams: links || wrap });
}

function doorUses(doors: readonly (DoorFixture & Fixture)[], rules: Rules, add: Add): void {
  const asked = doors.filter((door) => !opensByItself(door));
  const push = asked.some(({ opensOn }) => opensOn === "push");
  add(null, {
    doors: doors.length > 0,
    asked: asked.length > 0,
    push,
    pushes: isGrid(rules) && push,
    use: asked.some(({ opensOn }) => opensOn === "use"),
    lockedItem: asked.some(({ lock }) => lock.kind === "item"),
    spends: asked.some(({ lock }) => lock.kind === "item" && lock.spends),
    behind: asked.some(({ closes }) => closes === "behind"),
    follows: doors.length > asked.length,
    mixed: asked.length > 0 && doors.length > asked.length,
    lockCircuit: doors.some(({ lock }) => lock.kind === "circuit"),
    lockCollected: doors.some(({ lock }) => lock.kind === "collected"),
  });
}

function fixtureUses(world: World, rules: Rules, fixtures: readonly Fixture[], add: Add): void {
  const has = (is: (fixture: Fixture) => boolean): boolean => fixtures.some(is);
  const ofKind = (kind: Fixture["kind"]): boolean => has((fixture) => fixture.kind === kind);
  const doors = fixtures.filter((fixture) => fixture.kind === "door");
  const [portals, hazards, switches] = [ofKind("portal"), ofKind("hazard"), ofKind("switch")];
  const returning = (keeps: Fixture["keeps"]): boolean =>
    has((each) => each.keeps === keeps && kindOfFixture(each.kind).returns(each));
  const changes = leads(world, "link") || ((portals || hazards) && world.rooms.length > 1);
  const { respawnRestores, lives } = world;
  add(null, {
    changes,
    touch: has(({ kind }) => kind !== "door"),
    items: ofKind("item") || doors.some(({ lock }) => lock.kind === "item"),
    hazards,
    checkpoints: ofKind("checkpoint"),
    switches,
    portals,
    markers: ofKind("marker"),
    circuits: switches || doors.some(({ lock }) => lock.kind === "circuit"),
    sizes: has((fixture) => sizeOf(fixture).some((cells) => cells > 1)),
    bodyTouch: has((fixture) => fixture.kind !== "door" && fixture.touch === "body"),
    cellsOf:
      asWholeCells(rules, solidShapes(world, rules)) ||
      doors.some((door) => !opensByItself(door) && door.closes === "behind"),
    cellFixtures: doors.length > 0 || (portals && carries(rules)),
    visit: changes && returning("visit"),
    life: hazards && respawnRestores === "keeps" && returning("life"),
    restores: hazards && respawnRestores !== "keeps",
    restoresCheckpoint: hazards && respawnRestores === "checkpoint",
    lives: hazards && lives !== null,
  });
}

/** Where a walker from cell to cell is blocked by whole cells only, they need not be looked at as shapes. */
function asWholeCells(rules: Rules, shapes: readonly string[]): boolean {
  return isGrid(rules) && !shapes.includes("poly") && !shapes.includes("boxes");
}

const isGrid = ({ gait }: Rules): boolean => gait === "hop" || gait === "glide";

/** Whether a side of some room is so. */
function leads({ rooms }: World, kind: EdgeRule["kind"]): boolean {
  return rooms.some(({ edges }) =>
    SIDES.some((side) => [edges[side]].flat().some((rule: EdgeRule) => rule.kind === kind)),
  );
}

/** The kinds of shapes, but for whole cells, that block this walker somewhere in the world. */
function solidShapes(world: World, rules: Rules): readonly string[] {
  const met = new Set(world.rooms.flatMap((room) => [...new Set(room.cells)]));
  return world.tiles.flatMap((tile, number) =>
    met.has(number) && isSolidFor(rules.walker.blockedBy, tile) ? [tile.shape.kind] : [],
  );
}

/** Whether what is left of a speed goes on into the next leg. */
function carries({ gait, glide }: Rules): boolean {
  return gait === "glide" && glide.arrive === "land" && glide.carry;
}
