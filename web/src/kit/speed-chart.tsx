import LineChart from "../look/line-chart.tsx";

interface Props {
  /** Units moved in each frame, now and before the last edit. */
  readonly now: readonly number[];
  readonly before: readonly number[] | null;
}

/** Speed over frames as a small chart. */
export default function SpeedChart({ now, before }: Props) {
  const points = (speeds: readonly number[]) => speeds.map((units, i) => ({ x: i + 1, y: units / 256 }));
  return (
    <LineChart
      id="speed"
      series={[
        { name: "now", data: points(now), colour: "accent", width: 2 },
        ...(before
          ? [{ name: "before the edit", data: points(before), colour: "lineStrong" as const, width: 1.5 }]
          : []),
      ]}
      titleOf={(frame) => `frame ${frame}`}
      numberOf={(value) => String(Math.round(value * 100) / 100)}
    />
  );
}
