import { bodyFault } from "../formats/world-faults.ts";
import { LIMITS } from "../world/limits.ts";
import { SETTINGS, settingFault, settingValue } from "../world/settings.ts";
import { FACINGS } from "../world/facing.ts";
import type { Body, Box, Pair, Shape, World } from "../world/world.ts";
import type { Project } from "./project.ts";
import { NOTHING_CHANGES, follow } from "./references.ts";

/** The world with its start in another cell of a room. */
export function moveStart(world: World, room: string, cell: Pair): World {
  const { start } = world;
  return start.room === room && start.cell[0] === cell[0] && start.cell[1] === cell[1]
    ? world
    : { ...world, start: { ...start, room, cell } };
}

/** The world with its start turned clockwise by a quarter. */
export function turnStart(world: World): World {
  const facing = FACINGS[(FACINGS.indexOf(world.start.facing) + 2) % FACINGS.length]!;
  return { ...world, start: { ...world.start, facing } };
}

/** A project in cells of another size, or why that cannot be. */
export type ScaledProject = { readonly project: Project } | { readonly fault: string };

/**
 * The project with cells of another size: shapes, bodies and px that checks name are scaled, where all of them come out
 * whole. Settings in px a frame stay, as far as they still may be: a walker then takes longer for a cell or less long.
 */
export function scaleCells(project: Project, tileSize: number): ScaledProject {
  const { world } = project;
  const [min, max] = LIMITS.tileSize;
  if (!Number.isInteger(tileSize) || tileSize < min || tileSize > max)
    return { fault: `a cell is a whole number of px from ${min} to ${max} wide` };
  const scale = new Scale(world.tileSize, tileSize);
  const tiles = world.tiles.map((tile) => ({ ...tile, shape: scale.shape(tile.shape, `the shape of ${tile.name}`) }));
  const rules = world.rules.map((each) => ({
    ...each,
    walker: { ...each.walker, body: scale.body(each.walker.body, `the body of ${each.name}`) },
  }));
  for (const each of rules)
    for (const setting of SETTINGS) {
      const fault = settingFault(setting, settingValue(each, setting.path), tileSize);
      if (fault !== null) return { fault: `${setting.label} of ${each.name} ${fault}` };
    }
  const rooms = world.rooms.map((room) => ({
    ...room,
    actors: room.actors.map((actor) => ({ ...actor, body: scale.box(actor.body, `the body of ${actor.id}`) })),
  }));
  const tooFast = rooms.flatMap(({ actors }) => actors).find(({ speed }) => speed > tileSize);
  if (tooFast !== undefined)
    return { fault: `Speed of ${tooFast.id} is ${tooFast.speed}; at most a cell a frame, ${tileSize}` };
  const fault = rules.map(({ walker }) => bodyFault(walker.body, tileSize)).find((each) => each !== null);
  if (fault !== undefined) return { fault: `a body ${fault}` };
  const followed = follow(
    { ...project, world: { ...world, tileSize, tiles, rules, rooms } },
    { ...NOTHING_CHANGES, pixel: ([x, y]) => [scale.px(x, "a check"), scale.px(y, "a check")] },
  );
  return scale.odd === null ? { project: followed.project } : { fault: `${scale.odd} does not come out in whole px` };
}

/** Px of one cell size in px of another. */
class Scale {
  /** What does not come out whole; null where all does. */
  odd: string | null = null;

  constructor(
    private readonly from: number,
    private readonly to: number,
  ) {}

  px(value: number, of: string): number {
    const scaled = (value * this.to) / this.from;
    if (!Number.isInteger(scaled) && Number.isInteger(value)) this.odd ??= of;
    return scaled;
  }

  private pair([x, y]: Pair, of: string): Pair {
    return [this.px(x, of), this.px(y, of)];
  }

  box([left, top, width, height]: Box, of: string): Box {
    return [this.px(left, of), this.px(top, of), this.px(width, of), this.px(height, of)];
  }

  shape(shape: Shape, of: string): Shape {
    if (shape.kind === "boxes") return { ...shape, boxes: shape.boxes.map((box) => this.box(box, of)) };
    return shape.kind === "poly" ? { ...shape, points: shape.points.map((point) => this.pair(point, of)) } : shape;
  }

  body(body: Body, of: string): Body {
    return body.kind === "box"
      ? { ...body, box: this.box(body.box, of) }
      : { ...body, points: body.points.map((point) => this.pair(point, of)) };
  }
}
