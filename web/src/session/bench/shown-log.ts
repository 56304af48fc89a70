import type { ProjectSession } from "../project/project.ts";
import type { TriedValues } from "./tried.ts";
import type { BenchStore } from "./bench-store.ts";
import type { Chosen } from "./chosen.ts";
import type { ShownRoom } from "./shown-room.ts";
import type { BesideRun } from "./beside.ts";
import type { Latency } from "./latency.ts";
import type { ShownExplanation } from "./explanation.ts";
import type { EditStep, Project } from "@keen-pebble/core/edit";
import { changesWorld } from "@keen-pebble/core/edit";
import { rulesById } from "@keen-pebble/core/world";
import { logOrder } from "../log/log-title.ts";
import { readOrNull } from "../log/read-or-null.ts";

/** A run that is asked for: the stroke that it follows, and when its change was made. */
interface WantedRun {
  readonly stroke: string | null;
  readonly changedAt: number | null;
}

/** The log that the Bench shows: chosen, run again at every change, with the ghost of the run before. */
export class ShownLog {
  /** Counts the logs that were chosen: an answer for another one is dropped. */
  private runAsked = 0;
  /** The room that the run is in is shown, once it is there: the address has named none. */
  private followsRun = false;
  private runBusy = false;
  private runWanted: WantedRun | null = null;
  /** The stroke whose first change made the present ghost: the ghost stays while it lasts. */
  private ghostStroke: string | null = null;

  constructor(
    private readonly project: ProjectSession,
    private readonly tried: TriedValues,
    private readonly benchStore: BenchStore,
    private readonly chosen: Chosen,
    private readonly shownRoom: ShownRoom,
    private readonly beside: BesideRun,
    private readonly latency: Latency,
    private readonly explanation: ShownExplanation,
  ) {}

  /** Follows the project: every change re-runs the selected log. Gives back what stops it. */
  readonly startBench = (): (() => void) => {
    return this.project.onProject((project, steps, stroke) => {
      if (steps === null) {
        this.tried.forgetTried();
        this.benchStore.setState({
          run: null,
          ghost: null,
          preview: null,
          beside: null,
          explanation: null,
          walk: null,
          discarded: null,
          refused: null,
          clearance: null,
          drag: null,
          selection: null,
        });
        this.chosen.keepChosen(project);
        return;
      }
      this.chosen.keepChosen(project);
      if (this.benchStore.getState().discarded !== null) this.benchStore.setState({ discarded: null });
      if (steps.some(changesWorld)) void this.shownRoom.lookForClearance();
      const { log, walk } = this.benchStore.getState();
      if (walk === null && log !== null && !project.logs.has(log)) this.selectLog(logOrder(project.logs)[0] ?? null);
      else if (this.changesARun(steps)) {
        if (steps.some((step) => step.kind === "change-log" && step.log === log))
          this.benchStore.setState({ parsed: null });
        this.rerun(stroke, performance.now());
      }
    });
  };

  private readonly changesARun = (steps: readonly EditStep[]): boolean => {
    const { log } = this.benchStore.getState();
    return steps.some((step) => changesWorld(step) || step.log === log);
  };

  /** Shows what an address names: what it leaves out or names wrongly is chosen sensibly. */
  readonly showAddress = (
    project: Project,
    room: string | null,
    log: string | null,
    frame: number | null,
  ): string | null => {
    const rooms = project.world.rooms.map((r) => r.id);
    const logs = logOrder(project.logs);
    const faults: string[] = [];
    if (room !== null && !rooms.includes(room)) faults.push(`no room ${room}`);
    if (log !== null && !logs.includes(log)) faults.push(`no log ${log}`);
    const shownLog = log !== null && logs.includes(log) ? log : (logs[0] ?? null);
    const shownRoom = room !== null && rooms.includes(room) ? room : project.world.start.room;
    this.benchStore.setState({ room: shownRoom });
    this.selectLog(shownLog, frame ?? 0);
    this.followsRun = room === null || !rooms.includes(room);
    return faults.length > 0
      ? `The address names ${faults.join(" and ")}, which this world does not have; something else is shown instead.`
      : null;
  };

  /** Selects a log and runs it. */
  readonly selectLog = (log: string | null, frame = 0): void => {
    const { project } = this.project.store.getState();
    if (log === null || project === null) {
      this.runAsked++;
      this.benchStore.setState({
        log: null,
        parsed: null,
        run: null,
        ghost: null,
        beside: null,
        explanation: null,
        frame: 0,
        playing: false,
        refused: null,
      });
      return;
    }
    this.runAsked++;
    this.followsRun = true;
    this.benchStore.setState({
      log,
      parsed: readOrNull(project.logs.get(log)!),
      frame,
      run: null,
      ghost: null,
      explanation: null,
      playing: false,
      refused: null,
      walk: null,
      writing: null,
      beside: this.beside.keptBeside(),
    });
    this.ghostStroke = null;
    this.latency.forgetPictures();
    this.rerun(null, null);
  };

  /** Runs the selected log again; while one run is under way the newest question waits. */
  private readonly rerun = (stroke: string | null, changedAt: number | null): void => {
    this.runWanted = { stroke, changedAt };
    if (this.runBusy) return;
    this.runBusy = true;
    void (async () => {
      while (this.runWanted !== null) {
        const wanted: WantedRun = this.runWanted;
        this.runWanted = null;
        await this.runOnce(wanted);
      }
    })().finally(() => {
      this.runBusy = false;
    });
  };

  private readonly runOnce = async ({ stroke, changedAt }: WantedRun): Promise<void> => {
    const { project } = this.project.store.getState();
    const { log, run: before, ghost: oldGhost } = this.benchStore.getState();
    const client = this.project.simulationClient();
    if (project === null || log === null || client === null) return;
    const mine = this.runAsked;
    const text = project.logs.get(log)!;
    const answer = await client.run(text);
    // Another log was chosen, another world opened, or the log itself changed in the meantime.
    if (mine !== this.runAsked || this.project.store.getState().project?.logs.get(log) !== text) return;
    if ("refused" in answer) {
      this.benchStore.setState({ run: null, explanation: null, refused: answer.refused });
      return;
    }
    const sameStroke = stroke !== null && stroke === this.ghostStroke;
    const ghost = sameStroke
      ? oldGhost
      : before?.log === log && before.pathHash !== answer.pathHash
        ? before.rows
        : before?.log === log
          ? oldGhost
          : null;
    this.ghostStroke = stroke;
    const { frame, walk } = this.benchStore.getState();
    const parsed = this.benchStore.getState().parsed ?? readOrNull(text);
    // While somebody walks, frame and room are the walk's.
    this.benchStore.setState({
      run: { log, ...answer, changedAt },
      ghost: walk === null ? ghost : null,
      refused: null,
      parsed,
      frame: walk === null ? Math.min(frame, answer.frames) : frame,
    });
    const rules = rulesById(project.world, parsed?.rules ?? project.world.activeRules);
    if (rules !== undefined) this.tried.noteTried({ log, text, world: project.world, rules }, answer.verdicts, stroke);
    if (walk !== null) return;
    if (this.followsRun)
      this.shownRoom.chooseRoom(project.world.rooms[answer.rows.room[Math.min(frame, answer.frames)]!]!.id);
    this.followsRun = false;
    this.explanation.wantExplanation();
    void this.beside.runBeside();
  };

  /** Tells the fingerprint of the selected log's run: the same that server and command line give. */
  readonly tellFingerprint = async (): Promise<void> => {
    const { project } = this.project.store.getState();
    const { log } = this.benchStore.getState();
    const answer =
      project === null || log === null
        ? undefined
        : await this.project.simulationClient()?.fingerprint(project.logs.get(log)!);
    if (answer === undefined) return;
    if (typeof answer === "string") this.project.notice(`Fingerprint of this run: ${answer}`, "info");
    else this.project.notice(answer.refused);
  };
}
