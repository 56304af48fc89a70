import { chooseNextRoom, floorplanStore, nudgeRoom } from "../floorplan/floorplan.ts";
import { BENCH } from "./bench.ts";
import type { Commands } from "./command.ts";
import { always } from "./command.ts";
import { UNDO } from "./undo.ts";

const hasRoom = (): boolean => floorplanStore.getState().room !== null;

/** Every command of the Floorplan. */
export const FLOORPLAN = {
  ...UNDO,
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
