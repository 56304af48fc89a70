import type { ResponseName } from "../world/responses.ts";
import type { ResponseMovement } from "./response-movement.ts";
import { ahead } from "./responses/ahead.ts";
import { contact } from "./responses/contact.ts";
import { snap } from "./responses/snap.ts";
import { undoAxis } from "./responses/undo-axis.ts";
import { undoBoth } from "./responses/undo-both.ts";

/** How every response moves. */
export const RESPONSE_MOVEMENTS: Readonly<Record<ResponseName, ResponseMovement>> = {
  contact,
  "undo-axis": undoAxis,
  "undo-both": undoBoth,
  snap,
  ahead,
};
