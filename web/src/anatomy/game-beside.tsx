import { roundPx } from "@keen-pebble/core/analyse";
import type { TraceRows } from "@keen-pebble/core/simulate";
import type { World } from "@keen-pebble/core/world";
import { session } from "../page-session.ts";
import { BareButton } from "../look/bare-button.tsx";
import { BesideValues } from "./beside-values.tsx";
import { useBench } from "../use-session.ts";
import "./findings.css";

/** The shown frame of our run and of the game's walk, value by value; and in words what both did where they part. */
export function GameBeside({ world }: { readonly world: World }) {
  const ghost = useBench((state) => (state.walk === null ? state.gameGhost : null));
  const frame = useBench((state) => state.frame);
  if (ghost === null) return null;
  const { first } = ghost.conformance;
  const rows = VALUES.map(
    ([name, of]) => [name, of(ghost.run.rows, frame, world), of(ghost.rows, frame, world)] as const,
  );
  return (
    <section className="beside" aria-label="Your game beside ours">
      <div className="mends-head">
        {first === null ? (
          <span>Your game walks as ours</span>
        ) : (
          <button
            type="button"
            className="link"
            onClick={() => {
              session.playing.pause();
              session.playing.showFrame(first.frame);
            }}
          >
            First differs at frame {first.frame}
          </button>
        )}
        <span className="grow" />
        <BareButton icon="close" name="Close the comparison" onClick={session.ownGame.remove} />
      </div>
      <BesideValues frame={frame} names={["Ours", ghost.game.name]} rows={rows} />
      {first !== null && frame === first.frame && ghost.text !== null && <p className="game-words">{ghost.text}</p>}
    </section>
  );
}

const VALUES: readonly (readonly [string, (rows: TraceRows, frame: number, world: World) => string])[] = [
  ["Room", ({ count, room }, frame, { rooms }) => (frame < count ? rooms[room[frame]!]!.name : "the walk has ended")],
  ["Place px", ({ count, x, y }, frame) => (frame < count ? `${roundPx(x[frame]!)}, ${roundPx(y[frame]!)}` : "")],
  [
    "Moved px",
    ({ count, room, x, y }, frame) => {
      if (frame >= count || frame === 0 || room[frame] !== room[frame - 1]) return "";
      return `${roundPx(x[frame]! - x[frame - 1]!)}, ${roundPx(y[frame]! - y[frame - 1]!)}`;
    },
  ],
];
