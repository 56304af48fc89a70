import fc from "fast-check";
import type { LogLine, InputLog } from "../logs/input-log.ts";
import { EMPTY_LOG } from "../logs/input-log.ts";
import type { Body, World } from "../world/world.ts";
import type { TinyOptions } from "./tiny-world.ts";
import { tinyWorld } from "./tiny-world.ts";

/** Fixed seed and number of runs of every property. */
export const FIXED = { seed: 20_260_811, numRuns: 200 } as const;

/** Rows of a room with about a third of it solid, the walker at the top left. */
export const anyRows: fc.Arbitrary<string[]> = fc
  .record({ width: fc.integer({ min: 2, max: 9 }), height: fc.integer({ min: 2, max: 9 }) })
  .chain(({ width, height }) =>
    fc
      .array(fc.constantFrom(...".......##/="), { minLength: width * height, maxLength: width * height })
      .map((cells) => Array.from({ length: height }, (_, y) => cells.slice(y * width, (y + 1) * width).join("")))
      .map((rows) => [`S${rows[0]!.slice(1)}`, ...rows.slice(1)]),
  );

/** Settings of glide and input, all of them, that a world of tile size 16 may have. */
export const anyOptions: fc.Arbitrary<TinyOptions> = fc.record({
  edges: fc.constantFrom("wall", "wrap"),
  input: fc.record({
    opposites: fc.constantFrom("cancel", "latest", "earliest"),
    ways: fc.constantFrom(4, 8),
    prefer: fc.constantFrom("latest", "horizontal", "vertical"),
  }),
  glide: fc.record({
    speed: fc.oneof(
      fc.integer({ min: 1, max: 16 }),
      fc.integer({ min: 1, max: 4096 }).map((units) => units / 256),
    ),
    arrive: fc.constantFrom("land", "equal", "past"),
    carry: fc.boolean(),
    slide: fc.boolean(),
    bufferFrames: fc.integer({ min: 0, max: 12 }),
    keepGoing: fc.boolean(),
    reverse: fc.boolean(),
    cutCorners: fc.boolean(),
  }),
});

/** A box or probe body about a walker of 16 px, lying flush or not. */
export const anyBody: fc.Arbitrary<Body> = fc.oneof(
  fc.record({
    kind: fc.constant("box" as const),
    box: fc.tuple(
      fc.integer({ min: -3, max: 6 }),
      fc.integer({ min: -3, max: 6 }),
      fc.integer({ min: 1, max: 16 }),
      fc.integer({ min: 1, max: 16 }),
    ),
    flush: fc.constantFrom("free" as const, "blocks" as const),
  }),
  fc.record({
    kind: fc.constant("probes" as const),
    points: fc.array(fc.tuple(fc.integer({ min: 0, max: 16 }), fc.integer({ min: 0, max: 16 })), {
      minLength: 1,
      maxLength: 4,
    }),
    flush: fc.constant("free" as const),
  }),
);

const anyFreeMovement = {
  diagonal: fc.constantFrom("even" as const, "full" as const),
  response: fc.constantFrom(
    "contact" as const,
    "contact" as const,
    "contact" as const,
    "snap" as const,
    "undo-axis" as const,
    "undo-both" as const,
    "ahead" as const,
  ),
  axisOrder: fc.constantFrom("x-first" as const, "y-first" as const),
  aheadPx: fc.constantFrom(1, 2.5, 8),
  nudge: fc.constantFrom(0, 0, 3, 8),
  slopes: fc.constantFrom("slide" as const, "stop" as const),
};
const anySpeed = fc.oneof(
  fc.integer({ min: 1, max: 16 }),
  fc.integer({ min: 1, max: 20 * 256 }).map((units) => units / 256),
);

/** Settings of all gaits, any of them in use. */
export const anyGait: fc.Arbitrary<TinyOptions> = fc
  .record({
    base: anyOptions,
    gait: fc.constantFrom("hop" as const, "glide" as const, "roam" as const, "drift" as const),
    body: fc.oneof(
      fc.constant(undefined),
      anyBody,
      fc
        .integer({ min: 1, max: 6 })
        .map((inset): Body => ({ kind: "box", box: [inset, inset, 16 - 2 * inset, 16 - 2 * inset], flush: "free" })),
    ),
    hop: fc.record({
      repeatAfter: fc.integer({ min: 0, max: 6 }),
      repeatEvery: fc.integer({ min: 0, max: 3 }),
      slide: fc.boolean(),
      cutCorners: fc.boolean(),
    }),
    roam: fc.record({ speedX: anySpeed, speedY: anySpeed, ...anyFreeMovement }),
    drift: fc.record({
      accel: anySpeed.map((v) => v / 8 + 1 / 256),
      drag: fc.integer({ min: 0, max: 200 }),
      maxSpeed: anySpeed,
      ...anyFreeMovement,
    }),
    facing: fc.record({
      ways: fc.constantFrom(4 as const, 8 as const),
      tie: fc.constantFrom("keep" as const, "horizontal" as const, "vertical" as const),
      idle: fc.constantFrom("keep" as const, "reset" as const),
    }),
  })
  .map(({ base, body, ...rest }) => ({ ...base, ...rest, ...(body ? { body } : {}) }));

/** A world of one small room under any glide settings. */
export const anyWorld: fc.Arbitrary<World> = fc
  .tuple(anyRows, anyOptions)
  .map(([rows, options]) => tinyWorld(rows, options));

const anyLine: fc.Arbitrary<LogLine> = fc.record({
  kind: fc.constant("keys" as const),
  count: fc.integer({ min: 1, max: 24 }),
  keys: fc.integer({ min: 0, max: 15 }),
  pointer: fc.constant(null),
  until: fc.constant(null),
});

/** A log that presses directions in all sorts of ways, some hundred frames long. */
export const anyLog: fc.Arbitrary<InputLog> = fc
  .array(anyLine, { minLength: 1, maxLength: 24 })
  .map((lines) => ({ ...EMPTY_LOG, lines }));
