import { opensByItself } from "../world/fixtures/door.ts";
import type { Fixture } from "../world/fixtures.ts";
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
  const { rooms, respawnRestores, goal, lives } = world;
  const fixtures = rooms.flatMap((room) => room.fixtures);
  const has = (is: (fixture: Fixture) => boolean): boolean => fixtures.some(is);
  const ofKind = (kind: Fixture["kind"]): boolean => has((fixture) => fixture.kind === kind);
  const doors = fixtures.filter((fixture) => fixture.kind === "door");
  const asked = doors.filter((door) => !opensByItself(door));
  const rulesOfSides = rooms.flatMap(({ edges }) => SIDES.flatMap((side): readonly EdgeRule[] => [edges[side]].flat()));
  const links = rulesOfSides.some(({ kind }) => kind === "link");
  const wrap = rulesOfSides.some(({ kind }) => kind === "wrap");
  const [portals, hazards, switches] = [ofKind("portal"), ofKind("hazard"), ofKind("switch")];
  const returning = (keeps: Fixture["keeps"]): boolean =>
    has(
      (each) =>
        each.keeps === keeps && (each.kind === "item" || each.kind === "switch" || asked.includes(each as never)),
    );
  const changes = links || ((portals || hazards) && rooms.length > 1);
  const behind = asked.some(({ closes }) => closes === "behind");
  const lockCircuit = doors.some(({ lock }) => lock.kind === "circuit");
  const bodyTouch = has((fixture) => fixture.kind !== "door" && fixture.touch === "body");
  const shapes = solidShapes(world, rules);
  const { slopes } = rules[rules.gait === "drift" ? "drift" : "roam"];
  const polys = shapes.includes("poly");
  const grid = rules.gait === "hop" || rules.gait === "glide";
  // Where a walker from cell to cell is blocked by whole cells only, they need not be looked at as shapes.
  const wholeCells = grid && !polys && !shapes.includes("boxes");
  add(null, { boxes: shapes.includes("boxes"), polys });
  add("roam.slopes", { slopes: polys && slopes === "slide" });
  add("drift.slopes", { slopes: polys && slopes === "slide" });
  add(null, {
    wrap,
    links,
    seams: links || wrap,
    changes,
    touch: has(({ kind }) => kind !== "door"),
    items: ofKind("item") || doors.some(({ lock }) => lock.kind === "item"),
    doors: doors.length > 0,
    hazards,
    checkpoints: ofKind("checkpoint"),
    switches,
    portals,
    markers: ofKind("marker"),
    circuits: switches || lockCircuit,
    sizes: has((fixture) => sizeOf(fixture).some((cells) => cells > 1)),
    bodyTouch,
    wholeCells,
    cellsOf: wholeCells || behind,
    cellFixtures: doors.length > 0 || (portals && carries(rules)),
    pushes: grid && asked.some(({ opensOn }) => opensOn === "push"),
    asked: asked.length > 0,
    push: asked.some(({ opensOn }) => opensOn === "push"),
    use: asked.some(({ opensOn }) => opensOn === "use"),
    lockedItem: asked.some(({ lock }) => lock.kind === "item"),
    spends: asked.some(({ lock }) => lock.kind === "item" && lock.spends),
    behind,
    follows: doors.length > asked.length,
    mixed: asked.length > 0 && doors.length > asked.length,
    lockCircuit,
    lockCollected: doors.some(({ lock }) => lock.kind === "collected"),
    visit: changes && returning("visit"),
    life: hazards && respawnRestores === "keeps" && returning("life"),
    restores: hazards && respawnRestores !== "keeps",
    restoresCheckpoint: hazards && respawnRestores === "checkpoint",
    lives: hazards && lives !== null,
    goal: goal !== null,
    goalMarker: goal?.kind === "marker",
    goalCollect: goal?.kind === "collect",
  });
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
