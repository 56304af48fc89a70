import { isOnGrid } from "../../checks/grid.ts";
import { compileCondition } from "../../checks/condition.ts";
import type { Holds } from "../../checks/condition-kind.ts";
import type { Check } from "../../checks/check.ts";
import { checkText } from "../../checks/check.ts";
import { invariantChecks } from "../../checks/invariants.ts";
import { isFree } from "../../ground/free.ts";
import { isOutside } from "../../rooms/crossing.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import { ESCAPED, LEAVE, PORTAL_TAKEN, RESPAWN, WRAPPED } from "../../world/vocabulary.ts";

/** A law of the world, or of the gait in use, as a walk can break it. */
export interface Invariant {
  /** What is wrong, in a few words. */
  readonly name: string;
  /** The check that shows it in a log, or null where no check says it. */
  readonly check: Check | null;
}

const law = (name: string, check: Check | null): Invariant => ({ name, check });
const OVERLAP = law("comes to overlap what blocks it", { when: { kind: "never" }, what: { kind: "overlap" } });
const OFF_GRID = law("rests off the grid", { when: { kind: "always" }, what: { kind: "aligned", strictly: false } });
const OUTSIDE = law("is outside", { when: { kind: "never" }, what: { kind: "outside" } });
const ESCAPE = law("escapes", { when: { kind: "never" }, what: { kind: "status", status: "escaped" } });
const ENDLESS = law("is on a leg that never ends", {
  when: { kind: "always" },
  what: { kind: "aligned", strictly: false },
});
const HELD = law("is held against nothing", null);

/** So many frames an intent may come to nothing although the way is free one px on. */
const HELD_FRAMES = 10;
const PX = 256;

/** Watches a walk for the first law that it breaks. Looks at a row in a fraction of a step, and allocates nothing. */
export class InvariantWatch {
  private readonly laws: readonly { readonly law: Invariant; readonly holds: Holds; readonly wanted: boolean }[];
  private readonly onGrid: boolean;
  private readonly free: boolean;
  private overlapped = false;
  private outside = false;
  private heldX = 0;
  private heldY = 0;
  private first = true;

  constructor(private readonly c: Compiled) {
    this.onGrid = c.onGrid;
    this.free = !c.onGrid;
    const checks = invariantChecks(c.world);
    this.laws = checks.map((check) => ({
      law: law(checkText(check), check),
      holds: compileCondition(c, check.what),
      wanted: check.when.kind === "always",
    }));
  }

  /** Begins another walk; where it stands at first says its first row. */
  begin(): void {
    this.heldX = 0;
    this.heldY = 0;
    this.first = true;
  }

  /** Looks at the row of the state's frame, row 0 too; the law that it breaks, or null. */
  row(s: SimState): Invariant | null {
    const { laws, c } = this;
    for (let i = 0; i < laws.length; i++) if (laws[i]!.holds(s) !== laws[i]!.wanted) return laws[i]!.law;
    if (s.status === ESCAPED) return ESCAPE;
    const moved = s.x !== s.previousX || s.y !== s.previousY || s.room !== s.previousRoom;
    if (moved || this.first) {
      const overlaps = !isFree(s.ground, s.room, s.x, s.y);
      const outside = isOutside(c, s.room, s.x, s.y);
      // One that was in a wall before, where it was set down say, may get out of it; a door that closes is not its
      // doing. And a side that leads one way only is a wall as soon as one is through.
      const may = this.first || cameThroughSide(s);
      if (overlaps && !this.overlapped && !may) return OVERLAP;
      if (outside && !this.outside && !may) return OUTSIDE;
      this.overlapped = overlaps;
      this.outside = outside;
      this.first = false;
    }
    if (this.onGrid) {
      const onLeg = s.legX !== 0 || s.legY !== 0;
      if (onLeg && s.legProgress > c.tileUnits) return ENDLESS;
      if (!onLeg && !moved && s.frame > 0 && !isOnGrid(c.tileUnits, s)) return OFF_GRID;
    }
    if (this.free) {
      if (moved) {
        this.heldX = 0;
        this.heldY = 0;
      } else {
        this.heldX = s.intentX !== 0 && isFree(s.ground, s.room, s.x + s.intentX * PX, s.y) ? this.heldX + 1 : 0;
        this.heldY = s.intentY !== 0 && isFree(s.ground, s.room, s.x, s.y + s.intentY * PX) ? this.heldY + 1 : 0;
        if (this.heldX >= HELD_FRAMES || this.heldY >= HELD_FRAMES) return HELD;
      }
    }
    return null;
  }
}

/** Whether the walker went over a side of its room in this frame, and was not carried on from there. */
function cameThroughSide(s: SimState): boolean {
  let crossed = false;
  for (let i = 0; i < s.eventCount; i++) {
    const kind = s.eventKinds[i]!;
    if (kind === PORTAL_TAKEN || kind === RESPAWN) return false;
    if (kind === LEAVE || kind === WRAPPED) crossed = true;
  }
  return crossed;
}
