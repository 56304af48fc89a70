import type { Explanation, TestedCell } from "@keen-pebble/core/simulate";
import type { World } from "@keen-pebble/core/world";
import { roundPx } from "@keen-pebble/core/analyse";
import { TileSwatch } from "../kit/tile-swatch.tsx";
import { BodyEditor } from "./body-editor.tsx";
import type { CardProps } from "./card-props.ts";
import { Settings } from "./settings.tsx";
import { StageCard } from "./stage-card.tsx";

interface Props extends CardProps {
  readonly world: World;
}

const MOST_SHOWN = 6;

/** What the body is blocked by, what was tested in the shown frame, and how the body lies to its walls. */
export function ContactCard({ rules, explanation, world }: Props) {
  const cells = explanation?.tested ?? [];
  const stopped = explanation?.stoppedBy != null;
  const aside = explanation?.pieces.some(({ what }) => what === "slope")
    ? "slid along a slope"
    : explanation?.pieces.some(({ what }) => what === "nudge")
      ? "nudged round a corner"
      : null;
  return (
    <StageCard
      name="Contact"
      idle={cells.length === 0}
      stopped={stopped}
      value={
        stopped ? (
          <span className="pill bad">stopped the walker</span>
        ) : (
          <span className="quiet">{aside ?? (cells.length === 0 ? "nothing tested" : "way free")}</span>
        )
      }
    >
      <BodyEditor rules={rules} world={world} />
      <Settings rules={rules} stage="contact" />
      {cells.length > 0 && (
        <ul className="tested" aria-label="Tested cells">
          {cells.slice(0, MOST_SHOWN).map((cell) => (
            <TestedRow key={`${cell.cx},${cell.cy}`} cell={cell} world={world} />
          ))}
        </ul>
      )}
      {cells.length > MOST_SHOWN && <p className="fact">and {cells.length - MOST_SHOWN} more cells, free</p>}
      {explanation?.nudge && <NudgeFact nudge={explanation.nudge} />}
      {explanation && <GapsFact gaps={explanation.gaps} />}
    </StageCard>
  );
}

function TestedRow({ cell, world }: { readonly cell: TestedCell; readonly world: World }) {
  const tile = cell.tile < 0 ? null : world.tiles[cell.tile];
  return (
    <li>
      {tile ? <TileSwatch source={world} tile={cell.tile} size={16} /> : <span className="beyond" />}
      <span className="mono">
        {cell.cx},{cell.cy}
      </span>
      <span className="tile-name">{tile ? tile.name : "beyond the edge"}</span>
      <span className="quiet">{tile?.flags.join(" ")}</span>
      <span className={cell.blocks ? "blocks" : "quiet"}>{cell.blocks ? `blocks ${cell.side ?? ""}` : "free"}</span>
    </li>
  );
}

function NudgeFact({ nudge }: { readonly nudge: NonNullable<Explanation["nudge"]> }) {
  const last = nudge.tried.at(-1);
  const freed = last !== undefined && last.place.free;
  return (
    <p className="fact">
      Nudge tried {nudge.tried.length} {nudge.tried.length === 1 ? "place" : "places"}:{" "}
      {freed ? `free at ${last.px} px along ${nudge.axis}, moved ${roundPx(nudge.moved)}` : "none was free"}
    </p>
  );
}

/** Free px on each side of the body, or how deep it is in. */
function GapsFact({ gaps }: { readonly gaps: Explanation["gaps"] }) {
  if (gaps.overlap !== null) return <p className="fact attention">Overlaps by {roundPx(gaps.overlap)} px</p>;
  const near = (["left", "right", "top", "bottom"] as const).filter((side) => gaps[side] !== null);
  if (near.length === 0) return null;
  return (
    <p className="fact">
      Gap{" "}
      {near.map((side) => (
        <span key={side} className="gap-on">
          {side} <span className="mono">{roundPx(gaps[side]!)}</span>
        </span>
      ))}
    </p>
  );
}
