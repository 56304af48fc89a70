import { travel } from "../project-store.ts";
import type { Commands } from "./command.ts";

/** Undo and redo: the same in every area of a world. */
export const UNDO = {
  undo: { name: "Undo", keys: ["Ctrl+Z"], can: () => travel("undo", true), act: () => void travel("undo") },
  redo: { name: "Redo", keys: ["Ctrl+Shift+Z", "Ctrl+Y"], can: () => travel("redo", true), act: () => void travel("redo") },
} satisfies Commands;
