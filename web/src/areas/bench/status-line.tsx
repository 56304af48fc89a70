import { session } from "../../page-session.ts";
import { roundPx } from "@keen-pebble/core/analyse";
import { gridDistance } from "@keen-pebble/core/check";
import { useBench, useProject } from "../../use-session.ts";
import { useStore } from "zustand";
import { BareButton } from "../../look/bare-button.tsx";
import type { FirstStep } from "../../session/bench/first-minute.ts";
import { walkerRow } from "../../field/walker-row.ts";

/** What is under the pointer, where the walker is, and what the last re-run cost: the field's twin in words. */
export function StatusLine() {
  const world = useProject((state) => state.project?.world ?? null);
  const roomId = useBench((state) => state.room);
  const pointer = useBench((state) => state.pointer);
  const run = useBench((state) => state.run);
  const walking = useBench((state) => state.walk?.phase === "walking");
  const max = useStore(session.latency.store, (state) => state.max);
  const place = useBench((state) => {
    const row = walkerRow(state);
    return row === null ? "" : `${row.rows.x[row.frame]!} ${row.rows.y[row.frame]!}`;
  });
  const room = world?.rooms.find((r) => r.id === roomId);
  const size = world?.tileSize ?? 1;
  const cx = pointer === null ? -1 : Math.floor(pointer.x / size);
  const cy = pointer === null ? -1 : Math.floor(pointer.y / size);
  const inside = room && cx >= 0 && cy >= 0 && cx < room.width && cy < room.height;
  const tile = inside ? world!.tiles[room.cells[cy * room.width + cx]!] : undefined;
  return (
    <footer className="status">
      <span className="pointer-place">
        {inside && pointer ? (
          <>
            Pointer <b className="mono">{`${cx},${cy}`}</b> px <b className="mono">{`${pointer.x},${pointer.y}`}</b>
          </>
        ) : (
          "Pointer outside the room"
        )}
      </span>
      <span className="bar" />
      <span className="pointer-tile">
        {tile ? (
          <>
            Tile <b>{tile.name}</b> {tile.flags.join(", ")}
          </>
        ) : (
          "No tile"
        )}
      </span>
      <span className="bar" />
      <WalkerPlace place={place} size={size} />
      <span className="grow" />
      <span role="status">{walking ? "Walking: arrows or WASD, E or Space uses, Esc stops" : <NextStep />}</span>
      {max !== null && (
        <span className="mono" title="From a change to the picture of its run: 95 of 100 took at most so long">
          95% in {max.toFixed(0)} ms
        </span>
      )}
      {run && (
        <span className="mono">
          {run.frames} frames in {run.took.toFixed(1)} ms
        </span>
      )}
    </footer>
  );
}

const STEPS: Readonly<Record<FirstStep, string>> = {
  walk: "First: press R and walk with the arrow keys",
  keep: "Press R and walk; Esc stops, Enter keeps the walk as a log with its checks",
  change: "Now drag a number on the left, such as Speed, until a pebble splits: a check that broke",
  look: "Click the split pebble to see the frame that breaks it; Y looks for what would fix it",
};

/** What a newcomer does next, and else what else can be done on the field. */
function NextStep() {
  const step = useStore(session.firstMinute.store, (state) => state.step);
  if (step === null) return "Right-click starts there; Shift: with this frame's bag";
  return (
    <span className="next-step">
      {STEPS[step]} <BareButton icon="close" name="No more hints" onClick={session.firstMinute.dismiss} />
    </span>
  );
}

function WalkerPlace({ place, size }: { readonly place: string; readonly size: number }) {
  if (place === "") return <span>No walker</span>;
  const [x = 0, y = 0] = place.split(" ").map(Number);
  const units = size * 256;
  const off = gridDistance(units, x, y);
  return (
    <>
      <span aria-live="off">
        Walker <b className="mono">{`${Math.floor(x / units + 0.5)},${Math.floor(y / units + 0.5)}`}</b> px{" "}
        <b className="mono">{`${roundPx(x)},${roundPx(y)}`}</b>
      </span>
      <span className={off > 0 ? "attention" : ""}>{off > 0 ? `${roundPx(off)} px off the grid` : "on the grid"}</span>
    </>
  );
}
