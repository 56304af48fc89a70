import { createRequire } from "node:module";
import type { parse as parseJoi } from "joi-to-json";
import type Joi from "joi";

// A package of CommonJS whose types say that it has a default export, which it has not.
const parse = createRequire(import.meta.url)("joi-to-json") as typeof parseJoi;

/** JSON Schema, as the OpenAPI document has it. */
export type Schema = Readonly<Record<string, unknown>>;

/**
 * The schemas of an OpenAPI 3.1 document, by name. Two notes (`meta`) of a Joi schema say what Joi itself cannot:
 * `x-name`, the name of the component that it is wherever else it stands, and `x-schema`, what it is where it is checked
 * by a function.
 */
export function componentSchemas(schemas: Readonly<Record<string, Joi.Schema>>): Schema {
  return Object.fromEntries(
    Object.entries(schemas).map(([name, schema]) => {
      const { "x-name": _, ...converted } = parse(schema, "open-api-3.1") as Schema;
      return [name, told(converted)];
    }),
  );
}

function told(node: unknown): unknown {
  if (Array.isArray(node)) return node.map(told);
  if (typeof node !== "object" || node === null) return node;
  const { "x-name": name, "x-schema": schema, ...rest } = node as Schema;
  if (schema !== undefined) return schema;
  if (typeof name === "string") return { $ref: `#/components/schemas/${name}` };
  const entries = Object.entries(rest).map(([key, value]) => [key, told(value)] as const);
  const converted = Object.fromEntries(entries);
  // Keys by pattern come twice, once as if the pattern were a key.
  return "patternProperties" in rest ? { ...converted, properties: {} } : converted;
}
