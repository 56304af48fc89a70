import { makeSession } from "./session/session.ts";

/** The session of this tab. */
export const session = makeSession();
