import type { Explanation, Rules, TestedCell, World } from "@keen-pebble/core";
import { TileSwatch } from "../kit/tile-swatch.tsx";
import { Settings } from "./settings.tsx";
import { StageCard } from "./stage-card.tsx";

interface Props {
  readonly rules: Rules;
  readonly explanation: Explanation | null;
  readonly world: World;
}

const MOST_SHOWN = 6;

/** The cells that were tested in the shown frame, with their tile, flags and whether they blocked. */
export function ContactCard({ rules, explanation, world }: Props) {
  const cells = testedCells(explanation);
  const stopped = explanation?.stoppedBy != null;
  const { body, blockedBy } = rules.walker;
  return (
    <StageCard
      name="Contact"
      idle={cells.length === 0}
      stopped={stopped}
      value={stopped ? <span className="pill bad">stopped the walker</span> : <span className="quiet">{cells.length === 0 ? "nothing tested" : "way free"}</span>}
    >
      <dl className="facts">
        <div>
          <dt>Blocked by</dt>
          <dd>{blockedBy.join(", ") || "nothing"}</dd>
        </div>
        <div>
          <dt>Body</dt>
          <dd className="mono">{body.kind === "box" ? `${body.box[2]}x${body.box[3]}` : `${body.points.length} probes`}</dd>
        </div>
        <div>
          <dt>Flush</dt>
          <dd>{body.flush}</dd>
        </div>
      </dl>
      <Settings rules={rules} stage="contact" />
      {cells.length > 0 && (
        <ul className="tested">
          {cells.slice(0, MOST_SHOWN).map((cell) => (
            <TestedRow key={`${cell.cx},${cell.cy}`} cell={cell} world={world} />
          ))}
        </ul>
      )}
      {cells.length > MOST_SHOWN && <p className="quiet">and {cells.length - MOST_SHOWN} more cells</p>}
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
      <span className={cell.blocks ? "blocks" : "quiet"}>{cell.blocks ? "blocks" : "free"}</span>
    </li>
  );
}

/** Every cell that was tested, once; where one place said blocked, it did. */
function testedCells(explanation: Explanation | null): TestedCell[] {
  const cells = new Map<string, TestedCell>();
  for (const candidate of explanation?.choices.flat() ?? []) {
    for (const place of candidate.places) {
      for (const cell of place.cells) {
        const key = `${cell.cx},${cell.cy}`;
        if (!cells.get(key)?.blocks) cells.set(key, cell);
      }
    }
  }
  const { stoppedBy } = explanation ?? {};
  if (stoppedBy && cells.size === 0) cells.set("", stoppedBy);
  return [...cells.values()];
}
