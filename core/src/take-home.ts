// The rules taken home: the program that a rule set is, to be carried over into somebody's own game.
export type { ProgramLine } from "./take-home/movement-file.ts";
export { movementLines } from "./take-home/movement-file.ts";
export type { TakenFile } from "./take-home/take-home.ts";
export { takeHome } from "./take-home/take-home.ts";
