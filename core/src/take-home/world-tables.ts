import { sizeOf } from "../world/fixture-area.ts";
import { opensByItself } from "../world/fixtures/door.ts";
import type { Fixture } from "../world/fixtures.ts";
import { isSolidFor, rulesById } from "../world/queries.ts";
import type { EdgeRule, Room, Shape, Side, World } from "../world/world.ts";
import { SIDES } from "../world/world.ts";

/** A side that is one rule all along holds beyond its ends too: further than any room is long. */
const BEYOND = 100_000;

/** `world.json`: what the program needs of rooms, shapes, links and fixtures, in plain tables (formats.md section 10). */
export function worldTables(world: World, rulesId: string): string {
  const rules = rulesById(world, rulesId)!;
  const rooms = new Map(world.rooms.map(({ id }, i) => [id, i]));
  const shapes: unknown[] = [null, { kind: "full" }];
  const solid = world.tiles.map((tile): number => {
    if (!isSolidFor(rules.walker.blockedBy, tile)) return 0;
    return tile.shape.kind === "full" ? 1 : shapes.push(shapeTable(tile.shape)) - 1;
  });
  const fixtures = world.rooms.flatMap((room, number) =>
    room.fixtures.map((each) => fixtureTable(world, each, number, rooms)),
  );
  const all = world.rooms.flatMap((room) => room.fixtures);
  const { start, goal } = world;
  const goalNumber =
    goal === null
      ? null
      : goal.kind === "marker"
        ? all.findIndex(({ id }) => id === goal.fixture)
        : world.items.findIndex(({ id }) => id === goal.item);
  return tables([
    ["id", JSON.stringify(world.id)],
    ["rules", JSON.stringify(rulesId)],
    ["start", JSON.stringify({ room: rooms.get(start.room)!, cell: start.cell, facing: start.facing })],
    ["lives", JSON.stringify(world.lives)],
    ["goal", JSON.stringify(goalNumber)],
    ["items", JSON.stringify(world.items.map(({ id }) => id))],
    ["circuits", JSON.stringify(world.circuits)],
    ["shapes", list(shapes.map((shape) => JSON.stringify(shape)))],
    ["rooms", list(world.rooms.map((room) => roomTable(room, solid, rooms)))],
    ["doors", JSON.stringify(all.flatMap(({ kind }, i) => (kind === "door" ? [i] : [])))],
    ["fixtures", list(fixtures.map((fixture) => JSON.stringify(fixture)))],
  ]);
}

function tables(entries: readonly (readonly [string, string])[]): string {
  return `{\n${entries.map(([name, text]) => `  ${JSON.stringify(name)}: ${text}`).join(",\n")}\n}\n`;
}

/** A list with a line for each of its parts. */
function list(parts: readonly string[]): string {
  return parts.length === 0 ? "[]" : `[\n${parts.map((part) => `    ${part}`).join(",\n")}\n  ]`;
}

function shapeTable(shape: Exclude<Shape, { kind: "full" }>): unknown {
  return shape.kind === "poly" ? { kind: "poly", points: shape.points } : { kind: "boxes", boxes: shape.boxes };
}

function roomTable(room: Room, solid: readonly number[], rooms: ReadonlyMap<string, number>): string {
  const { id, width, height, cells, edges } = room;
  const sides = SIDES.map((side) => `"${side}": ${JSON.stringify(spansOf(edges[side], rooms.get(id)!, rooms))}`);
  const rows = Array.from({ length: height }, (_, y) =>
    JSON.stringify(Array.from(cells.subarray(y * width, (y + 1) * width), (tile) => solid[tile]!)),
  );
  return [
    `{ "id": ${JSON.stringify(id)}, "width": ${width}, "height": ${height},`,
    `      "edges": { ${sides.join(", ")} },`,
    `      "cells": [\n        ${rows.join(",\n        ")}\n      ] }`,
  ].join("\n");
}

/** What leads on beyond a side, from row or column to row or column; what is in none of them is wall. */
function spansOf(side: Side, here: number, rooms: ReadonlyMap<string, number>): readonly unknown[] {
  const span = (rule: EdgeRule, from: number, to: number): readonly unknown[] => {
    if (rule.kind === "wall") return [];
    const wraps = rule.kind === "wrap";
    return [{ from, to, room: wraps ? here : rooms.get(rule.room)!, offset: wraps ? 0 : rule.offset, wraps }];
  };
  if (!("kind" in side)) return side.flatMap((each) => span(each, each.from, each.to));
  return span(side, -BEYOND, BEYOND);
}

function fixtureTable(world: World, fixture: Fixture, room: number, rooms: ReadonlyMap<string, number>): unknown {
  const { id, kind, cell, touch, keeps } = fixture;
  const common = { id, kind, room, cell, size: sizeOf(fixture), touch, keeps };
  const item = (name: string): number => world.items.findIndex((each) => each.id === name);
  switch (fixture.kind) {
    case "item":
      return { ...common, item: item(fixture.give), count: fixture.count };
    case "switch":
      return { ...common, circuit: world.circuits.indexOf(fixture.circuit) };
    case "portal":
      return {
        ...common,
        toRoom: rooms.get(fixture.to.room)!,
        toCell: fixture.to.cell,
        toFacing: fixture.to.facing ?? null,
      };
    case "door": {
      const { lock } = fixture;
      const alone = opensByItself(fixture);
      return {
        ...common,
        lock: lock.kind,
        ...("item" in lock ? { item: item(lock.item) } : {}),
        ...(lock.kind === "item" ? { count: lock.count, spends: lock.spends } : {}),
        ...(lock.kind === "circuit"
          ? { circuit: world.circuits.indexOf(lock.circuit), openWhileOn: lock.open === "on" }
          : {}),
        isAsked: !alone,
        opensOnUse: !alone && fixture.opensOn === "use",
        closesBehind: !alone && fixture.closes === "behind",
      };
    }
    default:
      return common;
  }
}
