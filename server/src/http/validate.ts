import { CoreError } from "@keen-pebble/core/world";
import type Joi from "joi";

/** A request whose body, query or address is not what the API takes. */
export class BadRequestError extends CoreError {
  constructor(message: string, place: string) {
    super("bad-request", message, { place });
  }
}

/**
 * The value, once the schema takes it. Nothing is converted.
 * @throws {BadRequestError} with the place of the first thing that is wrong
 */
export function validate<T>(schema: Joi.Schema, value: unknown): T {
  const result = schema.validate(value, { convert: false, errors: { wrap: { label: false } } });
  if (result.error) {
    const detail = result.error.details[0]!;
    throw new BadRequestError(detail.message, detail.path.map(String).join("."));
  }
  return result.value as T;
}
