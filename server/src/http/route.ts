import type { Request, Response } from "express";
import { Router } from "express";
import type { SchemaName } from "./api-schemas.ts";

/** What a route answers with: JSON by the name of its schema, bytes of a media type, or nothing. */
export type Answer = { readonly json: SchemaName } | { readonly media: string } | "nothing";

/** One operation of the API: what the OpenAPI document says of it, and what it does. */
export interface Route {
  readonly method: "get" | "post" | "put" | "delete";
  /** In OpenAPI's form below `/api`, such as `/worlds/{world}`. */
  readonly path: string;
  readonly summary: string;
  /** What may stand behind the `?`, all of it whole numbers, and none of it needed. */
  readonly query?: readonly string[];
  /** Its body: the name of its schema as JSON, and other media types that it takes. */
  readonly body?: { readonly schema?: SchemaName; readonly media?: readonly string[] };
  readonly status: number;
  readonly answer: Answer;
  /** Errors that it may answer with besides 400, 403, 500 and 503. */
  readonly problems: readonly number[];
  readonly handle: (req: Request, res: Response) => Promise<void>;
}

/** A router that has these routes. */
export function routerOf(routes: readonly Route[]): Router {
  const router = Router();
  for (const { method, path, handle } of routes) router[method](path.replace(/\{(\w+)\}/g, ":$1"), (req, res) => handle(req, res));
  return router;
}
