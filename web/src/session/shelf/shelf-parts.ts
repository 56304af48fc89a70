import { makeAsked } from "../commands/asked.ts";
import { shelfCommands } from "../commands/shelf.ts";
import { makeOutbox } from "../project/outbox.ts";
import { ServerStream } from "../project/server-events.ts";
import { MapImport } from "../elsewhere/map-import.ts";
import { newWorldTarget } from "../elsewhere/new-world-target.ts";
import { WorldMaking } from "./make-world.ts";
import { ShelfSession } from "./shelf.ts";

/** What the Shelf works with: all that the page loads before a world is opened. */
export function makeShelfParts() {
  const outbox = makeOutbox();
  const serverEvents = new ServerStream();
  const asked = makeAsked();
  const shelf = new ShelfSession(outbox, serverEvents);
  const open = (world: string): void => asked.openWorld.ask(world);
  const makeWorld = new WorldMaking(shelf, open);
  const mapImport = new MapImport(newWorldTarget(shelf, open));
  const parts = { mapImport, outbox, serverEvents, asked, shelf, makeWorld };
  return { ...parts, shelfCommands: shelfCommands(parts) };
}

/** The parts of a session that are there without an open world. */
export type ShelfParts = ReturnType<typeof makeShelfParts>;
