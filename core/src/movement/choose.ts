import { pushDoors } from "./push.ts";
import { isFree } from "../ground/free.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { NO_BUTTON } from "../compiled/state.ts";
import type { Account, CandidateSource, TestedCandidate, TestedPlace } from "../compiled/account.ts";
import { buttonX, buttonY } from "./intent.ts";

/** The settings of a gait that a choice of direction needs. */
export interface ChoiceSettings {
  readonly slide: boolean;
  readonly cutCorners: boolean;
}

/**
 * Chooses a direction for hop and glide: the first candidate that is free at its target (semantics.md section 4.5).
 * Writes it into `wentX`, `wentY` of the state.
 * @param buffered the button that is the first candidate, or `NO_BUTTON`
 * @returns whether one was free
 */
export function chooseDirection(
  c: Compiled,
  s: SimState,
  settings: ChoiceSettings,
  buffered: number,
  account: Account | null,
): boolean {
  const tested: TestedCandidate[] | null = account === null ? null : [];
  if (account !== null) account.choices.push(tested!);

  if (buffered !== NO_BUTTON && tryDirection(c, s, settings, buttonX(buffered), buttonY(buffered), "buffered", tested))
    return true;
  const { intentX, intentY } = s;
  if (intentX !== 0 && intentY !== 0) {
    if (tryDirection(c, s, settings, intentX, intentY, "diagonal", tested)) return true;
    if (settings.slide) {
      if (tryDirection(c, s, settings, intentX, 0, "x alone", tested)) return true;
      if (tryDirection(c, s, settings, 0, intentY, "y alone", tested)) return true;
    }
  } else if (intentX !== 0 || intentY !== 0) {
    if (tryDirection(c, s, settings, intentX, intentY, "intent", tested)) return true;
    if (
      settings.slide &&
      (s.secondX !== 0 || s.secondY !== 0) &&
      tryDirection(c, s, settings, s.secondX, s.secondY, "second choice", tested)
    ) {
      return true;
    }
  }
  return (s.keepX !== 0 || s.keepY !== 0) && tryDirection(c, s, settings, s.keepX, s.keepY, "keep going", tested);
}

function tryDirection(
  c: Compiled,
  s: SimState,
  settings: ChoiceSettings,
  dx: number,
  dy: number,
  source: CandidateSource,
  tested: TestedCandidate[] | null,
): boolean {
  const x = s.x + dx * c.tileUnits;
  const y = s.y + dy * c.tileUnits;
  let free = isFree(s.ground, s.room, x, y);
  const corners = dx !== 0 && dy !== 0 && !settings.cutCorners;
  if (tested !== null) {
    const places: TestedPlace[] = [{ x, y, free }];
    if (corners)
      places.push(
        { x, y: s.y, free: isFree(s.ground, s.room, x, s.y) },
        { x: s.x, y, free: isFree(s.ground, s.room, s.x, y) },
      );
    tested.push({ source, dx, dy, places, taken: places.every((place) => place.free) });
  }
  if (corners) free = free && isFree(s.ground, s.room, x, s.y) && isFree(s.ground, s.room, s.x, y);
  if (free) {
    s.chosenX = dx;
    s.chosenY = dy;
  } else if (source !== "buffered" && source !== "keep going") {
    pushDoors(c, s, x, y, true, 0, 0);
    if (corners) {
      pushDoors(c, s, x, s.y, true, 0, 0);
      pushDoors(c, s, s.x, y, true, 0, 0);
    }
  }
  return free;
}
