import Joi from "joi";
import { ID_PATTERN, LIMITS, SHEET_FILE_PATTERN } from "@keen-pebble/core/world";
import { NOTE_LENGTH } from "./api-schemas.ts";
import { numberList, partSchema } from "@keen-pebble/core/reading";

const id = Joi.string()
  .pattern(ID_PATTERN)
  .messages({ "string.pattern.base": "{{#label}} must be an id: 1 to 40 of a to z, 0 to 9 and -" });
const index = Joi.number().integer().min(0);
const numbers = (max: number) => numberList(max, LIMITS.roomSide[1] ** 2);
const text = Joi.string().max(LIMITS.fileBytes);

/** Tiles that go side by side with the step's cells. */
const asManyAsCells = numbers(LIMITS.tiles - 1).custom((value: number[], helpers) => {
  const { cells } = (helpers.state.ancestors as { cells?: unknown }[])[0]!;
  return !Array.isArray(cells) || cells.length === value.length
    ? value
    : helpers.message({ custom: `{{#label}} must contain ${cells.length} items, as cells does` });
});

/** A part of a world: both values are of its shape, with every key that may be left out written. */
const part = Joi.object({
  part: Joi.string().max(100).required(),
  before: Joi.any().required(),
  after: Joi.any().required(),
}).custom((value: Part, helpers) => {
  const schema = partSchema(value.part);
  if (schema === null) return helpers.message({ custom: `there is no part ${value.part}` });
  const result = Joi.object({ part: Joi.string(), before: schema, after: schema }).validate(value, {
    convert: false,
    errors: { wrap: { label: false } },
  });
  return result.error ? helpers.message({ custom: `${value.part}: ${result.error.message}` }) : (result.value as Part);
});
interface Part {
  readonly part: string;
  readonly before: unknown;
  readonly after: unknown;
}

const step = Joi.alternatives().conditional(".kind", {
  switch: [
    {
      is: "set-cells",
      then: Joi.object({
        kind: Joi.required(),
        room: id.required(),
        cells: numbers(LIMITS.roomSide[1] ** 2 - 1).required(),
        before: asManyAsCells.required(),
        after: asManyAsCells.required(),
      }),
    },
    {
      is: "change-rules",
      then: Joi.object({
        kind: Joi.required(),
        rules: id.required(),
        setting: Joi.string().max(40).required(),
        before: Joi.alternatives(Joi.number(), Joi.string().max(40), Joi.boolean()).required(),
        after: Joi.alternatives(Joi.number(), Joi.string().max(40), Joi.boolean()).required(),
      }),
    },
    {
      is: "change-parts",
      then: Joi.object({
        kind: Joi.required(),
        parts: Joi.array().items(part).min(1).max(10_000).required(),
      }),
    },
    {
      is: "change-log",
      then: Joi.object({ kind: Joi.required(), log: id.required(), before: text.required(), after: text.required() }),
    },
    {
      is: Joi.valid("add-log", "remove-log"),
      then: Joi.object({ kind: Joi.required(), log: id.required(), text: text.required() }),
    },
  ],
  otherwise: Joi.object({
    kind: Joi.valid("set-cells", "change-rules", "change-parts", "add-log", "remove-log", "change-log").required(),
  }),
});

/** `:world` and `:log` in addresses. */
export const addressIds = Joi.object({ world: id.required(), log: id });

/** `:world` and `:file` in addresses of sheets. */
export const sheetAddress = Joi.object({
  world: id.required(),
  file: Joi.string()
    .pattern(SHEET_FILE_PATTERN)
    .messages({
      "string.pattern.base": "{{#label}} must be the name of a PNG: letters, digits, dots and dashes, ending in .png",
    })
    .required(),
});

/** `:key` in addresses of deleted worlds. */
export const deletedKey = Joi.object({
  key: Joi.string()
    .pattern(/^[1-9]\d{0,8}$/)
    .messages({ "string.pattern.base": "{{#label}} must be a whole number" })
    .required(),
});

const texts = Joi.object().pattern(ID_PATTERN, text);

/** Body of `POST /api/imports` as JSON. */
export const importedFiles = Joi.object({
  world: text,
  logs: texts,
  csvLogs: texts,
  into: id,
  sheetsOf: id,
  origin: Joi.valid("made", "conflict"),
})
  .or("world", "logs", "csvLogs")
  .required();

/** Body of `POST /api/worlds/:world/revisions`. */
export const newRevision = Joi.object({
  batch: Joi.string().guid({ version: "uuidv4" }).required(),
  base: index.min(1).required(),
  steps: Joi.array().items(step).min(1).max(2000).required(),
  note: Joi.string().max(NOTE_LENGTH).allow(""),
});

const digits = Joi.string()
  .pattern(/^[1-9]\d{0,8}$/)
  .messages({ "string.pattern.base": "{{#label}} must be a whole number" });

/** `:world` and `:revision` in addresses. */
export const revisionAddress = Joi.object({ world: id.required(), revision: digits.required() });

/** Query of `GET /api/worlds/:world/revisions`. */
export const revisionsQuery = Joi.object({ before: digits });

/** Query of `GET /api/worlds/:world/steps`. */
export const stepsQuery = Joi.object({ since: digits.required() });

/** Body of `PUT /api/worlds/:world/revisions/:revision/note`. */
export const revisionNote = Joi.object({ note: Joi.string().max(NOTE_LENGTH).allow("").required() }).required();

/** `:world` and `:search` in addresses. */
export const searchAddress = Joi.object({ world: id.required(), search: Joi.string().guid().required() });

/** Body of `POST /api/worlds/:world/searches`. */
export const newSearch = Joi.object({ log: id.required(), check: Joi.string().min(1).max(200).required() }).required();
