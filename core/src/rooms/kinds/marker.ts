import { MARKER_TOUCHED } from "../../world/vocabulary.ts";
import type { MarkerFixture } from "../../world/fixtures/marker.ts";
import type { FixtureBehaviour } from "../fixture-behaviour.ts";
import { PLAIN_BEHAVIOUR } from "../fixture-behaviour.ts";

export const marker: FixtureBehaviour<MarkerFixture> = {
  ...PLAIN_BEHAVIOUR,
  touch: (_, s, number) => {
    s.emit(MARKER_TOUCHED, number);
    return false;
  },
};
