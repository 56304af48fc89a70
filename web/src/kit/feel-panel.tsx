import { session } from "../page-session.ts";
import type { Feel } from "@keen-pebble/core/analyse";
import { roundPx } from "@keen-pebble/core/analyse";
import { Suspense, lazy, useEffect } from "react";
import { useStore } from "zustand";
import "./feel.css";
import Table from "react-bootstrap/Table";

const SpeedChart = lazy(() => import("./speed-chart.tsx"));

/** How the shown rule set feels: measured by running it on grounds made for it, with the change since the last edit. */
export function FeelPanel() {
  useEffect(session.feel.startFeel, []);
  const rules = useStore(session.feel.store, (state) => state.rules);
  const now = useStore(session.feel.store, (state) => state.now);
  const before = useStore(session.feel.store, (state) => state.before);
  if (rules === null || now === null) return null;
  const uneven = new Set(now.straight).size > 1;
  return (
    <div className="feel">
      <h3>How {rules.name} feels</h3>
      <FeelNumbers now={now} before={before} uneven={uneven} />
      <Turns feel={now} />
      <h3>
        px a frame <span className="quiet">key held for 30 frames</span>
      </h3>
      <div className="feel-chart">
        <Suspense fallback={null}>
          <SpeedChart now={now.speeds} before={before?.speeds ?? null} />
        </Suspense>
      </div>
    </div>
  );
}

/** The numbers, each with its change since the last edit. */
function FeelNumbers({
  now,
  before,
  uneven,
}: {
  readonly now: Feel;
  readonly before: Feel | null;
  readonly uneven: boolean;
}) {
  return (
    <Table aria-label="Feel numbers">
      <tbody>
        <Row name="First motion" unit="fr" now={now.framesToMove} before={before?.framesToMove} />
        <Row
          name="Per cell"
          unit="fr"
          now={hundredths(now.framesPerCell)}
          before={before ? hundredths(before.framesPerCell) : undefined}
        />
        {(["Right", "Left", "Up", "Down"] as const).map((name, i) => (
          <Row
            key={name}
            name={name}
            unit="px/fr"
            now={px(now.straight[i]!)}
            before={before ? px(before.straight[i]!) : undefined}
            attention={uneven && now.straight[i] !== Math.max(...now.straight)}
          />
        ))}
        <Row
          name="Diagonal"
          unit="px/fr"
          now={px(now.diagonal)}
          before={before ? px(before.diagonal) : undefined}
          attention={now.diagonal > Math.max(...now.straight) * 1.02}
        />
        <Row name="To stop" unit="fr" now={now.framesToStop} before={before?.framesToStop} none="never" />
        <Row
          name="To stop"
          unit="px"
          now={px(now.unitsToStop)}
          before={before ? px(before.unitsToStop) : undefined}
          none="never"
        />
        <Row
          name={now.gapAtWall !== null && now.gapAtWall < 0 ? "Deep in a wall" : "Gap at a wall"}
          unit="px"
          now={now.gapAtWall === null ? null : px(Math.abs(now.gapAtWall))}
          before={before ? (before.gapAtWall === null ? null : px(Math.abs(before.gapAtWall))) : undefined}
          none="not stopped"
          attention={now.gapAtWall !== 0}
        />
        <Row name="Turns missed" unit="of 21" now={missed(now)} before={before ? missed(before) : undefined} />
      </tbody>
    </Table>
  );
}

const px = (units: number | null): number | null => (units === null ? null : Number(roundPx(units)));
const hundredths = (n: number | null): number | null => (n === null ? null : n / 100);
const missed = (feel: Feel): number => feel.turns.filter(({ taken }) => !taken).length;

interface RowProps {
  readonly name: string;
  readonly unit: string;
  readonly now: number | null;
  /** Before the last edit; undefined where there was none. */
  readonly before: number | null | undefined;
  readonly none?: string;
  readonly attention?: boolean;
}

function Row({ name, unit, now, before, none = "never", attention = false }: RowProps) {
  const changed = before !== undefined && before !== now;
  const by = changed && now !== null && before !== null ? Math.round((now - before) * 100) / 100 : null;
  return (
    <tr>
      <th scope="row">{name}</th>
      <td className={`mono${attention ? " attention" : ""}`}>{now ?? none}</td>
      <td className="quiet">{now === null ? "" : unit}</td>
      <td className="mono change">
        {by !== null ? `${by > 0 ? "+" : "\u2212"}${Math.abs(by)}` : changed ? `was ${before ?? none}` : ""}
      </td>
    </tr>
  );
}

/** One mark for each press, 10 frames early to 10 late: whole where the turn was taken. */
function Turns({ feel }: { readonly feel: Feel }) {
  return (
    <div
      className="turns"
      role="img"
      aria-label={`Turns taken when pressed 10 frames early to 10 late: ${
        feel.turns
          .filter(({ taken }) => taken)
          .map(({ late }) => late)
          .join(", ") || "none"
      }`}
    >
      {feel.turns.map(({ late, taken }) => (
        <i
          key={late}
          className={taken ? "taken" : ""}
          title={`${late === 0 ? "in time" : late < 0 ? `${-late} frames early` : `${late} frames late`}: ${taken ? "taken" : "missed"}`}
        />
      ))}
      <span>10 early</span>
      <span>in time</span>
      <span>10 late</span>
    </div>
  );
}
