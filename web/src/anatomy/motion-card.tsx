import type { Explanation, Rules } from "@keen-pebble/core";
import { pxText, speedFitText, speedsThatDivide } from "@keen-pebble/core";
import { changeSetting } from "../session/bench.ts";
import { SettingField } from "./setting-field.tsx";
import { StageCard } from "./stage-card.tsx";

interface Props {
  readonly rules: Rules;
  readonly explanation: Explanation | null;
  readonly tileSize: number;
}

/** Gait, speed and the leg's progress; says which speeds divide the tile where this one does not. */
export function MotionCard({ rules, explanation, tileSize }: Props) {
  const { speed, arrive } = rules.glide;
  const fit = speedFitText(tileSize, speed);
  const harmful = fit !== null && arrive !== "land";
  return (
    <StageCard name="Motion" idle={!(explanation?.moving ?? false)} value={<Progress explanation={explanation} tileSize={tileSize} />}>
      <div className="speed-row">
        <SettingField rules={rules} path="glide.speed" warn={harmful} />
        <SettingField rules={rules} path="glide.arrive" />
        <SettingField rules={rules} path="glide.carry" />
      </div>
      {fit !== null && (
        <p className={`hint${harmful ? " attention" : ""}`}>
          {fit}.{" "}
          {arrive === "land" ? "Landing cuts the last step short." : arrive === "equal" ? "A leg never ends: the walker runs off." : "Each leg ends off the grid."}
          <br />
          <span className="quiet">Speeds that do:</span>
          {speedsThatDivide(tileSize).map((fitting) => (
            <button key={fitting} type="button" className="fitting" onClick={() => changeSetting(rules.id, "glide.speed", speed, fitting, null)}>
              {fitting}
            </button>
          ))}
        </p>
      )}
      <div className="toggles">
        <SettingField rules={rules} path="glide.keepGoing" />
        <SettingField rules={rules} path="glide.reverse" />
        <SettingField rules={rules} path="glide.cutCorners" />
      </div>
    </StageCard>
  );
}

function Progress({ explanation, tileSize }: { readonly explanation: Explanation | null; readonly tileSize: number }) {
  if (explanation === null) return null;
  const onLeg = explanation.leg[0] !== 0 || explanation.leg[1] !== 0;
  const gone = onLeg ? explanation.gone : explanation.arrivedAfter;
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
        {pxText(gone)}/{tileSize} px
      </span>
    </>
  );
}
