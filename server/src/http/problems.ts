import { CoreError } from "@keen-pebble/core";
import type { ErrorRequestHandler } from "express";
import { DBError } from "objection";
import type { Logger } from "pino";
import type { Problem } from "../api.ts";

/** HTTP status by error code; what is not in it is a fault of ours. */
const STATUS: Readonly<Record<string, number>> = {
  "bad-request": 400,
  "foreign-request": 403,
  "not-found": 404,
  "no-such-rules": 422,
  "no-such-place": 422,
  "not-simulated": 422,
  refused: 422,
  "edit-does-not-fit": 422,
  "stale-base": 409,
  "id-taken": 409,
  "too-large": 413,
  "no-database": 503,
  "server-fault": 500,
};

const TITLES: Readonly<Record<number, string>> = {
  400: "The request is not in order",
  403: "The request came from elsewhere",
  404: "There is no such thing",
  409: "Something else was stored in between",
  413: "Too large",
  422: "Refused",
  500: "A fault in the server",
  503: "The database does not answer",
};

/** Error codes of a database that is not there: refused, closed, shutting down, or no connection in time. */
const NO_DATABASE = new Set(["ECONNREFUSED", "ECONNRESET", "EPIPE", "ETIMEDOUT", "57P01", "57P02", "57P03", "08006", "08001"]);

/** Answers every error as problem details (RFC 9457); never a stack trace. */
// Express knows an error handler by its four parameters.
export function problems(logger: Logger): ErrorRequestHandler {
  return (error: unknown, req, res, next) => {
    if (res.headersSent) {
      next(error);
      return;
    }
    const problem = problemOf(error);
    if (problem.status >= 500) logger.error({ err: error, url: req.originalUrl }, problem.detail);
    res.status(problem.status).type("application/problem+json").send(JSON.stringify(problem));
  };
}

function problemOf(error: unknown): Problem {
  if (error instanceof CoreError) return problem(error.code, error.message, error.data);
  if (isDatabaseGone(error)) return problem("no-database", "the database does not answer; nothing was stored", null);
  const { type, message } = (error ?? {}) as { type?: string; message?: string };
  if (type === "entity.too.large") return problem("too-large", "the request is larger than this server takes", null);
  if (type === "entity.parse.failed" || type === "charset.unsupported" || type === "encoding.unsupported") {
    return problem("bad-request", `the body is not JSON: ${message ?? ""}`, null);
  }
  return problem("server-fault", "something went wrong in the server; nothing was stored", null);
}

function problem(code: string, detail: string, data: unknown): Problem {
  const status = STATUS[code] ?? 500;
  return { type: `urn:keen-pebble:problem:${code}`, title: TITLES[status]!, status, detail, code, ...(data === null ? {} : { data }) };
}

function isDatabaseGone(error: unknown): boolean {
  const native = error instanceof DBError ? error.nativeError : error;
  const { code, name, message } = (native ?? {}) as { code?: string; name?: string; message?: string };
  if (code !== undefined && NO_DATABASE.has(code)) return true;
  return name === "KnexTimeoutError" || /Connection terminated|timeout exceeded when trying to connect/.test(message ?? "");
}
