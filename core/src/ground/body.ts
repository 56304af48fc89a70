import type { Body } from "../world/world.ts";
import { UNITS_PER_PX } from "../base/units.ts";

/** What collides, in units from the walker's position (semantics.md section 3). */
export interface CompiledBody {
  readonly kind: "box" | "probes";
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  /** Lying flush counts as overlap; never for probes. */
  readonly edgesCount: boolean;
  /** x, y of each probe; empty for a box. */
  readonly probes: Int32Array;
}

/** The body in units. For probes the box around them is given too. */
export function compileBody(body: Body): CompiledBody {
  if (body.kind === "box") {
    const [left, top, width, height] = body.box;
    return {
      kind: "box",
      left: left * UNITS_PER_PX,
      top: top * UNITS_PER_PX,
      right: (left + width) * UNITS_PER_PX,
      bottom: (top + height) * UNITS_PER_PX,
      edgesCount: body.flush === "blocks",
      probes: new Int32Array(0),
    };
  }
  const probes = Int32Array.from(body.points.flat(), (v) => v * UNITS_PER_PX);
  const xs = body.points.map((p) => p[0] * UNITS_PER_PX);
  const ys = body.points.map((p) => p[1] * UNITS_PER_PX);
  return {
    kind: "probes",
    left: Math.min(...xs),
    top: Math.min(...ys),
    right: Math.max(...xs),
    bottom: Math.max(...ys),
    edgesCount: false,
    probes,
  };
}
