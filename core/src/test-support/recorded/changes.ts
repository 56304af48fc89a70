import { copyFixtures, moveFixtures, removeFixtures, renameFixture, threadsOf } from "../../edits/fixtures.ts";
import { flagUses, removeFlag, renameFlag } from "../../edits/flags.ts";
import { linkSides, openingAt, seamsOf, wallSide, wrapRoom } from "../../edits/links.ts";
import { changeRoomId, copyRoom, removeRoom, resizeRoom } from "../../edits/rooms.ts";
import { copyRuleSet, removeRuleSet } from "../../edits/rule-sets.ts";
import { copyTile, moveTile, removeTiles, tileUses } from "../../edits/tiles.ts";
import { allFixtures } from "../../world/queries.ts";
import { SIDES } from "../../world/world.ts";
import type { Questions } from "./given.ts";
import { changed, projectOf } from "./given.ts";

/** Of changes. */
export const CHANGES: Questions = {
  "rooms changed": (given) => {
    const project = projectOf(given);
    return given.world.rooms.flatMap(({ id, width }) => [
      changed(project, ({ world }) => copyRoom(world, id)),
      changed(project, (before) => removeRoom(before, id)),
      changed(project, (before) => changeRoomId(before, id, "renamed-room")),
      changed(project, (before) => resizeRoom(before, id, { north: 1, east: 0, south: -1, west: 2 })),
      changed(project, (before) => resizeRoom(before, id, { north: 0, east: 1 - width, south: 0, west: 0 })),
      changed(project, ({ world }) => wrapRoom(world, id, "x")),
      ...SIDES.map((side) => changed(project, ({ world }) => wallSide(world, id, side))),
      ...SIDES.map((side) =>
        changed(project, ({ world }) =>
          linkSides(world, {
            room: id,
            side,
            to: world.rooms.at(-1)!.id,
            offset: 1,
            span: openingAt(
              world,
              world.rooms.find((room) => room.id === id)!,
              side,
              1,
            ),
            oneWay: false,
          }),
        ),
      ),
    ]);
  },
  "fixtures changed": (given) => {
    const project = projectOf(given);
    return allFixtures(given.world)
      .slice(0, 8)
      .flatMap(({ id }) => [
        threadsOf(given.world, id),
        changed(project, ({ world }) => moveFixtures(world, [id], 1, 0)),
        changed(project, ({ world }) => copyFixtures(world, [id]).world),
        changed(project, (before) => removeFixtures(before, [id])),
        changed(project, (before) => renameFixture(before, id, "renamed-fixture")),
      ]);
  },
  "tiles, flags and rule sets changed": (given) => {
    const project = projectOf(given);
    const { world } = project;
    return [
      [...tileUses(world)],
      [...flagUses(world, tileUses(world))],
      ...world.tiles
        .slice(0, 4)
        .flatMap(({ id }) => [
          changed(project, (before) => copyTile(before.world, id)),
          changed(project, (before) => moveTile(before.world, id, 0)),
          changed(project, (before) => removeTiles(before.world, [id], before.world.tiles[0]!.id)),
        ]),
      ...world.flags.flatMap((flag) => [
        changed(project, (before) => renameFlag(before.world, flag, "renamed")),
        changed(project, (before) => removeFlag(before.world, flag)),
      ]),
      ...world.rules.flatMap(({ id }) => [
        changed(project, (before) => copyRuleSet(before.world, id).world),
        changed(project, (before) => removeRuleSet(before, id)),
      ]),
    ];
  },
  seams: ({ world }) => seamsOf(world),
};
