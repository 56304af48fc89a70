import type { Request, RequestHandler } from "express";
import { CoreError } from "@keen-pebble/core/world";

/** A request that did not come from this application's own page. */
export class ForeignRequestError extends CoreError {
  constructor(what: string) {
    super("foreign-request", `${what}; only this application's own pages may ask`, null);
  }
}

const SAFE = new Set(["GET", "HEAD", "OPTIONS"]);

/**
 * Checks Host on every request, and Origin on every change: neither another site in the same browser nor a name that
 * was pointed at this address gets through.
 * @param hosts names under which the application may be asked, without port
 */
export function guard(hosts: readonly string[]): RequestHandler {
  return (req, res, next) => {
    const host = req.headers.host ?? "";
    const name = host.replace(/:\d+$/, "");
    if (!hosts.includes(name))
      throw new ForeignRequestError(`the host ${host || "(none)"} is not one of this application's`);
    sameOrigin(req, res, next);
  };
}

/** Checks Origin on every change: another site in the same browser does not get through. */
export const sameOrigin: RequestHandler = (req, _res, next) => {
  if (!SAFE.has(req.method) && !isOwn(req))
    throw new ForeignRequestError(`the origin ${req.headers.origin} is another site`);
  next();
};

function isOwn({ headers: { host = "", origin } }: Request): boolean {
  return origin === undefined || origin === `http://${host}` || origin === `https://${host}`;
}
