import { UNITS_PER_PX } from "../../base/units.ts";
import { GAIT_NAMES } from "../../world/gaits.ts";
import type { Gait } from "../../world/gaits.ts";
import type { ResponseName } from "../../world/responses.ts";
import { RESPONSES } from "../../world/responses.ts";
import { settingByPath, settingFault, withSetting } from "../../world/settings.ts";
import type { SettingValue } from "../../world/setting.ts";
import type { Body, Pair, Rules, World } from "../../world/world.ts";
import { likelyMomentum } from "./momentum.ts";
import type { ReadOff } from "./read-off.ts";

/** One thing that a rule set may have otherwise: the rule set with each of the values that are worth trying. */
export type Dimension = (rules: Rules) => readonly Rules[];

/** A kind of movement, which is looked through by itself: a gait, with what it does at walls. */
export interface Family {
  readonly gait: Gait;
  readonly response: ResponseName | null;
}

/** The longest that a press is looked for being remembered, in frames. */
const LONGEST_BUFFER = 30;

export const FAMILIES: readonly Family[] = GAIT_NAMES.flatMap((gait): readonly Family[] =>
  gait === "hop" || gait === "glide"
    ? [{ gait, response: null }]
    : (Object.keys(RESPONSES) as ResponseName[]).map((response) => ({ gait, response })),
);

/** All of them in two shares to be searched side by side: kinds that learn from each other stay together. */
export const FAMILY_SHARES: readonly (readonly Family[])[] = [
  FAMILIES.filter(({ gait }) => gait === "roam" || gait === "hop"),
  FAMILIES.filter(({ gait }) => gait === "drift" || gait === "glide"),
];

/** A rule set as one of the family. */
export function asOf(rules: Rules, { gait, response }: Family): Rules {
  if (gait !== "roam" && gait !== "drift") return { ...rules, gait };
  const other = rules.gait === "drift" ? rules.drift : rules.roam;
  const { axisOrder, aheadPx, nudge, slopes, diagonal } = other;
  return {
    ...rules,
    gait,
    [gait]: { ...rules[gait], axisOrder, aheadPx, nudge, slopes, diagonal, response: response! },
  };
}

/** Rule sets of the family to begin from: what was read off in place of its numbers, with bodies and ways that are common. */
export function beginnings(base: Rules, family: Family, seen: ReadOff, tileSize: number): readonly Rules[] {
  const step = (steps: readonly number[], otherwise: number): number =>
    (steps[0] ?? seen.steps[0] ?? otherwise * UNITS_PER_PX) / UNITS_PER_PX;
  const rules = asOf(base, family);
  const [momentum] = likelyMomentum(seen);
  const begun: Rules = {
    ...rules,
    glide: { ...rules.glide, speed: step(seen.steps, rules.glide.speed) },
    roam: {
      ...rules.roam,
      speedX: step(seen.stepsX, rules.roam.speedX),
      speedY: step(seen.stepsY, rules.roam.speedY),
    },
    drift: {
      ...rules.drift,
      maxSpeed: Math.max(1, ...seen.longest) / UNITS_PER_PX,
      ...(momentum === undefined ? {} : { accel: momentum.accel / UNITS_PER_PX, drag: momentum.drag }),
    },
  };
  const insets = [0, 1, 2, 3, 4, 5, 6].filter((inset) => 2 * inset < tileSize);
  return [
    begun,
    ...([4, 8] as const).flatMap((ways) =>
      insets.map((inset): Rules => {
        const box = [inset, inset, tileSize - 2 * inset, tileSize - 2 * inset] as const;
        const input = { ...begun.input, ways };
        return { ...begun, input, walker: { ...begun.walker, body: { kind: "box", box, flush: "free" } } };
      }),
    ),
  ];
}

/** What is tried for a family, what matters most first. */
export function dimensionsOf(world: World, { gait }: Family, seen: ReadOff): readonly Dimension[] {
  const to = (path: string, values: readonly SettingValue[]): Dimension => {
    const setting = settingByPath(path)!;
    const fitting = values.filter((value) => settingFault(setting, value, world.tileSize) === null);
    return (rules) => fitting.map((value) => withSetting(rules, path, value));
  };
  const px = (steps: readonly number[]): readonly number[] => steps.map((step) => step / UNITS_PER_PX);
  // Where a walker is always stopped before, its whole step is never seen: any that is longer will do.
  const steps = [
    ...new Set([...seen.steps, ...seen.longest, (seen.longest[0] ?? 0) + 1, 4 * UNITS_PER_PX * world.tileSize]),
  ];
  const onOff = (path: string): Dimension => to(path, [false, true]);
  const upTo = (most: number): readonly number[] => Array.from({ length: most + 1 }, (_, n) => n);
  const input = product(
    to("input.ways", [4, 8]),
    to("input.opposites", ["cancel", "latest", "earliest"]),
    to("input.prefer", ["latest", "horizontal", "vertical"]),
  );
  const choosing = (): Dimension => product(onOff(`${gait}.slide`), onOff(`${gait}.cutCorners`));
  const around = [...bodyDimensions(world.tileSize), to("walker.crossesAt", ["centre", "whole"]), blockingFlags(world)];
  switch (gait) {
    case "hop":
      return [
        product(to("hop.repeatAfter", [0, ...seen.pauses]), to("hop.repeatEvery", [0, ...seen.pauses])),
        product(input, choosing()),
        ...around,
      ];
    case "glide":
      return [
        product(to("glide.speed", px(seen.steps)), to("glide.arrive", ["land", "past", "equal"]), onOff("glide.carry")),
        product(input, choosing()),
        product(onOff("glide.keepGoing"), onOff("glide.reverse")),
        to("glide.bufferFrames", upTo(LONGEST_BUFFER)),
        ...around,
      ];
    case "roam":
      return [
        product(input, to("roam.diagonal", ["even", "full"])),
        to("roam.speedX", px(steps)),
        to("roam.speedY", px(steps)),
        ...wallDimensions("roam", world.tileSize, to),
        ...around,
      ];
    case "drift": {
      const momentum = likelyMomentum(seen);
      const driven: Dimension = (rules) =>
        momentum.map(({ accel, drag }) => ({
          ...rules,
          drift: { ...rules.drift, accel: accel / UNITS_PER_PX, drag },
        }));
      return [
        product(driven, to("drift.maxSpeed", px(steps))),
        product(input, to("drift.diagonal", ["even", "full"])),
        ...wallDimensions("drift", world.tileSize, to),
        ...around,
      ];
    }
  }
}

function wallDimensions(
  gait: "roam" | "drift",
  tileSize: number,
  to: (path: string, values: readonly SettingValue[]) => Dimension,
): readonly Dimension[] {
  const quarters = Array.from({ length: tileSize * 4 }, (_, n) => (n + 1) / 4);
  return [
    to(`${gait}.axisOrder`, ["x-first", "y-first"]),
    to(`${gait}.slopes`, ["slide", "stop"]),
    to(
      `${gait}.nudge`,
      Array.from({ length: tileSize + 1 }, (_, n) => n),
    ),
    to(`${gait}.aheadPx`, quarters),
  ];
}

/** Boxes: shrunk on all sides alike, then side by side; and whether edges count. */
function bodyDimensions(tileSize: number): readonly Dimension[] {
  const withBox = (rules: Rules, box: readonly [number, number, number, number]): Rules => {
    const { flush } = rules.walker.body;
    return { ...rules, walker: { ...rules.walker, body: { kind: "box", box, flush } } };
  };
  const most = Math.floor((tileSize - 1) / 2);
  const alike: Dimension = (rules) =>
    Array.from({ length: most + 1 }, (_, inset) =>
      withBox(rules, [inset, inset, tileSize - 2 * inset, tileSize - 2 * inset]),
    );
  const places = Array.from({ length: tileSize * 2 + 1 }, (_, n) => n - tileSize / 2).map(Math.floor);
  const side =
    (moved: (edges: Edges, place: number) => Edges): Dimension =>
    (rules) => {
      const edges = edgesOf(rules.walker.body);
      return places.flatMap((place) => {
        const [left, top, right, bottom] = moved(edges, place);
        return left < right && top < bottom ? [withBox(rules, [left, top, right - left, bottom - top])] : [];
      });
    };
  return [
    alike,
    (rules) =>
      (["free", "blocks"] as const).map((flush) => ({
        ...rules,
        walker: { ...rules.walker, body: { ...rules.walker.body, flush } },
      })),
    side(([, top, right, bottom], place) => [place, top, right, bottom]),
    side(([left, top, , bottom], place) => [left, top, place, bottom]),
    side(([left, , right, bottom], place) => [left, place, right, bottom]),
    side(([left, top, right], place) => [left, top, right, place]),
  ];
}

/** Bodies of points, which take longer: the corners of a box, or points that are set, added and taken away one by one. */
export function pointDimensions(tileSize: number): readonly Dimension[] {
  const withPoints = (rules: Rules, points: readonly Pair[]): Rules => ({
    ...rules,
    walker: { ...rules.walker, body: { kind: "probes", points, flush: "free" } },
  });
  const everywhere = Array.from({ length: (tileSize + 1) ** 2 }, (_, i): Pair => [
    i % (tileSize + 1),
    Math.floor(i / (tileSize + 1)),
  ]);
  const corners: Dimension = (rules) => {
    const [left, top, right, bottom] = edgesOf(rules.walker.body);
    return [0, 1].map((short) =>
      withPoints(rules, [
        [left, top],
        [right - short, top],
        [left, bottom - short],
        [right - short, bottom - short],
      ]),
    );
  };
  const pointsOf = ({ walker }: Rules): readonly Pair[] => (walker.body.kind === "probes" ? walker.body.points : []);
  const one: Dimension = (rules) => everywhere.map((point) => withPoints(rules, [point]));
  const added: Dimension = (rules) => {
    const points = pointsOf(rules);
    return points.length === 0 || points.length > 3
      ? []
      : everywhere.map((point) => withPoints(rules, [...points, point]));
  };
  const moved: Dimension = (rules) =>
    pointsOf(rules).flatMap((_, i) => {
      const others = pointsOf(rules).filter((_point, k) => k !== i);
      return [...(others.length > 0 ? [others] : []), ...everywhere.map((point) => [...others, point])].map((points) =>
        withPoints(rules, points),
      );
    });
  return [corners, one, added, moved];
}

type Edges = readonly [left: number, top: number, right: number, bottom: number];

function edgesOf(body: Body): Edges {
  if (body.kind === "box") {
    const [left, top, width, height] = body.box;
    return [left, top, left + width, top + height];
  }
  const [xs, ys] = [body.points.map(([x]) => x), body.points.map(([, y]) => y)];
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs) + 1, Math.max(...ys) + 1];
}

/** Each flag that blocks or does not. */
function blockingFlags({ flags }: World): Dimension {
  return (rules) =>
    flags.map((flag) => {
      const { blockedBy } = rules.walker;
      const other = blockedBy.includes(flag) ? blockedBy.filter((each) => each !== flag) : [...blockedBy, flag];
      return { ...rules, walker: { ...rules.walker, blockedBy: other } };
    });
}

/** All values of one with all values of the others. */
export function product(...dimensions: readonly Dimension[]): Dimension {
  return (rules) => dimensions.reduce<readonly Rules[]>((all, dimension) => all.flatMap(dimension), [rules]);
}
