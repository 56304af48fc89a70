import { readFileSync } from "node:fs";
import path from "node:path";
import { expect, it } from "vitest";
import { demo, file, folder, keenPebble, logs, read, root, turn } from "./test-support/keen-pebble.ts";

it("check prints what it refuses with its place, and exits 1; findings only count with --strict", async () => {
  expect(await keenPebble("check", demo)).toMatchObject({ status: 0 });
  const text = readFileSync(path.join(root, demo), "utf8");
  const refused = await keenPebble(
    "check",
    file("refused.world.json", text.replace('"gait": "glide"', '"gait": "stroll"')),
  );
  expect(refused.status).toBe(1);
  expect(refused.stdout).toMatch(
    /refused: line \d+, column \d+: rules\[0\]\.gait: must be one of hop, glide, roam, drift, found "stroll"/,
  );
  const odd = file("odd.world.json", text.replace('"speed": 2, "arrive": "land"', '"speed": 3, "arrive": "past"'));
  expect(await keenPebble("check", odd)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("rules[0].glide.speed: 3 px does not divide 16: 16 = 5 x 3 + 1") as string,
  });
  expect((await keenPebble("check", odd, "--strict")).status).toBe(1);
});

it("one clear line and exit 2 for files that are not there and options that do not exist", async () => {
  for (const args of [
    ["verify", "nowhere.world.json", logs],
    ["verify", demo, "nowhere"],
    ["verify", demo, "demo"],
    ["check", demo, "--fast"],
    ["stroll"],
  ]) {
    const { status, stdout, stderr } = await keenPebble(...args);
    expect({ args, status, stdout, lines: stderr.trim().split("\n").length }).toEqual({
      args,
      status: 2,
      stdout: "",
      lines: 1,
    });
  }
  const half = await keenPebble(
    "replay",
    demo,
    path.join(logs, "turn-in-time.inputs"),
    "--trace",
    path.join(folder, "no-folder", "t.csv"),
  );
  expect(half).toMatchObject({ status: 2, stderr: expect.stringContaining("cannot be written") as string });
});

it("wander finds a broken law, writes the shrunk walk as a log, and the same seed finds the same; whole worlds have none", async () => {
  expect(await keenPebble("wander", demo, "--runs", "300", "--frames", "600")).toMatchObject({
    status: 0,
    stdout: "300 walks of at most 600 frames under main: no law broken\n",
  });
  const odd = file(
    "odd-speed.world.json",
    readFileSync(path.join(root, demo), "utf8").replace(
      '"speed": 2, "arrive": "land"',
      '"speed": 3, "arrive": "equal"',
    ),
  );
  const out = path.join(folder, "found.inputs");
  const found = await keenPebble("wander", odd, "--runs", "200", "--seed", "5", "--out", out);
  expect(found).toMatchObject({
    status: 1,
    stdout: expect.stringMatching(
      /^broken in frame \d+: is on a leg that never ends; seed \d+, shrunk from \d+ frames$/m,
    ) as string,
  });
  expect((await keenPebble("wander", odd, "--runs", "200", "--seed", "5")).stdout).toBe(found.stdout);
  expect(await keenPebble("verify", "--no-reach", odd, out)).toMatchObject({
    status: 1,
    stdout: expect.stringContaining("always aligned; seen:") as string,
  });
  expect(JSON.parse((await keenPebble("wander", odd, "--runs", "20", "--json")).stdout)).toMatchObject([
    { law: "is on a leg that never ends", log: expect.stringContaining("keen-pebble-inputs 1") as string },
  ]);
  expect(await keenPebble("wander", demo, "--runs", "none")).toMatchObject({
    status: 2,
    stdout: "",
    stderr: "keen-pebble: --runs must be a whole number from 1 to 10000000, found none\n",
  });
});

it("worlds, logs, rooms and items may be called like what every object has", async () => {
  const world = JSON.parse(readFileSync(path.join(root, demo), "utf8")) as {
    id: string;
    name: string;
    items: { id: string; name: string }[];
    rooms: { id: string; name: string }[];
  };
  world.name = "__proto__";
  world.rooms[1]!.name = "toString";
  const text = JSON.stringify({ ...world, id: "constructor" })
    .replaceAll(`"${world.items[0]!.id}"`, '"valueof"')
    .replaceAll(`"${world.rooms[1]!.id}"`, '"constructor"');
  const odd = file("constructor.world.json", text);
  const log = file(
    "constructor.inputs",
    "keen-pebble-inputs 1\nworld constructor\ntitle __proto__\ntag toString\nnote hasOwnProperty\ncheck never room constructor\ncheck never holds valueof 9\n---\n4 .\n",
  );
  expect((await keenPebble("check", odd)).status).toBe(0);
  expect(await keenPebble("verify", "--no-reach", odd, log)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("1 of 1 log") as string,
  });
  expect((await keenPebble("text", odd, "constructor")).status).toBe(0);
  expect(await keenPebble("text", odd, "valueof")).toMatchObject({
    status: 1,
    stderr: expect.stringContaining("has no room valueof") as string,
  });
  expect((await keenPebble("replay", odd, log, "--rules", "constructor")).stderr).toMatch(/constructor/);
});

it("says its version", async () => {
  const { version } = JSON.parse(read("cli/package.json")) as { version: string };
  expect(await keenPebble("--version")).toEqual({ status: 0, stdout: `${version}\n`, stderr: "" });
});

it("what other systems' editors make of a file is read: CRLF and a byte-order mark, in each format", async () => {
  const odd = (name: string, text: string): string => file(name, `\ufeff${text.replace(/\r?\n/g, "\r\n")}`);
  const world = odd("odd-ends.world.json", read(demo));
  expect((await keenPebble("check", world)).status).toBe(0);
  const log = odd("odd-ends.inputs", read(turn));
  expect(await keenPebble("verify", "--no-reach", world, log)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("4 of 4 checks") as string,
  });
  const [trace, flat] = [path.join(folder, "odd.csv"), path.join(folder, "odd-flat.inputs")];
  expect((await keenPebble("replay", world, log, "--trace", trace, "--flat", flat)).status).toBe(0);
  // What is written is the format's own form again.
  expect(readFileSync(flat, "utf8")).not.toMatch(/\r|\ufeff/);
  expect(
    await keenPebble(
      "compare",
      trace,
      file("odd-trace.csv", `\ufeff${readFileSync(trace, "utf8").replaceAll("\r\n", "\n")}`),
    ),
  ).toMatchObject({ status: 0, stdout: "equal\n" });
  const room = odd("odd-room.room.txt", "###\n#S#\n###\n\n# = tile wall flags=solid\nS = start on floor\n");
  const table = odd("odd-table.csv", "0,1\n1,0\n");
  expect(await keenPebble("import", room, table, "--out", path.join(folder, "odd.world.json"))).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("odd-room 3x3, odd-table 2x2") as string,
  });
});
