import { ARRIVE } from "@keen-pebble/core/world";
import { wantExplanation } from "./explanation.ts";
import { projectStore } from "../project/project.ts";
import { benchStore } from "./bench-store.ts";
/** Shows a frame of the run. */
export function showFrame(frame: number): void {
  const { run, frame: present } = benchStore.getState();
  if (run === null) return;
  const next = Math.max(0, Math.min(run.frames, Math.round(frame)));
  if (next === present) return;
  const roomNumber = run.rows.room[next]!;
  const room = projectStore.getState().project?.world.rooms[roomNumber]?.id;
  benchStore.setState(room === undefined ? { frame: next } : { frame: next, room });
  wantExplanation();
}

/**
 * The frame of the next pebble or event after the shown frame, or of the one before it; null where there is none.
 * Arrivals are left out: in gliding they come with every cell.
 */
export function nextMark(direction: 1 | -1): number | null {
  const { run, frame } = benchStore.getState();
  if (run === null) return null;
  const marks = run.verdicts.map((v) => v.frame);
  const { events } = run.rows;
  for (let i = 0; i < events.length; i += 3) if (events[i + 1] !== ARRIVE) marks.push(events[i]!);
  const frames = marks.filter((f) => (direction > 0 ? f > frame : f < frame));
  if (frames.length === 0) return null;
  return direction > 0 ? Math.min(...frames) : Math.max(...frames);
}

export let playClock = 0;

/** Plays the run from the shown frame, at the world's frame rate times the chosen rate. */
export function play(): void {
  const { run, frame } = benchStore.getState();
  if (run === null) return;
  if (frame >= run.frames) showFrame(0);
  benchStore.setState({ playing: true });
  let last = performance.now();
  let rest = 0;
  const mine = ++playClock;
  const tick = (now: number): void => {
    const state = benchStore.getState();
    if (!state.playing || mine !== playClock) return;
    const frameRate = projectStore.getState().project?.world.frameRate ?? 60;
    // A tab that was away does not jump ahead.
    rest += (Math.min(now - last, 100) / 1000) * frameRate * state.rate;
    last = now;
    const whole = Math.floor(rest);
    rest -= whole;
    if (whole > 0) showFrame(state.frame + whole);
    if (benchStore.getState().frame >= (benchStore.getState().run?.frames ?? 0)) pause();
    else requestAnimationFrame(tick);
  };
  requestAnimationFrame(tick);
}

export function pause(): void {
  playClock++;
  benchStore.setState({ playing: false });
}

export function chooseRate(rate: number): void {
  benchStore.setState({ rate });
}
