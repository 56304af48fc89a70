import type { CompiledFixture, FixtureActs } from "../compiled/compiled-fixture.ts";

/** Numbers of a world's rooms, items and circuits by their ids. */
export interface WorldNumbers {
  readonly rooms: ReadonlyMap<string, number>;
  readonly items: ReadonlyMap<string, number>;
  readonly circuits: ReadonlyMap<string, number>;
}

/** What a kind of fixture is compiled to and does in a run; one file each in `kinds/`. */
export interface FixtureBehaviour<F> extends FixtureActs {
  /** Its own fields as numbers. */
  readonly compile: (fixture: F, numbers: WorldNumbers) => Partial<CompiledFixture>;
}

/** A kind that is compiled to nothing of its own, does nothing when touched, and has nothing to give back. */
export const PLAIN_BEHAVIOUR = { compile: () => ({}), touch: () => false, reset: () => undefined } as const;
