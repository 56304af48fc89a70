import type { TraceRows } from "@keen-pebble/core/simulate";
import { useMemo } from "react";
import LineChart from "../look/line-chart.tsx";
import type { GameGhost } from "../session/elsewhere/own-game.ts";

/** Points that a chart has at most: more are one beside the other within a px. */
const POINTS = 480;

/** How far apart both walks are over frames, and how fast each goes. */
export default function ApartCharts({ ghost: { apart, run, rows } }: { readonly ghost: GameGhost }) {
  const points = useMemo(
    () => ({
      apart: thinned(apart.length, (frame) => (Number.isNaN(apart[frame]) ? 0 : apart[frame]!)),
      ours: thinned(apart.length, (frame) => speedAt(run.rows, frame)),
      theirs: thinned(apart.length, (frame) => speedAt(rows, frame)),
    }),
    [apart, run, rows],
  );
  const numberOf = (value: number): string => String(Math.round(value * 100) / 100);
  const titleOf = (frame: number): string => `frame ${frame}`;
  return (
    <div className="apart-charts">
      <h4>px apart</h4>
      <LineChart
        id="apart"
        series={[{ name: "apart", data: points.apart, colour: "attention", width: 2 }]}
        titleOf={titleOf}
        numberOf={numberOf}
      />
      <h4>
        px a frame <span className="quiet">ours, and yours pale</span>
      </h4>
      <LineChart
        id="both-speeds"
        series={[
          { name: "yours", data: points.theirs, colour: "lineStrong", width: 2 },
          { name: "ours", data: points.ours, colour: "accent", width: 1.5 },
        ]}
        titleOf={titleOf}
        numberOf={numberOf}
      />
    </div>
  );
}

/** Px gone in a frame, along the way. */
function speedAt({ room, x, y }: TraceRows, frame: number): number {
  if (frame === 0 || room[frame] !== room[frame - 1]) return 0;
  return Math.hypot(x[frame]! - x[frame - 1]!, y[frame]! - y[frame - 1]!) / 256;
}

/** A point for each stretch of frames: the highest in it. */
function thinned(count: number, valueOf: (frame: number) => number): { x: number; y: number }[] {
  const stretch = Math.max(1, Math.ceil(count / POINTS));
  return Array.from({ length: Math.ceil(count / stretch) }, (_, i) => {
    let highest = 0;
    for (let frame = i * stretch; frame < Math.min(count, (i + 1) * stretch); frame++)
      highest = Math.max(highest, valueOf(frame));
    return { x: i * stretch, y: highest };
  });
}
