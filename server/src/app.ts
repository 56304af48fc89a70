import path from "node:path";
import express from "express";
import type { Express } from "express";
import helmet from "helmet";
import type { Knex } from "knex";
import type { Logger } from "pino";
import { pinoHttp } from "pino-http";
import { guard } from "./http/guard.ts";
import { problems } from "./http/problems.ts";
import { worldsRouter } from "./http/worlds.ts";
import { NotFoundError } from "./services/service-errors.ts";
import { Shelf } from "./services/shelf.ts";

/** What the application is made of. */
export interface Dependencies {
  readonly db: Knex;
  readonly logger: Logger;
  readonly webFolder: string | null;
  /** Names under which it may be asked, without port. */
  readonly hosts: readonly string[];
}

/** The Express application; it does not listen. */
export function createApp({ db, logger, webFolder, hosts }: Dependencies): Express {
  const app = express();
  app.disable("x-powered-by");
  app.use(pinoHttp({ logger }));
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          styleSrc: ["'self'"],
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
  app.get("/api/health", async (_req, res) => {
    await db.raw("select 1");
    res.json({ ok: true });
  });
  app.use("/api/worlds", worldsRouter(new Shelf(db)));
  app.use("/api", (req) => {
    throw new NotFoundError("address", `/api${req.path}`);
  });
  if (webFolder !== null) servePage(app, webFolder);
  app.use(problems(logger));
  return app;
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
