import type { Schema } from "./joi-to-openapi.ts";
import { componentSchemas } from "./joi-to-openapi.ts";
import { SCHEMAS } from "./api-schemas.ts";
import type { Answer, Route } from "./route.ts";

const PROBLEMS: Readonly<Record<number, string>> = {
  400: "The request is not in order",
  403: "The request came from elsewhere",
  404: "There is no such thing",
  409: "Something else was stored in between, or the id is taken",
  413: "Too large",
  415: "The body is of another kind than this takes",
  422: "Refused, with the places and what was expected there",
  429: "Asked too often; nothing was stored",
  500: "A fault in the server; nothing was stored",
  503: "The server or its database cannot do it now; nothing was stored",
};

/** The OpenAPI 3.1 document of these routes below `/api`. */
export function openApi(routes: readonly Route[]): Schema {
  const paths: Record<string, Record<string, Schema>> = {};
  for (const route of routes) (paths[`/api${route.path}`] ??= {})[route.method] = operation(route);
  return {
    openapi: "3.1.0",
    info: {
      title: "Keen Pebble",
      version: "1",
      description:
        "Worlds, their revisions and their logs. Every error is problem details (RFC 9457) with a stable `code`.",
      license: { name: "MIT", identifier: "MIT" },
    },
    // The document lies below the address that it describes.
    servers: [{ url: "/", description: "The server that this document comes from" }],
    paths,
    components: { schemas: componentSchemas(SCHEMAS) },
  };
}

/** What stands in addresses, by name. */
function addressSchema(name: string | undefined): Schema {
  if (name === "key" || name === "revision") return { type: "integer", minimum: 1 };
  if (name === "search") return { type: "string", format: "uuid" };
  return { $ref: `#/components/schemas/${name === "file" ? "FileName" : "Id"}` };
}

function operation({
  path,
  summary,
  operation: operationId,
  query = [],
  body,
  status,
  unfinished,
  answer,
  problems,
}: Route): Schema {
  const parameters = [
    ...[...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
      name,
      in: "path",
      required: true,
      schema: addressSchema(name),
    })),
    ...query.map((name) => ({ name, in: "query", required: false, schema: { type: "integer", minimum: 1 } })),
  ];
  const answers = [400, 403, ...(body === undefined ? [] : [413, 415]), ...problems, 429, 500, 503].sort(
    (a, b) => a - b,
  );
  return {
    operationId,
    summary,
    ...(parameters.length === 0 ? {} : { parameters }),
    ...(body === undefined
      ? {}
      : {
          requestBody: {
            required: true,
            content: {
              ...(body.schema === undefined ? {} : content({ json: body.schema })),
              ...mediaOf(body.media ?? []),
            },
          },
        }),
    responses: {
      [status]: { description: "Done", ...(answer === "nothing" ? {} : { content: content(answer) }) },
      ...(unfinished && answer !== "nothing"
        ? { 202: { description: "Not all of it is done yet", content: content(answer) } }
        : {}),
      ...Object.fromEntries(
        answers.map((code) => [
          code,
          {
            description: PROBLEMS[code]!,
            content: { "application/problem+json": { schema: { $ref: "#/components/schemas/Problem" } } },
          },
        ]),
      ),
    },
  };
}

function content(answer: Exclude<Answer, "nothing">): Schema {
  return "json" in answer
    ? { "application/json": { schema: { $ref: `#/components/schemas/${answer.json}` } } }
    : mediaOf([answer.media]);
}

function mediaOf(media: readonly string[]): Schema {
  return Object.fromEntries(media.map((each) => [each, {}]));
}
