/** Limits of world file version 1 (formats.md section 1). Both ends are included. */
export const LIMITS = {
  tileSize: [4, 128],
  frameRate: [1, 240],
  rooms: [1, 256],
  roomSide: [1, 512],
  cellsInAll: 2_000_000,
  tiles: 1024,
  flags: 16,
  fixtures: 4096,
  /** In a room; phases of one; frames of a phase; cells of a path. */
  actors: 64,
  phases: [1, 16],
  phaseFrames: [1, 100_000],
  pathCells: [1, 256],
  /** What chance begins with: 32 bits. */
  seed: 0xffff_ffff,
  sheets: 64,
  items: 256,
  circuits: 256,
  ruleSets: 64,
  laws: 64,
  reachChecks: 256,
  games: 16,
  lawLength: 200,
  /** Of a place in px or cells, either way: beyond any real one, and sums stay exact. */
  far: 100_000,
  lives: [1, 99],
  nameLength: 80,
  /** Width and height of an image sheet, in px. */
  sheetSide: [1, 4096],
  fileBytes: 16 * 1024 * 1024,
  /** Of a CSV file: a trace of some million frames, and what a string may hold. */
  csvBytes: 256 * 1024 * 1024,
  depth: 32,
  probes: [1, 16],
  corners: [3, 8],
  count: [1, 999],
} as const;

/** What an id looks like: rooms, tiles, items, fixtures, rule sets, flags, circuits, worlds and logs. */
export const ID_PATTERN = /^[a-z0-9-]{1,40}$/;

/** What the file of an image sheet is called: nothing that means something in an address, a path or a page. */
export const SHEET_FILE_PATTERN = /^[A-Za-z0-9][A-Za-z0-9._-]{0,75}\.png$/;
