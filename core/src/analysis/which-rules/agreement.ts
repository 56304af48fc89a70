import type { Compiled } from "../../compiled/compiled.ts";
import { NO_ROOM } from "../../compiled/memory.ts";
import { NO_BUTTON } from "../../compiled/state.ts";
import type { SimState } from "../../compiled/state.ts";
import { startState } from "../../simulation/start-state.ts";
import { step } from "../../simulation/step.ts";
import { PLAYING } from "../../world/vocabulary.ts";
import type { Observed } from "./observed.ts";

/** How well a rule set reproduces what was seen. */
export interface Agreement {
  /** Frames that come out as seen, each stepped from where the game really was. */
  readonly agreed: number;
  /** Of so many. */
  readonly frames: number;
  /** The first frame that comes out otherwise; null where none does. */
  readonly first: number | null;
}

/**
 * Runs what was pressed under a rule set and counts the frames that come out as seen. After one that does not, the
 * walker is put where the game's was: a single rule that is wrong costs only the frames in which it matters, so that
 * every rule can be looked for by itself.
 * @param tolerance in units: so far apart on an axis they may be
 * @param mostMissed once more frames than so many are missed, the rest is not looked at
 * @throws {CoreError} where what was pressed cannot begin in the world
 */
export function agreementOf(c: Compiled, seen: Observed, tolerance: number, mostMissed = Infinity): Agreement {
  const s = startState(c, seen.begin.start ?? undefined, seen.begin.with);
  let agreed = 0;
  let frames = 0;
  let first: number | null = null;
  if (!isSeen(s, seen, 0, tolerance)) {
    first = 0;
    putThere(c, s, seen, 0);
  }
  for (let frame = 1; frame <= seen.frames; frame++) {
    if (s.status !== PLAYING) {
      // The run is over where the game's went on; the rest does not agree.
      first ??= frame;
      frames += seen.frames - frame + 1;
      break;
    }
    step(c, s, seen.keys[frame]!, null);
    if (seen.known[frame] === 0) continue;
    frames++;
    if (isSeen(s, seen, frame, tolerance)) agreed++;
    else {
      first ??= frame;
      if (frames - agreed > mostMissed) break;
      putThere(c, s, seen, frame);
    }
  }
  return { agreed, frames, first };
}

/** Whether the walker is where the game's was. */
function isSeen(s: SimState, { known, room, x, y }: Observed, frame: number, tolerance: number): boolean {
  return (
    known[frame] === 0 ||
    (s.room === room[frame] && Math.abs(s.x - x[frame]!) <= tolerance && Math.abs(s.y - y[frame]!) <= tolerance)
  );
}

/** Puts the walker where the game's was, on the leg and at the speed that its last frame shows. */
function putThere(c: Compiled, s: SimState, { known, room, x, y }: Observed, frame: number): void {
  s.room = room[frame]!;
  s.x = x[frame]!;
  s.y = y[frame]!;
  s.memory.nearRoom = NO_ROOM;
  s.bufferedButton = NO_BUTTON;
  const before = frame > 0 && known[frame - 1] === 1 && room[frame - 1] === room[frame];
  const dx = before ? s.x - x[frame - 1]! : 0;
  const dy = before ? s.y - y[frame - 1]! : 0;
  s.vx = dx;
  s.vy = dy;
  s.legX = 0;
  s.legY = 0;
  s.legProgress = 0;
  if (c.onGrid && c.rules.gait === "glide") putOnLeg(c, s, dx, dy);
}

/** A walker between two cells is on a leg, the way that it went last. */
function putOnLeg(c: Compiled, s: SimState, dx: number, dy: number): void {
  const offX = ((s.x % c.tileUnits) + c.tileUnits) % c.tileUnits;
  const offY = ((s.y % c.tileUnits) + c.tileUnits) % c.tileUnits;
  if (offX === 0 && offY === 0) return;
  s.legX = offX === 0 ? 0 : Math.sign(dx);
  s.legY = offY === 0 ? 0 : Math.sign(dy);
  const gone = (leg: number, off: number): number => (leg < 0 ? c.tileUnits - off : off);
  if (s.legX !== 0) s.legProgress = gone(s.legX, offX);
  else if (s.legY !== 0) s.legProgress = gone(s.legY, offY);
  if (c.glide.keepGoing) {
    s.keepX = s.legX;
    s.keepY = s.legY;
  }
}
