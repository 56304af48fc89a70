import LineChart from "../../look/line-chart.tsx";

/** How many cells can be reached within so many moves. */
export default function MovesChart({ first, unit }: { readonly first: readonly Int32Array[]; readonly unit: string }) {
  return (
    <LineChart
      id="reach"
      filled
      series={[{ name: "cells", data: cellsByMoves(first), colour: "accent", width: 2 }]}
      titleOf={(moves) => `within ${moves} ${unit}`}
      numberOf={(cells) => String(Math.round(cells))}
    />
  );
}

/** The points of the curve; of a long one every so many moves. */
function cellsByMoves(first: readonly Int32Array[]): { readonly x: number; readonly y: number }[] {
  const moves = first.flatMap((cells) => [...cells].filter((n) => n >= 0)).sort((a, b) => a - b);
  const last = moves.at(-1) ?? 0;
  const step = Math.max(1, Math.ceil(last / 120));
  const points: { x: number; y: number }[] = [];
  let cells = 0;
  for (let x = 0; x <= last + step - 1; x += step) {
    while (cells < moves.length && moves[cells]! <= x) cells++;
    points.push({ x: Math.min(x, last), y: cells });
  }
  return points;
}
