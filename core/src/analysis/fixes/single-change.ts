import type { Fixture } from "../../world/fixtures.ts";
import type { Gait } from "../../world/gaits.ts";
import { settingByPath, settingValue, withSetting } from "../../world/settings.ts";
import { changeActor } from "../../edits/actors.ts";
import { changeFixtures } from "../../edits/fixtures.ts";
import type { Actor } from "../../world/actors.ts";
import { PHASE_SAYS } from "../../world/actors.ts";
import { actorById, fixtureById, roomById } from "../../world/queries.ts";
import type { NewLink } from "../../edits/links.ts";
import { OPPOSITE, linkSides } from "../../edits/links.ts";
import type { Body, Rules, World } from "../../world/world.ts";

/**
 * One change of a world: in one rule set a setting of the table, the gait, the body, or the flags that block; or one
 * fixture, one actor, the tile of one cell, or a link of two sides.
 */
export type SingleChange =
  | { readonly path: "gait"; readonly value: Gait }
  | { readonly path: "walker.body"; readonly value: Body }
  | { readonly path: "walker.blockedBy"; readonly value: readonly string[] }
  | { readonly path: "fixture"; readonly value: Fixture }
  | {
      readonly path: "cell";
      readonly value: { readonly room: string; readonly x: number; readonly y: number; readonly tile: number };
    }
  | { readonly path: "link"; readonly value: NewLink }
  | { readonly path: "actor"; readonly value: Actor }
  | { readonly path: string; readonly value: number | string | boolean };

/** Whether a change is one of the rule set that the log goes by, and so of no log that goes by another. */
export function isOfRules({ path }: SingleChange): boolean {
  return path !== "fixture" && path !== "cell" && path !== "link" && path !== "actor";
}

/** What stands at a change's path now. */
export function presentValue(rules: Rules, path: string): number | string | boolean | Body | readonly string[] {
  if (path === "gait") return rules.gait;
  if (path === "walker.body") return rules.walker.body;
  if (path === "walker.blockedBy") return rules.walker.blockedBy;
  return settingValue(rules, path);
}

/** The rule set with that change made. */
export function changedRules(rules: Rules, change: SingleChange): Rules {
  if (change.path === "gait") return { ...rules, gait: change.value as Gait };
  if (change.path === "walker.body") return { ...rules, walker: { ...rules.walker, body: change.value as Body } };
  if (change.path === "walker.blockedBy")
    return { ...rules, walker: { ...rules.walker, blockedBy: change.value as readonly string[] } };
  return withSetting(rules, change.path, change.value as number | string | boolean);
}

type CellChange = Extract<SingleChange, { path: "cell" }>["value"];

function withCell(world: World, { room: id, x, y, tile }: CellChange): World {
  return {
    ...world,
    rooms: world.rooms.map((room) => {
      if (room.id !== id) return room;
      const cells = room.cells.slice();
      cells[y * room.width + x] = tile;
      return { ...room, cells };
    }),
  };
}

/** The world with that change made; one of rules in the rule set that is named. */
export function changedWorld(world: World, rulesId: string, change: SingleChange): World {
  if (change.path === "fixture")
    return changeFixtures(world, [(change.value as Fixture).id], () => change.value as Fixture);
  if (change.path === "cell") return withCell(world, change.value as CellChange);
  if (change.path === "link") return linkSides(world, change.value as NewLink);
  if (change.path === "actor") {
    const actor = change.value as Actor;
    return changeActor(world, actor.id, () => actor);
  }
  return { ...world, rules: world.rules.map((rules) => (rules.id === rulesId ? changedRules(rules, change) : rules)) };
}

/** The change in words, such as `Speed 7 to 8 px` or `Arrive equal to land`. */
export function changeText(world: World, rules: Rules, change: SingleChange): string {
  if (change.path === "fixture") return fixtureText(world, change.value as Fixture);
  if (change.path === "cell") {
    const { room, x, y, tile } = change.value as CellChange;
    return `${world.rooms.find(({ id }) => id === room)?.name ?? room} ${x},${y} to ${world.tiles[tile]!.name}`;
  }
  if (change.path === "link") {
    const { room, side, to } = change.value as NewLink;
    const named = (id: string): string => roomById(world, id)?.name ?? id;
    return `${named(to)}'s ${OPPOSITE[side]} side leads back to ${named(room)}`;
  }
  if (change.path === "actor") return actorText(world, change.value as Actor);
  if (change.path === "gait") return `Gait ${rules.gait} to ${String(change.value)}`;
  if (change.path === "walker.body") return bodyChangeText(rules.walker.body, change.value as Body);
  if (change.path === "walker.blockedBy") {
    const after = change.value as readonly string[];
    const more = after.filter((flag) => !rules.walker.blockedBy.includes(flag));
    const fewer = rules.walker.blockedBy.filter((flag) => !after.includes(flag));
    return [...more.map((flag) => `Blocked by ${flag} too`), ...fewer.map((flag) => `Not blocked by ${flag}`)].join(
      ", ",
    );
  }
  const setting = settingByPath(change.path)!;
  if (setting.kind === "switch") return `${setting.label} ${change.value === true ? "on" : "off"}`;
  const unit =
    setting.kind === "px" ? " px" : setting.kind === "whole" && setting.unit !== "" ? ` ${setting.unit}` : "";
  return `${setting.label} ${settingValue(rules, change.path)} to ${change.value as number | string}${unit}`;
}

function fixtureText(world: World, after: Fixture): string {
  const before = fixtureById(world, after.id)?.fixture;
  if (before === undefined) return after.id;
  if (before.keeps !== after.keeps) return `${after.id} keeps ${before.keeps} to ${after.keeps}`;
  if (before.kind === "item" && after.kind === "item") return `${after.id} gives ${before.count} to ${after.count}`;
  if (before.kind === "door" && after.kind === "door" && before.closes !== after.closes)
    return `${after.id} closes ${before.closes} to ${after.closes}`;
  if (before.kind === "door" && after.kind === "door" && before.lock.kind === "item" && after.lock.kind === "item") {
    return before.lock.spends === after.lock.spends
      ? `${after.id} asks for ${before.lock.count} to ${after.lock.count}`
      : `${after.id} ${after.lock.spends ? "spends" : "does not spend"} ${after.lock.item}`;
  }
  return after.id;
}

function actorText(world: World, after: Actor): string {
  const before = actorById(world, after.id)?.actor;
  if (before === undefined) return after.id;
  if (before.speed !== after.speed) return `${after.id} speed ${before.speed} to ${after.speed} px`;
  if (before.touch !== after.touch) return `${after.id} ${after.touch === "hurt" ? "hurts" : "does not hurt"}`;
  if (before.turnsBack !== after.turnsBack)
    return `${after.id} turns back ${after.turnsBack === "last" ? "only where there is no other way" : "freely"}`;
  if (before.keeps !== after.keeps) return `${after.id} keeps ${before.keeps} to ${after.keeps}`;
  const phase = after.plan.findIndex((each, i) => each.frames !== before.plan[i]?.frames);
  if (phase < 0) return after.id;
  return `${after.id} ${PHASE_SAYS[after.plan[phase]!.do]} for ${before.plan[phase]!.frames} to ${after.plan[phase]!.frames} frames`;
}

function bodyChangeText(before: Body, after: Body): string {
  if (before.kind === "box" && after.kind === "box" && before.box.every((v, i) => v === after.box[i]))
    return `Flush ${before.flush} to ${after.flush}`;
  return `Body ${bodyText(before)} to ${bodyText(after)}`;
}

/** A body in a few words, such as `12x12 at 2 4` or `3 probes`. */
export function bodyText(body: Body): string {
  if (body.kind === "probes") return `${body.points.length} ${body.points.length === 1 ? "probe" : "probes"}`;
  const [left, top, width, height] = body.box;
  return `${width}x${height} at ${left} ${top}`;
}
