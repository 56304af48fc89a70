import { benchCommands } from "./bench.ts";
import { sideCommand } from "./sides.ts";
import { undoCommands } from "./undo.ts";
import type { Parts } from "../session.ts";
import type { SideName } from "@keen-pebble/core/world";
import type { Command } from "./command.ts";
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
    ...cursorCommands(session),
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

/** What the plan's cell cursor does. */
function cursorCommands({ planCursor }: Parts) {
  const move = (name: string, key: string, direction: SideName): Omit<Command, "onChange"> => ({
    name,
    keys: [key],
    can: always,
    act: () => planCursor.moveTo(direction),
  });
  const act = (name: string, key: string, oneWay: boolean, opening: boolean): Omit<Command, "onChange"> => ({
    name,
    keys: [key],
    can: planCursor.isShown,
    act: () => planCursor.press({ oneWay, opening }),
  });
  return {
    cursorLeft: move("Cursor a cell to the left", "Ctrl+ArrowLeft", "west"),
    cursorRight: move("Cursor a cell to the right", "Ctrl+ArrowRight", "east"),
    cursorUp: move("Cursor a cell up", "Ctrl+ArrowUp", "north"),
    cursorDown: move("Cursor a cell down", "Ctrl+ArrowDown", "south"),
    cursorUse: act("Link from side to side, carry the start, or choose the room at the cursor", "Enter", false, false),
    cursorUseOpening: act("End the link at the cursor, for the opening alone", "Shift+Enter", false, true),
    cursorUseOneWay: act("End the link at the cursor, one way", "Alt+Enter", true, false),
    cursorCancel: {
      name: "Let go of what is held at the cursor, or hide it",
      keys: ["Escape"],
      can: planCursor.isShown,
      act: planCursor.letGo,
    },
  };
}
