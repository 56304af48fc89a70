import express from "express";
import { LIMITS, RefusedError } from "@keen-pebble/core";
import { readPng } from "@keen-pebble/core/reading";
import { NotFoundError } from "../services/service-errors.ts";
import type { Shelf } from "../services/shelf.ts";
import type { Route } from "./route.ts";
import { sheetAddress } from "./schemas.ts";
import { validate } from "./validate.ts";

const PNG = "image/png";

/** Reads the bytes of a picture that is sent. */
export const pngBody = express.raw({ type: PNG, limit: LIMITS.fileBytes });

/** Largest width and height of an image sheet, in px. */
const MOST_SIDE = 4096;

/** `/worlds/{world}/sheets`: pictures of image sheets. */
export function sheetRoutes(shelf: Shelf): Route[] {
  const address = (params: unknown) => validate<{ world: string; file: string }>(sheetAddress, params);
  return [
    {
      method: "put",
      path: "/worlds/{world}/sheets/{file}",
      summary: "Stores the picture of an image sheet",
      body: { media: [PNG] },
      status: 200,
      answer: { json: "StoredSheet" },
      problems: [404, 413, 422],
      handle: async (req, res) => {
        const { world, file } = address(req.params);
        const { body } = req as { body: unknown };
        if (!Buffer.isBuffer(body)) throw new RefusedError(file, [{ place: "", line: null, column: null, message: `expected a PNG, sent as ${PNG}` }]);
        const { width, height } = readPng(body, MOST_SIDE, file);
        await shelf.putSheet(world, file, body);
        res.json({ file, width, height });
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/sheets/{file}",
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
