import type { Response } from "express";
import { writeWorld } from "@keen-pebble/core";
import type { WorldList } from "../api.ts";
import { writeBundle } from "../services/bundle-writer.ts";
import { journalText } from "../services/journal-text.ts";
import { NotFoundError } from "../services/service-errors.ts";
import type { Shelf } from "../services/shelf.ts";
import { logOf, worldOf } from "./addresses.ts";
import type { Route } from "./route.ts";

/** `/worlds`: parse, call the service, answer. */
export function worldRoutes(shelf: Shelf): Route[] {
  return [
    {
      method: "get",
      path: "/worlds",
      summary: "All worlds on the shelf, the one saved last first",
      status: 200,
      answer: { json: "WorldList" },
      problems: [],
      handle: async (_req, res) => {
        res.json({ worlds: await shelf.list() } satisfies WorldList);
      },
    },
    {
      method: "get",
      path: "/worlds/{world}",
      summary: "A world with its logs at its newest revision",
      status: 200,
      answer: { json: "WorldRevision" },
      problems: [404],
      handle: async (req, res) => {
        res.json(await shelf.open(worldOf(req)));
      },
    },
    {
      method: "delete",
      path: "/worlds/{world}",
      summary: "Takes a world off the shelf; it can be restored",
      status: 200,
      answer: { json: "DeletedWorld" },
      problems: [404],
      handle: async (req, res) => {
        res.json(await shelf.remove(worldOf(req)));
      },
    },
    {
      method: "post",
      path: "/worlds/{world}/copy",
      summary: "Copies a world with its logs and sheets under a new id",
      status: 201,
      answer: { json: "NewWorld" },
      problems: [404, 409],
      handle: async (req, res) => {
        const made = await shelf.copy(worldOf(req));
        res.status(201).location(`/api/worlds/${made.id}`).json(made);
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/world.json",
      summary: "The world as a file",
      status: 200,
      answer: { media: "application/json" },
      problems: [404],
      handle: async (req, res) => {
        const { row, project } = await shelf.project(worldOf(req));
        asFile(res, `${row.slug}.world.json`, "application/json").send(writeWorld(project.world));
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/bundle.zip",
      summary: "The world with its logs, sheets and journal as a bundle",
      status: 200,
      answer: { media: "application/zip" },
      problems: [404],
      handle: async (req, res) => {
        const { row, project } = await shelf.project(worldOf(req));
        const journal = journalText(project.world.name, await shelf.revisions(row));
        const bundle = writeBundle({ world: writeWorld(project.world), logs: project.logs, sheets: await shelf.sheets(row), journal });
        asFile(res, `${row.slug}.keenpebble.zip`, "application/zip").send(bundle);
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/logs/{log}",
      summary: "An input log as a file",
      status: 200,
      answer: { media: "text/plain" },
      problems: [404],
      handle: async (req, res) => {
        const { world, log } = logOf(req);
        const text = (await shelf.project(world)).project.logs[log];
        if (text === undefined) throw new NotFoundError("log", log);
        asFile(res, `${log}.inputs`, "text/plain").send(text);
      },
    },
  ];
}

function asFile(res: Response, name: string, media: string): Response {
  // The name's ending would choose a type of its own.
  return res.attachment(name).type(media);
}
