import { asked } from "./asked.ts";
import { travelOnShelf } from "../shelf/shelf.ts";
import type { Commands } from "./command.ts";
import { always } from "./command.ts";

/** Every command of the Shelf. */
export const SHELF = {
  undo: { name: "Undo", keys: ["Ctrl+Z"], can: () => travelOnShelf("undo", true), act: () => void travelOnShelf("undo") },
  redo: { name: "Redo", keys: ["Ctrl+Shift+Z", "Ctrl+Y"], can: () => travelOnShelf("redo", true), act: () => void travelOnShelf("redo") },
  open: { name: "Open the chosen world", keys: ["Enter"], can: () => false, act: () => undefined },
  next: { name: "Next world", keys: ["ArrowDown"], can: always, act: () => asked.chooseWorld.ask(1) },
  previous: { name: "World before", keys: ["ArrowUp"], can: always, act: () => asked.chooseWorld.ask(-1) },
  takeOff: { name: "Take the chosen world off the shelf", keys: ["Delete"], can: always, act: () => asked.takeOffWorld.ask() },
  search: { name: "Search", keys: ["/"], can: always, act: () => asked.searchWorlds.ask() },
} satisfies Commands;
