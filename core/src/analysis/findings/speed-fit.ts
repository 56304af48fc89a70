import { UNITS_PER_PX, unitsFromPx } from "../../base/units.ts";

/** How a speed goes into a tile: `tile = steps x speed + rest`, all in units. */
export interface SpeedFit {
  readonly steps: number;
  readonly rest: number;
}

/** How often a speed in px goes into a tile size in px, and what is left, in units. */
export function speedFit(tileSize: number, speed: number): SpeedFit {
  const tileUnits = unitsFromPx(tileSize);
  const units = unitsFromPx(speed);
  return { steps: Math.floor(tileUnits / units), rest: tileUnits % units };
}

/** The whole px speeds that divide a tile size, ascending. */
export function speedsThatDivide(tileSize: number): number[] {
  const speeds: number[] = [];
  for (let speed = 1; speed <= tileSize; speed++) if (tileSize % speed === 0) speeds.push(speed);
  return speeds;
}

/**
 * One sentence for a speed that does not divide the tile, such as `7 px does not divide 40: 40 = 5 x 7 + 5`;
 * null for one that does.
 */
export function speedFitText(tileSize: number, speed: number): string | null {
  const { steps, rest } = speedFit(tileSize, speed);
  const exact = unitsFromPx(speed) / UNITS_PER_PX;
  return rest === 0
    ? null
    : `${exact} px does not divide ${tileSize}: ${tileSize} = ${steps} x ${exact} + ${rest / UNITS_PER_PX}`;
}
