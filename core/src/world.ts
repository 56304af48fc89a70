// A world as a value: its types, limits, settings, vocabulary, what blocks in it.
export { CoreError } from "./base/core-error.ts";
export type { Refusal } from "./base/refused-error.ts";
export { RefusedError, refusalText } from "./base/refused-error.ts";
export { pxText, UNITS_PER_PX, floorModulo, unitsFromPx } from "./base/units.ts";
export { clearance } from "./ground/clearance.ts";
export { isFree } from "./ground/free.ts";
export { JOIN_EAST, JOIN_NORTH, JOIN_SOUTH, JOIN_WEST, joinMask, joinTables } from "./ground/joined.ts";
export { occupiedX, occupiedY } from "./ground/occupied.ts";
export type { Gait } from "./world/gaits.ts";
export { GAITS, GAIT_NAMES } from "./world/gaits.ts";
export type { Arrive } from "./world/gaits/glide.ts";
export { copyName } from "./world/copy-name.ts";
export { emptyWorld } from "./world/empty-world.ts";
export type { Facing } from "./world/facing.ts";
export { FACINGS, FACING_DX, FACING_DY } from "./world/facing.ts";
export { DIRECTIONS, DOWN, LEFT, RIGHT, SPARE, UP, USE, keysFromText, keysText } from "./world/keys.ts";
export { ID_PATTERN, LIMITS, SHEET_FILE_PATTERN } from "./world/limits.ts";
export { newRules } from "./world/new-rules.ts";
export type { Actor, Phase } from "./world/actors.ts";
export {
  ACTOR_DOORS,
  actorSpeedRange,
  ACTOR_TOUCHES,
  PATH_THEN,
  PHASE_DOES,
  PHASE_SAYS,
  TURNS_BACK,
  newActor,
} from "./world/actors.ts";
export {
  actorById,
  allActors,
  thingIds,
  allFixtures,
  fixtureById,
  isSolidFor,
  roomById,
  rulesById,
} from "./world/queries.ts";
export { FLUSH, rangeSays, settingSays, valueSays } from "./world/setting-says.ts";
export type { Setting } from "./world/settings.ts";
export type { SettingValue, Stage } from "./world/setting.ts";
export { STAGES } from "./world/setting.ts";
export {
  SETTINGS,
  settingApplies,
  settingByPath,
  settingFault,
  settingMax,
  settingRange,
  settingValue,
} from "./world/settings.ts";
export type { EventName } from "./world/vocabulary.ts";
export {
  ARRIVE,
  BUMP,
  ENTER,
  ESCAPED,
  EVENT_NAMES,
  LEAVE,
  LOST,
  PLAYING,
  STATUS_NAMES,
  WON,
} from "./world/vocabulary.ts";
export type {
  Body,
  Box,
  Camera,
  EdgeRule,
  Figure,
  RespawnRestores,
  Goal,
  Item,
  Look,
  Pair,
  Pattern,
  Room,
  Rules,
  Shape,
  Sheet,
  Side,
  SideName,
  Span,
  Start,
  Tile,
  World,
} from "./world/world.ts";
export { PATTERNS, SIDES } from "./world/world.ts";
export type { Field, Fields } from "./world/field.ts";
export { refersTo } from "./world/fixture-references.ts";
export type { Fixture, FixtureKindName } from "./world/fixtures.ts";
export { covers, hasSize, sizeOf, withSize } from "./world/fixture-area.ts";
export { FIXTURE_KINDS, KEEPS, TOUCHES, fieldsOf, kindOfFixture } from "./world/fixtures.ts";
export type { Lock, DoorFixture } from "./world/fixtures/door.ts";
export { newLock, opensByItself } from "./world/fixtures/door.ts";
export type { CheckpointFixture } from "./world/fixtures/checkpoint.ts";
export type { HazardFixture } from "./world/fixtures/hazard.ts";
export type { ItemFixture } from "./world/fixtures/item.ts";
export type { MarkerFixture } from "./world/fixtures/marker.ts";
export type { PortalFixture, Place } from "./world/fixtures/portal.ts";
export type { SwitchFixture } from "./world/fixtures/switch.ts";
export type { Button, Game } from "./world/game.ts";
export { ANCHORS, BUTTONS, GAME_NAME_PATTERN, GAME_UNITS, PLAIN_GAME } from "./world/game.ts";
