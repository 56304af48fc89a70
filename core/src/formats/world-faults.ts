import { sizeOf } from "../world/fixture-area.ts";
import type { Actor } from "../world/actors.ts";
import type { Fixture } from "../world/fixtures.ts";
import { referencesOf } from "../world/fixture-references.ts";
import { kindOfFixture } from "../world/fixtures.ts";
import { REACH_WORDINGS, parseReachCheck } from "../checks/reach-check.ts";
import { parseCheck } from "../checks/check.ts";
import type { Body, EdgeRule, Look, Pair, Room, Shape, Side, World } from "../world/world.ts";
import { SIDES } from "../world/world.ts";
import type { Fault } from "./fault.ts";

type Path = (string | number)[];

/** Rooms whose cells are not `width x height` numbers of tiles, each with its place. */
export function cellFaults(world: World): Fault[] {
  return world.rooms.flatMap(({ cells, width, height }, i): Fault[] => {
    if (cells.length !== width * height)
      return [
        {
          path: ["rooms", i, "cells"],
          message: `must be a list of ${width * height} tile numbers (width x height), found ${cells.length}`,
        },
      ];
    const at = cells.findIndex((tile) => tile >= world.tiles.length);
    return at < 0
      ? []
      : [
          {
            path: ["rooms", i, "cells", at],
            message: `must be a tile number from 0 to ${world.tiles.length - 1}, found ${cells[at]!}`,
          },
        ];
  });
}

/**
 * What a schema cannot say about a world (formats.md section 1): ids that must exist or stand once, cells inside their
 * room, convex polygons, spans in order. Each with its place.
 */
export function worldFaults(world: World): Fault[] {
  const faults: Fault[] = [];
  const known = knownIds(world);
  const refuse = (path: Path, message: string) => {
    if (faults.length < 100) faults.push({ path, message });
  };
  const mustHave = (path: Path, kind: keyof typeof known, id: string) => {
    if (!known[kind].has(id)) refuse(path, `names ${kind} ${id}, which this world does not have`);
  };

  checkTiles(world, refuse, mustHave);
  world.rules.forEach((rules, i) => {
    rules.walker.blockedBy.forEach((flag, n) => mustHave(["rules", i, "walker", "blockedBy", n], "flag", flag));
    const fault = bodyFault(rules.walker.body, world.tileSize);
    if (fault) refuse(["rules", i, "walker", "body"], fault);
  });
  mustHave(["activeRules"], "rule set", world.activeRules);
  if (world.figure) mustHave(["figure", "sheet"], "sheet", world.figure.sheet);
  checkPlace(world, world.start, ["start"], refuse, mustHave);
  if (world.goal?.kind === "collect") mustHave(["goal", "item"], "item", world.goal.item);
  if (world.goal?.kind === "marker") {
    const id = world.goal.fixture;
    const marker = world.rooms.some((room) => room.fixtures.some((f) => f.id === id && f.kind === "marker"));
    if (!marker) refuse(["goal", "fixture"], `names marker ${id}, which this world does not have`);
  }
  world.laws.forEach((law, i) => {
    const words = law.split(" ").filter((word) => word !== "");
    const result = parseCheck(words);
    if ("fault" in result) refuse(["laws", i], result.fault);
    else if (result.check.when.kind !== "always" && result.check.when.kind !== "never")
      refuse(["laws", i], "must be `always WHAT` or `never WHAT`");
  });
  world.reachChecks.forEach((text, i) => {
    if (parseReachCheck(text) === null) refuse(["reachChecks", i], `must be one of: ${REACH_WORDINGS.join(", ")}`);
  });

  checkRooms(world, refuse, mustHave);
  return faults;
}

type Refuse = (path: Path, message: string) => void;
type MustHave = (path: Path, kind: "flag" | "rule set" | "sheet" | "room" | "item" | "circuit", id: string) => void;

function checkTiles(world: World, refuse: Refuse, mustHave: MustHave): void {
  world.tiles.forEach((tile, i) => {
    if (i === 0 && tile.flags.length > 0) refuse(["tiles", 0, "flags"], "must be empty: tile 0 is the empty tile");
    tile.flags.forEach((flag, n) => mustHave(["tiles", i, "flags", n], "flag", flag));
    checkShape(tile.shape, world.tileSize, ["tiles", i, "shape"], refuse);
    checkLook(tile.look, ["tiles", i, "look"], mustHave);
    if (tile.joins) {
      if (tile.joins.to !== "same") mustHave(["tiles", i, "joins", "to"], "flag", tile.joins.to);
      tile.joins.looks.forEach((look, n) => checkLook(look, ["tiles", i, "joins", "looks", n], mustHave));
    }
  });
}

/** Sides, and fixtures and actors with their ids and cells. */
function checkRooms(world: World, refuse: Refuse, mustHave: MustHave): void {
  const ids = new Set<string>();
  const once = (id: string, path: Path): void => {
    if (ids.has(id)) refuse([...path, "id"], `${id} stands twice; ids of fixtures and actors are unique in the world`);
    ids.add(id);
  };
  let fixtures = 0;
  world.rooms.forEach((room, i) => {
    for (const name of SIDES) checkSide(room, room.edges[name], name, ["rooms", i, "edges", name], refuse, mustHave);
    const alone = new Set<string>();
    room.fixtures.forEach((fixture, n) => {
      const path: Path = ["rooms", i, "fixtures", n];
      if (++fixtures === 4097) refuse(path, "is one too many: a world has at most 4096 fixtures");
      once(fixture.id, path);
      if (!inside(room, fixture.cell)) refuse([...path, "cell"], outsideText(room, fixture.cell));
      else if (!inside(room, lastCellOf(fixture))) refuse([...path, "size"], outsideText(room, lastCellOf(fixture)));
      if (kindOfFixture(fixture.kind).alone) {
        const there = `${fixture.kind} ${fixture.cell.join()}`;
        if (alone.has(there)) refuse([...path, "cell"], `has another ${fixture.kind} already`);
        alone.add(there);
      }
      checkFixture(world, fixture, path, refuse, mustHave);
    });
    room.actors.forEach((actor, n) => {
      const path: Path = ["rooms", i, "actors", n];
      once(actor.id, path);
      checkActor(room, actor, world.tileSize, path, refuse, mustHave);
    });
  });
}

function checkActor(
  room: Room,
  { blockedBy, body, cell, look, plan }: Actor,
  tileSize: number,
  path: Path,
  refuse: Refuse,
  mustHave: MustHave,
): void {
  if (!inside(room, cell)) refuse([...path, "cell"], outsideText(room, cell));
  blockedBy.forEach((flag, n) => mustHave([...path, "blockedBy", n], "flag", flag));
  const fault = bodyFault({ kind: "box", box: body, flush: "free" }, tileSize);
  if (fault) refuse([...path, "body"], fault);
  plan.forEach((phase, n) => {
    if (phase.do !== "path") return;
    phase.cells.forEach((each, i) => {
      if (!inside(room, each)) refuse([...path, "plan", n, "cells", i], outsideText(room, each));
    });
  });
  if (look !== undefined && "sheet" in look) mustHave([...path, "look", "sheet"], "sheet", look.sheet);
}

/** The lower right cell of a fixture. */
function lastCellOf(fixture: Fixture): Pair {
  const [[x, y], [width, height]] = [fixture.cell, sizeOf(fixture)];
  return [x + width - 1, y + height - 1];
}

function knownIds(world: World) {
  return {
    flag: new Set(world.flags),
    "rule set": new Set(world.rules.map((r) => r.id)),
    sheet: new Set(world.sheets.map((s) => s.id)),
    room: new Set(world.rooms.map((r) => r.id)),
    item: new Set(world.items.map((i) => i.id)),
    circuit: new Set(world.circuits),
  };
}

function checkShape(shape: Shape, tileSize: number, path: Path, refuse: Refuse): void {
  if (shape.kind === "boxes") {
    shape.boxes.forEach(([left, top, width, height], i) => {
      if (left < 0 || top < 0 || left + width > tileSize || top + height > tileSize) {
        refuse([...path, "boxes", i], `must lie inside the cell, 0 to ${tileSize} px`);
      }
    });
  }
  if (shape.kind === "poly") {
    shape.points.forEach(([x, y], i) => {
      if (x < 0 || y < 0 || x > tileSize || y > tileSize)
        refuse([...path, "points", i], `must lie inside the cell, 0 to ${tileSize} px`);
    });
    if (!isConvexClockwise(shape.points))
      refuse([...path, "points"], "must be the corners of a strictly convex polygon, clockwise as seen on screen");
  }
}

/** Strictly convex and clockwise on a screen whose y grows downward, and once round only. */
export function isConvexClockwise(points: readonly Pair[]): boolean {
  const n = points.length;
  let area = 0;
  let turns = 0;
  for (let i = 0; i < n; i++) {
    const [ax, ay] = points[i]!;
    const [bx, by] = points[(i + 1) % n]!;
    const [cx, cy] = points[(i + 2) % n]!;
    if ((bx - ax) * (cy - by) - (by - ay) * (cx - bx) <= 0) return false;
    area += ax * by - bx * ay;
    // A closed walk that turns the same way at each corner goes once round exactly when dx changes its sign twice.
    if (Math.sign(bx - ax) !== Math.sign(cx - bx) && cx - bx !== 0 && lastSign(points, i) !== Math.sign(cx - bx))
      turns++;
  }
  return area > 0 && turns <= 2;
}

function lastSign(points: readonly Pair[], at: number): number {
  const n = points.length;
  for (let back = 0; back < n; back++) {
    const a = points[(at - back + n) % n]!;
    const b = points[(at - back + 1 + n) % n]!;
    if (b[0] !== a[0]) return Math.sign(b[0] - a[0]);
  }
  return 0;
}

/** How far a body may reach in a world of that tile size, in px from the frame-square's corner: least and most on each axis. */
export const bodyReach = (tileSize: number): readonly [number, number] => [-tileSize, 2 * tileSize];

/** What is wrong with a body in a world of that tile size, or null: it reaches at most one tile beyond the frame-square. */
export function bodyFault(body: Body, tileSize: number): string | null {
  const [min, max] = bodyReach(tileSize);
  const within = (v: number) => v >= min && v <= max;
  const fits =
    body.kind === "box"
      ? within(body.box[0]) &&
        within(body.box[1]) &&
        within(body.box[0] + body.box[2]) &&
        within(body.box[1] + body.box[3])
      : body.points.every(([x, y]) => within(x) && within(y));
  return fits ? null : `must reach at most one tile size (${tileSize} px) beyond the frame-square`;
}

function checkLook(look: Look, path: Path, mustHave: MustHave): void {
  if ("sheet" in look) mustHave([...path, "sheet"], "sheet", look.sheet);
}

function inside(room: Room, [x, y]: Pair): boolean {
  return x >= 0 && y >= 0 && x < room.width && y < room.height;
}

function outsideText(room: Room, cell: Pair): string {
  return `must lie inside room ${room.id} (${room.width}x${room.height}), found ${cell[0]} ${cell[1]}`;
}

function checkPlace(
  world: World,
  place: { room: string; cell: Pair },
  path: Path,
  refuse: Refuse,
  mustHave: MustHave,
): void {
  mustHave([...path, "room"], "room", place.room);
  const room = world.rooms.find((r) => r.id === place.room);
  if (room && !inside(room, place.cell)) refuse([...path, "cell"], outsideText(room, place.cell));
}

function checkSide(room: Room, side: Side, name: string, path: Path, refuse: Refuse, mustHave: MustHave): void {
  const rule = (edge: EdgeRule, at: Path) => {
    if (edge.kind === "link") mustHave([...at, "room"], "room", edge.room);
  };
  if ("kind" in side) return rule(side, path);
  const length = name === "north" || name === "south" ? room.width : room.height;
  let next = 0;
  side.forEach((span, i) => {
    if (span.from < next) refuse([...path, i, "from"], `must be at least ${next}: spans ascend and do not overlap`);
    if (span.to < span.from) refuse([...path, i, "to"], `must be at least ${span.from}, the span's from`);
    if (span.to >= length) refuse([...path, i, "to"], `must be at most ${length - 1}, the side's last cell`);
    next = span.to + 1;
    rule(span, [...path, i]);
  });
}

function checkFixture(world: World, fixture: Fixture, path: Path, refuse: Refuse, mustHave: MustHave): void {
  for (const named of referencesOf(fixture)) {
    if (named.to === "place") checkPlace(world, named.place, [...path, ...named.path], refuse, mustHave);
    else mustHave([...path, ...named.path], named.to, named.id);
  }
}
