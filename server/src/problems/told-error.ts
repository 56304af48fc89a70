import { CoreError } from "@keen-pebble/core/world";
import type { Problem } from "../api.ts";

/** An error of another thread, as it was told there. */
export class ToldError extends CoreError {
  constructor({ code, detail, data }: Pick<Problem, "code" | "detail" | "data">) {
    super(code, detail, data ?? null);
  }
}

/** The server has more to do than it can now; asking again helps. */
export class BusyError extends CoreError {
  constructor(why: string) {
    super("busy", `${why}; nothing was stored`, null);
  }
}

/** What came from outside wants more time or memory than anything in order needs. */
export class TooCostlyError extends CoreError {
  constructor(what: "time" | "memory") {
    super("too-costly", `reading it takes more ${what} than anything that is in order needs; nothing was stored`, null);
  }
}
