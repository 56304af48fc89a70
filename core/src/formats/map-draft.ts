import { RefusedError } from "../base/refused-error.ts";
import { LIMITS } from "../world/limits.ts";
import type { Look, Pair, Sheet, Tile, World } from "../world/world.ts";
import type { CutMap } from "./map-picture.ts";
import type { NumberGrid } from "./number-grid.ts";
import type { RoomDraft } from "./room-draft.ts";
import type { SheetPlaces } from "./sheet-places.ts";
import { sheetPlaces } from "./sheet-places.ts";
import { PLAIN_DRAFT, newTile } from "./room-draft.ts";

/** What a map of numbers cannot say itself (formats.md section 8). */
export interface MapAnswers {
  /** The number of the empty tile, or null where none is. */
  readonly empty: number | null;
  /** The number of the sheet's first place. */
  readonly first: number;
  /** The numbers that block. */
  readonly solid: ReadonlySet<number>;
}

/** A number of a map, how often it stands there, and what it stands for. */
export interface MapKind {
  readonly value: number;
  readonly cells: number;
  /** The character, where the map has characters; else the number. */
  readonly text: string;
}

/** The numbers of a map in order. */
export function mapKinds({ values, characters }: NumberGrid): MapKind[] {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts]
    .map(([value, cells]) => ({ value, cells, text: characters ? String.fromCodePoint(value) : String(value) }))
    .sort((a, b) => a.value - b.value);
}

/** Characters that are empty or block where a map of characters has them. */
const EMPTY_CHARACTERS = " .";
const SOLID_CHARACTERS = "#";
/** A number that makes up so much of a map's border is a wall. */
const BORDER_SHARE = 0.6;

/**
 * What the answers most likely are: -1, 0, a blank or a dot is empty; what the map is fenced with blocks. The sheet's
 * first place is 0 where -1 is empty, and 1 otherwise.
 */
export function guessAnswers(grid: NumberGrid): MapAnswers {
  const kinds = mapKinds(grid);
  const has = (value: number): boolean => kinds.some((kind) => kind.value === value);
  const codes = (characters: string): number[] => [...characters].map((each) => each.codePointAt(0)!);
  const empty = (grid.characters ? codes(EMPTY_CHARACTERS) : [-1, 0]).find(has) ?? null;
  const fences = grid.characters ? codes(SOLID_CHARACTERS).filter(has) : [];
  const border = borderOf(grid);
  for (const { value } of kinds) {
    const share = border.filter((each) => each === value).length / border.length;
    if (value !== empty && share >= BORDER_SHARE && !fences.includes(value)) fences.push(value);
  }
  return { empty, first: empty === -1 ? 0 : 1, solid: new Set(fences) };
}

const borderOf = ({ width, height, values }: NumberGrid): number[] =>
  values.filter((_, i) => {
    const [x, y] = [i % width, Math.floor(i / width)];
    return x === 0 || y === 0 || x === width - 1 || y === height - 1;
  });

/**
 * The room that a map of numbers is. Number N is the tile `tile-N` (`char-x` for a character): one that the world has
 * already stays as it is, others are made, with the sheet's place for a look where there is one. A sheet's other places
 * become tiles too, as far as a world has room for them.
 * @param called other ids for the tiles: those of a picture are its own
 * @throws {RefusedError} where the map has more kinds than a world has tiles
 */
export function draftOfMap(
  grid: NumberGrid,
  answers: MapAnswers,
  world: World,
  places: SheetPlaces | null,
  name = "the map",
  called: (id: string) => string = (id) => id,
): RoomDraft {
  const kinds = mapKinds(grid);
  const present = new Map(world.tiles.map((tile) => [tile.id, tile]));
  const ids = new Map<number, string>();
  const tiles: Tile[] = [];
  const glyphs = new Set(world.tiles.map((tile) => tile.glyph));
  const make = (value: number, text: string | null): void => {
    const id = value === answers.empty ? world.tiles[0]!.id : called(idOf(value, text));
    ids.set(value, id);
    if (present.has(id)) return;
    const look = lookOf(value, answers, places);
    const tile = newTile(id, answers.solid.has(value) ? [solidFlag(world)] : [], tiles.length);
    const glyph = text !== null && /\S/.test(text) && !glyphs.has(text) ? text : null;
    const made = { ...tile, name: text === null ? `Tile ${value}` : `Tile ${text}`, glyph, look: look ?? tile.look };
    glyphs.add(glyph);
    present.set(id, made);
    tiles.push(made);
  };
  for (const { value, text } of kinds) make(value, grid.characters ? text : null);
  if (present.size > LIMITS.tiles)
    throw new RefusedError(name, [
      {
        place: "",
        line: null,
        column: null,
        message: `has ${kinds.length} kinds of cells; a world has at most ${LIMITS.tiles} tiles`,
      },
    ]);
  if (places !== null && !grid.characters)
    for (let place = 0; place < places.across * places.down && present.size < LIMITS.tiles; place++)
      if (!places.isBlank(place) && place + answers.first !== answers.empty) make(place + answers.first, null);
  const isUsed = places !== null && tiles.some(({ look }) => "sheet" in look && look.sheet === places.sheet.id);
  return {
    ...PLAIN_DRAFT,
    width: grid.width,
    height: grid.height,
    cells: grid.values.map((value) => ids.get(value)!),
    tiles,
    flags: world.flags.includes(solidFlag(world)) ? [] : [solidFlag(world)],
    sheets: isUsed && !world.sheets.some(({ id }) => id === places.sheet.id) ? [places.sheet] : [],
  };
}

/** The flag that stops the walker. */
export const solidFlag = (world: World): string =>
  world.rules.find(({ id }) => id === world.activeRules)?.walker.blockedBy[0] ?? "solid";

function idOf(value: number, text: string | null): string {
  if (text === null) return value < 0 ? `tile-minus-${-value}` : `tile-${value}`;
  return /^[a-z0-9]$/.test(text) ? `char-${text}` : `char-u${value.toString(16)}`;
}

function lookOf(value: number, { first }: MapAnswers, places: SheetPlaces | null): Look | null {
  const place = value - first;
  if (places === null || place < 0 || place >= places.across * places.down || places.isBlank(place)) return null;
  return { sheet: places.sheet.id, at: [place % places.across, Math.floor(place / places.across)] };
}

/**
 * The room that a cut picture is: its kinds are tiles of its own, which no other room shares.
 * @param sheet of the picture that was cut out of it
 */
export function draftOfCut(
  cut: CutMap,
  solid: ReadonlySet<number>,
  world: World,
  roomId: string,
  sheet: Sheet,
  name?: string,
): RoomDraft {
  const called = (id: string): string => id.replace(/^tile/, roomId.slice(0, 30));
  return draftOfMap(cut.grid, { empty: 0, first: 1, solid }, world, sheetPlaces(sheet, cut.sheet), name, called);
}

/** The world with its start in the free cell that is nearest to the middle of a room, or in its middle where none is free. */
export function startedIn(world: World, roomId: string): World {
  const { width, cells, height } = world.rooms.find(({ id }) => id === roomId)!;
  const blockedBy = world.rules.find(({ id }) => id === world.activeRules)?.walker.blockedBy ?? [];
  const blocks = world.tiles.map((tile) => tile.flags.some((flag) => blockedBy.includes(flag)));
  const middle: Pair = [Math.floor((width - 1) / 2), Math.floor((height - 1) / 2)];
  let cell = middle;
  let nearest = Infinity;
  cells.forEach((tile, i) => {
    const [x, y] = [i % width, Math.floor(i / width)];
    const distance = Math.abs(x - middle[0]) + Math.abs(y - middle[1]);
    if (distance >= nearest || blocks[tile]!) return;
    cell = [x, y];
    nearest = distance;
  });
  return { ...world, start: { ...world.start, room: roomId, cell } };
}
