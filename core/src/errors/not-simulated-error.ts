import { CoreError } from "./core-error.ts";

/** A world or log asks for something that the simulation does not do yet. It is named, never half-run. */
export class NotSimulatedError extends CoreError {
  /** @param things what is not simulated, each with its place, such as `rules main: gait roam` */
  constructor(readonly things: readonly string[]) {
    super("not-simulated", `not simulated yet: ${things.join("; ")}`, things);
  }
}
