import type { ServerResponse } from "node:http";
import path from "node:path";
import express from "express";
import expressStaticGzip from "express-static-gzip";
import type { Express } from "express";
import type { Knex } from "knex";
import type { Logger } from "pino";
import { pinoHttp } from "pino-http";
import type { Desk } from "./desk/desk.ts";
import { guard } from "./http/guard.ts";
import { problems } from "./http/problems.ts";
import { deletedWorldRoutes } from "./http/deleted-worlds.ts";
import { entryRoutes } from "./http/entries.ts";
import { Events } from "./http/events.ts";
import { importRoutes } from "./http/imports.ts";
import { openApi } from "./http/openapi.ts";
import { playtestRoutes } from "./http/playtests.ts";
import type { Route } from "./http/route.ts";
import { routerOf } from "./http/route.ts";
import { safeHeaders } from "./http/safe-headers.ts";
import { sheetRoutes } from "./http/sheets.ts";
import { worldRoutes } from "./http/worlds.ts";
import { proofRoutes } from "./http/proofs.ts";
import { revisionRoutes } from "./http/revisions.ts";
import { NotFoundError } from "./services/service-errors.ts";
import type { Services } from "./services/services.ts";

/** What the application is made of. */
export interface Dependencies {
  readonly db: Knex;
  readonly desk: Desk;
  readonly services: Services;
  readonly logger: Logger;
  readonly webFolder: string | null;
  /** Names under which it may be asked, without port. */
  readonly hosts: readonly string[];
}

/** The Express application; it does not listen. */
export function createApp({ db, desk, services, logger, webFolder, hosts }: Dependencies): Express {
  const app = express();
  app.disable("x-powered-by");
  app.use(
    pinoHttp({
      logger,
      customLogLevel: (_req, res, error) =>
        res.statusCode >= 500 && res.writableEnded ? "error" : error ? "debug" : "info",
    }),
  );
  app.use(safeHeaders());
  app.use(guard(hosts));
  app.use("/api", routerOf(apiRoutes({ db, desk, services, logger })));
  app.use("/api", (req) => {
    throw new NotFoundError("address", `/api${req.path}`);
  });
  if (webFolder !== null) servePage(app, webFolder);
  app.use(problems(logger));
  return app;
}

/** Every operation of the API. */
export function apiRoutes({
  db,
  desk,
  services,
  logger,
}: Pick<Dependencies, "db" | "desk" | "services" | "logger">): Route[] {
  const events = new Events(db, services.proofs, services.signals, logger);
  const routes = [
    healthRoute(db),
    ...worldRoutes(services, desk),
    ...revisionRoutes(services, desk),
    ...proofRoutes(services, desk, events),
    ...sheetRoutes(services, desk),
    ...entryRoutes(services),
    ...playtestRoutes(services),
    ...importRoutes(services),
    ...deletedWorldRoutes(services),
  ];
  routes.push(documentRoute(routes));
  return routes;
}

/** The OpenAPI document of all routes, itself among them. */
function documentRoute(routes: readonly Route[]): Route {
  return {
    method: "get",
    path: "/openapi.json",
    operation: "getOpenApi",
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
    operation: "getHealth",
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

/** The built page, packed as it was at the build: hashed files for a year, the page itself fresh, and for every address of the page. */
function servePage(app: Express, webFolder: string): void {
  const setHeaders = (res: ServerResponse, file: string): unknown =>
    res.setHeader(
      "Cache-Control",
      file.includes(`${path.sep}assets${path.sep}`) ? "public, max-age=31536000, immutable" : "no-cache",
    );
  app.use((req, _res, next) => {
    // Throws for a broken percent-sign.
    decodeURIComponent(req.path);
    next();
  });
  app.use(
    expressStaticGzip(webFolder, {
      enableBrotli: true,
      orderPreference: ["br", "gz"],
      index: false,
      serveStatic: { setHeaders },
    }),
  );
  app.get(/.*/, (req, res, next) => {
    // What has an ending is a file, and no area of the page.
    if (!req.accepts("html") || path.extname(req.path) !== "" || req.path.startsWith("/assets/")) {
      next(new NotFoundError("file", req.path));
      return;
    }
    res.setHeader("Cache-Control", "no-cache");
    res.sendFile("index.html", { root: webFolder });
  });
}
