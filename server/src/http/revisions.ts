import type { RevisionNote } from "../api.ts";
import type { Desk } from "../desk/desk.ts";
import type { Services } from "../services/services.ts";
import { logOf, revisionOf, worldOf } from "./addresses.ts";
import type { Route } from "./route.ts";
import { bytesOf, jsonOf, sendJson } from "./route.ts";
import { SCHEMAS } from "./api-schemas.ts";
import { revisionsQuery } from "./address-schemas.ts";
import { validate } from "./validate.ts";

/** `/worlds/{world}/revisions`: what was changed, why, and what it did to the proofs. */
export function revisionRoutes(
  { shelf, worlds, journal }: Pick<Services, "shelf" | "worlds" | "journal">,
  desk: Desk,
): Route[] {
  return [
    {
      method: "get",
      path: "/worlds/{world}/revisions",
      operation: "listRevisions",
      summary: "The revisions of a world, the newest first, with what the proofs said",
      query: ["before"],
      status: 200,
      answer: { json: "RevisionList" },
      problems: [404],
      handle: async (req, res) => {
        const { before } = validate<{ before?: string }>(revisionsQuery, req.query);
        res.json(await journal.list(worldOf(req), before === undefined ? null : Number(before)));
      },
    },
    {
      method: "post",
      path: "/worlds/{world}/revisions",
      operation: "storeRevision",
      summary: "Stores a batch of steps as the next revision, whole or not at all",
      body: { schema: "NewRevision", max: 40 * 1024 * 1024 },
      status: 201,
      answer: { json: "StoredRevision" },
      problems: [404, 409, 422],
      handle: async (req, res) => {
        res.status(201).json(await worlds.store(worldOf(req), bytesOf(req)));
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/revisions/{revision}",
      operation: "getRevision",
      summary: "A world with its logs as it was at a revision",
      status: 200,
      answer: { json: "WorldRevision" },
      problems: [404],
      handle: async (req, res) => sendJson(res, await desk.ask("open", revisionOf(req))),
    },
    {
      method: "put",
      path: "/worlds/{world}/revisions/{revision}/note",
      operation: "setRevisionNote",
      summary: "Writes what somebody says of a revision",
      body: { schema: "RevisionNote", max: 64 * 1024 },
      status: 200,
      answer: { json: "RevisionNote" },
      problems: [404],
      handle: async (req, res) => {
        const { world, revision } = revisionOf(req);
        const { note } = jsonOf<RevisionNote>(req, SCHEMAS.RevisionNote);
        await shelf.note(world, revision, note);
        res.json({ note: note.trim() } satisfies RevisionNote);
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/logs/{log}/accepted",
      operation: "findAcceptedRevision",
      summary: "The revision at which the walk that a log accepts was accepted",
      status: 200,
      answer: { json: "AcceptedAt" },
      problems: [404],
      handle: async (req, res) => {
        const { world, log } = logOf(req);
        res.json(await journal.acceptedAt(world, log));
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/journal.md",
      operation: "getJournalFile",
      summary: "The journal as Markdown",
      status: 200,
      answer: { media: "text/markdown" },
      problems: [404],
      handle: async (req, res) => {
        const world = worldOf(req);
        const text = await journal.text(world);
        res.attachment(`${world}.journal.md`).type("text/markdown").send(text);
      },
    },
  ];
}
