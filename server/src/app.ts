import path from "node:path";
import express from "express";
import type { Express } from "express";
import helmet from "helmet";
import type { Knex } from "knex";
import type { Logger } from "pino";
import { pinoHttp } from "pino-http";
import { guard } from "./http/guard.ts";
import { problems } from "./http/problems.ts";
import { deletedWorldRoutes } from "./http/deleted-worlds.ts";
import { bundleBody, importRoutes } from "./http/imports.ts";
import { openApi } from "./http/openapi.ts";
import type { Route } from "./http/route.ts";
import { routerOf } from "./http/route.ts";
import { pngBody, sheetRoutes } from "./http/sheets.ts";
import { WorldEvents } from "./http/world-events.ts";
import { worldRoutes } from "./http/worlds.ts";
import { proofRoutes } from "./http/proofs.ts";
import { revisionRoutes } from "./http/revisions.ts";
import { NotFoundError } from "./services/service-errors.ts";
import type { Services } from "./services/services.ts";

/** What the application is made of. */
export interface Dependencies {
  readonly db: Knex;
  readonly services: Services;
  readonly logger: Logger;
  readonly webFolder: string | null;
  /** Names under which it may be asked, without port. */
  readonly hosts: readonly string[];
}

/** The Express application; it does not listen. */
export function createApp({ db, services, logger, webFolder, hosts }: Dependencies): Express {
  const app = express();
  app.disable("x-powered-by");
  app.use(pinoHttp({ logger }));
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          styleSrc: ["'self'"],
          // The charts set inline styles on their elements; style elements stay refused.
          styleSrcAttr: ["'unsafe-inline'"],
          imgSrc: ["'self'", "data:", "blob:"],
          fontSrc: ["'self'"],
          workerSrc: ["'self'"],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(guard(hosts));
  app.use("/api", express.json({ limit: "40mb" }));
  app.use("/api", bundleBody, pngBody);
  app.use("/api", routerOf(apiRoutes(db, services, logger)));
  app.use("/api", (req) => {
    throw new NotFoundError("address", `/api${req.path}`);
  });
  if (webFolder !== null) servePage(app, webFolder);
  app.use(problems(logger));
  return app;
}

/** Every operation of the API. */
export function apiRoutes(db: Knex, { shelf, imports, proofs, searches, journal, signals }: Services, logger: Logger): Route[] {
  const events = new WorldEvents(proofs, signals, logger);
  const routes = [healthRoute(db), ...worldRoutes(shelf), ...revisionRoutes(shelf, journal), ...proofRoutes(shelf, proofs, searches, events), ...sheetRoutes(shelf), ...importRoutes(imports), ...deletedWorldRoutes(shelf)];
  routes.push(documentRoute(routes));
  return routes;
}

/** The OpenAPI document of all routes, itself among them. */
function documentRoute(routes: readonly Route[]): Route {
  return {
    method: "get",
    path: "/openapi.json",
    summary: "This document",
    status: 200,
    answer: { media: "application/json" },
    problems: [],
    handle: async (_req, res) => {
      res.json(openApi(routes));
    },
  };
}

function healthRoute(db: Knex): Route {
  return {
    method: "get",
    path: "/health",
    summary: "Whether server and database answer",
    status: 200,
    answer: { json: "Health" },
    problems: [],
    handle: async (_req, res) => {
      await db.raw("select 1");
      res.json({ ok: true });
    },
  };
}

/** The built page: hashed files for a year, the page itself fresh, and for every address of the page. */
function servePage(app: Express, webFolder: string): void {
  app.use(express.static(webFolder, { index: false, setHeaders: (res, file) => res.setHeader("Cache-Control", file.includes(`${path.sep}assets${path.sep}`) ? "public, max-age=31536000, immutable" : "no-cache") }));
  app.get(/.*/, (req, res, next) => {
    if (!req.accepts("html")) {
      next(new NotFoundError("file", req.path));
      return;
    }
    res.setHeader("Cache-Control", "no-cache");
    res.sendFile("index.html", { root: webFolder });
  });
}
