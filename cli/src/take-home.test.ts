import { spawnSync } from "node:child_process";
import { mkdirSync, writeFileSync } from "node:fs";
import path from "node:path";
import { expect, it } from "vitest";
import { demo, folder, keenPebble, logs, read } from "./test-support/keen-pebble.ts";

const conform = (home: string) => spawnSync(process.execPath, [path.join(home, "conform.js")], { encoding: "utf8" });

it("take-home writes a folder that holds itself against its golden runs, and says what stood there before", async () => {
  const home = path.join(folder, "home");
  mkdirSync(path.join(home, "golden"), { recursive: true });
  writeFileSync(path.join(home, "golden/mine.txt"), "mine");
  writeFileSync(path.join(home, "notes.txt"), "mine");
  const { status, stdout, stderr } = await keenPebble("take-home", demo, logs, "--out", home);
  expect([status, stderr]).toEqual([0, ""]);
  expect(stdout).toMatch(
    /^.*: the rules main in \d{3} lines, with 22 of your 25 logs; node conform.js there compares\n/,
  );
  expect(stdout).toContain(
    "  left out, as actors are met in them: 12-patrol-of-the-settling-gallery, 15-patrol-of-the-lamp-room, 21-the-moth-comes-nearer\n",
  );
  expect(stdout).toContain("golden/ also holds mine.txt, from before: delete what is no longer wanted\n");
  expect(read(path.join(home, "notes.txt"))).toBe("mine");
  expect(conform(home)).toMatchObject({ status: 0, stdout: "22 of 22\n", stderr: "" });
  const before = read(path.join(home, "movement.js"));
  expect((await keenPebble("take-home", demo, logs, "--out", home)).status).toBe(0);
  expect(read(path.join(home, "movement.js"))).toBe(before);
});

it("take-home without logs says in PORTING.md that none was taken along", async () => {
  const home = path.join(folder, "no-logs");
  expect((await keenPebble("take-home", demo, "--out", home)).status).toBe(0);
  expect(conform(home).stdout).toBe("0 of 0\n");
  expect(read(path.join(home, "PORTING.md"))).toContain("No log was taken along.");
});

it("take-home keeps nothing where a log cannot run in the world", async () => {
  const home = path.join(folder, "refused");
  const log = path.join(folder, "roof.inputs");
  writeFileSync(log, "keen-pebble-inputs 1\nstart roof 1 1 down\n---\n5 R\n");
  expect(await keenPebble("take-home", demo, log, "--out", home)).toMatchObject({ status: 1 });
  expect(() => read(path.join(home, "movement.js"))).toThrow();
});
