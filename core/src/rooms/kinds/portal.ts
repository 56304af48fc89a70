import { FACINGS } from "../../world/facing.ts";
import { PORTAL_TAKEN } from "../../world/vocabulary.ts";
import type { PortalFixture } from "../../world/fixtures/portal.ts";
import type { FixtureBehaviour } from "../fixture-behaviour.ts";
import { PLAIN_BEHAVIOUR } from "../fixture-behaviour.ts";
import { goThrough } from "../place-walker.ts";

export const portal: FixtureBehaviour<PortalFixture> = {
  ...PLAIN_BEHAVIOUR,
  compile: ({ to }, { rooms }) => ({
    leads: true,
    toRoom: rooms.get(to.room)!,
    toX: to.cell[0],
    toY: to.cell[1],
    toFacing: to.facing === undefined ? -1 : FACINGS.indexOf(to.facing),
  }),
  touch: (c, s, number, fixture) => {
    s.emit(PORTAL_TAKEN, number);
    goThrough(c, s, fixture);
    return true;
  },
};
