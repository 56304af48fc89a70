import type { DoorFixture } from "../../world/fixtures/door.ts";
import { opensByItself } from "../../world/fixtures/door.ts";
import { LOCK_CIRCUIT, LOCK_COLLECTED, LOCK_ITEM, LOCK_NONE } from "../../compiled/compiled-fixture.ts";
import type { CompiledFixture } from "../../compiled/compiled-fixture.ts";
import type { FixtureBehaviour, WorldNumbers } from "../fixture-behaviour.ts";
import { PLAIN_BEHAVIOUR } from "../fixture-behaviour.ts";

/** How doors open and close says `rooms/doors.ts`. */
export const door: FixtureBehaviour<DoorFixture> = {
  ...PLAIN_BEHAVIOUR,
  compile: (fixture, numbers) => ({
    blocks: true,
    opensOnUse: !opensByItself(fixture) && fixture.opensOn === "use",
    closesBehind: !opensByItself(fixture) && fixture.closes === "behind",
    ...compileLock(fixture, numbers),
  }),
  reset: (memory, number, { lock }) => {
    if (lock === LOCK_NONE || lock === LOCK_ITEM) memory.setOpen(number, false);
  },
};

function compileLock({ lock }: DoorFixture, { items, circuits }: WorldNumbers): Partial<CompiledFixture> {
  switch (lock.kind) {
    case "none":
      return { lock: LOCK_NONE };
    case "item":
      return { lock: LOCK_ITEM, item: items.get(lock.item)!, count: lock.count, spends: lock.spends };
    case "circuit":
      return { lock: LOCK_CIRCUIT, circuit: circuits.get(lock.circuit)!, openWhileOn: lock.open === "on" };
    case "collected":
      return { lock: LOCK_COLLECTED, item: items.get(lock.item)! };
  }
}
