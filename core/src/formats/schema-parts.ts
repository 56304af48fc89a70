import Joi from "joi";
import { FACINGS } from "../world/facing.ts";
import { ID_PATTERN, LIMITS } from "../world/limits.ts";
import type { Setting } from "../world/settings.ts";
import { settingFault } from "../world/settings.ts";
import { PATTERNS } from "../world/world.ts";

// What the schemas of a world and of its parts are made of (formats.md section 1).

// Nothing is converted and nothing unknown passes: the reader is strict (formats.md, opening).
export const J = Joi.defaults((schema) => schema.options({ presence: "required", convert: false }));

export const optional = <S extends Joi.Schema>(schema: S, fallback: Joi.BasicType | object): S =>
  schema.optional().default(fallback) as S;

export const id = J.string()
  .pattern(ID_PATTERN)
  .messages({ "string.pattern.base": "must be an id: 1 to 40 of a to z, 0 to 9 and -" });
export const name = J.string()
  .custom((value: string, helpers) => {
    const length = [...value].length;
    if (length > LIMITS.nameLength || /[\u0000-\u001f\u007f]/.test(value)) return helpers.error("name.text");
    return value;
  })
  .messages({ "name.text": `must be a text of 1 to ${LIMITS.nameLength} characters without control characters` });
export const colour = J.string()
  .pattern(/^#[0-9a-f]{6}$/)
  .messages({ "string.pattern.base": "must be a colour like #8d7f6f" });
export const whole = (min: number, max: number) =>
  J.number()
    .integer()
    .min(min)
    .max(max)
    .messages({
      "number.base": expected(min, max),
      "number.integer": expected(min, max),
      "number.min": expected(min, max),
      "number.max": expected(min, max),
    });
const expected = (min: number, max: number) => `must be a whole number from ${min} to ${max}`;
export const within = ([min, max]: readonly [number, number]) => whole(min, max);

export const FAR = LIMITS.far;
export const pair = J.array().ordered(whole(-FAR, FAR), whole(-FAR, FAR)).length(2);
export const cell = J.array()
  .ordered(whole(0, LIMITS.roomSide[1] - 1), whole(0, LIMITS.roomSide[1] - 1))
  .length(2);
export const box = J.array().ordered(whole(-FAR, FAR), whole(-FAR, FAR), whole(1, FAR), whole(1, FAR)).length(4);
export const choice = (...values: (string | number)[]) =>
  J.valid(...values).messages({ "any.only": `must be one of ${values.join(", ")}` });
export const facing = choice(...FACINGS);

/** A union told apart by its `kind`; an unknown kind is refused by name. */
export function byKind(kinds: Record<string, Joi.SchemaMap>, shared: Joi.SchemaMap = {}): Joi.Schema {
  const names = Object.keys(kinds);
  return J.alternatives().conditional(".kind", {
    switch: names.map((kind) => ({ is: kind, then: J.object({ kind: J.valid(kind), ...kinds[kind], ...shared }) })),
    otherwise: J.object({ kind: choice(...names) }).unknown(true),
  });
}

export const look = J.alternatives().conditional(J.object({ sheet: J.exist() }).unknown(true), {
  then: J.object({ sheet: id, at: J.array().ordered(whole(0, 4095), whole(0, 4095)).length(2) }),
  otherwise: J.object({ fill: colour, pattern: choice(...PATTERNS).optional() }),
});

export function settingSchema(setting: Setting, tileSize: number): Joi.Schema {
  const fault = "setting.fault";
  return J.any()
    .custom((value: unknown, helpers) => {
      const found = settingFault(setting, value, tileSize);
      return found === null ? value : helpers.error(fault, { found });
    })
    .messages({ [fault]: "{{#found}}" })
    .optional()
    .default(setting.default);
}

export const figure = J.object({
  sheet: id,
  offset: pair,
  images: J.object(Object.fromEntries(FACINGS.map((key) => [key, J.array().items(cell).min(1).max(64).optional()]))),
});
