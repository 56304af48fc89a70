import { LIMITS } from "@keen-pebble/core/world";

/** JSON Schema, as the OpenAPI document has it. */
export type Schema = Readonly<Record<string, unknown>>;

const ref = (name: string): Schema => ({ $ref: `#/components/schemas/${name}` });
const text = { type: "string" };
/** Any JSON at all; what may stand there depends on what stands beside it. */
const anything: Schema = {};
const maybe = (schema: Schema): Schema => ({ anyOf: [schema, { type: "null" }] });
const whole = (minimum = 0, maximum?: number): Schema => ({
  type: "integer",
  minimum,
  ...(maximum === undefined ? {} : { maximum }),
});
const list = (items: Schema, more: Schema = {}): Schema => ({ type: "array", items, ...more });
const moment = { type: "string", format: "date-time" };
const texts: Schema = {
  type: "object",
  propertyNames: ref("Id"),
  additionalProperties: { type: "string", maxLength: LIMITS.fileBytes },
};

function object(properties: Record<string, Schema>, optional: readonly string[] = [], more: Schema = {}): Schema {
  return {
    type: "object",
    properties,
    required: Object.keys(properties).filter((key) => !optional.includes(key)),
    additionalProperties: false,
    ...more,
  };
}

/** The longest note of a revision. */
export const NOTE_LENGTH = 4000;

const worldEntry = {
  id: ref("Id"),
  name: text,
  revision: whole(1),
  rooms: whole(1),
  logs: whole(),
  summary: text,
  savedAt: moment,
};
const stored = { revision: whole(1), summary: text };
const cells = (max: number): Schema => list(whole(0, max), { maxItems: LIMITS.roomSide[1] ** 2 });
const setting = { anyOf: [{ type: "number" }, { type: "string", maxLength: 40 }, { type: "boolean" }] };
const logText = { type: "string", maxLength: LIMITS.fileBytes };
const step = (kind: string, properties: Record<string, Schema>): Schema =>
  object({ kind: { const: kind }, ...properties });

/** Everything that goes over the network as JSON, by name; the types of the same names stand in `api.ts`. */
export const SCHEMAS = {
  Id: { type: "string", pattern: "^[a-z0-9-]{1,40}$" },
  FileName: { type: "string", pattern: "^[A-Za-z0-9][A-Za-z0-9._-]{0,75}\\.png$" },
  Step: {
    description: "One change of a world and its logs. It carries what was there and what shall be there.",
    oneOf: [
      step("set-cells", {
        room: ref("Id"),
        cells: cells(LIMITS.roomSide[1] ** 2 - 1),
        before: cells(LIMITS.tiles - 1),
        after: cells(LIMITS.tiles - 1),
      }),
      step("change-rules", {
        rules: ref("Id"),
        setting: { type: "string", maxLength: 40 },
        before: setting,
        after: setting,
      }),
      step("change-parts", {
        parts: list(object({ part: { type: "string", maxLength: 100 }, before: anything, after: anything }), {
          minItems: 1,
          maxItems: 10_000,
        }),
      }),
      step("add-log", { log: ref("Id"), text: logText }),
      step("remove-log", { log: ref("Id"), text: logText }),
      step("change-log", { log: ref("Id"), before: logText, after: logText }),
    ],
  },
  NewRevision: object(
    {
      batch: { type: "string", format: "uuid" },
      base: whole(1),
      steps: list(ref("Step"), { minItems: 1, maxItems: 2000 }),
      note: { type: "string", maxLength: NOTE_LENGTH },
    },
    ["note"],
  ),
  StoredRevision: object(stored),
  WorldEntry: object(worldEntry),
  WorldList: object({ worlds: list(ref("WorldEntry")) }),
  ShelfLog: object({
    log: ref("Id"),
    title: maybe(text),
    outcome: maybe(
      object({
        holds: { type: "boolean" },
        refused: maybe(text),
        frames: maybe(whole()),
        checks: list(ref("Verdict")),
      }),
    ),
  }),
  ShelfEntry: object({ ...worldEntry, roomNames: list(text), outcomes: list(ref("ShelfLog")) }),
  ShelfSummary: object({ worlds: list(ref("ShelfEntry")) }),
  StaleBase: object({ revision: whole(1), steps: maybe(list(ref("Step"))) }),
  WorldRevision: object({
    revision: whole(1),
    world: { type: "object", description: "As in a world file; see docs/world.schema.json." },
    logs: texts,
  }),
  Verdict: object(
    {
      check: text,
      verdict: { enum: ["pass", "fail", "unreached"] },
      frame: whole(),
      seen: maybe(text),
      law: { const: true },
    },
    ["law"],
  ),
  LogOutcome: object({
    log: ref("Id"),
    holds: { type: "boolean" },
    refused: maybe(text),
    status: maybe(text),
    frames: maybe(whole()),
    fingerprint: maybe({ type: "string", pattern: "^[0-9a-f]{64}$" }),
    accepted: maybe({ type: "boolean" }),
    checks: list(ref("Verdict")),
  }),
  WorldOutcomes: object({ revision: whole(1), outcomes: list(ref("LogOutcome")), missing: list(ref("Id")) }),
  ProofState: object({
    revision: whole(1),
    state: { enum: ["none", "running", "done", "cancelled", "failed"] },
    done: whole(),
    total: whole(),
    holds: whole(),
  }),
  ProofHistory: object({
    revision: whole(1),
    summary: text,
    logs: { type: "object", propertyNames: ref("Id"), additionalProperties: { enum: ["holds", "breaks", "refused"] } },
  }),
  WorldProofs: object({ proofs: ref("ProofState"), history: list(ref("ProofHistory")) }),
  RevisionEntry: object({
    revision: whole(1),
    summary: text,
    note: maybe(text),
    savedAt: moment,
    proofs: maybe(object({ state: text, total: whole(), holds: whole() })),
  }),
  RevisionList: object({ revisions: list(ref("RevisionEntry")), before: maybe(whole(1)) }),
  RevisionNote: object({ note: { type: "string", maxLength: NOTE_LENGTH } }),
  AcceptedAt: object({ revision: whole(1) }),
  NewSearch: object({ log: ref("Id"), check: { type: "string", minLength: 1, maxLength: 200 } }),
  BreakSearch: object({
    id: { type: "string", format: "uuid" },
    log: ref("Id"),
    check: text,
    state: { enum: ["running", "found", "never-held", "holds", "cancelled", "failed"] },
    good: maybe(whole(1)),
    bad: maybe(whole(1)),
    found: maybe(object({ revision: whole(1), summary: text, frame: whole(), seen: maybe(text) })),
  }),
  ImportedFiles: object(
    { world: logText, logs: texts, csvLogs: texts, into: ref("Id"), sheetsOf: ref("Id") },
    ["world", "logs", "csvLogs", "into", "sheetsOf"],
    { anyOf: [{ required: ["world"] }, { required: ["logs"] }, { required: ["csvLogs"] }] },
  ),
  Imported: object({
    id: ref("Id"),
    name: text,
    made: { enum: ["world", "revision", "nothing"] },
    ...stored,
    steps: list(ref("Step")),
  }),
  NewWorld: object({ id: ref("Id"), ...stored }),
  DeletedWorld: object({ key: whole(1), id: ref("Id"), name: text, deletedAt: moment }),
  DeletedWorlds: object({ worlds: list(ref("DeletedWorld")) }),
  StoredSheet: object({ file: ref("FileName"), width: whole(1), height: whole(1) }),
  Restored: object({ id: ref("Id") }),
  Health: object({ ok: { const: true } }),
  Problem: object(
    { type: text, title: text, status: whole(400, 599), detail: text, code: text, data: anything },
    ["data"],
    { description: "RFC 9457" },
  ),
} satisfies Record<string, Schema>;

export type SchemaName = keyof typeof SCHEMAS;
