import type { InputLog } from "../../logs/input-log.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import { observe } from "../../replay/run.ts";
import type { LogFinding, MistakeWatch } from "./mistake.ts";
import { FacingReset } from "../mistakes/facing-reset.ts";
import { FasterDiagonals } from "../mistakes/faster-diagonals.ts";
import { FasterSlope } from "../mistakes/faster-slope.ts";
import { FlushSticking } from "../mistakes/flush-sticking.ts";
import { GapBeforeWall } from "../mistakes/gap-before-wall.ts";
import { JumpThrough } from "../mistakes/jump-through.ts";
import { LostTurn } from "../mistakes/lost-turn.ts";
import { MissedCorner } from "../mistakes/missed-corner.ts";
import { SinkingIn } from "../mistakes/sinking-in.ts";
import { UnaskedFlag } from "../mistakes/unasked-flag.ts";
import { UnfitSpeed } from "../mistakes/unfit-speed.ts";

const WATCHES: readonly (new (c: Compiled) => MistakeWatch)[] = [
  UnaskedFlag,
  FlushSticking,
  GapBeforeWall,
  SinkingIn,
  MissedCorner,
  JumpThrough,
  FasterDiagonals,
  FasterSlope,
  FacingReset,
  LostTurn,
  UnfitSpeed,
];

/**
 * The mistakes of job.md's table that are at work in a log's run under its rules, by the frame that shows each first.
 * Throws as `run` does.
 */
export function logFindings(c: Compiled, log: InputLog): LogFinding[] {
  const watches = WATCHES.map((watch) => new watch(c));
  observe(c, log, {
    frame(s, account, began, ground) {
      for (const watch of watches) watch.see({ c, s, account, began, ground });
    },
  });
  return watches.flatMap((watch) => watch.findings()).sort((a, b) => a.frame - b.frame);
}
