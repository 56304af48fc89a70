// Every change of a world and its logs as invertible steps.
export { changeActor, placeActor, removeActor, renameActor } from "./edits/actors.ts";
export { copiedActors, flippedActors, layActors, turnedActors } from "./edits/copied-actors.ts";
export { apply, applyAll } from "./edits/apply.ts";
export { differences } from "./edits/differences.ts";
export { EditError } from "./edits/edit-error.ts";
export {
  addCircuit,
  addItem,
  changeFixtures,
  changeItem,
  copyFixtures,
  isCircuitUsed,
  isItemUsed,
  moveFixtures,
  freeCells,
  placeFixtures,
  removeFixtures,
  renameFixture,
  threadsOf,
} from "./edits/fixtures.ts";
export type { NewFixture } from "./edits/fixtures.ts";
export { copiedFixtures, flippedFixtures, layFixtures, turnedFixtures } from "./edits/copied-fixtures.ts";
export type { FlagUses } from "./edits/flags.ts";
export { addFlag, flagUses, removeFlag, renameFlag, setBlockedBy, setFlag } from "./edits/flags.ts";
export type { History } from "./edits/history.ts";
export { EMPTY_HISTORY, close, recent, record, redo, undo } from "./edits/history.ts";
export { layRoomInto } from "./edits/laid-room.ts";
export type { NewLink, Seam } from "./edits/links.ts";
export {
  OPPOSITE,
  linkSides,
  moveRoom,
  openingAt,
  ruleAt,
  seamsOf,
  sideLength,
  wallSide,
  wrapRoom,
} from "./edits/links.ts";
export { isNothing, merge } from "./edits/merge.ts";
export { onTop } from "./edits/on-top.ts";
export type { Logs, Project } from "./edits/project.ts";
export type { Followed } from "./edits/references.ts";
export type { Growth } from "./edits/rooms.ts";
export { addRoom, copyRoom, removeRoom, changeRoomId, renameRoom, resizeRoom } from "./edits/rooms.ts";
export { copyRuleSet, removeRuleSet, renameRuleSet, withRules } from "./edits/rule-sets.ts";
export { logsThatCannotStart } from "./edits/starting-logs.ts";
export type { AddLog, ChangeLog, ChangeParts, ChangeRules, EditStep, RemoveLog, SetCells } from "./edits/step.ts";
export { changesWorld, invert } from "./edits/step.ts";
export { summary } from "./edits/summary.ts";
export { addTile, changeTiles, copyTile, freeId, moveTile, removeTiles, tileUses } from "./edits/tiles.ts";
export type { LaidWall, OffCell } from "./edits/walls/lay-wall.ts";
export { isCutTile, layWall, tidyCutTiles, unusedCutTiles, wallShapes, wallTile } from "./edits/walls/lay-wall.ts";
export type { Outline } from "./edits/walls/outline.ts";
export { outlineFault, straightWall } from "./edits/walls/outline.ts";
export type { FigurePlaces } from "./edits/figure.ts";
export { FACING_ORDERS, figureOf } from "./edits/figure.ts";
export type { ScaledProject } from "./edits/world-settings.ts";
export { moveStart, scaleCells, turnStart } from "./edits/world-settings.ts";
