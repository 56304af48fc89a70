import type { Request, Response } from "express";
import type { NewSearch, WorldOutcomes } from "../api.ts";
import type { Desk } from "../desk/desk.ts";
import type { Services } from "../services/services.ts";
import { searchOf, worldOf } from "./addresses.ts";
import type { Events } from "./events.ts";
import type { Route } from "./route.ts";
import { jsonOf } from "./route.ts";
import { SCHEMAS } from "./api-schemas.ts";
import { asFile } from "./worlds.ts";

/** `/worlds/{world}/proofs`, `/searches`, and `/events`: logs proven by the server, and word of how far it is. */
export function proofRoutes(
  { proofs, searches }: Pick<Services, "proofs" | "searches">,
  desk: Desk,
  events: Events,
): Route[] {
  return [
    {
      method: "get",
      path: "/worlds/{world}/proofs",
      operation: "getProofs",
      summary: "How the proofs of the newest revision stand, and what the last runs said",
      status: 200,
      answer: { json: "WorldProofs" },
      problems: [404],
      handle: async (req, res) => void res.json(await proofs.ofWorld(worldOf(req))),
    },
    {
      method: "post",
      path: "/worlds/{world}/proofs",
      operation: "requestProofs",
      summary: "Asks for the proofs of the newest revision; what is known is not run again",
      status: 202,
      answer: { json: "ProofState" },
      problems: [404],
      handle: async (req, res) => void res.status(202).json(await proofs.request(worldOf(req))),
    },
    {
      method: "delete",
      path: "/worlds/{world}/proofs",
      operation: "cancelProofs",
      summary: "Takes back the proofs that are under way",
      status: 200,
      answer: { json: "ProofState" },
      problems: [404],
      handle: async (req, res) => void res.json(await proofs.cancel(worldOf(req))),
    },
    {
      method: "get",
      path: "/worlds/{world}/outcomes",
      operation: "getOutcomes",
      summary:
        "What each log and each reach check comes to at the newest revision; waits a while for what is not known yet, and names what was still not run then",
      status: 200,
      unfinished: true,
      answer: { json: "WorldOutcomes" },
      problems: [404],
      handle: async (req, res) => {
        const id = worldOf(req);
        const { reach, ...outcomes } = await proofs.outcomes(id);
        const isWhole = outcomes.missing.length === 0 && reach !== null;
        res.status(isWhole ? 200 : 202).json({ ...outcomes, reach: reach ?? [] } satisfies WorldOutcomes);
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/junit.xml",
      operation: "getJUnitFile",
      summary: "What each log comes to, as JUnit XML",
      status: 200,
      answer: { media: "application/xml" },
      problems: [404],
      handle: async (req, res) => {
        const id = worldOf(req);
        const { outcomes, missing, reach } = await proofs.outcomes(id);
        const known = outcomes.map(({ log, refused, frames, checks }) =>
          refused === null
            ? { log: `${log}.inputs`, frames: frames ?? 0, checks }
            : { log: `${log}.inputs`, error: refused },
        );
        const reports = [
          ...known,
          ...missing.map((log) => ({ log: `${log}.inputs`, error: "was not run yet; ask again" })),
        ].sort((a, b) => (a.log < b.log ? -1 : 1));
        asFile(res, `${id}.junit.xml`, "application/xml", await desk.ask("junit", { world: id, reports, reach }));
      },
    },
    {
      method: "get",
      path: "/events",
      operation: "followEvents",
      summary: "What happens to all worlds, as server-sent events: new revisions, and how proofs and searches get on",
      status: 200,
      answer: { media: "text/event-stream" },
      problems: [],
      often: 300,
      handle: (req: Request, res: Response) => events.follow(req, res),
    },
    {
      method: "post",
      path: "/worlds/{world}/searches",
      operation: "beginSearch",
      summary: "Looks for the revision that broke a check of a log",
      body: { schema: "NewSearch", max: 64 * 1024 },
      status: 202,
      answer: { json: "BreakSearch" },
      problems: [404, 422],
      handle: async (req, res) => {
        const { log, check } = jsonOf<NewSearch>(req, SCHEMAS.NewSearch);
        res.status(202).json(await searches.begin(worldOf(req), log, check));
      },
    },
    {
      method: "get",
      path: "/worlds/{world}/searches/{search}",
      operation: "getSearch",
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
      operation: "cancelSearch",
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
