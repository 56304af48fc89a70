import { HURT, LOSE, LOST } from "../../world/vocabulary.ts";
import type { HazardFixture } from "../../world/fixtures/hazard.ts";
import type { FixtureBehaviour } from "../fixture-behaviour.ts";
import { PLAIN_BEHAVIOUR } from "../fixture-behaviour.ts";
import { respawn } from "../place-walker.ts";

/** A life less where they are counted, then lost or back at the respawn place. */
export const hazard: FixtureBehaviour<HazardFixture> = {
  ...PLAIN_BEHAVIOUR,
  touch: (c, s, number) => {
    s.emit(HURT, number);
    if (c.countsLives && --s.memory.lives === 0) {
      s.status = LOST;
      s.emit(LOSE);
    } else respawn(c, s);
    return true;
  },
};
