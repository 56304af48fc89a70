import Joi from "joi";
import { ID_PATTERN, LIMITS } from "@keen-pebble/core";

const id = Joi.string().pattern(ID_PATTERN).messages({ "string.pattern.base": "{{#label}} must be an id: 1 to 40 of a to z, 0 to 9 and -" });
const index = Joi.number().integer().min(0);
const numbers = (most: number) => Joi.array().items(index.max(most)).max(LIMITS.roomSide[1] ** 2);
const text = Joi.string().max(LIMITS.fileBytes);

const step = Joi.alternatives().conditional(".kind", {
  switch: [
    {
      is: "set-cells",
      then: Joi.object({
        kind: Joi.required(),
        room: id.required(),
        cells: numbers(LIMITS.roomSide[1] ** 2 - 1).required(),
        before: numbers(LIMITS.tiles - 1).length(Joi.ref("cells.length")).required(),
        after: numbers(LIMITS.tiles - 1).length(Joi.ref("cells.length")).required(),
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
    { is: Joi.valid("add-log", "remove-log"), then: Joi.object({ kind: Joi.required(), log: id.required(), text: text.required() }) },
  ],
  otherwise: Joi.object({ kind: Joi.valid("set-cells", "change-rules", "add-log", "remove-log").required() }),
});

/** `:world` and `:log` in addresses. */
export const addressIds = Joi.object({ world: id.required(), log: id });

/** Body of `POST /api/worlds`. */
export const newWorld = Joi.object({ world: text.required(), logs: Joi.object().pattern(ID_PATTERN, text).default({}) });

/** Body of `POST /api/worlds/:world/revisions`. */
export const newRevision = Joi.object({
  batch: Joi.string().guid({ version: "uuidv4" }).required(),
  base: index.min(1).required(),
  steps: Joi.array().items(step).min(1).max(2000).required(),
});
