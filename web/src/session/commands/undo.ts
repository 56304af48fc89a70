import { travel } from "../project/project.ts";
import { canTakeWalkBack, takeWalkBack } from "../walk/offered-walk.ts";
import type { Commands } from "./command.ts";

/** Undo and redo: the same in every area of a world. A walk that was discarded comes back first. */
export const UNDO = {
  undo: { name: "Undo", keys: ["Ctrl+Z"], can: () => canTakeWalkBack() || travel("undo", true), act: () => (canTakeWalkBack() ? takeWalkBack() : void travel("undo")) },
  redo: { name: "Redo", keys: ["Ctrl+Shift+Z", "Ctrl+Y"], can: () => travel("redo", true), act: () => void travel("redo") },
} satisfies Commands;
