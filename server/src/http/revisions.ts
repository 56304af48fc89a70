import type { NewRevision, RevisionNote } from "../api.ts";
import type { Journal } from "../services/journal.ts";
import { journalText } from "../services/journal-text.ts";
import type { Shelf } from "../services/shelf.ts";
import { logOf, revisionOf, worldOf } from "./addresses.ts";
import type { Route } from "./route.ts";
import { newRevision, revisionNote, revisionsQuery } from "./schemas.ts";
import { validate } from "./validate.ts";

/** `/worlds/{world}/revisions`: what was changed, why, and what it did to the proofs. */
export function revisionRoutes(shelf: Shelf, journal: Journal): Route[] {
  return [
    {
      method: "get",
      path: "/worlds/{world}/revisions",
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
      summary: "Stores a batch of steps as the next revision, whole or not at all",
      body: { schema: "NewRevision" },
      status: 201,
      answer: { json: "StoredRevision" },
      problems: [404, 409, 413, 422],
      handle: async (req, res) => {
        const world = worldOf(req);
        res.status(201).json(await shelf.store(world, validate<NewRevision>(newRevision, req.body)));
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/revisions/{revision}",
      summary: "A world with its logs as it was at a revision",
      status: 200,
      answer: { json: "WorldRevision" },
      problems: [404],
      handle: async (req, res) => {
        const { world, revision } = revisionOf(req);
        res.json(await shelf.openAt(world, revision));
      },
    },
    {
      method: "put",
      path: "/worlds/{world}/revisions/{revision}/note",
      summary: "Writes what somebody says of a revision",
      body: { schema: "RevisionNote" },
      status: 200,
      answer: { json: "RevisionNote" },
      problems: [404],
      handle: async (req, res) => {
        const { world, revision } = revisionOf(req);
        const { note } = validate<RevisionNote>(revisionNote, req.body);
        await shelf.note(world, revision, note);
        res.json({ note: note.trim() } satisfies RevisionNote);
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/logs/{log}/accepted",
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
      summary: "The journal as Markdown",
      status: 200,
      answer: { media: "text/markdown" },
      problems: [404],
      handle: async (req, res) => {
        const { row, project } = await shelf.project(worldOf(req));
        res.attachment(`${row.slug}.journal.md`).type("text/markdown").send(journalText(project.world.name, await shelf.revisions(row)));
      },
    },
  ];
}
