import type { ErrorRequestHandler } from "express";
import type { Logger } from "pino";
import { problemOf } from "../problems/problem-of.ts";

/** Answers every error as problem details (RFC 9457); never a stack trace. */
// Express knows an error handler by its four parameters.
export function problems(logger: Logger): ErrorRequestHandler {
  return (error: unknown, req, res, next) => {
    // Whoever went away is told nothing, and is no fault.
    if (req.socket.destroyed || res.destroyed || (error as { type?: string } | null)?.type === "request.aborted") {
      res.destroy();
      return;
    }
    if (res.headersSent) {
      next(error);
      return;
    }
    const problem = problemOf(error);
    if (problem.status >= 500) logger.error({ err: error, url: req.originalUrl }, problem.detail);
    if (problem.status === 503 || problem.status === 429) res.set("Retry-After", "1");
    res.status(problem.status).type("application/problem+json").send(JSON.stringify(problem));
  };
}
