import type { Request, Response } from "express";
import { junitXml } from "@keen-pebble/core/reports";
import type { NewSearch } from "../api.ts";
import type { Proofs } from "../services/proofs.ts";
import type { Searches } from "../services/searches.ts";
import type { Shelf } from "../services/shelf.ts";
import { searchOf, worldOf } from "./addresses.ts";
import type { Route } from "./route.ts";
import { newSearch } from "./schemas.ts";
import { validate } from "./validate.ts";
import type { WorldEvents } from "./world-events.ts";

/** `/worlds/{world}/proofs`, `/searches` and `/events`: logs proven by the server, and word of how far it is. */
export function proofRoutes(shelf: Shelf, proofs: Proofs, searches: Searches, events: WorldEvents): Route[] {
  return [
    {
      method: "get",
      path: "/worlds/{world}/proofs",
      summary: "How the proofs of the newest revision stand, and what the last runs said",
      status: 200,
      answer: { json: "WorldProofs" },
      problems: [404],
      handle: async (req, res) => void res.json(await proofs.ofWorld(worldOf(req))),
    },
    {
      method: "post",
      path: "/worlds/{world}/proofs",
      summary: "Asks for the proofs of the newest revision; what is known is not run again",
      status: 202,
      answer: { json: "ProofState" },
      problems: [404],
      handle: async (req, res) => void res.status(202).json(await proofs.request(worldOf(req))),
    },
    {
      method: "delete",
      path: "/worlds/{world}/proofs",
      summary: "Takes back the proofs that are under way",
      status: 200,
      answer: { json: "ProofState" },
      problems: [404],
      handle: async (req, res) => void res.json(await proofs.cancel(worldOf(req))),
    },
    {
      method: "get",
      path: "/worlds/{world}/outcomes",
      summary: "What each log comes to at the newest revision; waits for what is not known yet",
      status: 200,
      answer: { json: "WorldOutcomes" },
      problems: [404],
      handle: async (req, res) => void res.json(await proofs.outcomes(worldOf(req))),
    },
    {
      method: "get",
      path: "/worlds/{world}/junit.xml",
      summary: "What each log comes to, as JUnit XML",
      status: 200,
      answer: { media: "application/xml" },
      problems: [404],
      handle: async (req, res) => {
        const id = worldOf(req);
        const { outcomes } = await proofs.outcomes(id);
        const { project } = await shelf.project(id);
        const reports = outcomes.map(({ log, refused, frames, checks }) => (refused === null ? { log: `${log}.inputs`, frames: frames ?? 0, checks } : { log: `${log}.inputs`, error: refused }));
        res.attachment(`${id}.junit.xml`).type("application/xml").send(junitXml(reports, project.world.frameRate));
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/events",
      summary: "How proofs and searches get on, as server-sent events",
      status: 200,
      answer: { media: "text/event-stream" },
      problems: [404],
      handle: async (req: Request, res: Response) => events.follow(await shelf.row(worldOf(req)), req, res),
    },
    {
      method: "post",
      path: "/worlds/{world}/searches",
      summary: "Looks for the revision that broke a check of a log",
      body: { schema: "NewSearch" },
      status: 202,
      answer: { json: "BreakSearch" },
      problems: [404, 422],
      handle: async (req, res) => {
        const { log, check } = validate<NewSearch>(newSearch, req.body);
        res.status(202).json(await searches.begin(worldOf(req), log, check));
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/searches/{search}",
      summary: "How a search stands",
      status: 200,
      answer: { json: "BreakSearch" },
      problems: [404],
      handle: async (req, res) => {
        const { world: id, search } = searchOf(req);
        res.json(await searches.find(id, search));
      },
    },
    {
      method: "delete",
      path: "/worlds/{world}/searches/{search}",
      summary: "Gives a search up",
      status: 200,
      answer: { json: "BreakSearch" },
      problems: [404],
      handle: async (req, res) => {
        const { world: id, search } = searchOf(req);
        res.json(await searches.cancel(id, search));
      },
    },
  ];
}
