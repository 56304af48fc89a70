import { RefusedError, refusalText } from "@keen-pebble/core/world";
import type { JsonLimits } from "@keen-pebble/core/reading";
import { scanJson } from "@keen-pebble/core/reading";
import { BadRequestError } from "./validate.ts";

/** How much a request may hold: a world of the largest kind, and many logs. */
const LIMITS_OF_BODY: JsonLimits = { bytes: 40 * 1024 * 1024, keys: 5000 };

/**
 * Reads the JSON of a request's body, scanned before anything is built.
 * @throws {BadRequestError} with line and column
 */
export function readJson(body: Uint8Array): unknown {
  try {
    return scanJson(new TextDecoder("utf-8", { fatal: true }).decode(body), "the body", LIMITS_OF_BODY);
  } catch (error) {
    if (error instanceof RefusedError)
      throw new BadRequestError(
        `the body is not JSON as it is expected here: ${refusalText(error.refusals[0]!)}`,
        error.refusals[0]!.place,
      );
    if (error instanceof TypeError) throw new BadRequestError("the body is not UTF-8 text", "");
    throw error;
  }
}
