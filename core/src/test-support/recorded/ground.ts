import { run, stateAt } from "../../replay/run.ts";
import { sameSituation, situationHash } from "../../compiled/situation.ts";
import { eachLog, someFrames } from "./given.ts";
import { clearance } from "../../ground/clearance.ts";
import { joinMask, joinTables } from "../../ground/joined.ts";
import { compile } from "../../simulation/compile.ts";
import type { Questions } from "./given.ts";

/** Of ground. */
export const GROUND: Questions = {
  "where the body does not fit": ({ world }) => world.rooms.map((_, i) => [...clearance(compile(world).ground, i)]),
  "joined tiles": ({ world }) => {
    const tables = joinTables(world.tiles);
    return world.rooms.map(({ cells, width, height }) =>
      Array.from(cells, (tile, at) =>
        tables[tile] ? joinMask(tables[tile], cells, width, height, at % width, Math.floor(at / width)) : null,
      ),
    );
  },
  "situations that are alike": (given) =>
    eachLog(given, (log, c) => {
      const states = someFrames(run(c, log).frames)
        .slice(0, 16)
        .map((frame) => stateAt(c, log, frame));
      return states.map((one) => [situationHash(c, one), states.map((other) => sameSituation(c, one, other))]);
    }),
};
