import { isFree } from "../../ground/free.ts";
import { resolveCell, resolved } from "../../ground/ground.ts";
import { occupiedX, occupiedY } from "../../ground/occupied.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import { ARRIVE, BUMP } from "../../world/vocabulary.ts";
import { NO_BUTTON } from "../../compiled/state.ts";
import type { Account } from "../../compiled/account.ts";
import { chooseDirection } from "../choose.ts";
import { buttonsAlong } from "../intent.ts";
import type { GaitMovement } from "../gait-movement.ts";

export const glide: GaitMovement = {
  move,
  framesOfCell: (c) => Math.max(1, Math.ceil(c.tileUnits / c.glide.speed)),
};

/** One frame of `glide`: cell to cell at a speed (semantics.md section 4.2). */
function move(c: Compiled, s: SimState, account: Account | null): void {
  const settings = c.glide;
  const tileUnits = c.tileUnits;
  // What is remembered for longer than it counts is forgotten.
  if (s.bufferedButton !== NO_BUTTON && ++s.bufferedAge > settings.bufferFrames) forgetPress(s);
  const beganWithLeg = s.legX !== 0 || s.legY !== 0;
  const turned = beganWithLeg && settings.reverse && turnRound(c, s, account);
  if (beganWithLeg && s.pressed !== 0 && settings.bufferFrames > 0) {
    rememberPress(s, turned ? s.pressed & ~buttonsAlong(s.legX, s.legY) : s.pressed);
  }

  let budget = settings.speed;
  for (;;) {
    if (s.legX === 0 && s.legY === 0 && !startLeg(c, s, account)) return;
    s.chosenX = s.legX;
    s.chosenY = s.legY;
    const move = settings.arrive === "land" ? Math.min(budget, tileUnits - s.legProgress) : budget;
    s.x += s.legX * move;
    s.y += s.legY * move;
    s.legProgress += move;
    const ended = settings.arrive === "past" ? s.legProgress >= tileUnits : s.legProgress === tileUnits;
    if (account !== null)
      account.advances.push({ what: "leg", dx: s.legX * move, dy: s.legY * move, progress: s.legProgress, ended });
    if (!ended) return;
    s.legX = 0;
    s.legY = 0;
    s.legProgress = 0;
    s.emit(ARRIVE);
    budget -= move;
    if (!settings.carry || settings.arrive !== "land" || budget <= 0 || (c.fixtures.hasPortals && isPortalHere(c, s)))
      return;
  }
}

/** Whether a portal stands on the cell that was just reached, seams looked through. */
function isPortalHere(c: Compiled, s: SimState): boolean {
  if (!resolveCell(s.ground, s.room, occupiedX(c.tileUnits, s.x), occupiedY(c.tileUnits, s.y))) return false;
  const at = c.rooms[resolved.room]!.fixtureAt;
  for (let number = at === null ? -1 : at[resolved.cell]!; number >= 0; number = c.fixtures.all[number]!.next)
    if (c.fixtures.all[number]!.leads) return true;
  return false;
}

/** Step 1 of a glide frame: the raw intent is opposite to the leg, and the way back is free. */
function turnRound(c: Compiled, s: SimState, account: Account | null): boolean {
  if (c.glide.arrive !== "land" || s.rawX !== -s.legX || s.rawY !== -s.legY) return false;
  const x = s.x - s.legX * s.legProgress;
  const y = s.y - s.legY * s.legProgress;
  const free = isFree(s.ground, s.room, x, y);
  if (account !== null) account.reverse = { place: { x, y, free }, turned: free };
  if (!free) return false;
  // `0 -` and not `-`: a leg must never hold -0.
  s.legX = 0 - s.legX;
  s.legY = 0 - s.legY;
  s.legProgress = c.tileUnits - s.legProgress;
  s.keepX = 0 - s.keepX;
  s.keepY = 0 - s.keepY;
  return true;
}

/** Step 4: one memory; of several pressed in one frame the later of L, R, U, D. */
function rememberPress(s: SimState, pressed: number): void {
  for (let button = 0; button < 4; button++) {
    if (pressed & (1 << button)) {
      s.bufferedButton = button;
      s.bufferedAge = 0;
    }
  }
}

function forgetPress(s: SimState): void {
  s.bufferedButton = NO_BUTTON;
  s.bufferedAge = 0;
}

/** Steps 2 and 4: chooses a direction and begins a leg along it. A choice that finds nothing free may be a bump. */
function startLeg(c: Compiled, s: SimState, account: Account | null): boolean {
  const button = s.bufferedButton;
  const valid = button !== NO_BUTTON && (s.held & (1 << button)) === 0;
  forgetPress(s);
  if (chooseDirection(c, s, c.glide, valid ? button : NO_BUTTON, account)) {
    s.legX = s.chosenX;
    s.legY = s.chosenY;
    if (c.glide.keepGoing) {
      s.keepX = s.legX;
      s.keepY = s.legY;
    }
    return true;
  }
  s.keepX = 0;
  s.keepY = 0;
  if (s.intentX !== 0 || s.intentY !== 0) {
    s.bumping = true;
    if (!s.bumpedBefore) s.emit(BUMP);
  }
  return false;
}
