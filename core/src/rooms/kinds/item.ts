import { TAKE } from "../../world/vocabulary.ts";
import type { ItemFixture } from "../../world/fixtures/item.ts";
import type { FixtureBehaviour } from "../fixture-behaviour.ts";

export const item: FixtureBehaviour<ItemFixture> = {
  compile: ({ give, count }, { items }) => ({ item: items.get(give)!, count, gives: true }),
  touch: (_, s, number, fixture) => {
    const { memory } = s;
    memory.setTouched(number, false);
    memory.take(number, true);
    memory.pocket(fixture.item, fixture.count);
    s.emit(TAKE, number);
    return false;
  },
  reset: (memory, number) => memory.take(number, false),
};
