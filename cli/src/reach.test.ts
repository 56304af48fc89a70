import path from "node:path";
import { expect, it } from "vitest";
import { demo, file, folder, keenPebble, piped, logs, read } from "./test-support/keen-pebble.ts";

/** The demo with other reach checks. */
function checked(...reachChecks: string[]): string {
  return file("checked.world.json", JSON.stringify({ ...(JSON.parse(read(demo)) as object), reachChecks }));
}

it("reach says what can be reached, and --strict exits 1 where one can get stuck", async () => {
  const { status, stdout } = await keenPebble("reach", demo);
  expect([status, stdout.split("\n")[0]]).toEqual([
    0,
    expect.stringMatching(/^All 20 things can be reached; the goal in \d+ moves/),
  ]);
  expect(stdout).toContain("on the grid at rest: proved");
  expect(stdout).toContain("pass: winnable");
  expect((await keenPebble("reach", demo, "--strict")).status).toBe(1);
});

it("reach --json is one value, with what no log reaches where logs are given; its witness arrives by replay", async () => {
  const witness = path.join(folder, "way.inputs");
  const { status, stdout } = await keenPebble(
    "reach",
    demo,
    "--json",
    "--logs",
    logs,
    "--witness",
    "key-1",
    "--out",
    witness,
  );
  const answer = JSON.parse(stdout) as {
    fixtures: Record<string, number>;
    untested: { fixtures: string[] };
    goal: number;
  };
  expect([status, answer.untested.fixtures]).toEqual([0, ["vent-3"]]);
  expect(piped("", "replay", demo, witness, "--trace", "-").stdout).toContain("take:key-1");
  // From beside it, it is nearer.
  const near = JSON.parse(
    (await keenPebble("reach", demo, "--json", "--from", "valve-loft,3,2")).stdout,
  ) as typeof answer;
  expect(near.fixtures["key-1"]).toBeLessThan(answer.fixtures["key-1"]!);
});

it("reach checks are told first by verify, left out with --no-reach, and break it where they fail", async () => {
  const world = checked("winnable", "never stuck", "unreachable key-1");
  const one = path.join(logs, "round-the-basin.inputs");
  const said = await keenPebble("verify", world, one);
  expect([said.status, said.stdout.split("\n")[0]]).toEqual([1, "breaks all play: 1 of 3 reach checks"]);
  const [first, log] = JSON.parse((await keenPebble("verify", world, one, "--json")).stdout) as [object, object];
  expect(first).toMatchObject({
    reach: true,
    holds: false,
    checks: [
      { check: "winnable", verdict: "pass", seen: null },
      { check: "never stuck", verdict: "fail" },
      { check: "unreachable key-1", verdict: "fail" },
    ],
  });
  expect(log).toMatchObject({ holds: true });
  expect((await keenPebble("verify", world, one, "--no-reach")).status).toBe(0);
  expect((await keenPebble("reach", world)).status).toBe(1);
});

it("what cannot be asked is one clear line and exit 2", async () => {
  for (const [args, says] of [
    [["--from", "intake-hall"], "--from intake-hall: expected ROOM,X,Y"],
    [["--witness", "lamp-1"], "--witness and --out belong together"],
    [["--witness", "lamp-9", "--out", "-"], "--witness lamp-9: this world has no such fixture"],
  ] as const) {
    const { status, stderr } = await keenPebble("reach", demo, ...args);
    expect([status, stderr.trim().split("\n").length, stderr]).toEqual([2, 1, expect.stringContaining(says)]);
  }
});

it("reach says that it is open whether one gets stuck where play may come to what was not looked at", async () => {
  interface Plain {
    readonly rules: { glide?: object }[];
    readonly rooms: { id: string; edges: { north: object } }[];
  }
  const world = JSON.parse(read(demo)) as Plain;
  world.rules[0]!.glide = { ...world.rules[0]!.glide, speed: 3, carry: true };
  // Two sides that lead on meet there now.
  const walk = world.rooms.find(({ id }) => id === "overflow-walk")!;
  walk.edges.north = { kind: "link", room: "intake-hall", offset: 1 };
  const { status, stdout } = await keenPebble("reach", file("corner.world.json", JSON.stringify(world)), "--strict");
  expect([status, stdout.match(/^stuck: .*$/m)?.[0]]).toEqual([1, "stuck: open"]);
  expect(stdout).not.toContain("can be lost for good");
});
