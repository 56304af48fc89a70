import { KEEPS, TOUCHES, fieldsOf, FIXTURE_KINDS } from "../world/fixtures.ts";
import type { Fields, Field } from "../world/field.ts";
import { GAIT_NAMES } from "../world/gaits.ts";
import Joi from "joi";
import { ANCHORS, BUTTONS, GAME_NAME_PATTERN, GAME_UNITS } from "../world/game.ts";
import { ID_PATTERN, LIMITS } from "../world/limits.ts";
import type { ListPart } from "../world/parts.ts";
import { partAddress } from "../world/parts.ts";
import { actorSchema } from "./actor-schema.ts";
import {
  FAR,
  box,
  byKind,
  cell,
  choice,
  colour,
  facing,
  figure,
  id,
  look,
  looked,
  matching,
  name,
  optional,
  pair,
  settingSchema,
  whole,
  within,
} from "./schema-parts.ts";
import { WORLD_FORMAT } from "./world-format.ts";
import { SETTINGS } from "../world/settings.ts";
import { RESPAWN_RESTORES, SIDES } from "../world/world.ts";

const shape = byKind({
  full: {},
  boxes: { boxes: Joi.array().items(box).min(1).max(64) },
  poly: { points: Joi.array().items(pair).min(LIMITS.corners[0]).max(LIMITS.corners[1]) },
});

const tile = Joi.object({
  id,
  name,
  flags: Joi.array().items(id).unique(),
  shape,
  look,
  joins: optional(Joi.object({ to: id, looks: Joi.array().items(look).length(16) }).allow(null), null),
  glyph: optional(matching(/^[^\s\u0000-\u001f\u007f]$/u, "must be one character, not a blank").allow(null), null),
});

const body = byKind({
  box: { box, flush: optional(choice("free", "blocks"), "free") },
  probes: {
    points: Joi.array().items(pair).min(LIMITS.probes[0]).max(LIMITS.probes[1]),
    flush: optional(choice("free", "blocks"), "free"),
  },
});

function rules(tileSize: number): Joi.ObjectSchema {
  const groups: Record<string, Joi.SchemaMap> = {};
  for (const setting of SETTINGS) {
    const [group, key] = setting.path.split(".") as [string, string];
    (groups[group] ??= {})[key] = settingSchema(setting, tileSize);
  }
  const defaultBody = { kind: "box", box: [0, 0, tileSize, tileSize], flush: "free" };
  const group = (key: string) => Joi.object(groups[key]).optional().default();
  // Only the gait in use must be there; what it leaves out takes the defaults.
  const gait = (key: string) =>
    Joi.object(groups[key]).when("gait", { is: key, then: Joi.required(), otherwise: Joi.optional() }).default();
  return Joi.object({
    id,
    name,
    gait: choice(...GAIT_NAMES),
    input: group("input"),
    walker: Joi.object({
      blockedBy: optional(Joi.array().items(id).unique(), ["solid"]),
      body: optional(body as Joi.AnySchema, defaultBody),
      ...groups["walker"],
    })
      .optional()
      .default(),
    ...Object.fromEntries(GAIT_NAMES.map((key) => [key, gait(key)])),
    facing: group("facing"),
    pose: group("pose"),
  });
}

/** A long list of whole numbers from 0 on, looked through by a plain loop: a schema for each of them would take seconds. */
export function numberList(max: number, longest: number): Joi.Schema {
  return (
    Joi.any()
      .custom((value: unknown, helpers) => {
        if (!Array.isArray(value) || value.length > longest) return helpers.error("numbers.list");
        for (let i = 0; i < value.length; i++) {
          const each = value[i] as unknown;
          if (typeof each !== "number" || !Number.isInteger(each) || each < 0 || each > max)
            return helpers.error("numbers.one", { at: i });
        }
        return value as number[];
      })
      .messages({
        "numbers.list": `must be a list of at most ${longest} numbers`,
        "numbers.one": `must hold whole numbers from 0 to ${max}; number {{#at}} of the list is none`,
      })
      // What documents say of it, which cannot look into a function.
      .meta({ "x-schema": { type: "array", maxItems: longest, items: { type: "integer", minimum: 0, maximum: max } } })
  );
}

const edgeKinds: Record<string, Joi.SchemaMap> = {
  wall: {},
  wrap: {},
  link: { room: id, offset: optional(whole(-FAR, FAR), 0) },
};
const span = { from: whole(0, LIMITS.roomSide[1] - 1), to: whole(0, LIMITS.roomSide[1] - 1) };
const side = Joi.alternatives()
  .conditional(Joi.array(), { then: Joi.array().items(byKind(edgeKinds, span)).max(512), otherwise: byKind(edgeKinds) })
  .optional()
  .default({ kind: "wall" });

const area = Joi.array().ordered(whole(1, LIMITS.roomSide[1]), whole(1, LIMITS.roomSide[1])).length(2);

/** Shape of one field of a fixture. */
function fieldSchema(field: Field): Joi.Schema {
  switch (field.type) {
    case "reference":
      return id;
    case "whole":
      return optional(within(field.range), field.default);
    case "switch":
      return optional(Joi.boolean(), field.default);
    case "choice":
      return optional(choice(...field.choices), field.default);
    case "name":
      return name;
    case "place":
      return Joi.object({ room: id, cell, facing: facing.optional() });
    case "size":
      // One cell is what it is anyway.
      return area.empty(Joi.array().ordered(Joi.valid(1), Joi.valid(1)).length(2)).optional();
    case "kinds":
      return byKind(
        Object.fromEntries(Object.entries(field.kinds).map(([kind, fields]) => [kind, fieldSchemas(fields)])),
      );
  }
}

const fieldSchemas = (fields: Fields): Joi.SchemaMap =>
  Object.fromEntries(Object.entries(fields).map(([key, field]) => [key, fieldSchema(field)]));

/** Shape of a fixture. */
export const fixtureSchema = byKind(
  Object.fromEntries(FIXTURE_KINDS.map((kind) => [kind, fieldSchemas(fieldsOf(kind))])),
  { id, cell, touch: optional(choice(...TOUCHES), "cell"), keeps: optional(choice(...KEEPS), "run") },
);

const roomShape = Joi.object({
  id,
  name,
  width: within(LIMITS.roomSide),
  height: within(LIMITS.roomSide),
  plan: optional(pair, [0, 0]),
  edges: Joi.object(Object.fromEntries(SIDES.map((key) => [key, side])))
    .optional()
    .default(),
  // Read by a plain loop in `read-world.ts`.
  cells: Joi.any(),
  fixtures: optional(Joi.array().items(fixtureSchema).max(LIMITS.fixtures), []),
});

const roomsOf = new Map<number, Joi.ObjectSchema>();

/** Shape of a room in a world of that tile size. */
function room(tileSize: number): Joi.ObjectSchema {
  const schema =
    roomsOf.get(tileSize) ??
    roomShape.keys({ actors: optional(Joi.array().items(actorSchema(tileSize)).max(LIMITS.actors), []) });
  roomsOf.set(tileSize, schema);
  return schema;
}

const camera = Joi.object({
  mode: optional(choice("whole", "screen", "follow"), "follow"),
  width: optional(whole(1, 512), 20),
  height: optional(whole(1, 512), 12),
  margin: optional(Joi.array().ordered(whole(0, 512), whole(0, 512)).length(2), [6, 4]),
  ease: optional(whole(0, 240), 0),
});

const sheet = Joi.object({ id, file: name, tile: whole(1, 512), margin: whole(0, 512), spacing: whole(0, 512) });
const item = Joi.object({ id, name, role: choice("key", "treasure"), colour });

const named = matching(GAME_NAME_PATTERN, "must be a name of 1 to 80 characters");
/**
 * An object whose keys are names from outside. It is looked through by hand: an object schema would let `__proto__` fall
 * away without a word.
 * @param expected what its values must be, in words
 */
const dictionary = (fits: (value: unknown) => boolean, most: number, expected: string): Joi.Schema =>
  looked((value) => {
    if (typeof value !== "object" || value === null || Array.isArray(value)) return "must be an object with names";
    const entries = Object.entries(value);
    if (entries.length > most) return `must have at most ${most} names`;
    const odd = entries.find(([key, each]) => !GAME_NAME_PATTERN.test(key) || !fits(each));
    if (odd === undefined) return null;
    return `must have names of 1 to 80 characters and ${expected}; ${odd[0].slice(0, 40)} is or has none`;
  });
const isButton = (value: unknown): boolean => (BUTTONS as readonly unknown[]).includes(value);
const buttons = dictionary(isButton, 64, `one of ${BUTTONS.join(", ")} for each`);
const isId = (value: unknown): boolean => typeof value === "string" && ID_PATTERN.test(value);
const game = Joi.object({
  id,
  name,
  columns: Joi.object({
    frame: optional(named.allow(null), null),
    x: optional(named.allow(null), null),
    y: optional(named.allow(null), null),
    room: optional(named.allow(null), null),
    keys: optional(Joi.alternatives().conditional(Joi.string(), { then: named, otherwise: buttons }).allow(null), null),
  }),
  unit: optional(choice(...GAME_UNITS), "px"),
  yUp: optional(Joi.boolean(), false),
  anchor: optional(choice(...ANCHORS), "corner"),
  origin: optional(Joi.array().ordered(Joi.number(), Joi.number()).length(2), [0, 0]),
  frameOffset: optional(whole(-FAR, FAR), 0),
  tolerance: optional(Joi.number().min(0).max(512), 0.5),
  rooms: optional(dictionary(isId, LIMITS.rooms[1], "an id of a room for each"), {}),
  keys: optional(buttons, {}),
});

const made = new Map<number, Joi.ObjectSchema>();

/**
 * Shape of a world file of that tile size (formats.md section 1). Ids, convexity and cells are checked besides.
 * Building it takes longer than reading most worlds, so each is built once.
 */
export function worldSchema(tileSize: number): Joi.ObjectSchema {
  const known = made.get(tileSize);
  if (known) return known;
  const schema = buildSchema(tileSize);
  made.set(tileSize, schema);
  return schema;
}

function buildSchema(tileSize: number): Joi.ObjectSchema {
  return Joi.object({
    format: looked((value) => (value === WORLD_FORMAT ? null : `must be "${WORLD_FORMAT}"`)),
    version: looked((value) => (value === 1 ? null : "must be 1: this program reads version 1")),
    id,
    name,
    tileSize: within(LIMITS.tileSize),
    frameRate: optional(within(LIMITS.frameRate), 60),
    seed: optional(whole(0, LIMITS.seed), 1),
    sheets: optional(Joi.array().items(sheet).max(LIMITS.sheets).unique("id"), []),
    flags: Joi.array().items(id).max(LIMITS.flags).unique(),
    tiles: Joi.array().items(tile).min(1).max(LIMITS.tiles).unique("id"),
    items: optional(Joi.array().items(item).max(LIMITS.items).unique("id"), []),
    circuits: optional(Joi.array().items(id).max(LIMITS.circuits).unique(), []),
    lives: optional(within(LIMITS.lives).allow(null), null),
    respawnRestores: optional(choice(...RESPAWN_RESTORES), "keeps"),
    rules: Joi.array().items(rules(tileSize)).min(1).max(LIMITS.ruleSets).unique("id"),
    activeRules: id,
    camera: camera.optional().default(),
    figure: optional(figure.allow(null), null),
    start: Joi.object({ room: id, cell, facing: optional(facing, "down") }),
    goal: optional(byKind({ marker: { fixture: id }, collect: { item: id } }).allow(null), null),
    laws: optional(Joi.array().items(Joi.string().max(LIMITS.lawLength)).max(LIMITS.laws), []),
    reachChecks: optional(Joi.array().items(Joi.string().max(LIMITS.lawLength)).max(LIMITS.reachChecks), []),
    games: optional(Joi.array().items(game).max(LIMITS.games).unique("id"), []),
    rooms: Joi.array().items(room(tileSize)).min(LIMITS.rooms[0]).max(LIMITS.rooms[1]).unique("id"),
  });
}

/**
 * Shape of a part of a world, for steps that come over the network (`world/parts.ts`). Ranges that hang on the tile size
 * are as wide as the largest one allows; the world that comes of it is checked again. Null where there is no such part.
 */
export function partSchema(part: string, tileSize: number = LIMITS.tileSize[1]): Joi.Schema | null {
  const address = partAddress(part);
  if (address === null) return null;
  switch (address.kind) {
    case "whole":
      return worldSchema(tileSize).extract(address.key);
    case "order":
      return order;
    case "thing":
      if (address.list === "rules") return ruleSet(tileSize);
      if (address.list === "rooms") return room(tileSize).keys({ cells: plainCells }).allow(null);
      things ??= {
        sheets: sheet,
        items: item,
        tiles: tile,
        games: game,
      };
      return things[address.list].allow(null);
    case "of-room":
      return room(tileSize).extract(address.key);
  }
}

const ruleSets = new Map<number, Joi.Schema>();

/** Building it takes longer than a picture may: a number that is dragged asks for it again and again. */
function ruleSet(tileSize: number): Joi.Schema {
  const schema = ruleSets.get(tileSize) ?? rules(tileSize).allow(null);
  ruleSets.set(tileSize, schema);
  return schema;
}

const order = Joi.array().items(id).max(LIMITS.fixtures);
const plainCells = numberList(LIMITS.tiles - 1, LIMITS.roomSide[1] ** 2);
let things: Record<Exclude<ListPart, "rules" | "rooms">, Joi.ObjectSchema> | null = null;
