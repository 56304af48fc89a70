import type { Logger } from "pino";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { AfterSave } from "./after-save.ts";
import type { Proofs } from "./proofs.ts";
import { NotFoundError } from "./service-errors.ts";

let asked: string[];
let answer: () => Promise<unknown>;
let afterSave: AfterSave;
beforeEach(() => {
  vi.useFakeTimers();
  asked = [];
  answer = () => Promise.resolve();
  const proofs = { request: (world: string) => (asked.push(world), answer()) } as unknown as Proofs;
  afterSave = new AfterSave(proofs, { debug: () => undefined } as unknown as Logger);
});
afterEach(() => vi.useRealTimers());

const pass = (ms: number): Promise<unknown> => vi.advanceTimersByTimeAsync(ms);

it("asks for a world's proofs once it has rested, however many revisions came in a row; other worlds do not wait for it", async () => {
  for (let i = 0; i < 5; i++) {
    afterSave.saved("hall");
    await pass(400);
  }
  afterSave.saved("well");
  expect(asked).toEqual([]);
  await pass(400);
  expect(asked).toEqual(["hall"]);
  await pass(5000);
  expect(asked).toEqual(["hall", "well"]);
});

it("asks again later where the database was away, and never for a world that is gone", async () => {
  answer = () => Promise.reject(new Error("no database"));
  afterSave.saved("hall", 10);
  await pass(20);
  answer = () => Promise.reject(new NotFoundError("world", "hall"));
  await pass(5000);
  expect(asked).toEqual(["hall", "hall"]);
  await pass(60_000);
  expect(asked).toHaveLength(2);
});

it("before it stops it asks for all that rests, waits until that is put in, and asks no more where that fails", async () => {
  let put: () => void = () => undefined;
  answer = () => new Promise<void>((resolve) => (put = resolve));
  afterSave.saved("hall");
  let stopped = false;
  const stop = afterSave.stop().then(() => (stopped = true));
  await pass(0);
  expect([asked, stopped]).toEqual([["hall"], false]);
  put();
  await stop;
  answer = () => Promise.reject(new Error("no database"));
  afterSave.saved("well", 0);
  await pass(60_000);
  expect(asked).toEqual(["hall", "well"]);
});
