import Joi from "joi";
import { FACINGS } from "../world/facing.ts";
import { ID_PATTERN, LIMITS } from "../world/limits.ts";
import type { Setting } from "../world/settings.ts";
import { settingFault } from "../world/settings.ts";
import { PATTERNS } from "../world/world.ts";

// What the schemas of a world and of its parts are made of (formats.md section 1).

/**
 * What these schemas are validated with: nothing is converted, nothing may be missing that is not said to be optional,
 * and nothing unknown passes, for the reader is strict (formats.md, opening). Given with the value and not to each schema:
 * Joi would put both together anew for every value within a value.
 */
export const STRICT: Joi.ValidationOptions = {
  presence: "required",
  convert: false,
  errors: { wrap: { label: false } },
};

const Own = Joi.extend({ type: "looked", base: Joi.any(), messages: { "looked.says": "{#says}" } }) as {
  looked(): Joi.AnySchema;
};

/** A value that a function looks at: it gives what is wrong in words that follow the place, or null where it may stand. */
export const looked = (fault: (value: unknown) => string | null): Joi.AnySchema =>
  Own.looked().custom((value: unknown, helpers) => {
    const says = fault(value);
    return says === null ? value : helpers.error("looked.says", { says });
  });

export const optional = <S extends Joi.Schema>(schema: S, fallback: Joi.BasicType | object): S =>
  schema.optional().default(fallback) as S;

/** A text that fits an expression. @param says what a text must be that does not */
export const matching = (pattern: RegExp, says: string): Joi.AnySchema =>
  looked((value) => (typeof value !== "string" ? "must be a string" : pattern.test(value) ? null : says));

export const id = matching(ID_PATTERN, "must be an id: 1 to 40 of a to z, 0 to 9 and -");
export const name = looked((value) => {
  if (typeof value !== "string") return "must be a string";
  return value === "" || [...value].length > LIMITS.nameLength || /[\u0000-\u001f\u007f]/.test(value)
    ? `must be a text of 1 to ${LIMITS.nameLength} characters without control characters`
    : null;
});
export const colour = matching(/^#[0-9a-f]{6}$/, "must be a colour like #8d7f6f");
export const whole = (min: number, max: number): Joi.AnySchema =>
  looked((value) =>
    Number.isInteger(value) && (value as number) >= min && (value as number) <= max
      ? null
      : `must be a whole number from ${min} to ${max}`,
  );
export const within = ([min, max]: readonly [number, number]): Joi.AnySchema => whole(min, max);

export const FAR = LIMITS.far;
export const pair = Joi.array().ordered(whole(-FAR, FAR), whole(-FAR, FAR)).length(2);
export const cell = Joi.array()
  .ordered(whole(0, LIMITS.roomSide[1] - 1), whole(0, LIMITS.roomSide[1] - 1))
  .length(2);
export const box = Joi.array().ordered(whole(-FAR, FAR), whole(-FAR, FAR), whole(1, FAR), whole(1, FAR)).length(4);
export const choice = (...values: (string | number)[]): Joi.AnySchema =>
  looked((value) => (values.includes(value as string) ? null : `must be one of ${values.join(", ")}`));
export const facing = choice(...FACINGS);

/** A union told apart by its `kind`; an unknown kind is refused by name. */
export function byKind(kinds: Record<string, Joi.SchemaMap>, shared: Joi.SchemaMap = {}): Joi.Schema {
  const names = Object.keys(kinds);
  return Joi.alternatives().conditional(".kind", {
    switch: names.map((kind) => ({ is: kind, then: Joi.object({ kind: Joi.valid(kind), ...kinds[kind], ...shared }) })),
    otherwise: Joi.object({ kind: choice(...names) }).unknown(true),
  });
}

export const look = Joi.alternatives().conditional(Joi.object({ sheet: Joi.exist() }).unknown(true), {
  then: Joi.object({ sheet: id, at: Joi.array().ordered(whole(0, 4095), whole(0, 4095)).length(2) }),
  otherwise: Joi.object({ fill: colour, pattern: choice(...PATTERNS).optional() }),
});

export const settingSchema = (setting: Setting, tileSize: number): Joi.AnySchema =>
  optional(
    looked((value) => settingFault(setting, value, tileSize)),
    setting.default,
  );

export const figure = Joi.object({
  sheet: id,
  offset: pair,
  images: Joi.object(
    Object.fromEntries(FACINGS.map((key) => [key, Joi.array().items(cell).min(1).max(64).optional()])),
  ),
});
