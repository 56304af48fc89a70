import { readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { expect, it } from "vitest";
import { demo, file, folder, keenPebble, logs } from "./test-support/keen-pebble.ts";

it("import takes maps as other programs have them: numbers in a source file, a sheet for them, a flat array, a picture", async () => {
  const elsewhere = path.resolve(import.meta.dirname, "../../demo/from-elsewhere");
  const out = path.join(folder, "pump-hall.world.json");
  const json = (): {
    tiles: { id: string; flags: string[]; look: object }[];
    rooms: { id: string }[];
    sheets: object[];
  } => JSON.parse(readFileSync(out, "utf8")) as ReturnType<typeof json>;
  const source = path.join(elsewhere, "pump_hall.c");
  const sheet = path.join(elsewhere, "tiles.png");
  expect(await keenPebble("import", source, "--sheet", sheet, "--solid", "1,3-4", "--out", out)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("pump-hall 30x20, 7 tiles, start pump-hall 14 9") as string,
  });
  expect(json().tiles.map(({ id, flags }) => `${id} ${flags.join()}`)).toEqual([
    "empty ",
    "tile-1 solid",
    "tile-2 ",
    "tile-3 solid",
    "tile-5 ",
    "tile-4 solid",
    "tile-6 ",
  ]);
  expect(json().tiles[3]).toMatchObject({ look: { sheet: "tiles", at: [2, 0] } });
  expect(readFileSync(path.join(folder, "tiles.png"))).toEqual(readFileSync(sheet));
  expect((await keenPebble("check", out)).status).toBe(0);

  const flat = file("flat.js", "const map = [1,1,1, 1,-1,1, 1,1,1];");
  expect(await keenPebble("import", flat, "--out", out)).toMatchObject({
    status: 1,
    stderr: expect.stringContaining("is one list of 9 numbers: say how many cells a row has") as string,
  });
  expect(
    (await keenPebble("import", flat, "--width", "3", "--empty", "-1", "--solid", "1", "--out", out)).stdout,
  ).toContain("flat 3x3, 2 tiles, start flat 1 1");

  expect(
    (await keenPebble("import", path.join(elsewhere, "overflow_map.png"), "--map-picture", "--out", out)).stdout,
  ).toContain("overflow-map 50x38, 61 tiles");
  expect(json().sheets).toMatchObject([{ file: "pump-hall-overflow-map.png", tile: 16 }]);
  expect((await keenPebble("import", source, "--out", out, "--solid", "a")).stderr).toBe(
    'keen-pebble: --solid: expected numbers and ranges such as 3,5,7-9, found "a"\n',
  );
  writeFileSync(path.join(folder, "tiles.png"), readFileSync(path.join(elsewhere, "overflow_map.png")));
  expect(await keenPebble("import", source, "--sheet", sheet, "--out", out)).toMatchObject({
    status: 1,
    stderr: expect.stringContaining("tiles.png is another picture of that name; it is left as it is") as string,
  });
  expect(await keenPebble("import", source, "--out", "-", "--sheet", sheet)).toMatchObject({
    status: 2,
    stderr: "keen-pebble: --sheet puts a picture beside the world; give --out a file\n",
  });
});

it("text and table print a room, import makes a world of such files again: the same cells, the same walk", async () => {
  const text = await keenPebble("text", demo, "intake-hall");
  expect(text.stdout.split("\n")[0]).toHaveLength(20);
  const table = await keenPebble("table", demo, "intake-hall");
  const room = file("intake-hall.room.txt", text.stdout);
  const out = path.join(folder, "made.world.json");
  expect(await keenPebble("import", room, "--out", out)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("intake-hall 20x16") as string,
  });
  expect((await keenPebble("text", out, "intake-hall")).stdout.split("\n").slice(0, 16)).toEqual(
    text.stdout.split("\n").slice(0, 16),
  );
  expect((await keenPebble("verify", "--no-reach", out, path.join(logs, "turn-in-time.inputs"))).stdout).toContain(
    "holds",
  );
  const again = path.join(folder, "again.world.json");
  expect(
    await keenPebble("import", file("hall.csv", table.stdout), room, "--out", again, "--tile-size", "8"),
  ).toMatchObject({
    status: 0,
  });
  expect((await keenPebble("table", again, "hall")).stdout).toBe(table.stdout);

  expect(await keenPebble("import", file("odd.room.txt", "##x\n\n# = tile rock"), "--out", out)).toMatchObject({
    status: 1,
    stderr: expect.stringContaining('odd.room.txt is refused: line 1, column 3: nothing explains "x"') as string,
  });
  expect(await keenPebble("import", file("no.png", "GIF"), "--out", out)).toMatchObject({
    status: 1,
    stderr: expect.stringContaining("no.png is refused: is no PNG") as string,
  });
  expect((await keenPebble("import", room, "--out", out, "--tile-size", "3")).stderr).toContain(
    "--tile-size: must be a whole number from 4 to 128, found 3",
  );
  expect(await keenPebble("text", demo, "attic")).toMatchObject({
    status: 1,
    stderr: expect.stringContaining("has no room attic; it has intake-hall") as string,
  });
});
