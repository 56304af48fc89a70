import type { Fixture } from "../world/fixtures.ts";
import type { Pair, Room, World } from "../world/world.ts";
import type { LegendLine } from "./legend.ts";
import { NUMBERED, legendText } from "./legend.ts";

/** Characters that things get that have no glyph, in this order; then on through the letters of the world. */
const HANDY = ".,:;#%&+*~^-_|/\\oxabcdefghijklmnpqrstuvwyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789";
const FURTHER = [0xc0, 0x24f] as const;
const FURTHEST = 0x4e00;

/** A room as text (formats.md section 4). Reading it gives the same cells, fixtures and start. */
export function writeRoomText(world: World, room: Room): string {
  const taken = new Set<string>();
  const characters = freeCharacters(taken);
  const legend: LegendLine[] = [];
  const tileCharacters = new Map<number, string>();
  const used = [...new Set(room.cells)].sort((a, b) => a - b);
  // Glyphs first, so that nothing else takes them.
  for (const number of used) {
    const { glyph } = world.tiles[number]!;
    if (glyph !== null && !taken.has(glyph)) {
      taken.add(glyph);
      tileCharacters.set(number, glyph);
    }
  }
  // Glyphs that are not used here are taken too: read again they would mean their tile.
  for (const { glyph } of world.tiles) if (glyph !== null) taken.add(glyph);
  for (const number of used) {
    const { id, flags } = world.tiles[number]!;
    const character = tileCharacters.get(number) ?? characters.next().value;
    tileCharacters.set(number, character);
    legend.push({ character, kind: "tile", id, on: null, values: { flags } });
  }

  const rows = Array.from({ length: room.height }, (_, y) =>
    Array.from({ length: room.width }, (_, x) => tileCharacters.get(room.cells[y * room.width + x]!)!),
  );
  const things = new Map<number, LegendLine[]>();
  // In the order of the file: it is the order in which fixtures are handled.
  const inOrder: LegendLine[] = [];
  const put = (cell: Pair, line: Omit<LegendLine, "character" | "on">): void => {
    const at = cell[1] * room.width + cell[0];
    const lines = things.get(at) ?? [];
    const character = lines[0]?.character ?? characters.next().value;
    const made = { character, on: world.tiles[room.cells[at]!]!.id, ...line };
    things.set(at, [...lines, made]);
    inOrder.push(made);
  };
  for (const many of inSeries(world, room)) {
    const [first] = many;
    const id = many.length === 1 ? first!.id : `${first!.id.slice(0, -1)}${NUMBERED}`;
    put(first!.cell, { kind: first!.kind, id, values: valuesOf(first!) });
    const line = inOrder.at(-1)!;
    for (const { cell } of many.slice(1)) things.set(cell[1] * room.width + cell[0], [line]);
  }
  if (world.start.room === room.id)
    put(world.start.cell, { kind: "start", id: "", values: { facing: world.start.facing } });
  for (const [at, lines] of things) rows[Math.floor(at / room.width)]![at % room.width] = lines[0]!.character;

  const written = [...legend, ...inOrder].map(legendText);
  return `${rows.map((row) => row.join("")).join("\n")}\n\n${written.join("\n")}\n`;
}

/**
 * The fixtures in file order, those together that one line can stand for: `bead-1`, `bead-2` ... in reading order, alike
 * in all but their cell, on the same tile, each alone in its cell.
 */
function inSeries(world: World, room: Room): readonly (readonly Fixture[])[] {
  const alone = cellsOfOne(world, room);
  const placeOf = ({ cell: [x, y] }: Fixture): number => y * room.width + x;
  const likeness = (fixture: Fixture): string =>
    JSON.stringify([fixture.kind, room.cells[placeOf(fixture)], valuesOf(fixture)]);
  const series: Fixture[][] = [];
  for (const fixture of room.fixtures) {
    const many = series.at(-1);
    const last = many?.at(-1);
    const goesOn =
      many !== undefined &&
      last !== undefined &&
      many[0]!.id.endsWith("1") &&
      fixture.id === `${many[0]!.id.slice(0, -1)}${many.length + 1}` &&
      placeOf(fixture) > placeOf(last) &&
      alone.has(placeOf(fixture)) &&
      alone.has(placeOf(last)) &&
      likeness(fixture) === likeness(last);
    if (goesOn) many.push(fixture);
    else series.push([fixture]);
  }
  return series;
}

/** Cells in which one fixture stands and nothing else, the start neither. */
function cellsOfOne(world: World, room: Room): ReadonlySet<number> {
  const cells = room.fixtures.map(({ cell }) => cell);
  if (world.start.room === room.id) cells.push(world.start.cell, world.start.cell);
  const counts = new Map<number, number>();
  for (const [x, y] of cells) counts.set(y * room.width + x, (counts.get(y * room.width + x) ?? 0) + 1);
  return new Set([...counts].flatMap(([at, count]) => (count === 1 ? [at] : [])));
}

/** A fixture's own keys: not those that the line says otherwise, and not what would be there anyway. */
function valuesOf(fixture: Fixture): Record<string, unknown> {
  const { id: _id, kind: _kind, cell: _cell, touch, keeps, ...values } = fixture;
  return { ...values, ...(touch === "cell" ? {} : { touch }), ...(keeps === "run" ? {} : { keeps }) };
}

function* freeCharacters(taken: Set<string>): Generator<string, never> {
  const take = function* (character: string): Generator<string, void> {
    if (taken.has(character)) return;
    taken.add(character);
    yield character;
  };
  for (const character of HANDY) yield* take(character);
  for (let code = FURTHER[0]; code <= FURTHER[1]; code++) yield* take(String.fromCharCode(code));
  for (let code = FURTHEST; ; code++) yield* take(String.fromCharCode(code));
}
