import { shelfParts } from "./page-shelf.ts";
import { makeSession } from "./session/session.ts";

/** The session of this tab; areas of a world load it. */
export const session = makeSession(shelfParts);
