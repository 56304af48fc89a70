import type { Facing } from "../world/facing.ts";
import type { Figure, Pair, World } from "../world/world.ts";

/** Orders in which facings stand in a sheet, by how many rows or columns it has. */
export const FACING_ORDERS: Readonly<Record<number, readonly Facing[]>> = {
  1: ["down"],
  2: ["right", "left"],
  4: ["right", "down", "left", "up"],
  8: ["up", "up-right", "right", "down-right", "down", "down-left", "left", "up-left"],
};

/** Places of a sheet for a figure: a row, or a column, for each facing. */
export interface FigurePlaces {
  readonly sheet: string;
  /** Column and row of the first place, and how many there are across and down. */
  readonly at: Pair;
  readonly size: Pair;
  readonly along: "rows" | "columns";
  /** The facing of each row or column. */
  readonly facings: readonly Facing[];
}

/** The pictures of the walker or an actor out of a sheet; where it had some of that sheet, the offset stays. */
export function figureOf(
  world: Pick<World, "sheets" | "tileSize">,
  { sheet, at: [left, top], size: [across, down], along, facings }: FigurePlaces,
  before: Figure | null,
): Figure {
  const images: Partial<Record<Facing, Pair[]>> = {};
  const lines = along === "rows" ? down : across;
  facings.slice(0, lines).forEach((facing, line) => {
    images[facing] = Array.from({ length: along === "rows" ? across : down }, (_, i) =>
      along === "rows" ? [left + i, top + line] : [left + line, top + i],
    );
  });
  return { sheet, offset: before?.sheet === sheet ? before.offset : centred(world, sheet), images };
}

/** Where a place of a sheet is drawn so that its lower edge is the cell's and it stands in the middle. */
function centred(world: Pick<World, "sheets" | "tileSize">, id: string): Pair {
  const side = world.sheets.find((sheet) => sheet.id === id)?.tile ?? world.tileSize;
  return [Math.round((world.tileSize - side) / 2) + 0, world.tileSize - side];
}
