import type { Sheet } from "../world/world.ts";
import type { Pixels } from "./room-pixels.ts";

/** How a sheet is cut, in px. */
export type SheetCut = Pick<Sheet, "tile" | "margin" | "spacing">;

/** A sheet's places in reading order, for the looks of numbers. */
export interface SheetPlaces {
  readonly sheet: Sheet;
  readonly across: number;
  readonly down: number;
  /** Whether a place, counted in reading order, is transparent all over. */
  readonly isBlank: (place: number) => boolean;
}

/** How many tiles a sheet of that size has across and down, and the px that are left over. */
export function sheetTiles(
  width: number,
  height: number,
  { tile, margin, spacing }: SheetCut,
): { readonly across: number; readonly down: number; readonly overX: number; readonly overY: number } {
  const count = (side: number): number => Math.max(0, Math.floor((side - 2 * margin + spacing) / (tile + spacing)));
  const over = (side: number, n: number): number => side - 2 * margin - (n * (tile + spacing) - (n > 0 ? spacing : 0));
  const [across, down] = [count(width), count(height)];
  return { across, down, overX: over(width, across), overY: over(height, down) };
}

/** The places of a sheet with that picture. */
export function sheetPlaces(sheet: Sheet, picture: Pixels): SheetPlaces {
  const { across, down } = sheetTiles(picture.width, picture.height, sheet);
  return {
    sheet,
    across,
    down,
    isBlank: (place) => isBlank(picture, sheet, place % across, Math.floor(place / across)),
  };
}

function isBlank({ width, rgba }: Pixels, { tile, margin, spacing }: SheetCut, column: number, row: number): boolean {
  const [left, top] = [margin + column * (tile + spacing), margin + row * (tile + spacing)];
  for (let y = 0; y < tile; y++)
    for (let x = 0; x < tile; x++) if (rgba[((top + y) * width + left + x) * 4 + 3] !== 0) return false;
  return true;
}
