import type { Request } from "express";
import type { ChangedEntry, NewEntry } from "../api.ts";
import type { Entries } from "../services/entries.ts";
import type { Services } from "../services/services.ts";
import { entryAddress } from "./address-schemas.ts";
import { worldOf } from "./addresses.ts";
import { SCHEMAS } from "./api-schemas.ts";
import type { Route } from "./route.ts";
import { jsonOf } from "./route.ts";
import { validate } from "./validate.ts";

/** The world and the entry that an address names. */
function entryOf(req: Request): { readonly world: string; readonly id: number } {
  const { entry, world } = validate<{ world: string; entry: string }>(entryAddress, req.params);
  return { world, id: Number(entry) };
}

/** `/worlds/{world}/entries`: what people write into the Journal by hand. */
export function entryRoutes({ entries }: Pick<Services, "entries">): Route[] {
  return [
    ...keptRoutes(entries),
    {
      method: "post",
      path: "/worlds/{world}/entries",
      operation: "writeEntry",
      summary: "Writes a reason, a fault or an opinion into the Journal, as of the newest revision",
      body: { schema: "NewEntry", max: 2 * 1024 * 1024 },
      often: 100,
      status: 201,
      answer: { json: "JournalEntry" },
      problems: [404, 422],
      handle: async (req, res) => {
        res.status(201).json(await entries.write(worldOf(req), jsonOf<NewEntry>(req, SCHEMAS.NewEntry)));
      },
    },
    {
      method: "put",
      path: "/worlds/{world}/entries/{entry}",
      operation: "changeEntry",
      summary: "Writes another text in the place of an entry's",
      body: { schema: "ChangedEntry", max: 64 * 1024 },
      status: 200,
      answer: { json: "JournalEntry" },
      problems: [404],
      handle: async (req, res) => {
        const { id, world } = entryOf(req);
        res.json(await entries.change(world, id, jsonOf<ChangedEntry>(req, SCHEMAS.ChangedEntry).text));
      },
    },
  ];
}

/** What is done with an entry that is there. */
function keptRoutes(entries: Entries): Route[] {
  return [
    {
      method: "delete",
      path: "/worlds/{world}/entries/{entry}",
      operation: "deleteEntry",
      summary: "Deletes an entry, and says what it was",
      status: 200,
      answer: { json: "JournalEntry" },
      problems: [404],
      handle: async (req, res) => {
        const { id, world } = entryOf(req);
        res.json(await entries.remove(world, id));
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/entries/{entry}/picture",
      operation: "getEntryPicture",
      summary: "The picture of an entry",
      status: 200,
      answer: { media: "image/png" },
      problems: [404],
      handle: async (req, res) => {
        const { id, world } = entryOf(req);
        res
          .type("image/png")
          .set("Cache-Control", "no-cache")
          .send(await entries.picture(world, id));
      },
    },
  ];
}
