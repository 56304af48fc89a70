import { CoreError } from "../base/core-error.ts";
import type { EditStep } from "./step.ts";

/** An edit that does not fit the project that it was applied to, or that would make a bad one. Nothing was changed. */
export class EditError extends CoreError {
  constructor(message: string, step: EditStep, place: string) {
    super("edit-does-not-fit", message, { kind: step.kind, place });
  }
}
