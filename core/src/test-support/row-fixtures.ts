import type { Fixture } from "../world/fixtures.ts";

type Lock = Extract<Fixture, { kind: "door" }>["lock"];

/** What fixtures of a row have in common. */
export const plain = { touch: "cell", keeps: "run" } as const;

/** One key, which is spent. */
const SPENT_KEY: Lock = { kind: "item", item: "key", count: 1, spends: true };

/** An item on the floor of a room's first row. */
export const item = (id: string, x: number, give: string): Fixture => ({
  ...plain,
  id,
  kind: "item",
  cell: [x, 0],
  give,
  count: 1,
});

/** A door in a room's first row that opens when it is walked against, and stays open. */
export const door = (id: string, x: number, lock: Lock = SPENT_KEY): Fixture => ({
  ...plain,
  id,
  kind: "door",
  cell: [x, 0],
  lock,
  opensOn: "push",
  closes: "never",
});
