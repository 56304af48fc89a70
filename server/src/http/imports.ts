import type { Services } from "../services/services.ts";
import type { Route } from "./route.ts";
import { bytesOf } from "./route.ts";

/** What a bundle is sent as. */
const ZIP = "application/zip";

/** `/imports`: files that come in. */
export function importRoutes({ worlds }: Pick<Services, "worlds">): Route[] {
  return [
    {
      method: "post",
      path: "/imports",
      operation: "importFiles",
      summary: "Brings in a world file, logs, or a bundle: a new world, or one revision of a world that is here",
      body: { schema: "ImportedFiles", media: [ZIP], max: 64 * 1024 * 1024 },
      status: 200,
      answer: { json: "Imported" },
      problems: [409, 422],
      handle: async (req, res) => {
        res.json(await worlds.bringIn(req.is(ZIP) ? "importBundle" : "importFiles", bytesOf(req)));
      },
    },
  ];
}
