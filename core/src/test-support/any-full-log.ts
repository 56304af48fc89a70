import fc from "fast-check";
import type { Check } from "../checks/check.ts";
import type { When } from "../checks/when.ts";
import type { Condition } from "../checks/condition.ts";
import type { InputLog, LogLine } from "../logs/input-log.ts";
import type { WithLine } from "../simulation/run-start.ts";
import { EMPTY_LOG } from "../logs/input-log.ts";
import { EVENT_NAMES, STATUS_NAMES } from "../world/vocabulary.ts";
import { FACINGS } from "../world/facing.ts";
import { allActors } from "../world/queries.ts";
import type { World } from "../world/world.ts";

/** Any WHAT that the world can be asked. */
export function anyWhatOf(world: World): fc.Arbitrary<Condition> {
  const fixtures = world.rooms.flatMap((room) => room.fixtures);
  const number = fc.integer({ min: 0, max: 9 });
  const named = <T>(ids: readonly string[], make: (id: fc.Arbitrary<string>) => fc.Arbitrary<T>): fc.Arbitrary<T>[] =>
    ids.length === 0 ? [] : [make(fc.constantFrom(...ids))];
  const of = (kind: string): string[] => fixtures.filter((fixture) => fixture.kind === kind).map(({ id }) => id);
  const room = fc.constantFrom(...world.rooms.map(({ id }) => id));
  return fc.oneof(
    fc.record({ kind: fc.constant("room" as const), room }),
    fc.record({ kind: fc.constant("cell" as const), x: number, y: number, room: fc.option(room) }),
    fc.record({ kind: fc.constant("aligned" as const), strictly: fc.boolean() }),
    fc.record({ kind: fc.constantFrom("still" as const, "overlap" as const, "outside" as const) }),
    fc.record({ kind: fc.constant("facing" as const), facing: fc.constantFrom(...FACINGS) }),
    fc.record({ kind: fc.constant("lives" as const), lives: number }),
    fc.record({ kind: fc.constant("status" as const), status: fc.constantFrom(...STATUS_NAMES) }),
    fc.record({
      kind: fc.constant("event" as const),
      event: fc.constantFrom(...EVENT_NAMES),
      subject: fc.constant(null),
    }),
    fc.record({
      kind: fc.constant("pixel" as const),
      x: fc.integer({ min: -16, max: 160 }),
      y: fc.constantFrom(0, 16, 24.5, -0.25),
    }),
    ...named(
      world.items.map(({ id }) => id),
      (item) =>
        fc.record({ kind: fc.constant("holds" as const), item, count: fc.option(fc.integer({ min: 1, max: 3 })) }),
    ),
    ...named(world.circuits, (circuit) =>
      fc.record({ kind: fc.constant("circuit" as const), circuit, on: fc.boolean() }),
    ),
    ...named(
      fixtures.map(({ id }) => id),
      (fixture) => fc.record({ kind: fc.constant("on" as const), fixture }),
    ),
    ...named(
      allActors(world).map(({ id }) => id),
      (actor) => fc.record({ kind: fc.constant("meets" as const), actor }),
    ),
    ...named(of("item"), (fixture) => fc.record({ kind: fc.constant("taken" as const), fixture })),
    ...named(of("door"), (fixture) => fc.record({ kind: fc.constant("open" as const), fixture })),
    ...named(of("marker"), (subject) =>
      fc.record({ kind: fc.constant("event" as const), event: fc.constant("marker" as const), subject }),
    ),
  );
}

const anyWhen: fc.Arbitrary<When> = fc.oneof(
  fc.record({ kind: fc.constantFrom("at" as const, "by" as const), frame: fc.integer({ min: 0, max: 200 }) }),
  fc.record({ kind: fc.constantFrom("ever" as const, "end" as const, "always" as const, "never" as const) }),
);

/** Any check that the world can be asked. */
export const anyCheckOf = (world: World): fc.Arbitrary<Check> => fc.record({ when: anyWhen, what: anyWhatOf(world) });

function anyWithOf(world: World): fc.Arbitrary<WithLine[]> {
  const fixtures = world.rooms.flatMap((room) => room.fixtures);
  const some = <T>(list: readonly T[]): fc.Arbitrary<T[]> =>
    fc.subarray([...list], { maxLength: Math.min(list.length, 2) });
  // Doors that follow something cannot be set up, and each kind of line stands once for a name.
  const doors = fixtures.flatMap((each) =>
    each.kind === "door" && (each.lock.kind === "none" || each.lock.kind === "item") ? [each] : [],
  );
  return fc
    .tuple(
      some(world.items.map(({ id }): WithLine => ({ kind: "holds", item: id, count: 2 }))),
      some(fixtures.filter(({ kind }) => kind === "item").map(({ id }): WithLine => ({ kind: "taken", fixture: id }))),
      some(doors.map(({ id }): WithLine => ({ kind: "open", fixture: id }))),
      some(world.circuits.map((circuit): WithLine => ({ kind: "circuit", circuit }))),
      some(world.lives === null ? [] : [{ kind: "lives", lives: 2 } satisfies WithLine]),
      some(
        fixtures
          .filter(({ kind }) => kind === "checkpoint")
          .map(({ id }): WithLine => ({ kind: "respawn", fixture: id }))
          .slice(0, 1),
      ),
      ...(allActors(world).length === 0
        ? []
        : [
            some(
              allActors(world).map(({ cell, id }, i): WithLine => ({
                kind: "actor",
                actor: id,
                cell: [0, cell[1]],
                facing: i % 2 === 0 ? null : "up-left",
              })),
            ),
          ]),
    )
    .map((lists) => lists.flat());
}

function anyLinesOf(world: World): fc.Arbitrary<LogLine[]> {
  const keys = fc.record({
    kind: fc.constant("keys" as const),
    count: fc.integer({ min: 1, max: 24 }),
    // Directions above all; use and the spare button now and then.
    keys: fc.oneof(fc.integer({ min: 0, max: 15 }), fc.integer({ min: 0, max: 15 }), fc.integer({ min: 0, max: 63 })),
    pointer: fc.option(
      fc.record({
        x: fc.integer({ min: -640, max: 2560 }).map((at) => at / 16),
        y: fc.integer({ min: -640, max: 2560 }).map((at) => at / 16),
      }),
      { freq: 3 },
    ),
    until: fc.option(anyWhatOf(world), { freq: 3 }),
  });
  const comment = fc
    .constantFrom("", " two seconds of nothing", " #", "check always aligned")
    .map((text) => ({ kind: "comment" as const, text }));
  return fc.array(fc.oneof({ weight: 8, arbitrary: keys }, { weight: 1, arbitrary: comment }), {
    minLength: 1,
    maxLength: 24,
  });
}

/** A log that uses whatever a log can: another start, state set up, pointer, use and spare button, `until`, comments, checks. */
export function anyFullLogOf(world: World): fc.Arbitrary<InputLog> {
  const start = fc.constantFrom(...world.rooms).chain(({ id, width, height }) =>
    fc.record({
      room: fc.constant(id),
      cell: fc.tuple(fc.integer({ min: 0, max: width - 1 }), fc.integer({ min: 0, max: height - 1 })),
      facing: fc.constantFrom(...FACINGS),
    }),
  );
  const words = fc.constantFrom("First crank", "x", "Zwölf: 12 Töne", "-- check end still");
  return fc
    .record({
      world: fc.constantFrom(null, world.id, "elsewhere"),
      rules: fc.constantFrom(null, ...world.rules.map((rules) => rules.id)),
      start: fc.option(start),
      with: anyWithOf(world),
      seed: fc.constantFrom(null, 0, 7, 999_999_999),
      title: fc.option(words),
      tags: fc.subarray(["locks", "slow", "a-b"]),
      notes: fc.array(words, { maxLength: 2 }),
      accept: fc.constantFrom(null, "3f5a0c42".repeat(8)),
      checks: fc.array(anyCheckOf(world), { maxLength: 5 }),
      lines: anyLinesOf(world),
    })
    .map((log) => ({ ...EMPTY_LOG, ...log }));
}
