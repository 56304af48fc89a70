import { LIMITS } from "@keen-pebble/core/world";
import type { Desk } from "../desk/desk.ts";
import { NotFoundError } from "../services/service-errors.ts";
import type { Services } from "../services/services.ts";
import type { Route } from "./route.ts";
import { bytesOf } from "./route.ts";
import { sheetAddress } from "./address-schemas.ts";
import { validate } from "./validate.ts";

const PNG = "image/png";

/** `/worlds/{world}/sheets`: pictures of image sheets. */
export function sheetRoutes({ shelf }: Pick<Services, "shelf">, desk: Desk): Route[] {
  const address = (params: unknown) => validate<{ world: string; file: string }>(sheetAddress, params);
  return [
    {
      method: "put",
      path: "/worlds/{world}/sheets/{file}",
      operation: "putSheet",
      summary: "Stores the picture of an image sheet",
      body: { media: [PNG], max: LIMITS.fileBytes },
      status: 200,
      answer: { json: "StoredSheet" },
      problems: [404, 422],
      handle: async (req, res) => {
        const { world, file } = address(req.params);
        res.json(await desk.ask("putSheet", { world, file, png: bytesOf(req) }));
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/sheets/{file}",
      operation: "getSheet",
      summary: "The picture of an image sheet",
      status: 200,
      answer: { media: PNG },
      problems: [404],
      handle: async (req, res) => {
        const { world, file } = address(req.params);
        const png = await shelf.sheet(world, file);
        if (png === null) throw new NotFoundError("sheet", file);
        res.type(PNG).set("Cache-Control", "no-cache").send(png);
      },
    },
  ];
}
