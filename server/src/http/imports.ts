import express from "express";
import type { ImportedFiles } from "../api.ts";
import { readBundle } from "../services/bundle-reader.ts";
import type { Imports } from "../services/imports.ts";
import type { Route } from "./route.ts";
import { importedFiles } from "./schemas.ts";
import { validate } from "./validate.ts";

/** What a bundle is sent as. */
const ZIP = "application/zip";

/** Reads the bytes of a bundle that is sent. */
export const bundleBody = express.raw({ type: ZIP, limit: "64mb" });

/** `/imports`: files that come in. */
export function importRoutes(imports: Imports): Route[] {
  return [
    {
      method: "post",
      path: "/imports",
      summary: "Brings in a world file, logs, or a bundle: a new world, or one revision of a world that is here",
      body: { schema: "ImportedFiles", media: [ZIP] },
      status: 200,
      answer: { json: "Imported" },
      problems: [409, 413, 422],
      handle: async (req, res) => {
        const { body } = req as { body: unknown };
        const imported = Buffer.isBuffer(body) ? await imports.bundle(await readBundle(body)) : await imports.files(validate<ImportedFiles>(importedFiles, body));
        res.json(imported);
      },
    },
  ];
}
