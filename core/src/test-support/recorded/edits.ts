import { changeActor, placeActor, removeActor, renameActor } from "../../edits/actors.ts";
import { apply } from "../../edits/apply.ts";
import { copiedActors, flippedActors, layActors, turnedActors } from "../../edits/copied-actors.ts";
import { copiedFixtures, flippedFixtures, layFixtures, turnedFixtures } from "../../edits/copied-fixtures.ts";
import { differences } from "../../edits/differences.ts";
import { freeCells, placeFixtures } from "../../edits/fixtures.ts";
import { setBlockedBy, setFlag } from "../../edits/flags.ts";
import { EMPTY_HISTORY, record, recent, redo, undo } from "../../edits/history.ts";
import { moveRoom } from "../../edits/links.ts";
import { isNothing, merge } from "../../edits/merge.ts";
import { onTop } from "../../edits/on-top.ts";
import type { Project } from "../../edits/project.ts";
import { addRoom } from "../../edits/rooms.ts";
import { withRules } from "../../edits/rule-sets.ts";
import { logsThatCannotStart } from "../../edits/starting-logs.ts";
import { changesWorld, invert } from "../../edits/step.ts";
import { moveStart, scaleCells, turnStart } from "../../edits/world-settings.ts";
import { run, stateAt } from "../../replay/run.ts";
import { carriedState } from "../../simulation/carry-state.ts";
import { compile } from "../../simulation/compile.ts";
import { step } from "../../simulation/step.ts";
import { FIXTURE_KINDS } from "../../world/fixtures.ts";
import { DOWN, RIGHT } from "../../world/keys.ts";
import { allActors } from "../../world/queries.ts";
import type { Gait } from "../../world/gaits.ts";
import { GAITS } from "../../world/gaits.ts";
import type { Pair, World } from "../../world/world.ts";
import type { Given, Questions } from "./given.ts";
import { answered, changed, eachLog, projectOf } from "./given.ts";

/** Every other cell of a room's top left corner, one of them outside it. */
const SOME_CELLS: readonly Pair[] = [
  [0, 0],
  [2, 0],
  [1, 1],
  [3, 1],
  [0, 2],
  [2, 2],
  [-1, 0],
];

/** A world as it is after each of some changes, one on top of the other. */
function grown(given: Given): Project[] {
  const first = projectOf(given);
  const [room] = given.world.rooms;
  const ways: readonly ((world: World) => World)[] = [
    (world) => placeFixtures(world, room!.id, { kind: "item", about: null }, SOME_CELLS.slice(0, 2)).world,
    (world) => ({
      ...world,
      rooms: world.rooms.map((each) => ({ ...each, cells: each.cells.map((cell) => 1 - (cell % 2)) })),
    }),
    (world) => ({
      ...world,
      rooms: world.rooms.map((each) => ({ ...each, cells: each.cells.map((cell, i) => (i % 3 === 0 ? 0 : cell)) })),
    }),
    (world) => ({ ...world, rules: world.rules.map((each) => ({ ...each, glide: { ...each.glide, speed: 4 } })) }),
    (world) => ({ ...world, rules: world.rules.map((each) => ({ ...each, glide: { ...each.glide, speed: 1 } })) }),
    (world) => placeActor(world, room!.id, [1, 0]).world,
    (world) => placeFixtures(world, room!.id, { kind: "door", about: null }, SOME_CELLS.slice(2, 4)).world,
    turnStart,
    (world) => moveRoom(world, room!.id, 40, -3),
  ];
  const all = [first];
  for (const way of ways) all.push({ ...all.at(-1)!, world: way(all.at(-1)!.world) });
  return all;
}

/** Of edits: what is placed and copied, and steps that are joined, taken back and refused. */
export const EDITS: Questions = {
  "things placed": (given) => {
    const project = projectOf(given);
    const about = [null, given.world.items.at(-1)?.id ?? null, "nothing-of-that-name"];
    return given.world.rooms
      .slice(0, 2)
      .flatMap((room) => [
        ...FIXTURE_KINDS.flatMap((kind) => [
          freeCells(room, kind, SOME_CELLS),
          ...about.map((of) =>
            changed(
              project,
              ({ world }) => placeFixtures(world, room.id, { kind, about: of }, SOME_CELLS.slice(0, 3)).world,
            ),
          ),
          changed(
            { ...project, world: { ...project.world, items: [], circuits: [] } },
            ({ world }) => placeFixtures(world, room.id, { kind, about: null }, [[0, 0]]).world,
          ),
        ]),
        changed(project, ({ world }) => placeActor(world, room.id, [1, 0]).world),
        changed(project, ({ world }) => moveStart(world, room.id, [1, 1])),
        changed(project, ({ world }) => moveRoom(world, room.id, 7, -2)),
        changed(project, ({ world }) => addRoom(world, `${room.id}-more`, room.name, 5, 4)),
      ]);
  },
  "things copied, turned and laid": (given) => {
    const project = projectOf(given);
    const to = given.world.rooms.at(-1)!.id;
    return given.world.rooms.slice(0, 2).flatMap((room) => {
      const rect = { x: 0, y: 0, width: room.width - 1, height: room.height };
      const size: Pair = [rect.width, rect.height];
      const fixtures = copiedFixtures(room, rect);
      const actors = copiedActors(room, rect);
      const moved = new Set([...fixtures, ...actors].slice(0, 2).map(({ id }) => id));
      return [
        ...[
          fixtures,
          turnedFixtures(fixtures, rect.height),
          flippedFixtures(fixtures, size, "x"),
          flippedFixtures(fixtures, size, "y"),
        ].flatMap((some) => [
          changed(project, ({ world }) => layFixtures(world, to, some, [1, 0]).world),
          changed(project, ({ world }) => layFixtures(world, to, some, [0, 1], moved).world),
        ]),
        ...[
          actors,
          turnedActors(actors, rect.height),
          flippedActors(actors, size, "x"),
          flippedActors(actors, size, "y"),
        ].flatMap((some) => [
          changed(project, ({ world }) => layActors(world, to, some, [1, 0])),
          changed(project, ({ world }) => layActors(world, to, some, [0, 1], moved)),
        ]),
      ];
    });
  },
  "actors, flags and cells changed": (given) => {
    const project = projectOf(given);
    const { world } = project;
    return [
      ...allActors(world)
        .slice(0, 3)
        .flatMap(({ id }) => [
          changed(project, () => changeActor(world, id, (actor) => ({ ...actor, speed: 0.5, touch: "hurt" }))),
          changed(project, (before) => removeActor(before, id)),
          changed(project, (before) => renameActor(before, id, "renamed-actor")),
        ]),
      ...world.flags.flatMap((flag) =>
        [false, true].flatMap((on) => [
          changed(project, () =>
            setFlag(
              world,
              world.tiles.slice(1, 3).map(({ id }) => id),
              flag,
              on,
            ),
          ),
          changed(project, () => setBlockedBy(world, world.rules.at(-1)!.id, flag, on)),
        ]),
      ),
      ...[8, 12, 24, 32, 7].map((side) =>
        answered(() => {
          const scaled = scaleCells(project, side);
          return "fault" in scaled ? scaled.fault : changed(project, () => ({ project: scaled.project, fellAway: [] }));
        }),
      ),
      [...project.logs.values()].map((text) => [withRules(text, null), withRules(text, "main")]),
    ];
  },
  "steps joined, taken back and refused": (given) => {
    const all = grown(given);
    const steps = all.slice(1).flatMap((after, i) => differences(all[i]!, after));
    let history = EMPTY_HISTORY;
    steps.forEach((one, i) => (history = record(history, one, i % 3 === 0 ? null : "stroke")));
    const back = undo(recent(history, 4));
    return [
      steps.map((one, i) => [
        isNothing(one),
        changesWorld(one),
        ...steps.slice(i, i + 4).map((other) => [merge(one, other), merge(one, invert(other))]),
      ]),
      [history, back, back && redo(back.history), undo(EMPTY_HISTORY), redo(history)],
      // On top of each state, most do not fit.
      steps.map((one) =>
        all.slice(0, 4).map((project) => answered(() => differences(project, apply(project, onTop(project, one))))),
      ),
      all.map((after) => logsThatCannotStart(all[0]!, after)),
    ];
  },
  "a walk goes on in a changed world": (given) =>
    eachLog(given, (log, c) => {
      const half = stateAt(c, log, Math.floor(run(c, log).frames / 2));
      const otherwise = (Object.keys(GAITS) as Gait[]).map((gait) => ({
        ...given.world,
        rules: given.world.rules.map((each) => ({ ...each, gait })),
      }));
      return [...grown(given).map(({ world }) => world), ...otherwise].map((world) =>
        answered(() => {
          const now = compile(world, c.rules.id);
          const s = carriedState(now, c, half);
          if (s === null) return null;
          return Array.from({ length: 24 }, (_, i) => {
            step(now, s, [0, RIGHT, DOWN][i % 3]!, null);
            return [s.room, s.x, s.y, s.status];
          });
        }),
      );
    }),
};
