import type { DeletedWorlds } from "../api.ts";
import type { Services } from "../services/services.ts";
import type { Route } from "./route.ts";
import { deletedKey } from "./address-schemas.ts";
import { validate } from "./validate.ts";

/** `/deleted-worlds`: what was taken off the shelf. */
export function deletedWorldRoutes({ shelf, signals }: Pick<Services, "shelf" | "signals">): Route[] {
  return [
    {
      method: "get",
      path: "/deleted-worlds",
      operation: "listDeletedWorlds",
      summary: "Worlds that were taken off the shelf, the last one first",
      status: 200,
      answer: { json: "DeletedWorlds" },
      problems: [],
      handle: async (_req, res) => {
        res.json({ worlds: await shelf.deleted() } satisfies DeletedWorlds);
      },
    },
    {
      method: "post",
      path: "/deleted-worlds/{key}/restore",
      operation: "restoreDeletedWorld",
      summary: "Puts a deleted world back on the shelf",
      status: 200,
      answer: { json: "Restored" },
      problems: [404, 409],
      handle: async (req, res) => {
        res.json(await shelf.restore(Number(validate<{ key: string }>(deletedKey, req.params).key)));
        await signals.tell("shelf");
      },
    },
  ];
}
