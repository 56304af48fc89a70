import { beginCheck, canWriteCheck } from "./checks.ts";
import { canCut, cutHere, takeLogAway } from "./log-edits.ts";
import { beginWalk, endWalk, goOnWalking, isWalking, setDownAtPointer } from "./walk.ts";
import { layBeside, layRevisionBeside, nextMark, pause, play, showFrame, toggleOverlay } from "./bench.ts";
import type { Overlay, Pen } from "./bench-store.ts";
import { benchStore } from "./bench-store.ts";
import { boardHandle } from "./board-handle.ts";
import { boardStore, chooseFilter, stepCheck, stepRow } from "./board.ts";
import { journalStore, restoreRevision, stepRevision } from "./journal.ts";
import { compareWithRevision, proofsStore, runOnServer, searchBreak } from "./proofs.ts";
import { fieldHandle } from "./field-handle.ts";
import { chooseNextRoom, floorplanStore, nudgeRoom } from "./floorplan.ts";
import { removeChosenFixtures, takeUpKind } from "./fixtures.ts";
import { isBroken, searchMends } from "./mending.ts";
import { changeBrush, changePiece, choosePen, copySelection, letGo, pickTile, takeUpPiece } from "./painting.ts";
import { lineHandle } from "./line-handle.ts";
import { projectStore, travel } from "./project-store.ts";
import { shelfHandle } from "./shelf-handle.ts";
import { toggleSound } from "./sound.ts";
import { travelOnShelf } from "./shelf-store.ts";

/** One act: answers whether it is possible now, and does it. Buttons and keys share it. */
export interface Command {
  readonly name: string;
  readonly keys: readonly string[];
  readonly can: () => boolean;
  readonly act: () => void;
}

/** The commands of an area. */
export type Commands = Readonly<Record<string, Command>>;

const hasRun = (): boolean => benchStore.getState().run !== null && benchStore.getState().walk === null;
const stepBy = (by: number) => (): void => {
  pause();
  showFrame(benchStore.getState().frame + by);
};
const jump = (frame: () => number | null) => (): void => {
  const to = frame();
  if (to === null) return;
  pause();
  showFrame(to);
};
const always = (): boolean => true;
const canPaint = (): boolean => benchStore.getState().walk === null;
const hasSelection = (): boolean => canPaint() && benchStore.getState().selection !== null;
const isLaying = (): boolean => canPaint() && benchStore.getState().laying;
const pen = (name: string, key: string, which: Pen): Command => ({ name, keys: [key], can: canPaint, act: () => choosePen(which) });
function pickAtPointer(): void {
  const { pointer } = benchStore.getState();
  const size = projectStore.getState().project?.world.tileSize;
  if (pointer !== null && size !== undefined) pickTile({ x: Math.floor(pointer.x / size), y: Math.floor(pointer.y / size) });
}
const overlay = (name: string, key: string, which: Overlay): Command => ({ name, keys: [key], can: always, act: () => toggleOverlay(which) });

/** Every command of the Bench that is built. */
export const BENCH = {
  undo: { name: "Undo", keys: ["Ctrl+Z"], can: () => travel("undo", true), act: () => void travel("undo") },
  redo: { name: "Redo", keys: ["Ctrl+Shift+Z", "Ctrl+Y"], can: () => travel("redo", true), act: () => void travel("redo") },
  walk: {
    name: "Walk and record",
    keys: ["R", "W"],
    can: () => benchStore.getState().walk?.phase !== "offered",
    act: () => (isWalking() ? endWalk() : beginWalk()),
  },
  setDown: { name: "Set down at the pointer", keys: ["S"], can: () => benchStore.getState().walk === null && benchStore.getState().pointer !== null, act: () => setDownAtPointer() },
  setDownAsNow: { name: "Set down at the pointer with this frame's bag, doors and memory", keys: ["Shift+S"], can: () => benchStore.getState().walk === null && benchStore.getState().pointer !== null && benchStore.getState().explanation !== null, act: () => setDownAtPointer(true) },
  brush: pen("Paint with the brush", "P", "brush"),
  line: pen("Paint a line", "L", "line"),
  box: pen("Paint a box", "O", "box"),
  bucket: pen("Fill", "K", "bucket"),
  erase: pen("Erase", "E", "erase"),
  place: { name: "Place, choose and move fixtures", keys: ["N"], can: canPaint, act: () => takeUpKind(benchStore.getState().placing) },
  removeFixtures: { name: "Take the chosen fixtures away", keys: ["Delete", "Backspace"], can: () => canPaint() && benchStore.getState().fixtures.length > 0, act: removeChosenFixtures },
  select: pen("Choose a rectangle", "M", "select"),
  smaller: { name: "Smaller brush", keys: ["["], can: canPaint, act: () => changeBrush(-1) },
  larger: { name: "Larger brush", keys: ["]"], can: canPaint, act: () => changeBrush(1) },
  pick: { name: "Take the tile under the pointer", keys: ["I"], can: () => canPaint() && benchStore.getState().pointer !== null, act: pickAtPointer },
  copy: { name: "Copy the rectangle", keys: ["Ctrl+C"], can: hasSelection, act: () => copySelection(false) },
  cut: { name: "Cut the rectangle", keys: ["Ctrl+X"], can: hasSelection, act: () => copySelection(true) },
  lay: { name: "Lay the copy down", keys: ["Ctrl+V"], can: () => canPaint() && benchStore.getState().piece !== null, act: takeUpPiece },
  flipX: { name: "Flip the copy sideways", keys: ["Shift+H"], can: isLaying, act: () => changePiece("flip x") },
  flipY: { name: "Flip the copy upside down", keys: ["Shift+V"], can: isLaying, act: () => changePiece("flip y") },
  turn: { name: "Turn the copy", keys: ["Shift+R"], can: isLaying, act: () => changePiece("turn") },
  letGo: { name: "Let go", keys: ["Escape"], can: () => isLaying() || hasSelection() || benchStore.getState().drag !== null, act: letGo },
  playPause: { name: "Play or pause", keys: ["Space"], can: hasRun, act: () => (benchStore.getState().playing ? pause() : play()) },
  first: { name: "First frame", keys: ["Home"], can: hasRun, act: jump(() => 0) },
  last: { name: "Last frame", keys: ["End"], can: hasRun, act: jump(() => benchStore.getState().run?.frames ?? null) },
  back: { name: "A frame back", keys: ["ArrowLeft"], can: hasRun, act: stepBy(-1) },
  forward: { name: "A frame forward", keys: ["ArrowRight"], can: hasRun, act: stepBy(1) },
  backTen: { name: "Ten frames back", keys: ["Shift+ArrowLeft"], can: hasRun, act: stepBy(-10) },
  forwardTen: { name: "Ten frames forward", keys: ["Shift+ArrowRight"], can: hasRun, act: stepBy(10) },
  nearer: { name: "Nearer to the line", keys: ["="], can: hasRun, act: () => lineHandle.zoom(2) },
  farther: { name: "Farther from the line", keys: ["-"], can: hasRun, act: () => lineHandle.zoom(1 / 2) },
  nextMark: { name: "Next pebble or event", keys: ["."], can: hasRun, act: jump(() => nextMark(1)) },
  previousMark: { name: "Pebble or event before", keys: [","], can: hasRun, act: jump(() => nextMark(-1)) },
  addCheck: { name: "Add a check at this frame", keys: ["A"], can: canWriteCheck, act: () => beginCheck() },
  editLog: { name: "The log as a table and as text", keys: ["D"], can: () => benchStore.getState().walk === null && benchStore.getState().log !== null, act: toggleLogSide },
  cutHere: { name: "Cut the log's end off behind this frame", keys: ["Shift+X"], can: canCut, act: cutHere },
  goOn: { name: "Go on walking from this frame", keys: ["Shift+W"], can: () => hasRun() && benchStore.getState().parsed !== null, act: goOnWalking },
  mend: { name: "What mends it", keys: ["Y"], can: isBroken, act: () => void searchMends() },
  grid: overlay("Grid", "G", "grid"),
  solid: overlay("Solid shapes", "X", "solid"),
  clearance: overlay("Where the body does not fit", "C", "clearance"),
  body: overlay("Body, gaps and tested cells", "B", "body"),
  velocity: overlay("Velocity", "V", "velocity"),
  trail: overlay("Trail", "T", "trail"),
  ghost: overlay("Ghost of the run before the change", "H", "ghost"),
  camera: overlay("What the camera shows", "Q", "camera"),
  sound: { name: "Sound of bumps, doors and hazards", keys: ["U"], can: always, act: toggleSound },
  fit: { name: "Show the whole room", keys: ["F"], can: always, act: () => fieldHandle.fit() },
} satisfies Commands;

function toggleLogSide(): void {
  benchStore.setState(({ side }) => ({ side: side === "log" ? "anatomy" : "log" }));
}

const hasRoom = (): boolean => floorplanStore.getState().room !== null;

/** Every command of the Floorplan. */
export const FLOORPLAN = {
  undo: BENCH.undo,
  redo: BENCH.redo,
  first: BENCH.first,
  last: BENCH.last,
  back: BENCH.back,
  forward: BENCH.forward,
  backTen: BENCH.backTen,
  forwardTen: BENCH.forwardTen,
  nextMark: BENCH.nextMark,
  previousMark: BENCH.previousMark,
  playPause: BENCH.playPause,
  nextRoom: { name: "Next room", keys: ["]"], can: always, act: () => chooseNextRoom(1) },
  previousRoom: { name: "Room before", keys: ["["], can: always, act: () => chooseNextRoom(-1) },
  roomLeft: { name: "Move the room left", keys: ["Alt+ArrowLeft"], can: hasRoom, act: () => nudgeRoom(-1, 0) },
  roomRight: { name: "Move the room right", keys: ["Alt+ArrowRight"], can: hasRoom, act: () => nudgeRoom(1, 0) },
  roomUp: { name: "Move the room up", keys: ["Alt+ArrowUp"], can: hasRoom, act: () => nudgeRoom(0, -1) },
  roomDown: { name: "Move the room down", keys: ["Alt+ArrowDown"], can: hasRoom, act: () => nudgeRoom(0, 1) },
} satisfies Commands;

const chosenCheck = (): { readonly log: string; readonly check: string } | null => {
  const { log } = benchStore.getState();
  const { check } = boardStore.getState();
  const verdict = log === null || check === null ? undefined : proofsStore.getState().proofs[log]?.checks[check];
  return log === null || verdict === undefined || verdict.verdict === "pass" ? null : { log, check: verdict.check };
};
const hasLog = (): boolean => benchStore.getState().log !== null;

/** Every command of Proofs. */
export const PROOFS = {
  undo: BENCH.undo,
  redo: BENCH.redo,
  open: { name: "Open the shown frame on the Bench", keys: ["Enter"], can: hasLog, act: () => boardHandle.open() },
  next: { name: "Next log", keys: ["ArrowDown"], can: always, act: () => stepRow(1) },
  previous: { name: "Log before", keys: ["ArrowUp"], can: always, act: () => stepRow(-1) },
  first: { name: "First log", keys: ["Home"], can: always, act: () => stepRow(-Infinity) },
  last: { name: "Last log", keys: ["End"], can: always, act: () => stepRow(Infinity) },
  nextCheck: { name: "Next check", keys: ["ArrowRight", "."], can: hasLog, act: () => stepCheck(1) },
  previousCheck: { name: "Check before", keys: ["ArrowLeft", ","], can: hasLog, act: () => stepCheck(-1) },
  all: { name: "Show all logs", keys: ["1"], can: always, act: () => chooseFilter("all") },
  failing: { name: "Show failing logs", keys: ["2", "F"], can: always, act: () => chooseFilter("failing") },
  path: { name: "Show logs whose path differs", keys: ["3", "P"], can: always, act: () => chooseFilter("path") },
  search: { name: "Search", keys: ["/"], can: always, act: () => boardHandle.search() },
  ghost: { name: "Ghost of the compared revision", keys: ["G"], can: () => hasLog() && proofsStore.getState().compared !== null, act: toggleGhost },
  whatBroke: {
    name: "What broke it",
    keys: ["B"],
    can: () => chosenCheck() !== null,
    act: () => {
      const chosen = chosenCheck();
      if (chosen !== null) void searchBreak(chosen.log, chosen.check);
    },
  },
  server: { name: "Run all on the server, or take that back", keys: ["S"], can: always, act: () => void runOnServer() },
  wander: { name: "Random walks", keys: ["W"], can: always, act: () => boardStore.setState(({ beside }) => ({ beside: beside === "wander" ? "log" : "wander" })) },
  takeAway: {
    name: "Take the log away",
    keys: ["Delete"],
    can: hasLog,
    act: () => {
      const { log } = benchStore.getState();
      if (log !== null) takeLogAway(log);
    },
  },
} satisfies Commands;

const chosenRevision = (): number | null => journalStore.getState().chosen;

/** Every command of the Journal. */
export const JOURNAL = {
  undo: BENCH.undo,
  redo: BENCH.redo,
  next: { name: "Next revision", keys: ["ArrowDown"], can: always, act: () => stepRevision(1) },
  previous: { name: "Revision before", keys: ["ArrowUp"], can: always, act: () => stepRevision(-1) },
  note: { name: "Write a note to the chosen revision", keys: ["N"], can: () => chosenRevision() !== null, act: () => document.querySelector<HTMLElement>(`[data-note="${chosenRevision()!}"]`)?.click() },
  compare: {
    name: "Compare the proofs with the chosen revision",
    keys: ["G"],
    can: () => chosenRevision() !== null,
    act: () => void compareWithRevision(chosenRevision()!),
  },
  restore: { name: "Make everything as at the chosen revision", keys: ["R"], can: () => chosenRevision() !== null, act: () => void restoreRevision(chosenRevision()!) },
} satisfies Commands;

function toggleGhost(): void {
  const { beside } = benchStore.getState();
  const { compared } = proofsStore.getState();
  if (beside?.where.kind === "revision") layBeside(null);
  else if (compared !== null) void layRevisionBeside(compared.revision);
}

/** Every command of the Shelf. */
export const SHELF = {
  undo: { name: "Undo", keys: ["Ctrl+Z"], can: () => travelOnShelf("undo", true), act: () => void travelOnShelf("undo") },
  redo: { name: "Redo", keys: ["Ctrl+Shift+Z", "Ctrl+Y"], can: () => travelOnShelf("redo", true), act: () => void travelOnShelf("redo") },
  open: { name: "Open the chosen world", keys: ["Enter"], can: () => false, act: () => undefined },
  next: { name: "Next world", keys: ["ArrowDown"], can: always, act: () => shelfHandle.choose(1) },
  previous: { name: "World before", keys: ["ArrowUp"], can: always, act: () => shelfHandle.choose(-1) },
  takeOff: { name: "Take the chosen world off the shelf", keys: ["Delete"], can: always, act: () => shelfHandle.takeOff() },
  search: { name: "Search", keys: ["/"], can: always, act: () => shelfHandle.search() },
} satisfies Commands;

/** The command of an area that a key stands for, if it can act now. */
export function commandFor(commands: Commands, key: string): Command | null {
  return Object.values(commands).find((command) => command.keys.includes(key) && command.can()) ?? null;
}
