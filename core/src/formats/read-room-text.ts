import type { Fixture } from "../world/fixtures.ts";
import type { Refusal } from "../base/refused-error.ts";
import { plainText } from "../base/plain-text.ts";
import { STRICT } from "./schema-parts.ts";
import { fixtureSchema } from "./world-schema.ts";
import { isFacing } from "../world/facing.ts";
import { ID_PATTERN, LIMITS } from "../world/limits.ts";
import type { Item, Pair, Tile, World } from "../world/world.ts";
import type { LegendLine } from "./legend.ts";
import { NUMBERED, readLegendLine } from "./legend.ts";
import type { RoomDraft } from "./room-draft.ts";
import { nameOf, newTile } from "./room-draft.ts";

/** What a room text says, or why it is refused and which characters nothing explains. */
export type RoomTextResult =
  | { readonly draft: RoomDraft }
  | { readonly refusals: readonly Refusal[]; readonly unknown: readonly string[] };

const MOST_LISTED = 20;
const MOST_TEXT = 1024 * 1024;

/**
 * Reads a room text (formats.md section 4): rows of characters, an empty line, a legend. The world's own glyphs need
 * no legend.
 * @param roomId the room that it is for: fixtures of other rooms may not have the same ids
 */
export function readRoomText(text: string, world: World, roomId: string): RoomTextResult {
  return new Reading(world, roomId).read(plainText(text));
}

class Reading {
  private readonly refusals: Refusal[] = [];
  private readonly unknown = new Set<string>();
  private readonly legend = new Map<string, { readonly line: LegendLine; readonly at: number }[]>();
  private readonly tiles: Tile[] = [];
  private readonly flags: string[] = [];
  private readonly items: Item[] = [];
  private readonly circuits: string[] = [];
  /** With the legend line of each: their order there is the order in which they are handled. */
  private readonly fixtures: { readonly fixture: Fixture; readonly at: number }[] = [];
  private start: RoomDraft["start"] = null;
  /** Ids that fixtures elsewhere and legend lines have; made where a line wants numbers. */
  private ids: Set<string> | null = null;
  /** The last number given for each id that ends in `NUMBERED`. */
  private readonly numbers = new Map<string, number>();
  /** Where each character stood first; the start and fixtures stand once, but for numbered ones. */
  private readonly stood = new Map<string, { row: number; column: number }>();

  constructor(
    private readonly world: World,
    private readonly roomId: string,
  ) {}

  read(text: string): RoomTextResult {
    if (text.length > MOST_TEXT)
      return this.refused([{ place: "", line: 1, column: 1, message: `is longer than ${MOST_TEXT} characters` }]);
    const lines = text.split("\n");
    const gap = lines.indexOf("");
    const rows = (gap < 0 ? lines : lines.slice(0, gap)).map((row) => [...row]);
    const height = rows.length;
    const width = rows.reduce((max, row) => Math.max(max, row.length), 0);
    if (height === 0 || width === 0)
      return this.refused([{ place: "", line: 1, column: 1, message: "expected a row of characters" }]);
    if (height > LIMITS.roomSide[1])
      return this.refused([
        {
          place: "",
          line: LIMITS.roomSide[1] + 1,
          column: 1,
          message: `a room has at most ${LIMITS.roomSide[1]} rows`,
        },
      ]);
    if (width > LIMITS.roomSide[1]) {
      const long = rows.findIndex((row) => row.length > LIMITS.roomSide[1]);
      return this.refused([
        {
          place: "",
          line: long + 1,
          column: LIMITS.roomSide[1] + 1,
          message: `a row has at most ${LIMITS.roomSide[1]} characters`,
        },
      ]);
    }
    if (gap >= 0) this.readLegend(lines, gap + 1);
    // With half a legend nearly every character would be one that nothing explains.
    if (this.refusals.length > 0) return this.refused(this.refusals);
    const empty = this.world.tiles[0]!.id;
    const cells: string[] = [];
    const byGlyph = new Map(
      this.world.tiles.flatMap((tile) => (tile.glyph === null ? [] : [[tile.glyph, tile.id] as const])),
    );
    rows.forEach((row, y) => {
      for (let x = 0; x < width; x++) cells.push(this.cellAt(row[x] ?? null, x, y, byGlyph, empty));
    });
    if (this.refusals.length > 0) return this.refused(this.refusals);
    const { start, flags, tiles, items, circuits } = this;
    const fixtures = [...this.fixtures].sort((a, b) => a.at - b.at).map(({ fixture }) => fixture);
    return { draft: { width, height, cells, fixtures, start, flags, tiles, items, circuits, sheets: [] } };
  }

  private refused(refusals: readonly Refusal[]): RoomTextResult {
    return { refusals: refusals.slice(0, MOST_LISTED), unknown: [...this.unknown] };
  }

  private refuse(line: number, column: number, message: string): void {
    if (this.refusals.length < MOST_LISTED) this.refusals.push({ place: "", line, column, message });
  }

  private readLegend(lines: readonly string[], from: number): void {
    for (let i = from; i < lines.length; i++) {
      const text = lines[i]!;
      if (text === "") continue;
      const result = readLegendLine(text);
      if ("fault" in result) {
        this.refuse(i + 1, result.column, result.fault);
        continue;
      }
      const line = this.named(result.legend, lines.slice(from));
      const others = this.legend.get(line.character) ?? [];
      if (others.some((other) => other.line.kind === "tile" || line.kind === "tile"))
        this.refuse(
          i + 1,
          1,
          `"${line.character}" stands for a tile and for something else; put what stands there on the tile`,
        );
      this.legend.set(line.character, [...others, { line, at: i + 1 }]);
      this.prepare(line, i + 1);
    }
  }

  /** A line without an id with one that nobody has: `door-1` for a door, or the next number. */
  private named(line: LegendLine, legend: readonly string[]): LegendLine {
    if (line.id !== "" || line.kind === "start") return line;
    const own = line.kind === "tile" ? this.world.tiles.find(({ glyph }) => glyph === line.character) : undefined;
    if (own !== undefined) return { ...line, id: own.id };
    const written = legend.flatMap((text) => text.split(" "));
    const made = [...this.legend.values()].flat().map((each) => each.line.id);
    const there =
      line.kind === "tile"
        ? this.world.tiles.map(({ id }) => id)
        : this.world.rooms.flatMap((room) => (room.id === this.roomId ? [] : room.fixtures.map(({ id }) => id)));
    const taken = new Set([...written, ...made, ...there]);
    let number = 1;
    while (taken.has(`${line.kind}-${number}`)) number++;
    return { ...line, id: `${line.kind}-${number}` };
  }

  /** Makes what a legend line brings along, and refuses what does not fit the world. */
  private prepare(line: LegendLine, at: number): void {
    if (line.kind === "tile") {
      this.prepareTile(line, at);
      return;
    }
    if (line.on !== null) this.needTile(line.on, at);
    const { give, circuit, lock } = line.values as {
      give?: unknown;
      circuit?: unknown;
      lock?: { item?: unknown; circuit?: unknown };
    };
    for (const item of [give, lock?.item]) {
      if (typeof item !== "string" || !ID_PATTERN.test(item)) continue;
      if (![...this.world.items, ...this.items].some((each) => each.id === item))
        this.items.push({ id: item, name: nameOf(item), role: "key", colour: "#c89b3c" });
    }
    for (const each of [circuit, lock?.circuit]) {
      if (
        typeof each === "string" &&
        ID_PATTERN.test(each) &&
        ![...this.world.circuits, ...this.circuits].includes(each)
      )
        this.circuits.push(each);
    }
  }

  private prepareTile({ character, id, on, values }: LegendLine, at: number): void {
    const { flags, ...more } = values;
    const odd = Object.keys(more)[0];
    if (odd !== undefined || on !== null) this.refuse(at, 1, `a tile has no ${odd ?? "on"} here; expected flags=`);
    const wanted = flags as readonly string[] | undefined;
    const bad = wanted?.find((flag) => !ID_PATTERN.test(flag));
    if (bad !== undefined) this.refuse(at, 1, `"${bad}" is no flag; expected 1 to 40 of a to z, 0 to 9 and -`);
    const known = [...this.world.tiles, ...this.tiles].find((tile) => tile.id === id);
    if (known) {
      const differ =
        wanted !== undefined &&
        (wanted.length !== known.flags.length || wanted.some((flag) => !known.flags.includes(flag)));
      if (differ)
        this.refuse(
          at,
          1,
          `tile ${id} has the flags ${known.flags.join(",") || "(none)"} in this world, not ${wanted.join(",") || "(none)"}`,
        );
      return;
    }
    for (const flag of wanted ?? []) if (![...this.world.flags, ...this.flags].includes(flag)) this.flags.push(flag);
    if (this.world.flags.length + this.flags.length > LIMITS.flags)
      this.refuse(at, 1, `a world has at most ${LIMITS.flags} flags`);
    if (this.world.tiles.length + this.tiles.length >= LIMITS.tiles)
      this.refuse(at, 1, `a world has at most ${LIMITS.tiles} tiles`);
    // Its character becomes its glyph, so that the room reads the same when it is written.
    const glyph =
      [...this.world.tiles, ...this.tiles].some((tile) => tile.glyph === character) || character === " "
        ? null
        : character;
    this.tiles.push({ ...newTile(id, wanted ?? [], this.world.tiles.length + this.tiles.length), glyph });
  }

  private needTile(id: string, at: number): void {
    if (![...this.world.tiles, ...this.tiles].some((tile) => tile.id === id))
      this.tiles.push(newTile(id, [], this.world.tiles.length + this.tiles.length));
    if (this.world.tiles.length + this.tiles.length > LIMITS.tiles)
      this.refuse(at, 1, `a world has at most ${LIMITS.tiles} tiles`);
  }

  /** The tile of a cell; what else its character stands for is put there. */
  private cellAt(
    character: string | null,
    x: number,
    y: number,
    byGlyph: ReadonlyMap<string, string>,
    empty: string,
  ): string {
    if (character === null) return empty;
    const lines = this.legend.get(character);
    if (lines === undefined) {
      const glyph = byGlyph.get(character);
      if (glyph !== undefined) return glyph;
      if (character === " ") return empty;
      if (!this.unknown.has(character))
        this.refuse(
          y + 1,
          x + 1,
          `nothing explains "${character}"; add a line \`${character} = tile ID\` to the legend`,
        );
      this.unknown.add(character);
      return empty;
    }
    const [first] = lines;
    if (first!.line.kind === "tile") return first!.line.id;
    const before = this.stood.get(character);
    if (before && !lines.every(({ line }) => line.id.endsWith(NUMBERED))) {
      this.refuse(
        y + 1,
        x + 1,
        `"${character}" stands at row ${before.row}, column ${before.column} already; what it stands for is there once, but for ids that end in ${NUMBERED}`,
      );
      return empty;
    }
    if (!before) this.stood.set(character, { row: y + 1, column: x + 1 });
    let on: string | null = null;
    for (const { line, at } of lines) {
      on ??= line.on;
      if (line.on !== null && line.on !== on) this.refuse(at, 1, `"${character}" stands on ${on} already`);
      if (line.kind === "start") this.putStart(line, at, [x, y]);
      else this.putFixture(line.id.endsWith(NUMBERED) ? this.numbered(line) : line, at, [x, y]);
    }
    return on ?? empty;
  }

  /** One more of a line that stands for any number: the next number that nothing else in the world has. */
  private numbered(line: LegendLine): LegendLine {
    this.ids ??= new Set([
      ...this.world.rooms.flatMap((room) => (room.id === this.roomId ? [] : room.fixtures.map(({ id }) => id))),
      ...[...this.legend.values()].flatMap((each) => each.map(({ line: other }) => other.id)),
    ]);
    const stem = line.id.slice(0, -1);
    let number = (this.numbers.get(line.id) ?? 0) + 1;
    while (this.ids.has(`${stem}${number}`)) number++;
    this.numbers.set(line.id, number);
    return { ...line, id: `${stem}${number}` };
  }

  private putStart({ values }: LegendLine, at: number, cell: Pair): void {
    const { facing = "down", ...more } = values;
    const odd = Object.keys(more)[0];
    if (odd !== undefined) this.refuse(at, 1, `the start has no ${odd}; expected facing=`);
    if (this.start !== null) this.refuse(at, 1, "there is a start already");
    if (typeof facing !== "string" || !isFacing(facing))
      this.refuse(at, 1, `facing: expected a direction such as down`);
    else this.start = { cell, facing };
  }

  private putFixture({ kind, id, values }: LegendLine, at: number, cell: Pair): void {
    const elsewhere = this.world.rooms.find(
      (room) => room.id !== this.roomId && room.fixtures.some((fixture) => fixture.id === id),
    );
    if (elsewhere)
      this.refuse(at, 1, `${id} is in room ${elsewhere.id} already; ids of fixtures are unique in the world`);
    if (this.fixtures.some(({ fixture }) => fixture.id === id)) this.refuse(at, 1, `${id} stands twice`);
    const result = fixtureSchema.validate({ id, kind, cell, ...values }, STRICT);
    if (result.error) {
      const { path, message } = result.error.details[0]!;
      const text = message.startsWith("must") ? message : message.replace(/^\S+ /, "");
      this.refuse(at, 1, `${path.join(".")}: ${text}`);
    } else this.fixtures.push({ fixture: result.value as Fixture, at });
  }
}
