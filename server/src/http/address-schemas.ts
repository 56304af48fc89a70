import { ID_PATTERN, SHEET_FILE_PATTERN } from "@keen-pebble/core/world";
import Joi from "joi";

/** An id: of a world, a log, a room, a rule set. */
export const idSchema = Joi.string()
  .pattern(ID_PATTERN)
  .messages({ "string.pattern.base": "{{#label}} must be an id: 1 to 40 of a to z, 0 to 9 and -" })
  .meta({ "x-name": "Id" })
  .required();

/** The file name of a sheet. */
export const fileNameSchema = Joi.string()
  .pattern(SHEET_FILE_PATTERN)
  .messages({
    "string.pattern.base": "{{#label}} must be the name of a PNG: letters, digits, dots and dashes, ending in .png",
  })
  .meta({ "x-name": "FileName" })
  .required();

const digits = Joi.string()
  .pattern(/^[1-9]\d{0,8}$/)
  .messages({ "string.pattern.base": "{{#label}} must be a whole number" });

/** `:world` and `:log` in addresses. */
export const addressIds = Joi.object({ world: idSchema, log: idSchema.optional() });

/** `:world` and `:file` in addresses of sheets. */
export const sheetAddress = Joi.object({ world: idSchema, file: fileNameSchema });

/** `:key` in addresses of deleted worlds. */
export const deletedKey = Joi.object({ key: digits.required() });

/** `:world` and `:revision` in addresses. */
export const revisionAddress = Joi.object({ world: idSchema, revision: digits.required() });

/** `:world` and `:search` in addresses. */
export const searchAddress = Joi.object({ world: idSchema, search: Joi.string().guid().required() });

/** `:world` and `:entry` in addresses of the Journal's entries. */
export const entryAddress = Joi.object({ world: idSchema, entry: digits.required() });

/** Query of `GET /api/worlds/:world/revisions`. */
export const revisionsQuery = Joi.object({ before: digits });

/** Query of `GET /api/worlds/:world/steps`. */
export const stepsQuery = Joi.object({ since: digits.required() });
