import { bodyFault } from "../formats/world-faults.ts";
import { LIMITS } from "../world/limits.ts";
import { SETTINGS, settingFault, settingValue } from "../world/settings.ts";
import type { Facing } from "../world/facing.ts";
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
  const fault = rules.map(({ walker }) => bodyFault(walker.body, tileSize)).find((each) => each !== null);
  if (fault !== undefined) return { fault: `a body ${fault}` };
  const followed = follow(
    { ...project, world: { ...world, tileSize, tiles, rules } },
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

  private box([left, top, width, height]: Box, of: string): Box {
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

/** Orders in which facings stand in a sheet, by how many rows or columns it has. */
export const FACING_ORDERS: Readonly<Record<number, readonly Facing[]>> = {
  1: ["down"],
  2: ["right", "left"],
  4: ["right", "down", "left", "up"],
  8: ["up", "up-right", "right", "down-right", "down", "down-left", "left", "up-left"],
};

/** Places of a sheet for the walker: a row, or a column, for each facing. */
export interface FigurePlaces {
  readonly sheet: string;
  /** Column and row of the first place, and how many there are across and down. */
  readonly at: Pair;
  readonly size: Pair;
  readonly along: "rows" | "columns";
  /** The facing of each row or column. */
  readonly facings: readonly Facing[];
}

/** The world with the walker's pictures out of a sheet; where it had some of that sheet, the offset stays. */
export function setFigure(
  world: World,
  { sheet, at: [left, top], size: [across, down], along, facings }: FigurePlaces,
): World {
  const images: Partial<Record<Facing, Pair[]>> = {};
  const lines = along === "rows" ? down : across;
  facings.slice(0, lines).forEach((facing, line) => {
    images[facing] = Array.from({ length: along === "rows" ? across : down }, (_, i) =>
      along === "rows" ? [left + i, top + line] : [left + line, top + i],
    );
  });
  const offset = world.figure?.sheet === sheet ? world.figure.offset : centred(world, sheet);
  return { ...world, figure: { sheet, offset, images } };
}

/** Where a place of a sheet is drawn so that its lower edge is the cell's and it stands in the middle. */
function centred(world: World, id: string): Pair {
  const side = world.sheets.find((sheet) => sheet.id === id)?.tile ?? world.tileSize;
  return [Math.round((world.tileSize - side) / 2) + 0, world.tileSize - side];
}
