import { Router } from "express";
import type { NewRevision, NewWorld, WorldList } from "../api.ts";
import { runLog } from "../services/log-runs.ts";
import type { Shelf } from "../services/shelf.ts";
import { addressIds, newRevision, newWorld } from "./schemas.ts";
import { validate } from "./validate.ts";

/** `/api/worlds`: parse, call the service, answer. */
export function worldsRouter(shelf: Shelf): Router {
  const router = Router();

  router.get("/", async (_req, res) => {
    res.json({ worlds: await shelf.list() } satisfies WorldList);
  });

  router.post("/", async (req, res) => {
    const stored = await shelf.add(validate<NewWorld>(newWorld, req.body), "brought in from files");
    res.status(201).location(`/api/worlds/${stored.id}`).json(stored);
  });

  router.get("/:world", async (req, res) => {
    const { world } = validate<{ world: string }>(addressIds, req.params);
    res.json(await shelf.open(world));
  });

  router.post("/:world/revisions", async (req, res) => {
    const { world } = validate<{ world: string }>(addressIds, req.params);
    res.status(201).json(await shelf.store(world, validate<NewRevision>(newRevision, req.body)));
  });

  router.get("/:world/logs/:log/run", async (req, res) => {
    const { world, log } = validate<{ world: string; log: string }>(addressIds, req.params);
    res.json(await runLog(shelf, world, log));
  });

  return router;
}
