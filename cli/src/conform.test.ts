import path from "node:path";
import { expect, it } from "vitest";
import { file, folder, keenPebble, read } from "./test-support/keen-pebble.ts";

const at = "demo/stand-in-game";
const world = path.join(at, "hall.world.json");
const log = path.join(at, "round-the-hall.inputs");
const good = path.join(at, "trace.csv");
const bothBack = path.join(at, "trace-both-back.csv");

it("conform says that the stand-in game walks as ours does, and where the one with the mistake diverges", async () => {
  expect(await keenPebble("conform", world, log, good)).toEqual({
    status: 0,
    stdout: "within 0 px in all 274 frames that both have; 0 px apart at the most\n",
    stderr: "",
  });
  expect(await keenPebble("conform", world, log, bothBack)).toEqual({
    status: 1,
    stdout: [
      "diverges at frame 71, after 71 frames within 0 px",
      "  ours   hall 114 94",
      "  yours  hall 112 94",
      "  ours: moved 2 px right, stopped by 7,5 Wall; yours: stood still, which is 2 px further left",
      "",
    ].join("\n"),
    stderr: "",
  });
  // The recording itself is the log: its keys are read by the same game.
  expect((await keenPebble("conform", world, good, good)).status).toBe(0);
  expect((await keenPebble("conform", world, log, bothBack, "--tolerance", "400")).status).toBe(0);
});

it("conform --json is one value; --junit is a case that fails with the frame and what both did", async () => {
  const { status, stdout } = await keenPebble("conform", world, log, bothBack, "--json");
  expect([status, JSON.parse(stdout)]).toEqual([
    1,
    {
      conforms: false,
      game: "stand-in",
      tolerance: 0,
      compared: 72,
      farthest: 0,
      first: {
        frame: 71,
        ours: { room: "hall", x: 114, y: 94 },
        theirs: { room: "hall", x: 112, y: 94 },
        seen: "ours: moved 2 px right, stopped by 7,5 Wall; yours: stood still, which is 2 px further left",
      },
    },
  ]);
  const junit = path.join(folder, "conform.xml");
  expect((await keenPebble("conform", world, log, bothBack, "--junit", junit)).status).toBe(1);
  expect(read(junit)).toMatch(/<testcase [^>]*name="within 0 px of ours"[^>]*>\s*<failure [^>]*fails at frame 71/);
  expect((await keenPebble("conform", world, log, good, "--junit", junit)).status).toBe(0);
  expect(read(junit)).not.toContain("failure type");
});

it("our own trace conforms; what cannot be read is one clear line and exit 2", async () => {
  const trace = path.join(folder, "own.trace.csv");
  await keenPebble("replay", world, log, "--trace", trace);
  expect((await keenPebble("conform", world, log, trace)).stdout).toContain("within 0 px in all 274 frames");
  for (const [args, said] of [
    [
      [world, log, file("other.csv", "a,b\n1,2\n")],
      "neither those of our traces nor of a game that the world knows (stand-in)",
    ],
    [[world, log, good, "--game", "roof"], "--game: the world knows no game roof"],
    [[world, log, file("bad.csv", "tick,px,py,pad\n0,1,x,\n")], 'line 2: py: expected a number, found "x"'],
    [[world, log, good, "--tolerance", "-1"], "expected a length in px from 0"],
    [[world, log, "nowhere.csv"], "there is no such file"],
  ] as const) {
    const { status, stdout, stderr } = await keenPebble("conform", ...args);
    expect([status, stdout]).toEqual([2, ""]);
    expect(stderr).toContain(said);
  }
});
