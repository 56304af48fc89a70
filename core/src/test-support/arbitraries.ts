import fc from "fast-check";
import type { LogLine } from "../logs/input-log.ts";
import { EMPTY_LOG } from "../logs/input-log.ts";
import type { InputLog } from "../logs/input-log.ts";
import type { World } from "../world/world.ts";
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
    speed: fc.oneof(fc.integer({ min: 1, max: 16 }), fc.integer({ min: 1, max: 4096 }).map((units) => units / 256)),
    arrive: fc.constantFrom("land", "equal", "past"),
    carry: fc.boolean(),
    slide: fc.boolean(),
    bufferFrames: fc.integer({ min: 0, max: 12 }),
    keepGoing: fc.boolean(),
    reverse: fc.boolean(),
    cutCorners: fc.boolean(),
  }),
});

/** A world of one small room under any glide settings. */
export const anyWorld: fc.Arbitrary<World> = fc.tuple(anyRows, anyOptions).map(([rows, options]) => tinyWorld(rows, options));

const anyLine: fc.Arbitrary<LogLine> = fc.record({
  kind: fc.constant("keys" as const),
  count: fc.integer({ min: 1, max: 24 }),
  keys: fc.integer({ min: 0, max: 15 }),
  pointer: fc.constant(null),
  until: fc.constant(null),
});

/** A log that presses directions in all sorts of ways, some hundred frames long. */
export const anyLog: fc.Arbitrary<InputLog> = fc.array(anyLine, { minLength: 1, maxLength: 24 }).map((lines) => ({ ...EMPTY_LOG, lines }));
