// `npm run from-elsewhere`: writes demo/from-elsewhere, examples of what other programs have: numbers in a source
// file with a sheet of tiles for them, a picture of a whole map, and a recording of what was pressed. All of it made up.
import { mkdirSync, writeFileSync } from "node:fs";
import path from "node:path";
import { tsImport } from "tsx/esm/api";
import { ROOT } from "./setup/run.mjs";

const { writePng } = await tsImport("../core/src/formats/png.ts", import.meta.url);
const folder = path.join(ROOT, "demo", "from-elsewhere");
mkdirSync(folder, { recursive: true });

const SIDE = 16;
/** Paints one px of a tile: brick, flagstone, water, crust, and so on, by its number. */
const COLOURS = [
  [141, 111, 93],
  [127, 143, 137],
  [61, 107, 116],
  [217, 207, 180],
  [124, 143, 93],
  [148, 100, 90],
];
function pixelOf(kind, x, y) {
  const [r, g, b] = COLOURS[(kind - 1) % COLOURS.length];
  const isJoint = kind === 1 && (y % 8 === 0 || (x + (y < 8 ? 0 : 8)) % 16 === 0);
  const isWave = kind === 3 && y % 6 === 2 && x % 8 < 5;
  const shade = (isJoint ? -30 : isWave ? 40 : 0) + (((x * 7 + y * 13 + kind * 5) % 5) - 2) * 2;
  return [r + shade, g + shade, b + shade, 255];
}
/** A picture of tiles side by side, `kindAt` saying which stands in a cell; 0 is transparent. */
function pictureOf(across, down, kindAt, paint = pixelOf) {
  const [width, height] = [across * SIDE, down * SIDE];
  const rgba = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const kind = kindAt(Math.floor(x / SIDE), Math.floor(y / SIDE));
      if (kind > 0) rgba.set(paint(kind, x % SIDE, y % SIDE), (y * width + x) * 4);
    }
  return writePng({ width, height, rgba });
}

// A hall of 30 x 20: brick round it, flagstones, two basins, a partition with a gap.
const [WIDTH, HEIGHT] = [30, 20];
const hallAt = (x, y) => {
  if (x === 0 || y === 0 || x === WIDTH - 1 || y === HEIGHT - 1) return 1;
  if (x === 15 && y !== 9 && y !== 10) return 1;
  if (x >= 4 && x <= 8 && y >= 5 && y <= 12) return 3;
  if (x >= 20 && x <= 25 && y >= 12 && y <= 15) return 3;
  return (x * 5 + y * 3) % 17 === 0 ? 5 : 2;
};
const rows = Array.from({ length: HEIGHT }, (_, y) => Array.from({ length: WIDTH }, (_, x) => hallAt(x, y)));
writeFileSync(
  path.join(folder, "pump_hall.c"),
  `/* The pump hall below the cistern. 1 brick, 2 floor, 3 basin, 5 moss. */
#include "hall.h"

const uint8_t PUMP_HALL[20][30] = {
${rows.map((row) => `    { ${row.join(", ")} },`).join("\n")}
};
`,
);
writeFileSync(
  path.join(folder, "tiles.png"),
  pictureOf(3, 2, (x, y) => y * 3 + x + 1),
);

// A picture of a whole map of 50 x 38 cells with 60 kinds.
const KINDS = 60;
const mapAt = (x, y) => 1 + (((x + y * 50) * 7 + y * y) % KINDS);
const paint = (kind, x, y) => {
  const [r, g, b] = COLOURS[kind % COLOURS.length];
  return x === kind % SIDE || y === Math.floor(kind / SIDE) ? [28, 33, 36, 255] : [r, g, b, 255];
};
writeFileSync(path.join(folder, "overflow_map.png"), pictureOf(50, 38, mapAt, paint));

// What was pressed in that game: a row where the keys change, under its own names.
const PRESSED = [
  [100, ""],
  [112, "GO_EAST"],
  [176, "GO_EAST GO_SOUTH"],
  [208, "GO_SOUTH"],
  [232, "GO_SOUTH WORK"],
  [234, ""],
  [248, "GO_WEST"],
  [296, ""],
];
writeFileSync(
  path.join(folder, "pump_hall_run.csv"),
  `tick;pad;lamps\n${PRESSED.map(([tick, pad]) => `${tick};${pad};2`).join("\n")}\n`,
);
