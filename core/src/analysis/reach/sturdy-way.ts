import type { RunStart } from "../../simulation/run-start.ts";
import type { LogLine } from "../../logs/input-log.ts";
import { occupiedX, occupiedY } from "../../ground/occupied.ts";
import { GAIT_MOVEMENTS } from "../../movement/gaits.ts";
import { compile } from "../../simulation/compile.ts";
import { DIRECTIONS } from "../../world/keys.ts";
import type { World } from "../../world/world.ts";
import type { Way } from "./answer.ts";
import type { PlayedWay } from "./way-steps.ts";
import { playWay } from "./way-steps.ts";

/** Frames that a line may take longer than it does now, for a speed that is changed. */
const SPARE = 240;

/**
 * The lines of a way as somebody would write them who means places: a direction held until a cell is reached, so that it
 * survives another speed. Given only where they do the same things in the same order and end in the same place; else the
 * way's own lines.
 */
export function sturdyLines(
  world: World,
  rules: string,
  from: RunStart | null,
  way: Way,
  played: PlayedWay,
): LogLine[] {
  const lines = heldUntil(world, rules, way, played);
  if (lines === null) return [...way.lines];
  const again = playWay(world, rules, from, { ...way, lines });
  const told = ({ rows, steps }: PlayedWay): string => {
    const last = rows.count - 1;
    const what = steps.map(({ event, subject }) => `${event} ${subject ?? ""}`);
    return [...what, rows.room[last], rows.x[last], rows.y[last], rows.status[last]].join("; ");
  };
  return told(again) === told(played) ? lines : [...way.lines];
}

/** Null for a way that is no row of moves. */
function heldUntil(world: World, rules: string, way: Way, { rows }: PlayedWay): LogLine[] | null {
  if (way.ends === null || way.ends.length === 0) return null;
  const c = compile(world, rules);
  const t = c.tileUnits;
  const longest = GAIT_MOVEMENTS[c.rules.gait].framesOfCell(c);
  const lines: LogLine[] = [];
  let at = 0;
  for (let move = 0; move < way.ends.length;) {
    const first = way.lines[at]!;
    if (first.kind !== "keys") return null;
    // One move is a line with its keys and, where it took longer, one without.
    const linesOf = (from: number): number => (isRest(way.lines[from + 1]) ? 2 : 1);
    const isHeld = first.keys !== 0 && (first.keys & ~DIRECTIONS) === 0 && first.pointer === null;
    if (!isHeld) {
      const count = linesOf(at);
      lines.push(...way.lines.slice(at, at + count));
      at += count;
      move++;
      continue;
    }
    let last = move;
    for (;;) {
      at += linesOf(at);
      const next = way.lines[at];
      if (last + 1 >= way.ends.length || next?.kind !== "keys" || next.keys !== first.keys) break;
      last++;
    }
    const frame = Math.min(way.ends[last]!, rows.count - 1);
    const [x, y] = [occupiedX(t, rows.x[frame]!), occupiedY(t, rows.y[frame]!)];
    if (x < 0 || y < 0) return null;
    const room = world.rooms[rows.room[frame]!]!.id;
    const count = (last - move + 1) * longest * 4 + SPARE;
    lines.push({ kind: "keys", count, keys: first.keys, pointer: null, until: { kind: "cell", x, y, room } });
    move = last + 1;
  }
  // The last leg is walked to its end.
  lines.push({ kind: "keys", count: longest + 1, keys: 0, pointer: null, until: null });
  return lines;
}

const isRest = (line: LogLine | undefined): boolean => line?.kind === "keys" && line.keys === 0;
