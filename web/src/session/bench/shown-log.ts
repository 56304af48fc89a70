import { runBeside, keptBeside } from "./beside.ts";
import { wantExplanation } from "./explanation.ts";
import { chooseRoom, lookForClearance } from "./shown-room.ts";
import { keepChosen } from "./chosen.ts";
import type { EditStep, Project } from "@keen-pebble/core/edit";
import { changesWorld } from "@keen-pebble/core/edit";
import { rulesById  } from "@keen-pebble/core/world";
import { logOrder } from "../log/log-title.ts";
import { readOrNull } from "../log/read-or-null.ts";
import { benchStore } from "./bench-store.ts";
import { forgetPictures } from "./latency.ts";
import { forgetTried, noteTried } from "./tried.ts";
import { notice, onProject, projectStore, simulationClient } from "../project/project.ts";

/** Counts the logs that were chosen: an answer for another one is dropped. */
let runAsked = 0;
/** The room that the run is in is shown, once it is there: the address has named none. */
let followsRun = false;
let runBusy = false;
let runWanted: WantedRun | null = null;
/** The stroke whose first change made the present ghost: the ghost stays while it lasts. */
let ghostStroke: string | null = null;

/** Follows the project: every change re-runs the selected log. Gives back what stops it. */
export function startBench(): () => void {
  return onProject((project, steps, stroke) => {
    if (steps === null) {
      forgetTried();
      benchStore.setState({ run: null, ghost: null, preview: null, beside: null, explanation: null, walk: null, discarded: null, refused: null, clearance: null, drag: null, selection: null });
      keepChosen(project);
      return;
    }
    keepChosen(project);
    if (benchStore.getState().discarded !== null) benchStore.setState({ discarded: null });
    if (steps.some(changesWorld)) void lookForClearance();
    const { log, walk } = benchStore.getState();
    if (walk === null && log !== null && !project.logs.has(log)) selectLog(logOrder(project.logs)[0] ?? null);
    else if (changesARun(steps)) {
      if (steps.some((step) => step.kind === "change-log" && step.log === log)) benchStore.setState({ parsed: null });
      rerun(stroke, performance.now());
    }
  });
}

function changesARun(steps: readonly EditStep[]): boolean {
  const { log } = benchStore.getState();
  return steps.some((step) => changesWorld(step) || step.log === log);
}

/** Shows what an address names: what it leaves out or names wrongly is chosen sensibly. */
export function showAddress(project: Project, room: string | null, log: string | null, frame: number | null): string | null {
  const rooms = project.world.rooms.map((r) => r.id);
  const logs = logOrder(project.logs);
  const faults: string[] = [];
  if (room !== null && !rooms.includes(room)) faults.push(`no room ${room}`);
  if (log !== null && !logs.includes(log)) faults.push(`no log ${log}`);
  const shownLog = log !== null && logs.includes(log) ? log : (logs[0] ?? null);
  const shownRoom = room !== null && rooms.includes(room) ? room : project.world.start.room;
  benchStore.setState({ room: shownRoom, frame: frame ?? 0 });
  selectLog(shownLog, frame ?? 0);
  followsRun = room === null || !rooms.includes(room);
  return faults.length > 0 ? `The address names ${faults.join(" and ")}, which this world does not have; something else is shown instead.` : null;
}

/** Selects a log and runs it. */
export function selectLog(log: string | null, frame = 0): void {
  const { project } = projectStore.getState();
  if (log === null || project === null) {
    runAsked++;
    benchStore.setState({ log: null, parsed: null, run: null, ghost: null, beside: null, explanation: null, frame: 0, playing: false, refused: null });
    return;
  }
  runAsked++;
  followsRun = true;
  benchStore.setState({ log, parsed: readOrNull(project.logs.get(log)!), frame, run: null, ghost: null, explanation: null, playing: false, refused: null, walk: null, writing: null, beside: keptBeside() });
  ghostStroke = null;
  forgetPictures();
  rerun(null, null);
}

/** A run that is asked for: the stroke that it follows, and when its change was made. */
interface WantedRun {
  readonly stroke: string | null;
  readonly changedAt: number | null;
}

/** Runs the selected log again; while one run is under way the newest question waits. */
function rerun(stroke: string | null, changedAt: number | null): void {
  runWanted = { stroke, changedAt };
  if (runBusy) return;
  runBusy = true;
  void (async () => {
    while (runWanted !== null) {
      const wanted: WantedRun = runWanted;
      runWanted = null;
      await runOnce(wanted);
    }
  })().finally(() => {
    runBusy = false;
  });
}

async function runOnce({ stroke, changedAt }: WantedRun): Promise<void> {
  const { project } = projectStore.getState();
  const { log, run: before, ghost: oldGhost } = benchStore.getState();
  const client = simulationClient();
  if (project === null || log === null || client === null) return;
  const mine = runAsked;
  const text = project.logs.get(log)!;
  const answer = await client.run(text);
  // Another log was chosen, another world opened, or the log itself changed in the meantime.
  if (mine !== runAsked || projectStore.getState().project?.logs.get(log) !== text) return;
  if ("refused" in answer) {
    benchStore.setState({ run: null, explanation: null, refused: answer.refused });
    return;
  }
  const sameStroke = stroke !== null && stroke === ghostStroke;
  const ghost = sameStroke ? oldGhost : before?.log === log && before.pathHash !== answer.pathHash ? before.rows : before?.log === log ? oldGhost : null;
  ghostStroke = stroke;
  const { frame, walk } = benchStore.getState();
  const parsed = benchStore.getState().parsed ?? readOrNull(text);
  // While somebody walks, frame and room are the walk's.
  benchStore.setState({ run: { log, ...answer, changedAt }, ghost: walk === null ? ghost : null, refused: null, parsed, frame: walk === null ? Math.min(frame, answer.frames) : frame });
  const rules = rulesById(project.world, parsed?.rules ?? project.world.activeRules);
  if (rules !== undefined) noteTried({ log, text, world: project.world, rules }, answer.verdicts, stroke);
  if (walk !== null) return;
  if (followsRun) chooseRoom(project.world.rooms[answer.rows.room[Math.min(frame, answer.frames)]!]!.id);
  followsRun = false;
  wantExplanation();
  void runBeside();
}

/** Tells the fingerprint of the selected log's run: the same that server and command line give. */
export async function tellFingerprint(): Promise<void> {
  const { project } = projectStore.getState();
  const { log } = benchStore.getState();
  const answer = project === null || log === null ? undefined : await simulationClient()?.fingerprint(project.logs.get(log)!);
  if (answer === undefined) return;
  if (typeof answer === "string") notice(`Fingerprint of this run: ${answer}`, "info");
  else notice(answer.refused);
}
