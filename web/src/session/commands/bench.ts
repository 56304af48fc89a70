import { asked } from "./asked.ts";
import { nextMark, pause, play, showFrame } from "../bench/playing.ts";
import { toggleOverlay } from "../bench/shown-room.ts";
import type { Overlay, Pen } from "../bench/bench-store.ts";
import { benchStore } from "../bench/bench-store.ts";
import { beginCheck, canWriteCheck } from "../log/checks.ts";
import { removeChosenFixtures, takeUpKind } from "../bench/fixtures.ts";
import { canCut, cutHere } from "../log/log-edits.ts";
import { isBroken, searchFixes } from "../bench/fixes.ts";
import { changeBrush, changePiece, choosePen, copySelection, letGo, pickTile, takeUpPiece } from "../bench/painting.ts";
import { projectStore } from "../project/project.ts";
import { toggleSound } from "../bench/sound.ts";
import { beginWalk, endWalk, goOnWalking, isWalking, setDownAtPointer } from "../walk/walks.ts";
import type { Command, Commands } from "./command.ts";
import { always } from "./command.ts";
import { UNDO } from "./undo.ts";

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
  ...UNDO,
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
  nearer: { name: "Nearer to the line", keys: ["="], can: hasRun, act: () => asked.zoomLine.ask(2) },
  farther: { name: "Farther from the line", keys: ["-"], can: hasRun, act: () => asked.zoomLine.ask(1 / 2) },
  nextMark: { name: "Next pebble or event", keys: ["."], can: hasRun, act: jump(() => nextMark(1)) },
  previousMark: { name: "Pebble or event before", keys: [","], can: hasRun, act: jump(() => nextMark(-1)) },
  addCheck: { name: "Add a check at this frame", keys: ["A"], can: canWriteCheck, act: () => beginCheck() },
  editLog: { name: "The log as a table and as text", keys: ["D"], can: () => benchStore.getState().walk === null && benchStore.getState().log !== null, act: toggleLogSide },
  cutHere: { name: "Cut the log's end off behind this frame", keys: ["Shift+X"], can: canCut, act: cutHere },
  goOn: { name: "Go on walking from this frame", keys: ["Shift+W"], can: () => hasRun() && benchStore.getState().parsed !== null, act: goOnWalking },
  fix: { name: "What mends it", keys: ["Y"], can: isBroken, act: () => void searchFixes() },
  grid: overlay("Grid", "G", "grid"),
  solid: overlay("Solid shapes", "X", "solid"),
  clearance: overlay("Where the body does not fit", "C", "clearance"),
  body: overlay("Body, gaps and tested cells", "B", "body"),
  velocity: overlay("Velocity", "V", "velocity"),
  trail: overlay("Trail", "T", "trail"),
  ghost: overlay("Ghost of the run before the change", "H", "ghost"),
  camera: overlay("What the camera shows", "Q", "camera"),
  sound: { name: "Sound of bumps, doors and hazards", keys: ["U"], can: always, act: toggleSound },
  fit: { name: "Show the whole room", keys: ["F"], can: always, act: () => asked.fitRoom.ask() },
} satisfies Commands;

function toggleLogSide(): void {
  benchStore.setState(({ side }) => ({ side: side === "log" ? "anatomy" : "log" }));
}
