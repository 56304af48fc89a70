import type { BenchStore } from "./bench-store.ts";
import type { ProjectSession } from "../project/project.ts";
import type { ShownExplanation } from "./explanation.ts";
import { ARRIVE } from "@keen-pebble/core/world";

/** Steps and plays through the frames of the run. */
export class Playing {
  playClock = 0;

  constructor(
    private readonly benchStore: BenchStore,
    private readonly project: ProjectSession,
    private readonly explanation: ShownExplanation,
  ) {}

  /** Shows a frame of the run. */
  readonly showFrame = (frame: number): void => {
    const { run, frame: present } = this.benchStore.getState();
    if (run === null) return;
    const next = Math.max(0, Math.min(run.frames, Math.round(frame)));
    if (next === present) return;
    const roomNumber = run.rows.room[next]!;
    const room = this.project.store.getState().project?.world.rooms[roomNumber]?.id;
    this.benchStore.setState(room === undefined ? { frame: next } : { frame: next, room });
    this.explanation.wantExplanation();
  };

  /**
   * The frame of the next pebble or event after the shown frame, or of the one before it; null where there is none.
   * Arrivals are left out: in gliding they come with every cell.
   */
  readonly nextMark = (direction: 1 | -1): number | null => {
    const { run, frame } = this.benchStore.getState();
    if (run === null) return null;
    const marks = run.verdicts.map((v) => v.frame);
    const { events } = run.rows;
    for (let i = 0; i < events.length; i += 3) if (events[i + 1] !== ARRIVE) marks.push(events[i]!);
    const frames = marks.filter((f) => (direction === 1 ? f > frame : f < frame));
    if (frames.length === 0) return null;
    return direction === 1 ? Math.min(...frames) : Math.max(...frames);
  };

  /** Plays the run from the shown frame, at the world's frame rate times the chosen rate. */
  readonly play = (): void => {
    const { run, frame } = this.benchStore.getState();
    if (run === null) return;
    if (frame >= run.frames) this.showFrame(0);
    this.benchStore.setState({ playing: true });
    let last = performance.now();
    let rest = 0;
    const mine = ++this.playClock;
    const tick = (now: number): void => {
      const state = this.benchStore.getState();
      if (!state.playing || mine !== this.playClock) return;
      const frameRate = this.project.store.getState().project?.world.frameRate ?? 60;
      // A tab that was away does not jump ahead.
      rest += (Math.min(now - last, 100) / 1000) * frameRate * state.rate;
      last = now;
      const whole = Math.floor(rest);
      rest -= whole;
      if (whole > 0) this.showFrame(state.frame + whole);
      if (this.benchStore.getState().frame >= (this.benchStore.getState().run?.frames ?? 0)) this.pause();
      else requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  };

  readonly pause = (): void => {
    this.playClock++;
    this.benchStore.setState({ playing: false });
  };

  readonly chooseRate = (rate: number): void => {
    this.benchStore.setState({ rate });
  };
}
