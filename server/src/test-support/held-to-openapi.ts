import { createRequire } from "node:module";
import type { ValidateFunction } from "ajv";
import { Ajv2020 } from "ajv/dist/2020.js";
import type { FormatsPlugin } from "ajv-formats";
import express from "express";
import type { Express } from "express";

// CommonJS, whose default export is another thing in each kind of module resolution.
const addFormats = createRequire(import.meta.url)("ajv-formats") as FormatsPlugin;

interface Operation {
  readonly requestBody?: { readonly content: Record<string, { readonly schema?: object }> };
  readonly responses: Record<string, { readonly content?: Record<string, { readonly schema?: object }> }>;
}

/** The part of an OpenAPI document that requests and answers are held against. */
export interface OpenApiDocument {
  readonly paths: Record<string, Record<string, Operation>>;
  readonly components: object;
}

/** An application in front of another one that holds every request and answer against its OpenAPI document. */
export class HeldToOpenApi {
  readonly app: Express = express();
  /** What the document does not say. */
  readonly mismatches: string[] = [];
  /** Operations that were asked and did what they should, such as `get /api/worlds`. */
  readonly used = new Set<string>();
  private readonly ajv = new Ajv2020({ strict: false });
  /** Each path of the document, with all addresses that it stands for. */
  private readonly templates: readonly { readonly template: string; readonly addresses: RegExp }[];
  /** What each schema of the document was compiled to. */
  private readonly checks = new Map<object, ValidateFunction>();

  constructor(
    app: Express,
    private readonly document: OpenApiDocument,
  ) {
    this.templates = Object.keys(document.paths).map((template) => ({
      template,
      addresses: new RegExp(`^${template.replace(/\{\w+\}/g, "[^/]+").replaceAll(".", "\\.")}$`),
    }));
    addFormats(this.ajv);
    this.ajv.addSchema({ $id: "urn:keen-pebble:api", components: document.components });
    this.app.use((req, res, next) => {
      const send = res.send.bind(res);
      res.send = (body: unknown): typeof res => {
        // `res.json` comes through here a second time, with its text.
        if (typeof body !== "object" || Buffer.isBuffer(body))
          this.hold(
            req.method.toLowerCase(),
            req.originalUrl.split("?")[0]!,
            sentOf(req.body),
            String(req.headers["content-type"] ?? ""),
            res.statusCode,
            String(res.getHeader("content-type")),
            body,
          );
        return send(body);
      };
      // A stream is never sent as a whole: its head says what it is.
      const writeHead = res.writeHead.bind(res) as (...head: unknown[]) => typeof res;
      res.writeHead = ((...head: unknown[]) => {
        const type = String(
          (head[1] as Record<string, string> | undefined)?.["content-type"] ?? res.getHeader("content-type"),
        );
        if (type.startsWith("text/event-stream"))
          this.hold(
            req.method.toLowerCase(),
            req.originalUrl.split("?")[0]!,
            undefined,
            "",
            Number(head[0]),
            type,
            null,
          );
        return writeHead(...head);
      }) as typeof res.writeHead;
      next();
    });
    this.app.use(app);
  }

  private hold(
    method: string,
    path: string,
    sent: unknown,
    sentAs: string,
    status: number,
    type: string,
    body: unknown,
  ): void {
    const template = this.templates.find(({ addresses }) => addresses.test(path))?.template;
    const operation = template === undefined ? undefined : this.document.paths[template]![method];
    if (operation === undefined) {
      if (status < 400) this.mismatches.push(`${method} ${path} is not in the document`);
      return;
    }
    const name = `${method} ${template!}`;
    if (status < 400) this.used.add(name);
    const answer = operation.responses[status];
    const media = type.split(";")[0]!;
    if (answer === undefined) this.mismatches.push(`${name} answered ${status}`);
    else if (answer.content?.[media] === undefined) this.mismatches.push(`${name} answered ${status} as ${media}`);
    else
      this.fits(
        `${name} answered ${status}`,
        answer.content[media].schema,
        () => JSON.parse(String(body)) as unknown,
        true,
      );
    const taken = operation.requestBody?.content[sentAs.split(";")[0]!];
    // That lists go side by side, and what each part of a world holds, the document does not say.
    const unsayable = /must contain .* items|parts|is not JSON as it is expected/.test(String(body));
    if (taken?.schema && (status < 400 || (status === 400 && typeof sent === "object" && !unsayable)))
      this.fits(`${name} took`, taken.schema, () => sent, status < 400);
  }

  private fits(what: string, schema: object | undefined, value: () => unknown, wanted: boolean): void {
    if (schema === undefined) return;
    const check = this.checkOf(schema);
    if (check(value()) !== wanted)
      this.mismatches.push(
        `${what} ${JSON.stringify(value()).slice(0, 200)}: ${wanted ? this.ajv.errorsText(check.errors) : "the document would take it"}`,
      );
  }

  private checkOf(schema: object): ValidateFunction {
    let check = this.checks.get(schema);
    if (check === undefined) {
      const placed = JSON.parse(JSON.stringify(schema).replaceAll('"#/', '"urn:keen-pebble:api#/')) as object;
      check = this.ajv.compile(placed);
      this.checks.set(schema, check);
    }
    return check;
  }
}

/** What was sent, as JSON where it is some. */
function sentOf(body: unknown): unknown {
  if (!Buffer.isBuffer(body)) return body;
  try {
    return JSON.parse(body.toString("utf8"));
  } catch {
    return undefined;
  }
}
