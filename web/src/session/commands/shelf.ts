import type { ShelfSession } from "../shelf/shelf.ts";
import type { AskedOf } from "./asked.ts";
import { always, following } from "./command.ts";

/** Every command of the Shelf. */
export function shelfCommands(session: { readonly shelf: ShelfSession; readonly asked: AskedOf }) {
  return following((listener) => session.shelf.store.subscribe(listener), {
    undo: {
      name: "Undo",
      keys: ["Ctrl+Z"],
      can: () => session.shelf.travelOnShelf("undo", true),
      act: () => void session.shelf.travelOnShelf("undo"),
    },
    redo: {
      name: "Redo",
      keys: ["Ctrl+Shift+Z", "Ctrl+Y"],
      can: () => session.shelf.travelOnShelf("redo", true),
      act: () => void session.shelf.travelOnShelf("redo"),
    },
    open: { name: "Open the chosen world", keys: ["Enter"], can: () => false, act: () => undefined },
    next: { name: "Next world", keys: ["ArrowDown"], can: always, act: () => session.asked.chooseWorld.ask(1) },
    previous: { name: "World before", keys: ["ArrowUp"], can: always, act: () => session.asked.chooseWorld.ask(-1) },
    takeOff: {
      name: "Delete the chosen world",
      keys: ["Delete"],
      can: always,
      act: () => session.asked.takeOffWorld.ask(),
    },
    search: { name: "Search", keys: ["/"], can: always, act: () => session.asked.searchWorlds.ask() },
  });
}
