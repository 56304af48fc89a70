import type { Explanation, Gait, Rules } from "@keen-pebble/core";
import { pxText, speedFitText, speedsThatDivide } from "@keen-pebble/core";
import { changeGait, changeSetting } from "../session/bench.ts";
import { SettingField } from "./setting-field.tsx";
import { Settings } from "./settings.tsx";
import { StageCard } from "./stage-card.tsx";

interface Props {
  readonly rules: Rules;
  readonly explanation: Explanation | null;
  readonly tileSize: number;
}

const GAITS: readonly (readonly [Gait, string])[] = [
  ["hop", "Hop"],
  ["glide", "Glide"],
  ["roam", "Roam"],
  ["drift", "Drift"],
];

/** Gait and its settings, the leg's progress or the px travelled; says which speeds divide the tile where this one does not. */
export function MotionCard({ rules, explanation, tileSize }: Props) {
  const onGrid = rules.gait === "hop" || rules.gait === "glide";
  return (
    <StageCard name="Motion" idle={!(explanation?.moving ?? false)} value={onGrid ? <Progress explanation={explanation} tileSize={tileSize} /> : <Travelled explanation={explanation} />}>
      <div className="segments gaits" role="radiogroup" aria-label="Gait">
        {GAITS.map(([gait, name]) => (
          <button key={gait} type="button" role="radio" title={name} aria-checked={rules.gait === gait} onClick={() => changeGait(rules.id, gait)}>
            {name}
          </button>
        ))}
      </div>
      {rules.gait === "glide" ? <Glide rules={rules} tileSize={tileSize} /> : <Settings rules={rules} stage="motion" />}
    </StageCard>
  );
}

function Glide({ rules, tileSize }: Pick<Props, "rules" | "tileSize">) {
  const { speed, arrive } = rules.glide;
  const fit = speedFitText(tileSize, speed);
  const harmful = fit !== null && arrive !== "land";
  return (
    <>
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
    </>
  );
}

/** What a free movement travelled in the shown frame, of what it wanted, in px. */
function Travelled({ explanation }: { readonly explanation: Explanation | null }) {
  const free = explanation?.free;
  if (!free) return null;
  const short = free.wanted.some((wanted, i) => wanted !== free.travelled[i]);
  const px = ([x, y]: readonly [number, number]): string => `${pxText(x)} ${pxText(y)}`;
  return (
    <>
      <span className="mono">{px(free.travelled)} px</span>
      {short && <span className="mono quiet">of {px(free.wanted)}</span>}
    </>
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
