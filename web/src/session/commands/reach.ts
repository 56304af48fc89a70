import type { Parts } from "../session.ts";
import { always, following } from "./command.ts";
import { sideCommand } from "./sides.ts";
import { undoCommands } from "./undo.ts";

/** Every command of the Reach area. */
export function reachCommands(session: Parts) {
  const hasWay = (): boolean => session.reach.store.getState().way?.found != null;
  return following(session.onChange, {
    ...undoCommands(session),
    leftSide: sideCommand(session, "question"),
    rightSide: sideCommand(session, "way"),
    play: { name: "Play the way", keys: ["Space"], can: hasWay, act: session.reach.play },
    keep: { name: "Keep the way as a log", keys: ["Enter"], can: hasWay, act: () => void session.reach.keepWay() },
    again: { name: "Search again", keys: ["S"], can: always, act: session.reach.askAgain },
    stop: {
      name: "Stop the search",
      keys: ["Escape"],
      can: () => session.reach.store.getState().phase === "looking",
      act: session.reach.cancel,
    },
  });
}
