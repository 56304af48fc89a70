import { makeShelfParts } from "./session/shelf/shelf-parts.ts";

/** What this tab works with before a world is opened. */
export const shelfParts = makeShelfParts();
