import { following } from "./command.ts";
import type { Parts } from "../session.ts";

/** Undo and redo: the same in every area of a world. A walk that was discarded comes back first. */
export function undoCommands(session: Parts) {
  return following(session.onChange, {
    undo: {
      name: "Undo",
      keys: ["Ctrl+Z"],
      can: () => session.offeredWalk.canTakeWalkBack() || session.project.travel("undo", true),
      act: () =>
        session.offeredWalk.canTakeWalkBack()
          ? session.offeredWalk.takeWalkBack()
          : void session.project.travel("undo"),
    },
    redo: {
      name: "Redo",
      keys: ["Ctrl+Shift+Z", "Ctrl+Y"],
      can: () => session.project.travel("redo", true),
      act: () => void session.project.travel("redo"),
    },
  });
}
