import { LIMITS } from "@keen-pebble/core/world";
import { STRICT, numberList, partSchema } from "@keen-pebble/core/reading";
import Joi from "joi";
import { idSchema } from "./address-schemas.ts";

/** As long as a room has cells. */
const numbers = (max: number) => numberList(max, LIMITS.roomSide[1] ** 2);
const text = Joi.string().max(LIMITS.fileBytes).required();
const setting = Joi.alternatives(Joi.number(), Joi.string().max(40), Joi.boolean()).required();

/** Tiles that go side by side with the step's cells. */
const asManyAsCells = numbers(LIMITS.tiles - 1)
  .custom((value: number[], helpers) => {
    const { cells } = (helpers.state.ancestors as { cells?: unknown }[])[0]!;
    return !Array.isArray(cells) || cells.length === value.length
      ? value
      : helpers.message({ custom: `{{#label}} must contain ${cells.length} items, as cells does` });
  })
  .required();

interface Part {
  readonly part: string;
  readonly before: unknown;
  readonly after: unknown;
}

/** A part of a world: both values are of its shape, with every key that may be left out written. */
const part = Joi.object({
  part: Joi.string().max(100).required(),
  before: Joi.any().required(),
  after: Joi.any().required(),
}).custom((value: Part, helpers) => {
  const schema = partSchema(value.part);
  if (schema === null) return helpers.message({ custom: `there is no part ${value.part}` });
  const result = Joi.object({ part: Joi.string(), before: schema, after: schema }).validate(value, STRICT);
  return result.error ? helpers.message({ custom: `${value.part}: ${result.error.message}` }) : (result.value as Part);
});

const logText = { log: idSchema, text };

/** What each kind of step carries: what was there and what shall be there. */
const KINDS: Readonly<Record<string, Joi.SchemaMap>> = {
  "set-cells": {
    room: idSchema,
    cells: numbers(LIMITS.roomSide[1] ** 2 - 1).required(),
    before: asManyAsCells,
    after: asManyAsCells,
  },
  "change-rules": { rules: idSchema, setting: Joi.string().max(40).required(), before: setting, after: setting },
  "change-parts": { parts: Joi.array().items(part).min(1).max(10_000).required() },
  "add-log": logText,
  "remove-log": logText,
  "change-log": { log: idSchema, before: text, after: text },
};

/** One change of a world and its logs (architecture.md, steps). */
export const stepSchema = Joi.alternatives()
  .conditional(".kind", {
    switch: Object.entries(KINDS).map(([kind, fields]) => ({
      is: kind,
      then: Joi.object({ kind: Joi.valid(kind).required(), ...fields }),
    })),
    // Here for its message: no step has another kind.
    otherwise: Joi.object({ kind: Joi.valid(...Object.keys(KINDS)).required() }).meta({ "x-schema": { not: {} } }),
  })
  .meta({ "x-name": "Step" })
  .description("One change of a world and its logs. It carries what was there and what shall be there.");
