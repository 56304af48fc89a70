import fc from "fast-check";
import { expect, it } from "vitest";
import { floorModulo } from "../base/units.ts";
import { explainFrame, run } from "../replay/run.ts";
import { FIXED, anyGait, anyLog, anyRows } from "../test-support/arbitraries.ts";
import type { Mirror } from "../test-support/mirrored.ts";
import { mirroredLog, mirroredWorld } from "../test-support/mirrored.ts";
import { told } from "../test-support/told.ts";
import type { TinyOptions } from "../test-support/tiny-world.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { ROW_BUMPING } from "./trace.ts";
import { WRAPPED } from "../world/vocabulary.ts";
import { compile } from "./compile.ts";
import type { Explanation } from "./explain.ts";

/** A world and a log in which nothing breaks a tie, and which axis a mirror turns. */
const anyUntied = fc
  .record({
    rows: anyRows,
    options: anyGait,
    inset: fc.integer({ min: 0, max: 7 }),
    log: anyLog,
    mirror: fc.constantFrom<Mirror>("x", "y"),
  })
  .map(({ rows, options, inset, log, mirror }) => {
    const free = { nudge: 0, slopes: "stop" } as const;
    const settings: TinyOptions = {
      ...options,
      body: {
        kind: "box",
        box: [inset, inset, 16 - 2 * inset, 16 - 2 * inset],
        flush: options.body?.flush ?? "free",
      },
      input: { ...options.input, ways: 8, opposites: "cancel" },
      glide: { ...options.glide, bufferFrames: 0 },
      roam: { ...options.roam, ...free },
      drift: { ...options.drift, ...free },
    };
    // Two keys pressed in one frame are told apart by their order.
    const lines = log.lines.map((line) =>
      line.kind === "keys" ? { ...line, keys: line.keys & 3 ? line.keys & 3 : line.keys & 12 } : line,
    );
    const world = tinyWorld(rows, settings);
    const isWalled = options.edges === "wall";
    return {
      world,
      isWalled,
      log: { ...log, lines },
      mirror,
      across: (mirror === "x" ? rows[0]!.length : rows.length) * 4096,
    };
  });

it("a mirrored world with mirrored keys gives mirrored places, where nothing breaks ties", () => {
  const seen = { moved: 0, bumped: 0, crossed: 0 };
  fc.assert(
    fc.property(anyUntied, ({ world, isWalled, log, mirror, across }) => {
      const one = run(compile(world), log, { rows: true }).rows!;
      const other = run(compile(mirroredWorld(world, mirror)), mirroredLog(log, mirror), { rows: true }).rows!;
      const [along, aside] = mirror === "x" ? (["x", "y"] as const) : (["y", "x"] as const);
      // Half across a seam is a tie: one of the two has crossed, and they are a room's width apart.
      const inRoom = (at: number) => floorModulo(at, across);
      expect([...other[along]].map((at) => inRoom(across - 4096 - at))).toEqual([...one[along]].map(inRoom));
      if (isWalled) expect([...other[aside]]).toEqual([...one[aside]]);
      if (one.x.some((x, i) => x !== one.x[0] || one.y[i] !== one.y[0])) seen.moved++;
      if (one.flags.some((flags) => flags & ROW_BUMPING)) seen.bumped++;
      if (one.events.some((event, i) => i % 3 === 1 && event === WRAPPED)) seen.crossed++;
    }),
    { ...FIXED, numRuns: 400 },
  );
  told("mirrored worlds", seen);
  expect(Math.min(seen.moved, seen.bumped, seen.crossed)).toBeGreaterThan(60);
});

/** What the account of a frame says that has no order, as it stands in a mirror or before one. */
function unordered({ from, to, velocity, gaps, tested, stoppedBy, bumping, moving, choices }: Explanation) {
  return {
    from,
    to,
    velocity,
    gaps,
    tested: new Set(tested.map(({ cx, cy, blocks, side }) => `${cx},${cy} ${blocks} ${side}`)),
    stopped: stoppedBy !== null,
    bumping,
    moving,
    choices: choices.map((candidates) => candidates.map(({ source, dx, dy, taken }) => ({ source, dx, dy, taken }))),
  };
}

/** The same, turned in a mirror that is so many units wide, with cells of so many. */
function turned(account: Explanation, mirror: Mirror, across: number, t: number): ReturnType<typeof unordered> {
  const one = unordered(account);
  const axis = mirror === "x" ? 0 : 1;
  const at = (pair: readonly [number, number], map: (n: number) => number): [number, number] =>
    axis === 0 ? [map(pair[0]), pair[1]] : [pair[0], map(pair[1])];
  const place = (pair: readonly [number, number]) => at(pair, (n) => across - t - n);
  const cell = (n: number): number => across / t - 1 - n;
  const [near, far] = mirror === "x" ? (["left", "right"] as const) : (["top", "bottom"] as const);
  const side = (name: string | null) => (name === near ? far : name === far ? near : name);
  return {
    ...one,
    from: place(one.from),
    to: place(one.to),
    velocity: at(one.velocity, (n) => -n + 0),
    gaps: { ...one.gaps, [near]: one.gaps[far], [far]: one.gaps[near] },
    tested: new Set(
      account.tested.map(
        (each) =>
          `${axis === 0 ? cell(each.cx) : each.cx},${axis === 1 ? cell(each.cy) : each.cy} ${each.blocks} ${side(each.side)}`,
      ),
    ),
    choices: one.choices.map((candidates) =>
      candidates.map(({ source, dx, dy, taken }) => ({
        source,
        dx: axis === 0 ? -dx + 0 : dx,
        dy: axis === 1 ? -dy + 0 : dy,
        taken,
      })),
    ),
  };
}

it("the account of a frame in a mirrored world is the mirrored account", () => {
  let stopped = 0;
  fc.assert(
    fc.property(anyUntied, fc.nat(80), ({ world, isWalled, log, mirror, across }, n) => {
      fc.pre(isWalled);
      const c = compile(world);
      const { frames } = run(c, log);
      const frame = 1 + (n % frames);
      const account = explainFrame(c, log, frame);
      const other = explainFrame(compile(mirroredWorld(world, mirror)), mirroredLog(log, mirror), frame);
      expect(unordered(other)).toEqual(turned(account, mirror, across, c.tileUnits));
      if (account.stoppedBy !== null) stopped++;
    }),
    { ...FIXED, numRuns: 300 },
  );
  expect(stopped).toBeGreaterThan(60);
});
