import { readPlayed } from "@keen-pebble/core/check";
import { writeWorld } from "@keen-pebble/core/formats";
import { RIGHT } from "@keen-pebble/core/world";
import type { World } from "@keen-pebble/core/world";
import type { NewPlay } from "@keen-pebble/server/api";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { hall } from "../test-support/hall.ts";
import { traceHash } from "../workers/trace-hash.ts";
import { PlaySession } from "./play-session.ts";

/** What the server of the link says next to a play. */
type Answer = "taken" | "refused" | "busy" | "away";

const FRAME_MS = 1000 / 60;

let world: World;
let asked: FrameRequestCallback[];
let now: number;
let answers: Answer[];
let sent: NewPlay[];
let isOn: boolean;
let session: PlaySession;

beforeEach(() => {
  world = hall();
  asked = [];
  now = 1000;
  answers = [];
  sent = [];
  isOn = true;
  vi.stubGlobal("requestAnimationFrame", (next: FrameRequestCallback) => asked.push(next));
  vi.stubGlobal("cancelAnimationFrame", (at: number) => {
    asked.splice(at - 1, 1);
  });
  vi.spyOn(performance, "now").mockImplementation(() => now);
  vi.stubGlobal("fetch", async (address: string, { body }: RequestInit = {}) => served(address, body as string));
  session = new PlaySession();
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

async function served(address: string, body: string): Promise<Response> {
  const problem = (status: number, detail: string) => Response.json({ status, detail }, { status });
  if (!isOn) return problem(404, "no playtest");
  if (address.endsWith("/game")) return Response.json({ revision: 4, world: JSON.parse(writeWorld(world)) as unknown });
  sent.push(JSON.parse(body) as NewPlay);
  const answer = answers.shift() ?? "taken";
  if (answer === "away") throw new TypeError("failed to fetch");
  if (answer === "refused") return problem(422, "the playtest is refused");
  if (answer === "busy") return problem(429, "too many requests");
  return Response.json({ log: "playtest-1" }, { status: 201 });
}

/** Lets the page show so many pictures, one each frame. */
function show(pictures: number, every = FRAME_MS): void {
  for (let i = 0; i < pictures; i++) {
    now += every;
    for (const next of asked.splice(0)) next(now);
  }
}

const state = () => session.store.getState();
const frame = () => state().game!.frame;

it("steps with the pictures, stands still while one tells, and goes on where it stood", async () => {
  expect(state().phase).toBe("loading");
  await session.start();
  expect(state()).toMatchObject({ phase: "playing", fault: null, isOver: false });
  session.controls.touched = RIGHT;
  show(16);
  expect(frame()).toBe(16);
  session.tell();
  expect(state().phase).toBe("telling");
  show(30);
  expect(frame()).toBe(16);
  session.goOn();
  show(2);
  expect(frame()).toBe(18);
  // After it was not shown for a while it does not run ahead.
  show(1, 5000);
  expect(frame()).toBe(24);
  await session.send("Ada", "");
  expect(sent).toEqual([]);
});

it("sends the run that was seen, under the revision that it was played in, once", async () => {
  await session.start();
  session.controls.touched = RIGHT;
  show(16);
  session.tell();
  const sending = session.send(" Ada ", "Where is the crank?");
  expect(state().phase).toBe("sending");
  await session.send("Ada", "Again.");
  await sending;
  expect(state().phase).toBe("sent");
  expect(sent).toHaveLength(1);
  expect(sent[0]).toMatchObject({ revision: 4, name: "Ada", opinion: "Where is the crank?" });
  expect(sent[0]!.log.split("---\n")[1]).toBe("16 R\n");
  expect(readPlayed(sent[0]!.log, sent[0]!.fingerprint, world, traceHash()).frames).toBe(16);
});

it("whoever tells before the first picture has played one frame: a play of none is not taken", async () => {
  await session.start();
  session.tell();
  await session.send("Ada", "Nice colours.");
  expect(readPlayed(sent[0]!.log, sent[0]!.fingerprint, world, traceHash()).frames).toBe(1);
});

it.each([
  ["refused", "It was not sent: the playtest is refused."],
  ["busy", "It was not sent: too many requests."],
  ["away", "It was not sent: the server does not answer."],
] as const)("what is %s can be sent again, as the same play", async (answer, fault) => {
  answers.push(answer);
  await session.start();
  show(3);
  session.tell();
  await session.send("Ada", "");
  expect(state()).toMatchObject({ phase: "telling", fault });
  await session.send("Ada", "");
  expect(state()).toMatchObject({ phase: "sent", fault: null });
  expect(sent[1]).toEqual(sent[0]);
  expect(sent[0]!.batch).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
});

it("a play from the start again is another one, and only it goes on", async () => {
  await session.start();
  show(5);
  session.tell();
  await session.send("Ada", "");
  session.begin();
  show(2);
  session.begin();
  show(2);
  expect(frame()).toBe(2);
  session.tell();
  await session.send("Ada", "");
  expect(sent[1]!.batch).not.toBe(sent[0]!.batch);
});

it("at its end one tells, and does not play on", async () => {
  const [room] = world.rooms;
  const marker = { kind: "marker", id: "end", name: "End", cell: [4, 2], touch: "cell", keeps: "run", size: [1, 1] };
  world = {
    ...world,
    rooms: [{ ...room!, fixtures: [marker as never] }],
    goal: { kind: "marker", fixture: "end" },
  };
  await session.start();
  session.controls.touched = RIGHT;
  show(60);
  expect(state()).toMatchObject({ phase: "telling", isOver: true });
  const ended = frame();
  session.goOn();
  show(9);
  expect(state().phase).toBe("telling");
  expect(frame()).toBe(ended);
  session.begin();
  expect(state()).toMatchObject({ phase: "playing", isOver: false });
});

it.each([
  [false, "This link is switched off, or never was one."],
  [true, "It cannot be played now: the server does not answer."],
])("a link that cannot be played says why (on: %s)", async (on, fault) => {
  isOn = on;
  if (on) vi.stubGlobal("fetch", async () => Promise.reject(new TypeError("failed to fetch")));
  await session.start();
  expect(state()).toMatchObject({ phase: "closed", fault, game: null });
  session.begin();
  session.tell();
  expect(state().phase).toBe("closed");
});
