import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { isFree } from "../ground/free.ts";
import { compile } from "../simulation/compile.ts";
import type { Compiled } from "../compiled/compiled.ts";
import { run } from "../replay/run.ts";
import { startState } from "../simulation/start-state.ts";
import { WRAPPED } from "../world/vocabulary.ts";
import { step } from "../simulation/step.ts";
import { FIXED, anyBody, anyGait, anyLog, anyRows } from "../test-support/arbitraries.ts";
import { counting, meets, meetsBoxOf, shapesNear } from "../test-support/naive-movement.ts";
import { told } from "../test-support/told.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import type { Rules, World } from "../world/world.ts";
import { moveFreely } from "./free-move.ts";
import { same } from "../test-support/same.ts";

type Free = Rules["roam"];

function world(
  rows: readonly string[],
  gait: Rules["gait"],
  free: Partial<Free>,
  body?: Rules["walker"]["body"],
  more: Partial<Rules> = {},
): World {
  const base = tinyWorld(rows, { ...(body ? { body } : {}), input: { ways: 8 } });
  const rules = base.rules[0]!;
  return {
    ...base,
    rules: [{ ...rules, ...more, gait, roam: { ...rules.roam, ...free }, drift: { ...rules.drift, ...free } }],
  };
}

const anyPlace = fc.tuple(fc.integer({ min: 0, max: 6 * 4096 }), fc.integer({ min: 0, max: 6 * 4096 }));
/** A displacement of up to some px, and now and then on whole px, where things lie flush. */
const anyWay = fc.oneof(
  fc.integer({ min: -900, max: 900 }),
  fc.integer({ min: -3, max: 3 }).map((px) => px * 256),
);

interface Moved {
  readonly x: number;
  readonly y: number;
}

function moved(c: Compiled, [x, y]: readonly [number, number], dx: number, dy: number): Moved {
  const s = startState(c);
  Object.assign(s, { x, y });
  moveFreely(c, s, dx, dy, null);
  return { x: s.x, y: s.y };
}

/** `contact` as the text says it, unit by unit. */
function naiveContact(c: Compiled, place: Moved, axis: "x" | "y", way: number, slide: boolean): Moved {
  const [signX, signY] = axis === "x" ? [Math.sign(way), 0] : [0, Math.sign(way)];
  const [atX, atY] = [(n: number): number => place.x + signX * n, (n: number): number => place.y + signY * n];
  const near = shapesNear(c.ground, 0, place.x, place.y, 3);
  const shapes = counting(c.ground, near, place.x, place.y);
  let gone = 0;
  while (gone < Math.abs(way) && !shapes.some((shape) => meets(c.ground, shape, atX(gone + 1), atY(gone + 1)))) gone++;
  let now: Moved = { x: atX(gone), y: atY(gone) };
  const poly =
    gone < Math.abs(way) &&
    shapes.some((shape) => shape.shape.kind === "poly" && meets(c.ground, shape, atX(gone + 1), atY(gone + 1)));
  const other = axis === "x" ? "y" : "x";
  while (slide && poly && gone < Math.abs(way)) {
    const stride = Math.min(256, Math.abs(way) - gone);
    const next = { ...now, [axis]: now[axis] + Math.sign(way) * stride };
    let found: Moved | null = null;
    for (let k = 0; k <= stride && found === null; k++) {
      for (const sign of [-1, 1]) {
        const tried = { ...next, [other]: next[other] + sign * k };
        if (found === null && isFree(c.ground, 0, tried.x, tried.y)) found = tried;
      }
    }
    if (found === null) break;
    now = found;
    gone += stride;
  }
  return now;
}

/** `snap` as the text says it, unit by unit. */
function naiveSnap(c: Compiled, place: Moved, axis: "x" | "y", way: number): Moved {
  const at = (n: number): Moved => ({ ...place, [axis]: place[axis] + Math.sign(way) * n });
  const end = at(Math.abs(way));
  const met = counting(c.ground, shapesNear(c.ground, 0, place.x, place.y, 3), place.x, place.y).filter((shape) =>
    meets(c.ground, shape, end.x, end.y),
  );
  for (let n = Math.abs(way); n > 0; n--)
    if (!met.some((shape) => meetsBoxOf(c.ground, shape, at(n).x, at(n).y))) return at(n);
  return place;
}

/** A wide room with one slope, the body near its upper left where it is open: there it slides. */
const oneSlope = (): string[] => ["......", "......", "..../.", ".../#.", "......"];

interface Way {
  readonly response: "contact" | "snap";
  readonly slopes: "slide" | "stop";
  /** The room, out of any one. */
  readonly rows: (walls: string[]) => string[];
  /** How many times as far as what is met within a px or three. */
  readonly far: number;
}
const asTheyAre = (walls: string[]): string[] => walls;
const WAYS: readonly (readonly [string, Way])[] = [
  ["contact, slopes stop", { response: "contact", slopes: "stop", rows: asTheyAre, far: 1 }],
  ["contact, one slope slides", { response: "contact", slopes: "slide", rows: oneSlope, far: 1 }],
  ["snap", { response: "snap", slopes: "stop", rows: asTheyAre, far: 1 }],
  // They lie within their cells: a probe may be beside one that another probe meets, and is drawn back out of its box.
  [
    "snap, triangles",
    { response: "snap", slopes: "stop", rows: (walls) => walls.map((row) => row.replaceAll(".", "^")), far: 4 },
  ],
];

describe("free movement is what the text says, unit by unit", () => {
  it.each(WAYS)("%s", (_name, { response, slopes, rows, far }) => {
    let stopped = 0;
    let slid = 0;
    fc.assert(
      fc.property(
        anyRows,
        anyBody,
        anyPlace,
        anyWay,
        anyWay,
        fc.boolean(),
        (walls, body, place, nearX, nearY, xFirst) => {
          const axisOrder = xFirst ? "x-first" : "y-first";
          const c = compile(world(rows(walls), "roam", { response, slopes, axisOrder }, body));
          const [dx, dy] = [nearX * far, nearY * far];
          const one = (at: Moved, axis: "x" | "y", way: number): Moved => {
            if (way === 0) return at;
            return response === "snap"
              ? naiveSnap(c, at, axis, way)
              : naiveContact(c, at, axis, way, slopes === "slide");
          };
          const [x, y] = slopes === "slide" ? [3 * 4096 + (place[0] % 4096), 4096 + (place[1] % 6000)] : place;
          const from = { x, y };
          const expected = xFirst ? one(one(from, "x", dx), "y", dy) : one(one(from, "y", dy), "x", dx);
          same(moved(c, [from.x, from.y], dx, dy), expected);
          if (expected.x !== from.x + dx || expected.y !== from.y + dy) stopped++;
          if (slopes === "slide") {
            const [sliding, stopping] = [true, false].map((slide) => naiveContact(c, from, "x", dx, slide));
            if (sliding!.x !== stopping!.x || sliding!.y !== stopping!.y) slid++;
          }
        },
      ),
      { ...FIXED, numRuns: 300 },
    );
    expect(stopped).toBeGreaterThan(12);
    if (slopes === "slide") expect(slid).toBeGreaterThan(5);
  });
});

it("a slope that lies further on lets nobody slide off the wall that is met before it", () => {
  const c = compile(world(["......", "....^.", "....#."], "roam", { response: "contact", slopes: "slide" }));
  // Half a px lower than what would pass above the wall.
  expect(moved(c, [47 * 256, 16 * 256 + 128], 8 * 256, 0)).toEqual({ x: 48 * 256, y: 16 * 256 + 128 });
  expect(moved(c, [47 * 256, 16 * 256], 8 * 256, 0).x).toBeGreaterThan(48 * 256);
});

it("contact never newly overlaps anything, at any speed, in roam and drift", () => {
  const seen = { touched: 0, slid: 0, crossed: 0 };
  fc.assert(
    fc.property(
      anyRows,
      anyGait,
      anyBody,
      fc.constantFrom("roam" as const, "drift" as const),
      fc.integer({ min: 1, max: 4 }),
      anyLog,
      (rows, options, body, gait, faster, log) => {
        const { roam, drift } = options;
        const c = compile(
          tinyWorld(rows, {
            ...options,
            gait,
            body,
            roam: { ...roam, response: "contact", speedX: roam!.speedX! * faster },
            drift: { ...drift, response: "contact" },
          }),
        );
        const s = startState(c);
        let wasFree = isFree(c.ground, 0, s.x, s.y);
        const was = { ...seen };
        for (const line of log.lines) {
          if (line.kind !== "keys") continue;
          for (let n = 0; n < line.count && s.status === 0; n++) {
            step(c, s, line.keys, null);
            const nowFree = isFree(c.ground, 0, s.x, s.y);
            if (wasFree && !nowFree) throw new Error(`newly overlapping at frame ${s.frame}`);
            wasFree = nowFree;
            if (s.bumping) seen.touched = was.touched + 1;
            if (s.slidOrNudged) seen.slid = was.slid + 1;
            if (s.eventCount > 0 && s.eventKinds[0] === WRAPPED) seen.crossed = was.crossed + 1;
          }
        }
      },
    ),
    FIXED,
  );
  told("contact never newly overlaps, runs", seen);
  expect(Math.min(seen.touched, seen.slid, seen.crossed)).toBeGreaterThan(20);
});

it("a wall of one px is never passed at 100 px a frame; undo, snap and ahead do what they are known for", () => {
  const thin = (free: Partial<Free>) => {
    const base = world(["S.........", ".........."], "roam", free);
    const tiles = base.tiles.map((tile, i) =>
      i === 3 ? { ...tile, shape: { kind: "boxes" as const, boxes: [[8, 0, 1, 16] as const] } } : tile,
    );
    const cells = base.rooms[0]!.cells.slice();
    cells[4] = cells[14] = 3;
    return { ...base, tileSize: 16, tiles, rooms: [{ ...base.rooms[0]!, cells }] };
  };
  const last = (free: Partial<Free>, keys = "3 R") => {
    const { rows } = run(compile(thin(free)), tinyLog(keys), { rows: true });
    return rows!.x.at(-1)! / 256;
  };
  expect(last({ response: "contact", speedX: 64 })).toBe(4 * 16 + 8 - 16);
  expect(last({ response: "undo-axis", speedX: 64 }, "1 R")).toBe(0);
  expect(last({ response: "snap", speedX: 64 }, "1 R")).toBe(4 * 16 + 8 - 16);
  expect(last({ response: "ahead", speedX: 5, aheadPx: 1 }, "12 R")).toBe(60);
});

describe("hop", () => {
  const hop = (keys: string, settings: Partial<Rules["hop"]> = {}, ways: 4 | 8 = 4) => {
    const base = tinyWorld(["S...", "..#.", "...."], { input: { ways } });
    const rules = base.rules[0]!;
    const { rows } = run(
      compile({
        ...base,
        rules: [{ ...rules, gait: "hop", hop: { ...rules.hop, repeatAfter: 4, repeatEvery: 2, ...settings } }],
      }),
      tinyLog(keys),
      { rows: true },
    );
    return [...rows!.x].map((x, i) => `${x / 4096}${rows!.y[i]! / 4096}`).join(" ");
  };
  it.each([
    ["one cell at a press", "1 R,2 .,1 D", {}, "00 10 10 10 11"],
    ["again after a while, then every so often", "9 R", {}, "00 10 10 10 10 20 20 30 30 30"],
    ["only once again with repeatEvery 0", "9 R", { repeatEvery: 0 }, "00 10 10 10 10 20 20 20 20 20"],
    ["a tap moves where it points, not where another key is held", "2 R,1 RD,1 R", {}, "00 10 10 11 11"],
    [
      "nothing is tried where it is blocked, and slides to the second choice",
      "1 R,1 .,1 D,1 .,1 RD",
      {},
      "00 10 10 11 11 12",
    ],
  ] as const)("%s", (_what, keys, settings, path) => expect(hop(keys, settings)).toBe(path));
});
