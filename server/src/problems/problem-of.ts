import { CoreError } from "@keen-pebble/core/world";
import { DBError } from "objection";
import type { Problem } from "../api.ts";

/** HTTP status by error code; what is not in it is a fault of ours. */
const STATUS: ReadonlyMap<string, number> = new Map([
  ["bad-request", 400],
  ["foreign-request", 403],
  ["not-found", 404],
  ["unknown-media", 415],
  ["no-such-rules", 422],
  ["no-such-place", 422],
  ["not-simulated", 422],
  ["refused", 422],
  ["too-costly", 422],
  ["edit-does-not-fit", 422],
  ["stale-base", 409],
  ["id-taken", 409],
  ["too-large", 413],
  ["too-many-requests", 429],
  ["no-database", 503],
  ["busy", 503],
  ["server-fault", 500],
]);

const TITLES: ReadonlyMap<number, string> = new Map([
  [400, "The request is not in order"],
  [403, "The request came from elsewhere"],
  [404, "There is no such thing"],
  [409, "Something else was stored in between"],
  [413, "Too large"],
  [415, "The body is of another kind than this takes"],
  [422, "Refused"],
  [429, "Too many requests"],
  [500, "A fault in the server"],
  [503, "The server or its database cannot do it now"],
]);

/** Error codes of a database that is not there, or does not answer in time. */
const NO_DATABASE = new Set([
  "ECONNREFUSED",
  "ECONNRESET",
  "EPIPE",
  "ETIMEDOUT",
  "57P01",
  "57P02",
  "57P03",
  "08006",
  "08001",
  "57014",
  "55P03",
]);

/** Error codes of a database that has no room: disk, memory, connections. */
const NO_ROOM = new Set(["53000", "53100", "53200", "53300", "58030", "ENOSPC"]);

/** Errors of the parsers of bodies that say what is wrong with the request. */
const BODY_FAULTS: ReadonlyMap<string, readonly [code: string, detail: string]> = new Map([
  ["entity.too.large", ["too-large", "the request is larger than this server takes here"]],
  [
    "encoding.unsupported",
    ["unknown-media", "the body is packed in a way that is not known here; gzip, deflate and br are"],
  ],
  ["charset.unsupported", ["unknown-media", "the body must be UTF-8"]],
  ["request.size.invalid", ["bad-request", "the body is not as long as its Content-Length says"]],
]);

/** What is told of an error: problem details (RFC 9457), never a stack trace. */
export function problemOf(error: unknown): Problem {
  if (error instanceof CoreError) return problem(error.code, error.message, error.data);
  const database = databaseFault(error);
  if (database !== null) return database;
  const { type, status, code } = (error ?? {}) as { type?: string; status?: number; code?: string };
  const body = BODY_FAULTS.get(type ?? "");
  if (body !== undefined) return problem(...body, null);
  // A body that cannot be unpacked, and an address with a broken percent-sign.
  if (code?.startsWith("Z_") || code === "ERR__ERROR_FORMAT_PADDING_1")
    return problem("bad-request", "the body cannot be unpacked", null);
  if (error instanceof URIError)
    return problem("bad-request", "the address has a percent-sign that stands for nothing", null);
  if (status === 413) return problem("too-large", "the request is larger than this server takes here", null);
  if (status !== undefined && status >= 400 && status < 500)
    return problem(
      status === 404 ? "not-found" : "bad-request",
      status === 404 ? "there is no such file" : "the request is not in order",
      null,
    );
  return problem("server-fault", "something went wrong in the server; nothing was stored", null);
}

function problem(code: string, detail: string, data: unknown): Problem {
  const status = STATUS.get(code) ?? 500;
  return {
    type: `urn:keen-pebble:problem:${code}`,
    title: TITLES.get(status)!,
    status,
    detail,
    code,
    ...(data === null ? {} : { data }),
  };
}

function databaseFault(error: unknown): Problem | null {
  const native = error instanceof DBError ? error.nativeError : error;
  const { code, name, message } = (native ?? {}) as { code?: string; name?: string; message?: string };
  if (code !== undefined && NO_ROOM.has(code))
    return problem("no-database", "the database has no room left; nothing was stored", null);
  const gone =
    (code !== undefined && NO_DATABASE.has(code)) ||
    name === "KnexTimeoutError" ||
    /Connection terminated|timeout exceeded when trying to connect|timeout expired|Query read timeout|asks for the password itself/.test(
      message ?? "",
    );
  return gone ? problem("no-database", "the database does not answer; nothing was stored", null) : null;
}
