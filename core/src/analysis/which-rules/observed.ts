import type { GameTrace } from "../../formats/game-trace.ts";
import type { InputLog } from "../../logs/input-log.ts";
import { logFrames } from "../../logs/input-log.ts";
import type { RunStart } from "../../simulation/run-start.ts";
import { framesOf } from "../conform.ts";

/** What was seen of a game: what was pressed in each frame, and where its walker was then. */
export interface Observed {
  readonly begin: RunStart;
  /** Frames, row 0 not counted. */
  readonly frames: number;
  /** By frame, from 0: keys held; 0 for row 0. */
  readonly keys: Uint8Array;
  /** By frame, from 0: whether the game says where the walker was, and where. */
  readonly known: Uint8Array;
  readonly room: Uint8Array;
  readonly x: Int32Array;
  readonly y: Int32Array;
}

/** A game's keys and places, frame by frame. Frames that only one of both has are left out. */
export function observed(log: InputLog, trace: GameTrace): Observed {
  const pressed = logFrames(log);
  const last = trace.frames[trace.count - 1] ?? 0;
  const frames = Math.min(pressed, last);
  const made = {
    begin: { start: log.start, with: log.with },
    frames,
    keys: new Uint8Array(frames + 1),
    known: new Uint8Array(frames + 1),
    room: new Uint8Array(frames + 1),
    x: new Int32Array(frames + 1),
    y: new Int32Array(frames + 1),
  };
  let frame = 1;
  for (const line of log.lines) {
    if (line.kind !== "keys") continue;
    made.keys.fill(line.keys, frame, frame + line.count);
    frame += line.count;
  }
  for (const { frame: at, at: row } of framesOf({ count: frames + 1 }, trace)) {
    made.known[at] = 1;
    made.room[at] = trace.rooms[row]!;
    made.x[at] = trace.x[row]!;
    made.y[at] = trace.y[row]!;
  }
  return made;
}
