import { memo } from "react";
import { session } from "../page-session.ts";
import { GAIT_NAMES, GAITS } from "@keen-pebble/core/world";
import type { Explanation, Piece } from "@keen-pebble/core/simulate";
import type { Rules } from "@keen-pebble/core/world";
import { roundPx, speedFitText, speedsThatDivide } from "@keen-pebble/core/analyse";
import type { CardProps } from "./card-props.ts";
import { SettingField } from "./setting-field.tsx";
import { Settings } from "./settings.tsx";
import { StageCard } from "./stage-card.tsx";
import { Segments } from "../look/segments.tsx";

interface Props extends CardProps {
  readonly tileSize: number;
}

/** Gait and its settings, the leg's progress or the px travelled; says which speeds divide the tile where this one does not. */
export function MotionCard({ rules, explanation, tileSize }: Props) {
  const { onGrid } = GAITS[rules.gait];
  return (
    <StageCard
      name="Motion"
      idle={!(explanation?.moving ?? false)}
      value={
        rules.gait === "glide" ? (
          <Progress explanation={explanation} tileSize={tileSize} />
        ) : (
          <Moved explanation={explanation} />
        )
      }
    >
      <GaitChoice rules={rules} />
      {rules.gait === "glide" && <Speed rules={rules} tileSize={tileSize} />}
      <Settings rules={rules} stage="motion" but={["glide.speed", "glide.arrive"]} />
      {!onGrid && explanation !== null && explanation.axes.length > 0 && <Axes explanation={explanation} />}
    </StageCard>
  );
}

const GaitChoice = memo(function GaitChoice({ rules }: { readonly rules: Rules }) {
  return (
    <Segments
      label="Gait"
      className="gaits"
      value={rules.gait}
      choices={GAIT_NAMES.map((gait) => ({ value: gait, name: GAITS[gait].label }))}
      onValue={(gait) => session.ruleSets.changeRules(rules.id, { path: "gait", value: gait })}
    />
  );
});

function Speed({ rules, tileSize }: { readonly rules: Rules; readonly tileSize: number }) {
  const { speed, arrive } = rules.glide;
  const fit = speedFitText(tileSize, speed);
  const harmful = fit !== null && arrive !== "land";
  return (
    <>
      <div className="two settings">
        <SettingField rules={rules} path="glide.speed" warn={harmful} />
        <SettingField rules={rules} path="glide.arrive" />
      </div>
      {fit !== null && (
        <p className={`hint${harmful ? " attention" : ""}`}>
          {fit}.{" "}
          {arrive === "land"
            ? "Landing cuts the last step short."
            : arrive === "equal"
              ? "A leg never ends: the walker runs off."
              : "Each leg ends off the grid."}
          <br />
          <span className="quiet">Speeds that do:</span>
          {speedsThatDivide(tileSize).map((fitting) => (
            <button
              key={fitting}
              type="button"
              className="fitting"
              onClick={() => session.ruleSets.changeSetting(rules.id, "glide.speed", speed, fitting, null)}
            >
              {fitting}
            </button>
          ))}
        </p>
      )}
    </>
  );
}

/** What a frame moved the walker by, in px, seams looked through. */
function Moved({ explanation }: { readonly explanation: Explanation | null }) {
  if (explanation === null) return null;
  const moved = explanation.pieces.filter(({ what }) => what !== "crossing");
  const sum = (of: (piece: Piece) => number): number => moved.reduce((total, piece) => total + of(piece), 0);
  return (
    <span className="mono">
      {roundPx(sum(({ dx }) => dx))}, {roundPx(sum(({ dy }) => dy))} px
    </span>
  );
}

const WORDS: Readonly<Record<Piece["what"], string>> = {
  hop: "hop",
  leg: "leg",
  x: "along x",
  y: "along y",
  both: "both axes",
  slope: "slope",
  nudge: "nudge",
  crossing: "seam",
};

/** What each axis wanted and got, and what slope and nudge did. */
function Axes({ explanation }: { readonly explanation: Explanation }) {
  const extra = explanation.pieces.filter(({ what }) => what === "slope" || what === "nudge" || what === "crossing");
  return (
    <ul className="axes" aria-label="Axes in the order moved">
      {explanation.axes.map(({ axis, dx, dy, movedX, movedY }) => {
        const short = movedX !== dx || movedY !== dy;
        const text = (x: number, y: number): string =>
          axis === "x" ? roundPx(x) : axis === "y" ? roundPx(y) : `${roundPx(x)}, ${roundPx(y)}`;
        return (
          <li key={axis}>
            <span className="quiet">{axis === "both" ? "x and y" : axis}</span>
            <span className="mono">{text(movedX, movedY)}</span>
            <span className={short ? "attention" : "quiet"}>
              of <span className="mono">{text(dx, dy)}</span> px
            </span>
          </li>
        );
      })}
      {extra.map(({ what, dx, dy }) => (
        <li key={what}>
          <span className="quiet">{WORDS[what]}</span>
          <span className="mono">
            {roundPx(dx)}, {roundPx(dy)}
          </span>
          <span className="quiet">px</span>
        </li>
      ))}
    </ul>
  );
}

function Progress({ explanation, tileSize }: { readonly explanation: Explanation | null; readonly tileSize: number }) {
  if (explanation === null) return null;
  const onLeg = explanation.leg[0] !== 0 || explanation.leg[1] !== 0;
  const gone = onLeg ? explanation.legProgress : explanation.arrivedAfter;
  if (gone === null) return <span className="quiet">no leg</span>;
  const share = Math.min(1, gone / 256 / tileSize);
  const past = gone > tileSize * 256;
  return (
    <>
      <span className="quiet">{onLeg ? "leg" : "arrived"}</span>
      <span className={`leg-bar${past ? " past" : ""}`} aria-hidden="true">
        <i style={{ width: `${share * 100}%` }} />
      </span>
      <span className={`mono${past ? " attention" : ""}`}>
        {roundPx(gone)}/{tileSize} px
      </span>
    </>
  );
}
