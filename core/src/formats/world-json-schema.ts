import { FACINGS } from "../world/facing.ts";
import type { Field, Fields } from "../world/field.ts";
import { FIXTURE_KINDS, KEEPS, TOUCHES, fieldsOf } from "../world/fixtures.ts";
import { ACTOR_DOORS, ACTOR_SPEED, ACTOR_TOUCHES, PATH_THEN, PHASE_DOES, TURNS_BACK } from "../world/actors.ts";
import { GAIT_NAMES } from "../world/gaits.ts";
import { ANCHORS, BUTTONS, GAME_NAME_PATTERN, GAME_UNITS } from "../world/game.ts";
import { ID_PATTERN, LIMITS } from "../world/limits.ts";
import type { PxLimit } from "../world/setting.ts";
import type { Setting } from "../world/settings.ts";
import { SETTINGS, settingRange } from "../world/settings.ts";
import { REACH_WORDINGS } from "../checks/reach-check.ts";
import { PATTERNS, RESPAWN_RESTORES, SIDES } from "../world/world.ts";
import { WORLD_FORMAT } from "./world-format.ts";

/** JSON Schema 2020-12. */
type Schema = Readonly<Record<string, unknown>>;
type Properties = Readonly<Record<string, Schema>>;

const ref = (name: string): Schema => ({ $ref: `#/$defs/${name}` });
const id = ref("id");
const whole = (minimum: number, maximum: number): Schema => ({ type: "integer", minimum, maximum });
const within = ([min, max]: readonly [number, number]): Schema => whole(min, max);
const place = whole(0, LIMITS.roomSide[1] - 1);
const extent = whole(1, LIMITS.roomSide[1]);
const far = whole(-LIMITS.far, LIMITS.far);
const oneOf = (values: readonly (string | number)[], fallback?: string | number): Schema => ({
  enum: values,
  ...(fallback === undefined ? {} : { default: fallback }),
});
const orNull = (schema: Schema): Schema => ({ anyOf: [{ type: "null" }, schema], default: null });
const list = (items: Schema, more: Schema = {}): Schema => ({ type: "array", ...more, items });
const ids = (more: Schema = {}): Schema => list(id, { uniqueItems: true, ...more });
const tuple = (...prefixItems: Schema[]): Schema => ({
  type: "array",
  prefixItems,
  items: false,
  minItems: prefixItems.length,
});

/** An object with no other keys; what has no default and is not named as optional must be there. */
const object = (properties: Properties, optional: readonly string[] = [], more: Schema = {}): Schema => ({
  type: "object",
  additionalProperties: false,
  required: Object.keys(properties).filter((key) => !("default" in properties[key]!) && !optional.includes(key)),
  properties,
  ...more,
});

/** A union told apart by its `kind`. */
const byKind = (kinds: Readonly<Record<string, Properties>>, shared: Properties = {}): Schema => ({
  oneOf: Object.entries(kinds).map(([kind, own]) => object({ kind: { const: kind }, ...own, ...shared })),
});

/** What a limit in px hangs on, said for readers, and the largest that any tile size allows. */
function pxLimit(max: PxLimit | number): string {
  if (typeof max === "number" || "px" in max) return "";
  return max.tiles === 1 ? "At most the tile size." : `At most ${max.tiles} tile sizes.`;
}

function settingSchema(setting: Setting): Schema {
  const fallback = { default: setting.default };
  switch (setting.kind) {
    case "switch":
      return { type: "boolean", ...fallback };
    case "choice":
      return { enum: setting.choices, ...fallback };
    case "whole": {
      const { min, max } = settingRange(setting, LIMITS.tileSize[1]);
      const description = pxLimit(setting.max);
      return { ...whole(min, max), ...(description === "" ? {} : { description }), ...fallback };
    }
    case "px": {
      const { min, max } = settingRange(setting, LIMITS.tileSize[1]);
      const description = `px a frame, at least 1/256; counts as whole 1/256. ${pxLimit(setting.max)}`.trim();
      // A decimal counts as the nearest unit, so that half of one is the first that counts.
      return { type: "number", minimum: min / 2, maximum: max, description, ...fallback };
    }
  }
}

function rules(): Schema {
  const groups = new Map<string, Record<string, Schema>>();
  for (const setting of SETTINGS) {
    const [group, key] = setting.path.split(".") as [string, string];
    groups.set(group, { ...groups.get(group), [key]: settingSchema(setting) });
  }
  const { input, ...others } = Object.fromEntries([...groups].map(([group, fields]) => [group, object(fields)]));
  const walker = object({ blockedBy: { ...ids(), default: ["solid"] }, body: ref("body"), ...groups.get("walker") }, [
    "body",
  ]);
  return object(
    { id, name: ref("name"), gait: oneOf(GAIT_NAMES), input: input!, ...others, walker },
    ["input", ...Object.keys(others)],
    {
      // Only the gait in use must be there; what it leaves out takes the defaults.
      allOf: GAIT_NAMES.map((gait) => ({
        if: { properties: { gait: { const: gait } } },
        then: { required: [gait] },
      })),
    },
  );
}

function fieldSchema(field: Field): Schema {
  switch (field.type) {
    case "reference":
      return id;
    case "whole":
      return { ...within(field.range), default: field.default };
    case "switch":
      return { type: "boolean", default: field.default };
    case "choice":
      return oneOf(field.choices, field.default);
    case "name":
      return ref("name");
    case "place":
      return object({ room: id, cell: ref("cell"), facing: ref("facing") }, ["facing"]);
    case "size":
      return { ...tuple(extent, extent), default: [1, 1] };
    case "kinds":
      return byKind(
        Object.fromEntries(Object.entries(field.kinds).map(([kind, fields]) => [kind, fieldsSchema(fields)])),
      );
  }
}

const fieldsSchema = (fields: Fields): Properties =>
  Object.fromEntries(Object.entries(fields).map(([key, field]) => [key, fieldSchema(field)]));

const EDGES = { wall: {}, wrap: {}, link: { room: id, offset: { ...far, default: 0 } } };

/** A name in somebody's game. */
const named: Schema = { type: "string", minLength: 1, maxLength: 80, pattern: GAME_NAME_PATTERN.source };
const buttons: Schema = {
  type: "object",
  propertyNames: named,
  additionalProperties: oneOf(BUTTONS),
  maxProperties: 64,
};

const DEFINITIONS: Properties = {
  id: { type: "string", pattern: ID_PATTERN.source },
  name: {
    type: "string",
    minLength: 1,
    maxLength: LIMITS.nameLength,
    pattern: "^[^\\u0000-\\u001f\\u007f]*$",
  },
  colour: { type: "string", pattern: "^#[0-9a-f]{6}$" },
  facing: oneOf(FACINGS),
  pair: { description: "x and y", ...tuple(far, far) },
  cell: { description: "Column and row, or x and y in a sheet", ...tuple(place, place) },
  box: { description: "x, y, width, height in px", ...tuple(far, far, whole(1, LIMITS.far), whole(1, LIMITS.far)) },
  look: {
    oneOf: [
      object({ fill: ref("colour"), pattern: oneOf(PATTERNS) }, ["pattern"]),
      object({ sheet: id, at: tuple(whole(0, LIMITS.sheetSide[1] - 1), whole(0, LIMITS.sheetSide[1] - 1)) }),
    ],
  },
  tile: object({
    id,
    name: ref("name"),
    flags: ids(),
    shape: byKind({
      full: {},
      boxes: { boxes: list(ref("box"), { minItems: 1, maxItems: 64 }) },
      poly: {
        points: {
          description: "Corners of a strictly convex polygon in px, clockwise",
          ...list(ref("pair"), { minItems: LIMITS.corners[0], maxItems: LIMITS.corners[1] }),
        },
      },
    }),
    look: ref("look"),
    joins: orNull(object({ to: id, looks: list(ref("look"), { minItems: 16, maxItems: 16 }) })),
    glyph: orNull({ type: "string", minLength: 1, maxLength: 1, pattern: "^[^\\s\\u0000-\\u001f\\u007f]$" }),
  }),
  body: byKind(
    {
      box: { box: ref("box") },
      probes: { points: list(ref("pair"), { minItems: LIMITS.probes[0], maxItems: LIMITS.probes[1] }) },
    },
    { flush: oneOf(["free", "blocks"], "free") },
  ),
  rules: rules(),
  game: object({
    id,
    name: ref("name"),
    columns: object({
      frame: orNull(named),
      x: orNull(named),
      y: orNull(named),
      room: orNull(named),
      keys: { anyOf: [{ type: "null" }, named, buttons], default: null },
    }),
    unit: oneOf(GAME_UNITS, "px"),
    yUp: { type: "boolean", default: false },
    anchor: oneOf(ANCHORS, "corner"),
    origin: { ...tuple({ type: "number" }, { type: "number" }), default: [0, 0] },
    frameOffset: { ...whole(-LIMITS.far, LIMITS.far), default: 0 },
    tolerance: { description: "In px", type: "number", minimum: 0, maximum: 512, default: 0.5 },
    rooms: {
      type: "object",
      propertyNames: named,
      additionalProperties: id,
      maxProperties: LIMITS.rooms[1],
      default: {},
    },
    keys: { ...buttons, default: {} },
  }),
  edge: byKind(EDGES),
  span: byKind(EDGES, { from: place, to: place }),
  side: {
    oneOf: [ref("edge"), list(ref("span"), { maxItems: LIMITS.roomSide[1] })],
    default: { kind: "wall" },
  },
  fixture: byKind(Object.fromEntries(FIXTURE_KINDS.map((kind) => [kind, fieldsSchema(fieldsOf(kind))])), {
    id,
    cell: ref("cell"),
    touch: oneOf(TOUCHES, "cell"),
    keeps: oneOf(KEEPS, "run"),
  }),
  images: object({
    sheet: id,
    offset: ref("pair"),
    images: object(
      Object.fromEntries(FACINGS.map((facing) => [facing, list(ref("cell"), { minItems: 1, maxItems: 64 })])),
      FACINGS,
    ),
  }),
  phase: {
    oneOf: [
      object({
        frames: ref("phaseFrames"),
        do: { const: "path" },
        then: oneOf(PATH_THEN, "back"),
        cells: list(ref("cell"), { minItems: LIMITS.pathCells[0], maxItems: LIMITS.pathCells[1] }),
      }),
      object({ frames: ref("phaseFrames"), do: oneOf(PHASE_DOES.filter((each) => each !== "path")) }),
    ].map((each) => ({ ...each, required: (each["required"] as string[]).filter((key) => key !== "frames") })),
  },
  phaseFrames: { description: "null: for ever", ...orNull(within(LIMITS.phaseFrames)) },
  actor: object(
    {
      id,
      name: ref("name"),
      cell: ref("cell"),
      facing: { ...ref("facing"), default: "down" },
      speed: settingSchema(ACTOR_SPEED),
      blockedBy: { ...ids(), default: ["solid"] },
      doors: oneOf(ACTOR_DOORS, "open"),
      turnsBack: oneOf(TURNS_BACK, "freely"),
      touch: oneOf(ACTOR_TOUCHES, "none"),
      body: { ...ref("box"), description: "In px in its frame-square, all of which it is where this is missing" },
      keeps: oneOf(KEEPS, "run"),
      plan: list(ref("phase"), { minItems: LIMITS.phases[0], maxItems: LIMITS.phases[1] }),
      look: { oneOf: [ref("look"), ref("images")] },
    },
    ["name", "body", "look"],
  ),
  room: object({
    id,
    name: ref("name"),
    width: within(LIMITS.roomSide),
    height: within(LIMITS.roomSide),
    plan: { ...ref("pair"), default: [0, 0] },
    edges: { ...object(Object.fromEntries(SIDES.map((side) => [side, ref("side")])), SIDES), default: {} },
    cells: {
      description: "width x height numbers of tiles, row by row",
      ...list(whole(0, LIMITS.tiles - 1), { maxItems: LIMITS.roomSide[1] ** 2 }),
    },
    fixtures: list(ref("fixture"), { maxItems: LIMITS.fixtures, default: [] }),
    actors: list(ref("actor"), { description: "What moves by itself", maxItems: LIMITS.actors, default: [] }),
  }),
};

const PROPERTIES: Properties = {
  format: { const: WORLD_FORMAT },
  version: { const: 1 },
  id,
  name: ref("name"),
  tileSize: { ...within(LIMITS.tileSize), description: "px a side of a cell" },
  frameRate: { ...within(LIMITS.frameRate), default: 60 },
  seed: { ...whole(0, LIMITS.seed), default: 1 },
  sheets: list(
    object({
      id,
      file: ref("name"),
      tile: whole(1, 512),
      margin: whole(0, 512),
      spacing: whole(0, 512),
    }),
    { maxItems: LIMITS.sheets, default: [] },
  ),
  flags: ids({ maxItems: LIMITS.flags }),
  tiles: list(ref("tile"), {
    minItems: 1,
    maxItems: LIMITS.tiles,
    description: "Cells name tiles by their place in this list. Tile 0 is the empty tile and has no flags.",
  }),
  items: list(object({ id, name: ref("name"), role: oneOf(["key", "treasure"]), colour: ref("colour") }), {
    maxItems: LIMITS.items,
    default: [],
  }),
  circuits: ids({ maxItems: LIMITS.circuits, default: [] }),
  lives: orNull(within(LIMITS.lives)),
  respawnRestores: oneOf(RESPAWN_RESTORES, "keeps"),
  rules: list(ref("rules"), { minItems: 1, maxItems: LIMITS.ruleSets }),
  activeRules: id,
  camera: {
    ...object({
      mode: oneOf(["whole", "screen", "follow"], "follow"),
      width: { ...whole(1, 512), default: 20 },
      height: { ...whole(1, 512), default: 12 },
      margin: { ...tuple(whole(0, 512), whole(0, 512)), default: [6, 4] },
      ease: { ...whole(0, 240), default: 0 },
    }),
    default: {},
  },
  figure: orNull(
    object({
      sheet: id,
      offset: ref("pair"),
      images: object(
        Object.fromEntries(FACINGS.map((facing) => [facing, list(ref("cell"), { minItems: 1, maxItems: 64 })])),
        FACINGS,
      ),
    }),
  ),
  start: object({ room: id, cell: ref("cell"), facing: { ...ref("facing"), default: "down" } }),
  goal: orNull(byKind({ marker: { fixture: id }, collect: { item: id } })),
  laws: list(
    {
      type: "string",
      minLength: 1,
      maxLength: LIMITS.lawLength,
      description: "`always CONDITION` or `never CONDITION`",
    },
    { maxItems: LIMITS.laws, default: [] },
  ),
  reachChecks: list(
    {
      type: "string",
      minLength: 1,
      maxLength: LIMITS.lawLength,
      description: REACH_WORDINGS.map((wording) => `\`${wording}\``).join(", "),
    },
    { maxItems: LIMITS.reachChecks, default: [] },
  ),
  games: list(ref("game"), { maxItems: LIMITS.games, default: [] }),
  rooms: list(ref("room"), { minItems: LIMITS.rooms[0], maxItems: LIMITS.rooms[1] }),
};

/**
 * The JSON Schema of world files (formats.md section 1), made from the tables of settings, fixtures and limits that the
 * reader is made from. `docs/world.schema.json` is this, written down.
 */
export const worldJsonSchema = (): Schema => ({
  $schema: "https://json-schema.org/draft/2020-12/schema",
  $id: "urn:keen-pebble:world:1",
  title: "Keen Pebble world file, version 1",
  description:
    "The shape of a *.world.json file. What a schema cannot say (ids that are meant by somebody, cells inside their room, convex polygons, ranges that hang on the tile size) is in formats.md and is checked by the reader too.",
  ...object(PROPERTIES),
  $defs: DEFINITIONS,
});
