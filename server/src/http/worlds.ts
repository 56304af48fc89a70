import type { Response } from "express";
import type { ShelfSummary, StaleBase, WorldList } from "../api.ts";
import type { Desk } from "../desk/desk.ts";
import type { Services } from "../services/services.ts";
import { logOf, worldOf } from "./addresses.ts";
import type { Route } from "./route.ts";
import { sendJson } from "./route.ts";
import { stepsQuery } from "./address-schemas.ts";
import { validate } from "./validate.ts";

/** `/worlds` and `/shelf`: parse, call the service, answer. */
export function worldRoutes(
  { shelf, worlds, signals }: Pick<Services, "shelf" | "worlds" | "signals">,
  desk: Desk,
): Route[] {
  return [
    {
      method: "get",
      path: "/worlds",
      operation: "listWorlds",
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
      path: "/shelf",
      operation: "getShelf",
      summary:
        "All worlds on the shelf with what their rooms are called and what each log comes to, as far as that is known",
      status: 200,
      answer: { json: "ShelfSummary" },
      problems: [],
      handle: async (_req, res) => {
        res.json({ worlds: await shelf.summary() } satisfies ShelfSummary);
      },
    },
    {
      method: "get",
      path: "/worlds/{world}",
      operation: "getWorld",
      summary: "A world with its logs at its newest revision",
      status: 200,
      answer: { json: "WorldRevision" },
      problems: [404],
      handle: async (req, res) => sendJson(res, await desk.ask("open", { world: worldOf(req) })),
    },
    {
      method: "get",
      path: "/worlds/{world}/steps",
      operation: "getSteps",
      summary: "The steps since a revision: what somebody who has that one must do to have the newest",
      query: ["since"],
      status: 200,
      answer: { json: "StaleBase" },
      problems: [404],
      handle: async (req, res) => {
        const { since } = validate<{ since: string }>(stepsQuery, req.query);
        res.json((await shelf.since(worldOf(req), Number(since))) satisfies StaleBase);
      },
    },
    {
      method: "delete",
      path: "/worlds/{world}",
      operation: "deleteWorld",
      summary: "Takes a world off the shelf; it can be restored",
      status: 200,
      answer: { json: "DeletedWorld" },
      problems: [404],
      handle: async (req, res) => {
        res.json(await shelf.remove(worldOf(req)));
        await signals.tell("shelf");
      },
    },
    {
      method: "post",
      path: "/worlds/{world}/copy",
      operation: "copyWorld",
      summary: "Copies a world with its logs and sheets under a new id",
      status: 201,
      answer: { json: "NewWorld" },
      problems: [404, 409],
      handle: async (req, res) => {
        const made = await worlds.copy(worldOf(req));
        res.status(201).location(`/api/worlds/${made.id}`).json(made);
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/world.json",
      operation: "getWorldFile",
      summary: "The world as a file",
      status: 200,
      answer: { media: "application/json" },
      problems: [404],
      handle: async (req, res) => {
        const world = worldOf(req);
        asFile(res, `${world}.world.json`, "application/json", await desk.ask("worldFile", { world }));
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/bundle.zip",
      operation: "getBundle",
      summary: "The world with its logs, sheets and journal as a bundle",
      status: 200,
      answer: { media: "application/zip" },
      problems: [404],
      handle: async (req, res) => {
        const world = worldOf(req);
        asFile(res, `${world}.keenpebble.zip`, "application/zip", await desk.ask("bundle", { world }));
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/logs/{log}",
      operation: "getLogFile",
      summary: "An input log as a file",
      status: 200,
      answer: { media: "text/plain" },
      problems: [404],
      handle: async (req, res) => {
        const { world, log } = logOf(req);
        asFile(res, `${log}.inputs`, "text/plain", Buffer.from(await shelf.log(world, log)));
      },
    },
  ];
}

/** Sends a file to be kept. */
export function asFile(res: Response, name: string, media: string, bytes: Uint8Array): void {
  // The name's ending would choose a type of its own.
  res
    .attachment(name)
    .type(media)
    .send(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
}
