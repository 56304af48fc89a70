import { beginWalk, endWalk, isWalking, setDownAtPointer } from "./walk.ts";
import { nextMark, pause, play, showFrame, toggleOverlay, chooseTool } from "./bench.ts";
import type { Overlay } from "./bench-store.ts";
import { benchStore } from "./bench-store.ts";
import { fieldHandle } from "./field-handle.ts";
import { travel } from "./project-store.ts";
import { shelfHandle } from "./shelf-handle.ts";
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
  setDown: { name: "Set down at the pointer", keys: ["S"], can: () => benchStore.getState().walk === null && benchStore.getState().pointer !== null, act: setDownAtPointer },
  paint: { name: "Paint", keys: ["P"], can: () => benchStore.getState().walk === null, act: () => chooseTool("paint") },
  playPause: { name: "Play or pause", keys: ["Space"], can: hasRun, act: () => (benchStore.getState().playing ? pause() : play()) },
  first: { name: "First frame", keys: ["Home"], can: hasRun, act: jump(() => 0) },
  last: { name: "Last frame", keys: ["End"], can: hasRun, act: jump(() => benchStore.getState().run?.frames ?? null) },
  back: { name: "A frame back", keys: ["ArrowLeft"], can: hasRun, act: stepBy(-1) },
  forward: { name: "A frame forward", keys: ["ArrowRight"], can: hasRun, act: stepBy(1) },
  backTen: { name: "Ten frames back", keys: ["Shift+ArrowLeft"], can: hasRun, act: stepBy(-10) },
  forwardTen: { name: "Ten frames forward", keys: ["Shift+ArrowRight"], can: hasRun, act: stepBy(10) },
  nextMark: { name: "Next pebble or event", keys: ["."], can: hasRun, act: jump(() => nextMark(1)) },
  previousMark: { name: "Pebble or event before", keys: [","], can: hasRun, act: jump(() => nextMark(-1)) },
  grid: overlay("Grid", "G", "grid"),
  body: overlay("Body and tested cells", "B", "body"),
  trail: overlay("Trail", "T", "trail"),
  ghost: overlay("Ghost of the run before the change", "H", "ghost"),
  fit: { name: "Show the whole room", keys: ["F"], can: always, act: () => fieldHandle.fit() },
} satisfies Commands;

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
