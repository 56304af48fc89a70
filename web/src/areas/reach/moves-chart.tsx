import type { ApexOptions } from "apexcharts";
import "apexcharts/dist/apexcharts.css";
import { useEffect, useState } from "react";
import Chart from "react-apexcharts";
import { onPaletteChange, palette } from "../../look/palette.ts";

/** How many cells can be reached within so many moves. */
export default function MovesChart({ first, unit }: { readonly first: readonly Int32Array[]; readonly unit: string }) {
  const [colours, setColours] = useState(palette);
  useEffect(() => onPaletteChange(() => setColours(palette())), []);
  const options: ApexOptions = {
    chart: {
      id: "reach",
      animations: { enabled: false },
      toolbar: { show: false },
      zoom: { enabled: false },
      fontFamily: "inherit",
      foreColor: colours.quiet,
      // The page's policy lets no style element in; the sheet is part of the build.
      injectStyleSheet: false,
      parentHeightOffset: 0,
    },
    colors: [colours.accent],
    stroke: { curve: "stepline", width: 2 },
    fill: { type: "solid", opacity: 0.18 },
    grid: { borderColor: colours.line, padding: { left: 4, right: 4, top: -16, bottom: -6 } },
    xaxis: {
      type: "numeric",
      tickAmount: 4,
      labels: { formatter: (moves) => String(Math.round(Number(moves))) },
      axisBorder: { show: false },
      tooltip: { enabled: false },
    },
    yaxis: { min: 0, tickAmount: 3, labels: { formatter: (cells) => String(Math.round(cells)), minWidth: 16 } },
    legend: { show: false },
    tooltip: { x: { formatter: (moves) => `within ${moves} ${unit}` }, theme: "light" },
    dataLabels: { enabled: false },
  };
  return (
    <Chart
      type="area"
      height={132}
      width="100%"
      options={options}
      series={[{ name: "cells", data: cellsByMoves(first) }]}
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
