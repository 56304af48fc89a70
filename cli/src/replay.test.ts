import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import path from "node:path";
import { expect, it } from "vitest";
import { demo, file, folder, keenPebble, logs } from "./test-support/keen-pebble.ts";

it("replay prints status, last frame and fingerprint, and writes the trace whose bytes it is of", async () => {
  const out = path.join(folder, "trace.csv");
  const { status, stdout } = await keenPebble(
    "replay",
    demo,
    path.join(logs, "against-the-block.inputs"),
    "--trace",
    out,
  );
  expect(status).toBe(0);
  expect(stdout).toMatch(/^status playing\nlast frame 58\nfingerprint [0-9a-f]{64}\n$/);
  const rows = readFileSync(out, "utf8").split("\r\n");
  expect(rows.slice(0, 2)).toEqual([
    "frame,keys,room,x,y,cx,cy,facing,pose,moving,aligned,status,events",
    "0,.,intake-hall,16384,49152,4,12,up,0,0,1,playing,",
  ]);
  expect(rows[10]).toBe("9,L,intake-hall,16384,45056,4,11,left,2,0,1,playing,bump");
  const digest = spawnSync("sha256sum", [out], { encoding: "utf8" }).stdout.slice(0, 64);
  expect(stdout).toContain(digest);
});

it("a log that sets up what the world does not have is refused by name", async () => {
  const log = file("set-up.inputs", "keen-pebble-inputs 1\nwith open sluice-9\n---\n1 R\n");
  expect(await keenPebble("replay", demo, log)).toMatchObject({
    status: 1,
    stdout: "",
    stderr: "keen-pebble: `with open` in a log names fixture sluice-9, which this world does not have\n",
  });
});

it("a flat log and a log out of CSV press the same, and compare says so or names the first row that differs", async () => {
  const until = file(
    "until.inputs",
    "keen-pebble-inputs 1\nstart intake-hall 4 12 up\n---\n72 U\n300 R until cell 8 3\n9 .\n",
  );
  const [flat, trace, again, other] = ["flat.inputs", "a.csv", "b.csv", "c.csv"].map((name) =>
    path.join(folder, name),
  ) as [string, string, string, string];
  const first = await keenPebble("replay", demo, until, "--trace", trace, "--flat", flat, "--json");
  expect(JSON.parse(first.stdout)).toEqual({
    status: "playing",
    frames: 109,
    fingerprint: expect.stringMatching(/^[0-9a-f]{64}$/) as string,
  });
  expect(readFileSync(flat, "utf8")).toContain("---\n72 U\n28 R\n9 .\n");
  expect((await keenPebble("replay", demo, flat, "--trace", again)).stdout).toContain(
    (JSON.parse(first.stdout) as { fingerprint: string }).fingerprint,
  );
  expect(await keenPebble("compare", trace, again)).toMatchObject({ status: 0, stdout: "equal\n" });

  const csv = file("pressed.csv", "frame,keys\n1,U\n73,R\n103,.\n110,.\n");
  await keenPebble("replay", demo, csv, "--trace", other);
  const different = await keenPebble("compare", trace, other);
  expect(different.status).toBe(1);
  expect(different.stdout).toBe("differs at frame 101\n  keys: . and R\n");
  expect(JSON.parse((await keenPebble("compare", trace, other, "--json")).stdout)).toEqual({
    equal: false,
    frame: 101,
    columns: [{ column: "keys", a: ".", b: "R" }],
    missing: null,
  });
  expect(await keenPebble("compare", trace, csv)).toMatchObject({
    status: 2,
    stderr: expect.stringContaining("pressed.csv is refused: line 1: header: lacks the column room, x, y") as string,
  });
});
