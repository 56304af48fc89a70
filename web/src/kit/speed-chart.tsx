import type { ApexOptions } from "apexcharts";
import "apexcharts/dist/apexcharts.css";
import { useEffect, useState } from "react";
import Chart from "react-apexcharts";
import { onPaletteChange, palette } from "../look/palette.ts";

interface Props {
  /** Units moved in each frame, now and before the last edit. */
  readonly now: readonly number[];
  readonly before: readonly number[] | null;
}

/** Speed over frames as a small chart. */
export default function SpeedChart({ now, before }: Props) {
  const [colours, setColours] = useState(palette);
  useEffect(() => onPaletteChange(() => setColours(palette())), []);
  const options: ApexOptions = {
    // The page's policy lets no style element in; the sheet is part of the build.
    chart: {
      id: "speed",
      animations: { enabled: false },
      toolbar: { show: false },
      zoom: { enabled: false },
      fontFamily: "inherit",
      foreColor: colours.quiet,
      injectStyleSheet: false,
      parentHeightOffset: 0,
    },
    colors: [colours.accent, colours.lineStrong],
    stroke: { curve: "stepline", width: [2, 1.5] },
    grid: { borderColor: colours.line, padding: { left: 4, right: 4, top: -16, bottom: -6 } },
    xaxis: {
      type: "numeric",
      tickAmount: 4,
      labels: { formatter: (frame) => String(Math.round(Number(frame))) },
      axisBorder: { show: false },
      tooltip: { enabled: false },
    },
    yaxis: {
      min: 0,
      tickAmount: 3,
      forceNiceScale: true,
      labels: { formatter: (value) => String(Math.round(value * 100) / 100), minWidth: 16 },
    },
    legend: { show: false },
    tooltip: { x: { formatter: (frame) => `frame ${frame}` }, theme: "light" },
    dataLabels: { enabled: false },
  };
  const points = (speeds: readonly number[]) => speeds.map((units, i) => ({ x: i + 1, y: units / 256 }));
  return (
    <Chart
      type="line"
      height={132}
      width="100%"
      options={options}
      series={[
        { name: "now", data: points(now) },
        ...(before ? [{ name: "before the edit", data: points(before) }] : []),
      ]}
    />
  );
}
