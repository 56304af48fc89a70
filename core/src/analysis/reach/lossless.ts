import type { Compiled } from "../../compiled/compiled.ts";
import { LOCK_ITEM } from "../../compiled/compiled-fixture.ts";
import { isHazard } from "../../compiled/compiled-fixture.ts";
import { FIXTURE_KINDS } from "../../world/fixtures.ts";
import type { GridSuperset } from "./grid-superset.ts";

/**
 * Whether nothing in a world can be lost: no lock spends, nothing returns, closes or is switched off again, lives are not
 * counted, and every step can be taken back (semantics.md section 10, "Large worlds"). Then whatever can be reached
 * always can be.
 */
export function isLossless(c: Compiled, superset: GridSuperset): boolean {
  const { all } = c.fixtures;
  const isKept = all.every(
    ({ lock, spends, keeps, closesBehind, circuit, leads, kind }) =>
      !(lock === LOCK_ITEM && spends) &&
      (keeps === 0 || (FIXTURE_KINDS[kind] !== "item" && FIXTURE_KINDS[kind] !== "door")) &&
      !closesBehind &&
      circuit < 0 &&
      !leads,
  );
  const hurts = all.some(isHazard);
  return isKept && (!hurts || (!c.countsLives && c.world.respawnRestores === "keeps")) && superset.reversible;
}
