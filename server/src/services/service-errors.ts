import { CoreError } from "@keen-pebble/core/world";
import type { StaleBase } from "../api.ts";

/** There is no such world, log or revision. */
export class NotFoundError extends CoreError {
  constructor(kind: string, id: string) {
    super("not-found", `there is no ${kind} ${id}`, { kind, id });
  }
}

/** A batch was made on top of a revision that is not the newest one any more. Nothing was stored. */
export class StaleBaseError extends CoreError {
  constructor(base: number, since: StaleBase) {
    super(
      "stale-base",
      `the edits were made on revision ${base}, but revision ${since.revision} is the newest; nothing was stored`,
      since,
    );
  }
}

/** A world with that id is on the shelf already. */
export class IdTakenError extends CoreError {
  constructor(id: string) {
    super("id-taken", `there is a world ${id} on the shelf already`, { id });
  }
}

/** The database does not answer. */
export class NoDatabaseError extends CoreError {
  constructor() {
    super("no-database", "the database does not answer; nothing was stored", null);
  }
}
