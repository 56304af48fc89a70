import type { Fields } from "./field.ts";
import type { FixtureKind } from "./fixture-kind.ts";
import { checkpoint } from "./fixtures/checkpoint.ts";
import { door } from "./fixtures/door.ts";
import { hazard } from "./fixtures/hazard.ts";
import { item } from "./fixtures/item.ts";
import { marker } from "./fixtures/marker.ts";
import { portal } from "./fixtures/portal.ts";
import { switchKind } from "./fixtures/switch.ts";
import type { Pair } from "./world.ts";

/** Every kind of fixture (semantics.md section 8). */
const FIXTURES = { item, door, hazard, checkpoint, switch: switchKind, portal, marker };

export type FixtureKindName = keyof typeof FIXTURES;

/** Kinds of fixtures by number: what a compiled fixture has as its kind. */
export const FIXTURE_KINDS = Object.keys(FIXTURES) as readonly FixtureKindName[];

/** What every fixture has. */
export interface FixtureBase {
  /** Unique in the world. */
  readonly id: string;
  readonly cell: Pair;
  /** What must be in its cell: the walker's occupied cell, or its body. */
  readonly touch: "cell" | "body";
  /** When it returns to its first state: never in a run, when the room is left, on respawn (semantics.md section 7). */
  readonly keeps: "run" | "visit" | "life";
}

/** Values of `keeps` and `touch`. */
export const KEEPS = ["run", "visit", "life"] as const satisfies readonly FixtureBase["keeps"][];
export const TOUCHES = ["cell", "body"] as const satisfies readonly FixtureBase["touch"][];

type OwnFields = {
  [K in FixtureKindName]: (typeof FIXTURES)[K] extends FixtureKind<infer F> ? F : never;
}[FixtureKindName];

/** Something that stands in a cell of a room. */
export type Fixture = FixtureBase & OwnFields;

/** All about a kind, whichever it is. */
export function kindOfFixture(kind: FixtureKindName): FixtureKind<Fixture> {
  return FIXTURES[kind] as unknown as FixtureKind<Fixture>;
}

/** The fields of a kind besides those that every fixture has. */
export function fieldsOf(kind: FixtureKindName): Fields {
  return FIXTURES[kind].fields;
}
