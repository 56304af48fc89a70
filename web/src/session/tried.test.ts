import type { Rules, Verdict } from "@keen-pebble/core";
import { emptyWorld } from "@keen-pebble/core";
import { beforeEach, expect, it } from "vitest";
import { forgetTried, noteTried, triedKey, triedStore } from "./tried.ts";

const base = emptyWorld("w", "W", 16).rules[0]!;
const speed = (value: number): Rules => ({ ...base, glide: { ...base.glide, speed: value } });
const verdicts = (failing: number): Verdict[] => [0, 1, 2].map((i) => ({ check: `always aligned ${i}`, verdict: i < failing ? "fail" : "pass", frame: 0, seen: null }));
const tried = (): string => (triedStore.getState().get(triedKey("main", "glide.speed")) ?? []).map(({ value, failing }) => `${String(value)}:${failing}`).join(" ");

beforeEach(forgetTried);

it("keeps the value before the first change, and each one after it with what failed", () => {
  noteTried("log", speed(2), verdicts(0), null);
  expect(tried()).toBe("");
  noteTried("log", speed(3), verdicts(1), null);
  noteTried("log", speed(5), verdicts(2), null);
  expect(tried()).toBe("2:0 3:1 5:2");
  expect([...triedStore.getState().keys()]).toEqual(["main/glide.speed"]);
});

it("a drag leaves the value at which it rests; one that comes again keeps its place", () => {
  noteTried("log", speed(2), verdicts(0), null);
  for (const value of [3, 4, 5]) noteTried("log", speed(value), verdicts(1), "drag");
  expect(tried()).toBe("2:0 5:1");
  noteTried("log", speed(2), verdicts(0), null);
  noteTried("log", speed(7), verdicts(3), null);
  expect(tried()).toBe("2:0 5:1 7:3");
});

it("another log or rule set is nothing that was tried here", () => {
  noteTried("log", speed(2), verdicts(0), null);
  noteTried("other", speed(3), verdicts(0), null);
  noteTried("other", { ...speed(4), id: "second" }, verdicts(0), null);
  expect(triedStore.getState().size).toBe(0);
});
