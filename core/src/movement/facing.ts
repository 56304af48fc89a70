import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { FACING_DX, FACING_DY, facingOf } from "../world/facing.ts";

/** Sets the facing of this frame, after the movement (semantics.md section 5). */
export function updateFacing(c: Compiled, s: SimState): void {
  if (c.rules.facing.source === "pointer") {
    facePointer(c, s);
    return;
  }
  const moved = s.chosenX !== 0 || s.chosenY !== 0;
  const dx = moved ? s.chosenX : s.intentX;
  const dy = moved ? s.chosenY : s.intentY;
  if (dx === 0 && dy === 0) {
    if (c.rules.facing.idle === "reset") s.facing = c.restFacing;
  } else if (dx === 0 || dy === 0 || c.rules.facing.ways === 8) {
    s.facing = facingOf(dx, dy);
  } else {
    s.facing = facingOfDiagonal(s.facing, dx, dy, c.rules.facing.tie);
  }
}

/** `facing.tie`: which of the two directions of a diagonal four ways show. */
function facingOfDiagonal(present: number, dx: number, dy: number, tie: "keep" | "horizontal" | "vertical"): number {
  if (tie === "vertical") return facingOf(0, dy);
  const stays = tie === "keep" && FACING_DX[present] === 0 && FACING_DY[present] === dy;
  return stays ? present : facingOf(dx, 0);
}

function facePointer(c: Compiled, s: SimState): void {
  if (!s.hasPointer) return;
  const dx = s.pointerX - (s.x + c.tileUnits / 2);
  const dy = s.pointerY - (s.y + c.tileUnits / 2);
  if (dx === 0 && dy === 0) return;
  s.facing = Math.abs(dx) >= Math.abs(dy) ? facingOf(Math.sign(dx), 0) : facingOf(0, Math.sign(dy));
}
