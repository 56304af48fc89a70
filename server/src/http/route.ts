import { CoreError } from "@keen-pebble/core/world";
import type { Request, RequestHandler, Response } from "express";
import express, { Router } from "express";
import { rateLimit } from "express-rate-limit";
import type Joi from "joi";
import type { SchemaName } from "./api-schemas.ts";
import { readJson } from "./read-json.ts";
import { BadRequestError, validate } from "./validate.ts";

/** More requests came than a route takes. */
export class TooManyRequestsError extends CoreError {
  constructor() {
    super("too-many-requests", "this is asked too often; nothing was stored; ask again in a few seconds", null);
  }
}

/** A body of a kind that the route does not take. */
class UnknownMediaError extends CoreError {
  constructor(types: readonly string[]) {
    super("unknown-media", `the body must be sent as ${types.join(" or ")}`, null);
  }
}

/** What a route answers with: JSON by the name of its schema, bytes of a media type, or nothing. */
export type Answer = { readonly json: SchemaName } | { readonly media: string } | "nothing";

/** One operation of the API: what the OpenAPI document says of it, and what it does. */
export interface Route {
  readonly method: "get" | "post" | "put" | "delete";
  /** In OpenAPI's form below `/api`, such as `/worlds/{world}`. */
  readonly path: string;
  readonly summary: string;
  /** What it is called in the OpenAPI document, for programs that are made from it. */
  readonly operation: string;
  /** What may stand behind the `?`, all of it whole numbers, and none of it needed. */
  readonly query?: readonly string[];
  /** Its body: the name of its schema as JSON, other media types that it takes, and how many bytes at the most. */
  readonly body?: { readonly schema?: SchemaName; readonly media?: readonly string[]; readonly max: number };
  /** How often it may be asked within ten seconds, by all pages together; `OFTEN` unless it says so itself. */
  readonly often?: number;
  readonly status: number;
  /** It may also answer 202 with the same, where not all of it is done yet. */
  readonly unfinished?: true;
  readonly answer: Answer;
  /** Errors that it may answer with besides 400, 403, 429, 500 and 503, and 413 and 415 where it has a body. */
  readonly problems: readonly number[];
  readonly handle: (req: Request, res: Response) => Promise<void>;
}

const JSON_MEDIA = "application/json";
const WINDOW_MS = 10_000;
/** Far more than pages ask, and few enough that a program gone wild leaves room for them. */
const OFTEN = { get: 3000, post: 1000, put: 1000, delete: 1000 } as const;

/** A router that has these routes, each with its own limits of rate and size. */
export function routerOf(routes: readonly Route[]): Router {
  const router = Router();
  for (const route of routes)
    router[route.method](route.path.replace(/\{(\w+)\}/g, ":$1"), rateOf(route), ...bodyOf(route), (req, res) =>
      route.handle(req, res),
    );
  return router;
}

function rateOf({ method, often = OFTEN[method] }: Route): RequestHandler {
  return rateLimit({
    windowMs: WINDOW_MS,
    limit: often,
    // Everybody comes from this machine.
    keyGenerator: () => "all",
    legacyHeaders: false,
    standardHeaders: false,
    handler: () => {
      throw new TooManyRequestsError();
    },
  });
}

/** What reads a body: as bytes, of the kinds that the route takes, and no more of them than it takes. */
function bodyOf({ body }: Route): RequestHandler[] {
  if (body === undefined) return [];
  const types = [...(body.schema === undefined ? [] : [JSON_MEDIA]), ...(body.media ?? [])];
  const ensureTaken: RequestHandler = (req, _res, next) => {
    const is = req.is(types);
    if (is === null || req.headers["content-type"] === undefined) throw new BadRequestError("the body is missing", "");
    if (is === false) throw new UnknownMediaError(types);
    next();
  };
  return [ensureTaken, express.raw({ type: types, limit: body.max })];
}

/** The body's bytes. */
export function bytesOf(req: Request): Uint8Array {
  const { body } = req as { body: unknown };
  if (!Buffer.isBuffer(body) || body.length === 0) throw new BadRequestError("the body is missing", "");
  return body;
}

/** A small body's JSON, once the schema takes it. */
export function jsonOf<T>(req: Request, schema: Joi.Schema): T {
  return validate<T>(schema, readJson(bytesOf(req)));
}

/** Sends bytes that are JSON already. */
export function sendJson(res: Response, bytes: Uint8Array): void {
  res.type(JSON_MEDIA).send(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
}
