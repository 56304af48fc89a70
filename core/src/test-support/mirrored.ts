import type { InputLog } from "../logs/input-log.ts";
import { DOWN, LEFT, RIGHT, UP } from "../world/keys.ts";
import type { Facing } from "../world/facing.ts";
import type { Body, Box, Pair, Room, Shape, World } from "../world/world.ts";

/** Which axis runs the other way. */
export type Mirror = "x" | "y";

/** The words that change places in a mirror. */
export const SWAPPED: Readonly<Record<Mirror, readonly [string, string]>> = { x: ["left", "right"], y: ["up", "down"] };

/** A text with the two words of a mirror in each other's place. */
export function mirroredText(text: string, mirror: Mirror): string {
  const [one, other] = SWAPPED[mirror];
  return text.replaceAll(new RegExp(`\\b(${one}|${other})\\b`, "g"), (word) => (word === one ? other : one));
}

/** A world of rooms without fixtures, seen in a mirror. */
export function mirroredWorld(world: World, mirror: Mirror): World {
  const t = world.tileSize;
  return {
    ...world,
    tiles: world.tiles.map((tile) => ({ ...tile, shape: mirroredShape(tile.shape, t, mirror) })),
    rules: world.rules.map((rules) => ({
      ...rules,
      walker: { ...rules.walker, body: mirroredBody(rules.walker.body, t, mirror) },
    })),
    start: {
      ...world.start,
      cell: mirroredCell(world.start.cell, world.rooms[0]!, mirror),
      facing: mirroredText(world.start.facing, mirror) as Facing,
    },
    rooms: world.rooms.map((room) => ({ ...room, cells: mirroredCells(room, mirror) })),
  };
}

/** The log with the two keys of a mirror in each other's place. */
export function mirroredLog(log: InputLog, mirror: Mirror): InputLog {
  const [one, other] = mirror === "x" ? [LEFT, RIGHT] : [UP, DOWN];
  const swap = (keys: number): number => (keys & ~(one | other)) | (keys & one ? other : 0) | (keys & other ? one : 0);
  return {
    ...log,
    lines: log.lines.map((line) => (line.kind === "keys" ? { ...line, keys: swap(line.keys) } : line)),
  };
}

function mirroredCell([x, y]: Pair, { width, height }: Room, mirror: Mirror): Pair {
  return mirror === "x" ? [width - 1 - x, y] : [x, height - 1 - y];
}

function mirroredCells(room: Room, mirror: Mirror): Uint16Array {
  const { cells, width } = room;
  return cells.map((_, at) => {
    const [x, y] = mirroredCell([at % width, Math.floor(at / width)], room, mirror);
    return cells[y * width + x]!;
  });
}

const mirroredBox = ([left, top, width, height]: Box, t: number, mirror: Mirror): Box =>
  mirror === "x" ? [t - left - width, top, width, height] : [left, t - top - height, width, height];

const mirroredPoint = ([x, y]: Pair, t: number, mirror: Mirror): Pair => (mirror === "x" ? [t - x, y] : [x, t - y]);

function mirroredShape(shape: Shape, t: number, mirror: Mirror): Shape {
  switch (shape.kind) {
    case "full":
      return shape;
    case "boxes":
      return { ...shape, boxes: shape.boxes.map((box) => mirroredBox(box, t, mirror)) };
    case "poly":
      // Corners stay clockwise.
      return { ...shape, points: [...shape.points].reverse().map((point) => mirroredPoint(point, t, mirror)) };
  }
}

function mirroredBody(body: Body, t: number, mirror: Mirror): Body {
  return body.kind === "box"
    ? { ...body, box: mirroredBox(body.box, t, mirror) }
    : { ...body, points: body.points.map((point) => mirroredPoint(point, t, mirror)) };
}
