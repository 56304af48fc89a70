import path from "node:path";
import express from "express";
import type { Express, Request, RequestHandler } from "express";
import { rateLimit } from "express-rate-limit";
import expressStaticGzip from "express-static-gzip";
import type { Logger } from "pino";
import { fileNameSchema } from "../http/address-schemas.ts";
import { sameOrigin } from "../http/guard.ts";
import { problems } from "../http/problems.ts";
import { TooManyRequestsError, bytesOf, sendJson } from "../http/route.ts";
import { safeHeaders } from "../http/safe-headers.ts";
import { validate } from "../http/validate.ts";
import type { Playtests } from "../services/playtests.ts";
import { TOKEN_PATTERN } from "../services/playtests.ts";
import { NotFoundError } from "../services/service-errors.ts";

/** How often things may be asked for a minute: by one address, and by all together what costs more. */
export interface PlayRates {
  readonly requests: number;
  readonly games: number;
  readonly allGames: number;
  readonly plays: number;
  readonly allPlays: number;
}

export const PLAY_RATES: PlayRates = { requests: 300, games: 20, allGames: 100, plays: 6, allPlays: 30 };
const WINDOW_MS = 60_000;
/** Of a play: ten minutes in which each frame is another, and an opinion. */
const MOST_BYTES = 1024 * 1024 + 64 * 1024;

/**
 * What is served to those who play a world from outside, on an address of its own: the page, the world of a link that is
 * on with its sheets, and one act, sending a play. Nothing else of the server can be reached there.
 * @param pageFolder the built page
 */
export function createPlayApp(
  playtests: Playtests,
  pageFolder: string,
  logger: Logger,
  rates: PlayRates = PLAY_RATES,
): Express {
  const app = express();
  app.disable("x-powered-by");
  app.use(safeHeaders(), atMost(rates.requests), sameOrigin);
  app.use(
    "/assets",
    expressStaticGzip(path.join(pageFolder, "assets"), {
      enableBrotli: true,
      orderPreference: ["br", "gz"],
      index: false,
      serveStatic: {
        fallthrough: false,
        setHeaders: (res) => res.setHeader("Cache-Control", "public, max-age=31536000, immutable"),
      },
    }),
  );
  app.get("/play/:token", async (req, res) => {
    await playtests.ensure(tokenOf(req));
    res.set("Cache-Control", "no-cache").sendFile("play.html", { root: pageFolder });
  });
  app.get("/play/:token/game", atMost(rates.games), atMost(rates.allGames, "all"), async (req, res) => {
    sendJson(res.set("Cache-Control", "no-cache"), await playtests.game(tokenOf(req)));
  });
  app.get("/play/:token/sheets/:file", async (req, res) => {
    const file = validate<string>(fileNameSchema, req.params.file);
    res
      .type("image/png")
      .set("Cache-Control", "no-cache")
      .send(await playtests.sheet(tokenOf(req), file));
  });
  app.post(
    "/play/:token/plays",
    atMost(rates.plays),
    atMost(rates.allPlays, "all"),
    // Nothing is read for a link that there is not.
    async (req, _res, next) => {
      await playtests.ensure(tokenOf(req));
      next();
    },
    express.raw({ type: "application/json", limit: MOST_BYTES }),
    async (req, res) => {
      res.status(201).json(await playtests.receive(tokenOf(req), bytesOf(req)));
    },
  );
  app.use((req) => {
    throw new NotFoundError("page", req.path);
  });
  app.use(problems(logger));
  return app;
}

/** The token of an address; one that cannot be one is not looked for. */
function tokenOf(req: Request): string {
  const { token } = req.params as { token: string };
  if (!TOKEN_PATTERN.test(token)) throw new NotFoundError("playtest", "at this address");
  return token;
}

/** @param key for all together; without it for each address that asks */
function atMost(limit: number, key?: string): RequestHandler {
  return rateLimit({
    windowMs: WINDOW_MS,
    limit,
    ...(key === undefined ? {} : { keyGenerator: () => key }),
    legacyHeaders: false,
    standardHeaders: false,
    handler: () => {
      throw new TooManyRequestsError();
    },
  });
}
