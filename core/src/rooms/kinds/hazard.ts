import type { HazardFixture } from "../../world/fixtures/hazard.ts";
import type { FixtureBehaviour } from "../fixture-behaviour.ts";
import { PLAIN_BEHAVIOUR } from "../fixture-behaviour.ts";
import { hurt } from "../hurt.ts";

/** Who touches it is hurt. */
export const hazard: FixtureBehaviour<HazardFixture> = {
  ...PLAIN_BEHAVIOUR,
  touch: (c, s, number) => {
    hurt(c, s, number);
    return true;
  },
};
