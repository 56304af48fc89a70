import { expect, it } from "vitest";
import { demo, keenPebble, piped, turn } from "./test-support/keen-pebble.ts";

it.each<[number, string[]]>([
  [0, ["check", demo]],
  [0, ["check", "--help"]],
  [0, ["--help"]],
  [0, ["replay", demo, turn]],
  [0, ["verify", demo, turn]],
  [0, ["text", demo, "intake-hall"]],
  [0, ["table", demo, "intake-hall"]],
  [0, ["wander", demo, "--runs", "5", "--frames", "100"]],
  [1, ["take-home", demo, "--out", "/tmp", "--rules", "roof"]],
  [1, ["check", turn]],
  [1, ["replay", turn, turn]],
  [1, ["replay", demo, turn, "--rules", "roof"]],
  [1, ["text", demo, "roof"]],
  [1, ["import", turn, "--out", "/dev/null/x.world.json"]],
  [2, []],
  [2, ["stroll"]],
  [2, ["check"]],
  [2, ["check", "nowhere"]],
  [2, ["check", demo, demo]],
  [2, ["replay", demo]],
  [2, ["replay", demo, "nowhere"]],
  [2, ["verify", demo]],
  [2, ["verify", turn, turn]],
  [2, ["verify", demo, demo]],
  [2, ["compare", turn, turn]],
  [2, ["wander", demo, "--runs", "0"]],
  [2, ["wander", demo, "--frames", "many"]],
  [2, ["take-home", demo]],
  [2, ["take-home", demo, "nowhere", "--out", "/tmp"]],
  [2, ["take-home", demo, turn, turn, "--out", "/tmp"]],
  [2, ["take-home", demo, "--out", "/dev/null/home"]],
  [2, ["import", "nowhere.txt", "--out", "x.world.json"]],
])("exits %i for %j", async (code, args) => {
  const { status, stdout, stderr } = await keenPebble(...args);
  expect({ status, trace: stderr.includes("    at ") }).toEqual({ status: code, trace: false });
  // Whoever is told no is told why: on standard error, or as the answer itself.
  if (code !== 0 && args.length > 0 && stdout === "") expect(stderr).toMatch(/^keen-pebble: /);
});

it.each<[number, string[]]>([
  [0, ["check", demo]],
  [1, ["check", turn]],
  [2, ["stroll"]],
])("its process ends with %i for %j", (code, args) => expect(piped("", ...args).status).toBe(code));
