import { seamsOf } from "../../edits/links.ts";
import { allActors, allFixtures, isSolidFor } from "../../world/queries.ts";
import type { Actor } from "../../world/actors.ts";
import { ACTOR_SPEED } from "../../world/actors.ts";
import { LIMITS } from "../../world/limits.ts";
import type { Fixture } from "../../world/fixtures.ts";
import { KEEPS, kindOfFixture } from "../../world/fixtures.ts";
import {
  settingMax,
  SETTINGS,
  settingApplies,
  settingByPath,
  settingFault,
  settingValue,
} from "../../world/settings.ts";
import { GAIT_NAMES } from "../../world/gaits.ts";
import { speedsThatDivide } from "../findings/speed-fit.ts";
import type { Setting } from "../../world/settings.ts";
import type { Body, Rules, World } from "../../world/world.ts";
import type { SingleChange } from "./single-change.ts";
import { presentValue } from "./single-change.ts";

/**
 * Every single change of a rule set that is worth trying on a log: each switch and choice, a ladder around each number,
 * flags that block, the body, the gait. Only what the gait in use asks for; smallest change first.
 * @param more changes that findings name, tried too
 * @param stops cells that blocked the walker: each is tried open
 */
export function singleChanges(
  world: World,
  rules: Rules,
  more: readonly SingleChange[] = [],
  stops: readonly StopCell[] = [],
): SingleChange[] {
  const changes: SingleChange[] = [
    ...more,
    ...fixtureChanges(world),
    ...actorChanges(world),
    ...openedCells(world, rules, stops),
  ];
  for (const setting of usedSettings(rules))
    for (const value of otherValues(setting, world.tileSize, settingValue(rules, setting.path)))
      changes.push({ path: setting.path, value });
  for (const flag of world.flags) {
    const { blockedBy } = rules.walker;
    changes.push({
      path: "walker.blockedBy",
      value: blockedBy.includes(flag) ? blockedBy.filter((each) => each !== flag) : [...blockedBy, flag],
    });
  }
  for (const body of otherBodies(rules.walker.body, world.tileSize)) changes.push({ path: "walker.body", value: body });
  for (const gait of GAIT_NAMES) if (gait !== rules.gait) changes.push({ path: "gait", value: gait });
  const once = new Map(changes.map((change) => [JSON.stringify(change), change]));
  return [...once.values()].sort((a, b) => changeSize(rules, a) - changeSize(rules, b));
}

/** The settings that a frame under these rules looks at; how a walker is drawn is none of them. */
function usedSettings(rules: Rules): Setting[] {
  return SETTINGS.filter(({ path }) => !path.startsWith("pose.") && settingApplies(rules, path));
}

/** A cell that blocked the walker. */
export interface StopCell {
  readonly room: string;
  readonly x: number;
  readonly y: number;
}

/** Each lock with other counts or spending the other way, doors that stay open, what returns kept otherwise, one more of each item. */
function fixtureChanges(world: World): SingleChange[] {
  return allFixtures(world).flatMap((fixture) => {
    const made: Fixture[] = [];
    if (kindOfFixture(fixture.kind).returns(fixture))
      for (const keeps of KEEPS) if (keeps !== fixture.keeps) made.push({ ...fixture, keeps });
    if (fixture.kind === "item") made.push({ ...fixture, count: fixture.count + 1 });
    if (fixture.kind === "door" && fixture.closes === "behind") made.push({ ...fixture, closes: "never" });
    if (fixture.kind === "door" && fixture.lock.kind === "item") {
      const { lock } = fixture;
      made.push({ ...fixture, lock: { ...lock, spends: !lock.spends } });
      for (const count of [lock.count - 1, lock.count + 1])
        if (count >= 1) made.push({ ...fixture, lock: { ...lock, count } });
    }
    return made.map((value): SingleChange => ({ path: "fixture", value }));
  });
}

/** Each actor faster or slower, its phases longer or shorter, turning back otherwise, and without its touch or with it. */
function actorChanges(world: World): SingleChange[] {
  return allActors(world).flatMap((actor) => {
    const made: Actor[] = otherValues(ACTOR_SPEED, world.tileSize, actor.speed).map((speed) => ({
      ...actor,
      speed: speed as number,
    }));
    actor.plan.forEach((phase, at) => {
      if (phase.frames === null) return;
      const [min, max] = LIMITS.phaseFrames;
      for (const frames of [
        phase.frames / 2,
        phase.frames - 30,
        phase.frames - 8,
        phase.frames + 8,
        phase.frames + 30,
        phase.frames * 2,
      ]) {
        const whole = Math.round(frames);
        if (whole < min || whole > max || whole === phase.frames) continue;
        made.push({ ...actor, plan: actor.plan.map((each, i) => (i === at ? { ...phase, frames: whole } : each)) });
      }
    });
    made.push({ ...actor, turnsBack: actor.turnsBack === "last" ? "freely" : "last" });
    made.push({ ...actor, touch: actor.touch === "hurt" ? "none" : "hurt" });
    return made.map((value): SingleChange => ({ path: "actor", value }));
  });
}

/** Each one-way link answered from the other side. */
export function linksBack(world: World): SingleChange[] {
  return seamsOf(world).flatMap(({ room, side, from, to, rule, oneWay }): SingleChange[] =>
    oneWay && rule.kind === "link"
      ? [{ path: "link", value: { room, side, to: rule.room, offset: rule.offset, span: [from, to], oneWay: false } }]
      : [],
  );
}

/** Each cell that blocked the walker with the floor that its room has most of. */
function openedCells(world: World, rules: Rules, stops: readonly StopCell[]): SingleChange[] {
  const isSolid = world.tiles.map((tile) => isSolidFor(rules.walker.blockedBy, tile));
  return stops.flatMap(({ room: id, x, y }): SingleChange[] => {
    const room = world.rooms.find((each) => each.id === id);
    if (room === undefined || !isSolid[room.cells[y * room.width + x]!]) return [];
    const counts = new Uint32Array(world.tiles.length);
    for (const tile of room.cells) counts[tile]!++;
    const tile =
      [...counts.keys()]
        .filter((number) => number > 0 && !isSolid[number])
        .sort((a, b) => counts[b]! - counts[a]!)[0] ?? 0;
    return [{ path: "cell", value: { room: id, x, y, tile } }];
  });
}

/** Values to try instead of the present one. */
function otherValues(
  setting: Setting,
  tileSize: number,
  present: number | string | boolean,
): (number | string | boolean)[] {
  if (setting.kind === "switch") return [!present];
  if (setting.kind === "choice") return setting.choices.filter((value) => value !== present);
  const at = present as number;
  const max = settingMax(setting.max, tileSize);
  const ladder = [
    at - 2,
    at - 1,
    at - 0.5,
    at + 0.5,
    at + 1,
    at + 2,
    at / 4,
    at / 2,
    at * 0.75,
    at * 1.25,
    at * 1.5,
    at * 2,
    at * 4,
    setting.default as number,
    max,
  ];
  if (setting.kind === "px") ladder.push(...speedsThatDivide(tileSize));
  else ladder.push(setting.min, 4, 8, 16, 32);
  const fitting = ladder.map((value) => (setting.kind === "px" ? Math.round(value * 256) / 256 : Math.round(value)));
  return [...new Set(fitting)].filter((value) => value !== at && settingFault(setting, value, tileSize) === null);
}

/** Bodies near the present one: flush the other way, the whole cell, a little smaller all round, a box for probes. */
function otherBodies(body: Body, tileSize: number): Body[] {
  const whole: Body = { kind: "box", box: [0, 0, tileSize, tileSize], flush: "free" };
  const bodies: Body[] = [whole];
  if (body.kind === "box") {
    const [left, top, width, height] = body.box;
    bodies.push({ ...body, flush: body.flush === "free" ? "blocks" : "free" });
    for (const by of [1, 2, 3, 4, -1, -2]) {
      if (width - 2 * by >= 1 && height - 2 * by >= 1)
        bodies.push({ ...body, box: [left + by, top + by, width - 2 * by, height - 2 * by] });
    }
  } else {
    for (const inset of [1, 2, 3])
      bodies.push({ kind: "box", box: [inset, inset, tileSize - 2 * inset, tileSize - 2 * inset], flush: "free" });
  }
  return bodies.filter((each) => JSON.stringify(each) !== JSON.stringify(body));
}

/** How much a change changes, for putting the smallest first: a share for numbers, a step for everything else. */
export function changeSize(rules: Rules, change: SingleChange): number {
  if (change.path === "gait") return 8;
  if (change.path === "fixture" || change.path === "actor") return 1.2;
  if (change.path === "cell" || change.path === "link") return 3;
  if (change.path === "walker.blockedBy") return 2;
  if (change.path === "walker.body") {
    const before = rules.walker.body;
    const after = change.value as Body;
    if (before.kind !== "box" || after.kind !== "box") return 4;
    if (before.flush !== after.flush) return 1.5;
    return 1 + before.box.reduce((sum, v, i) => sum + Math.abs(v - after.box[i]!), 0) / 16;
  }
  const before = presentValue(rules, change.path);
  if (typeof before !== "number" || settingByPath(change.path)!.kind === "choice") return 1;
  const after = change.value as number;
  return before === 0 || after === 0
    ? 0.5 + Math.abs(after - before) / 16
    : Math.max(after / before, before / after) - 1;
}
