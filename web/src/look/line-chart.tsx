import type { ApexOptions } from "apexcharts";
import "apexcharts/dist/apexcharts.css";
import { useEffect, useState } from "react";
import Chart from "react-apexcharts";
import type { Palette } from "./palette.ts";
import { onPaletteChange, palette } from "./palette.ts";
import { themeInUse } from "./theme.ts";

interface Props {
  /** Its name among the charts of a page. */
  readonly id: string;
  readonly series: readonly {
    readonly name: string;
    readonly data: readonly { readonly x: number; readonly y: number }[];
    readonly colour: keyof Palette;
    readonly width: number;
  }[];
  /** Whether what lies under the lines is tinted. */
  readonly filled?: boolean;
  /** Over the numbers of a point: what its x says, such as `frame 12`. */
  readonly titleOf: (x: number) => string;
  /** A number beside the y axis. */
  readonly numberOf: (y: number) => string;
}

/** Steps over a count, such as frames or moves. */
export default function LineChart({ id, series, filled = false, titleOf, numberOf }: Props) {
  const [colours, setColours] = useState(palette);
  useEffect(() => onPaletteChange(() => setColours(palette())), []);
  const options: ApexOptions = {
    chart: {
      id,
      animations: { enabled: false },
      toolbar: { show: false },
      zoom: { enabled: false },
      fontFamily: "inherit",
      foreColor: colours.quiet,
      // The page's policy lets no style element in; the sheet is part of the build.
      injectStyleSheet: false,
      parentHeightOffset: 0,
    },
    colors: series.map(({ colour }) => colours[colour]),
    stroke: { curve: "stepline", width: series.map(({ width }) => width) },
    ...(filled ? { fill: { type: "solid", opacity: 0.18 } } : {}),
    grid: { borderColor: colours.line, padding: { left: 4, right: 4, top: -16, bottom: -6 } },
    xaxis: {
      type: "numeric",
      tickAmount: 4,
      labels: { formatter: (x) => String(Math.round(Number(x))) },
      axisBorder: { show: false },
      tooltip: { enabled: false },
    },
    yaxis: {
      min: 0,
      tickAmount: 3,
      forceNiceScale: !filled,
      labels: { formatter: numberOf, minWidth: 16 },
    },
    legend: { show: false },
    tooltip: { x: { formatter: titleOf }, theme: themeInUse() },
    dataLabels: { enabled: false },
  };
  return (
    <Chart
      type={filled ? "area" : "line"}
      height={132}
      width="100%"
      options={options}
      series={series.map(({ name, data }) => ({ name, data: [...data] }))}
    />
  );
}
