import { useMemo } from "react";
import { chooseTile } from "../session/bench.ts";
import { useBench, useProject } from "../session/hooks.ts";
import { TileSwatch } from "./tile-swatch.tsx";

/** The tiles to paint with, and what the chosen one means to the walker. */
export function Kit() {
  const world = useProject((state) => state.project?.world ?? null);
  const tile = useBench((state) => state.tile);
  const roomId = useBench((state) => state.room);
  const walking = useBench((state) => state.walk !== null);
  const room = world?.rooms.find((r) => r.id === roomId);
  const used = useMemo(() => {
    const counts = new Map<number, number>();
    for (const cell of room?.cells ?? []) counts.set(cell, (counts.get(cell) ?? 0) + 1);
    return counts;
  }, [room]);
  if (world === null) return null;
  const chosen = world.tiles[tile];
  const rules = world.rules.find((r) => r.id === world.activeRules);
  const blocking = chosen?.flags.filter((flag) => rules?.walker.blockedBy.includes(flag)) ?? [];
  return (
    <aside className="kit" aria-label="Kit">
      <h2 className="kit-head">Tiles</h2>
      <div className="kit-body">
        <div className="swatches" role="radiogroup" aria-label="Tile to paint with">
          {world.tiles.map((each, i) => (
            <button key={each.id} type="button" role="radio" aria-checked={i === tile} aria-label={`${each.name}${each.flags.length > 0 ? `, ${each.flags.join(", ")}` : ""}`} title={each.name} disabled={walking} onClick={() => chooseTile(i)}>
              <TileSwatch tiles={world.tiles} tile={i} size={32} />
              {each.flags.length > 0 && (
                <span className="marks" aria-hidden="true">
                  {each.flags.map((flag) => (
                    <i key={flag} className={rules?.walker.blockedBy.includes(flag) ? "blocking" : ""} />
                  ))}
                </span>
              )}
            </button>
          ))}
        </div>
        {chosen && (
          <dl className="chosen" aria-live="polite">
            <div>
              <dt>{chosen.name}</dt>
              <dd className="quiet">{used.get(tile) ?? 0} cells</dd>
            </div>
            <div>
              <dt className="quiet">Flags</dt>
              <dd>{chosen.flags.join(", ") || "none"}</dd>
            </div>
            <div>
              <dt className="quiet">Stops the walker</dt>
              <dd className={blocking.length > 0 ? "attention" : ""}>{blocking.length > 0 ? `yes, by ${blocking.join(", ")}` : "no"}</dd>
            </div>
          </dl>
        )}
        <p className="quiet hint">Drag on the field to paint. Alt-click takes the tile under the pointer. Each stroke runs the log again.</p>
      </div>
    </aside>
  );
}
