import { benchCommands } from "./bench.ts";
import { sideCommand } from "./sides.ts";
import { undoCommands } from "./undo.ts";
import type { Parts } from "../session.ts";
import { always, following } from "./command.ts";

/** Every command of the Floorplan. */
export function floorplanCommands(session: Parts) {
  const hasRoom = (): boolean => session.floorplan.store.getState().room !== null;
  return following(session.onChange, {
    ...undoCommands(session),
    rightSide: sideCommand(session, "memory"),
    first: benchCommands(session).first,
    last: benchCommands(session).last,
    back: benchCommands(session).back,
    forward: benchCommands(session).forward,
    backTen: benchCommands(session).backTen,
    forwardTen: benchCommands(session).forwardTen,
    nextMark: benchCommands(session).nextMark,
    previousMark: benchCommands(session).previousMark,
    playPause: benchCommands(session).playPause,
    nextRoom: { name: "Next room", keys: ["]"], can: always, act: () => session.floorplan.chooseNextRoom(1) },
    previousRoom: { name: "Room before", keys: ["["], can: always, act: () => session.floorplan.chooseNextRoom(-1) },
    roomLeft: {
      name: "Move the room left",
      keys: ["Alt+ArrowLeft"],
      can: hasRoom,
      act: () => session.floorplan.nudgeRoom(-1, 0),
    },
    roomRight: {
      name: "Move the room right",
      keys: ["Alt+ArrowRight"],
      can: hasRoom,
      act: () => session.floorplan.nudgeRoom(1, 0),
    },
    roomUp: {
      name: "Move the room up",
      keys: ["Alt+ArrowUp"],
      can: hasRoom,
      act: () => session.floorplan.nudgeRoom(0, -1),
    },
    roomDown: {
      name: "Move the room down",
      keys: ["Alt+ArrowDown"],
      can: hasRoom,
      act: () => session.floorplan.nudgeRoom(0, 1),
    },
  });
}
