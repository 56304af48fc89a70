import type { SingleChange } from "@keen-pebble/core/analyse";
import type { EditStep, Project } from "@keen-pebble/core/edit";
import { changedWorld } from "@keen-pebble/core/analyse";
import { changesWorld } from "@keen-pebble/core/edit";
import { ARRIVE, rulesById } from "@keen-pebble/core/world";
import { logOrder } from "../logs/log-title.ts";
import { readOrNull } from "../logs/read-or-null.ts";
import type { Elsewhere } from "../workers/simulation.ts";
import type { Beside, Overlay, Tool } from "./bench-store.ts";
import { benchStore } from "./bench-store.ts";
import { firstDifference } from "./first-difference.ts";
import { forgetPictures } from "./latency.ts";
import { forgetTried, noteTried } from "./tried.ts";
import { projectAt } from "./proofs.ts";
import { changeWorld, edit, notice, onProject, projectStore, simulationClient } from "./project-store.ts";

/** Counts the logs that were chosen: an answer for another one is dropped. */
let runAsked = 0;
/** The room that the run is in is shown, once it is there: the address has named none. */
let followsRun = false;
let runBusy = false;
let runWanted: WantedRun | null = null;
let explainBusy = false;
let explainWanted = false;
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

/** What is chosen stays among what there is. */
function keepChosen({ world }: Project): void {
  const { room, tile, chosenTiles, fixtures } = benchStore.getState();
  const here = new Set(world.rooms.flatMap((each) => each.fixtures.map(({ id }) => id)));
  if (fixtures.some((id) => !here.has(id))) benchStore.setState({ fixtures: fixtures.filter((id) => here.has(id)) });
  const ids = world.tiles.map((each) => each.id);
  const chosen = chosenTiles.filter((id) => ids.includes(id));
  const next = ids.includes(tile) ? tile : (chosen[0] ?? ids[1] ?? ids[0]!);
  const rooms = world.rooms.map((each) => each.id);
  if (next !== tile || chosen.length !== chosenTiles.length || chosen.length === 0) benchStore.setState({ tile: next, chosenTiles: chosen.includes(next) ? chosen : [next, ...chosen] });
  if (room !== "" && !rooms.includes(room)) benchStore.setState({ room: rooms[0]! });
}

/** Where the body does not fit in the shown room, if that is shown at all. */
async function lookForClearance(): Promise<void> {
  const { room, overlays } = benchStore.getState();
  const client = simulationClient();
  if (!overlays.clearance || client === null || room === "") return;
  const cells = await client.clearance(room);
  if (benchStore.getState().room === room) benchStore.setState({ clearance: cells instanceof Uint8Array ? { room, cells } : null });
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

/** Another rule set stays beside when another log is chosen; a revision was laid beside one log. */
function keptBeside(): Beside | null {
  const { beside } = benchStore.getState();
  return beside?.where.kind === "rules" ? { ...beside, rows: null, differs: null, explanation: null } : null;
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

/** Lays the shown log's run under another rule set beside it; null takes away what lies there. */
export function layBeside(rules: string | null): void {
  const { project } = projectStore.getState();
  if (rules === null || project === null) benchStore.setState({ beside: null });
  else lay({ kind: "rules", rules }, rulesById(project.world, rules)?.name ?? rules, null);
}

/** Lays the shown log's run at an earlier revision beside it, with the log as it was then. */
export async function layRevisionBeside(revision: number, name = `Revision ${revision}`): Promise<void> {
  const { log } = benchStore.getState();
  const older = await projectAt(revision);
  if (older === null || log === null) return;
  simulationClient()?.hold(revision, older);
  lay({ kind: "revision", revision }, name, older.logs.get(log) ?? null);
}

function lay(where: Elsewhere, name: string, text: string | null): void {
  benchStore.setState({ beside: { where, name, text, rows: null, differs: null, explanation: null } });
  void runBeside();
}

async function runBeside(): Promise<void> {
  const { project } = projectStore.getState();
  const { log, run, beside } = benchStore.getState();
  const client = simulationClient();
  if (beside === null || project === null || log === null || run === null || client === null) return;
  if (beside.where.kind === "rules" && rulesById(project.world, beside.where.rules) === undefined) {
    benchStore.setState({ beside: null });
    return;
  }
  const answer = await client.run(beside.text ?? project.logs.get(log)!, beside.where);
  // Only for the run that it was asked for.
  if (benchStore.getState().run !== run || benchStore.getState().beside?.where !== beside.where || "refused" in answer) return;
  benchStore.setState({ beside: { ...beside, rows: answer.rows, differs: firstDifference(run.rows, answer.rows), explanation: null } });
  wantExplanation();
}

/** Asks for the shown frame's explanation; while one is under way the newest question waits. */
function wantExplanation(): void {
  explainWanted = true;
  if (explainBusy) return;
  explainBusy = true;
  void (async () => {
    while (explainWanted) {
      explainWanted = false;
      const { project } = projectStore.getState();
      const { log, frame, run, walk } = benchStore.getState();
      const client = simulationClient();
      if (project === null || log === null || run === null || walk !== null || client === null) continue;
      const answer = await client.explain(project.logs.get(log)!, frame);
      if (benchStore.getState().walk === null && benchStore.getState().log === log && !("refused" in answer)) benchStore.setState({ explanation: answer });
      const { beside } = benchStore.getState();
      if (beside === null || beside.rows === null) continue;
      const there = await client.explain(beside.text ?? project.logs.get(log)!, frame, beside.where);
      if (benchStore.getState().beside?.rows === beside.rows && !("refused" in there)) benchStore.setState({ beside: { ...beside, explanation: there } });
    }
  })().finally(() => {
    explainBusy = false;
  });
}

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

let playClock = 0;

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

/** Chooses a tool; leaving Walk is `endWalk`'s. */
export function chooseTool(tool: Tool): void {
  benchStore.setState({ tool });
}

/** Chooses a tile to paint with; `also` adds it to the chosen ones or takes it from them, `range` takes all up to it. */
export function chooseTile(id: string, how: "only" | "also" | "range" = "only"): void {
  const tiles = projectStore.getState().project?.world.tiles.map((tile) => tile.id) ?? [];
  const { tile, chosenTiles } = benchStore.getState();
  if (how === "range") {
    const [from, to] = [tiles.indexOf(tile), tiles.indexOf(id)].sort((a, b) => a - b) as [number, number];
    benchStore.setState({ chosenTiles: tiles.slice(Math.max(from, 0), to + 1) });
    return;
  }
  if (how === "also") {
    const others = chosenTiles.filter((each) => each !== id);
    const chosen = others.length < chosenTiles.length && others.length > 0 ? others : [...others, id];
    benchStore.setState({ chosenTiles: chosen, tile: chosen.includes(tile) ? tile : chosen[0]! });
    return;
  }
  benchStore.setState((state) => ({ tile: id, chosenTiles: [id], tool: "paint", pen: state.pen === "erase" || state.pen === "select" ? "brush" : state.pen, laying: false }));
}

export function chooseRate(rate: number): void {
  benchStore.setState({ rate });
}

export function toggleOverlay(overlay: Overlay): void {
  benchStore.setState((state) => ({ overlays: { ...state.overlays, [overlay]: !state.overlays[overlay] } }));
  if (overlay === "clearance") void lookForClearance();
}

/** Shows a room. */
export function chooseRoom(room: string): void {
  benchStore.setState({ room, selection: null, drag: null, clearance: null });
  void lookForClearance();
}

export function pointAt(pointer: { x: number; y: number } | null): void {
  benchStore.setState({ pointer });
}

/** Changes a setting of the shown rule set; a row of changes to it in one `stroke` is undone as one. */
export function changeSetting(rulesId: string, setting: string, before: number | string | boolean, after: number | string | boolean, stroke: string | null): boolean {
  if (before === after) return true;
  return edit({ kind: "change-rules", rules: rulesId, setting, before, after }, stroke);
}

/** Changes a rule set in one way: a setting, gait, body, or flags that block. */
export function changeRules(rulesId: string, change: SingleChange, stroke?: string): boolean {
  return changeWorld((world) => changedWorld(world, rulesId, change), stroke);
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
