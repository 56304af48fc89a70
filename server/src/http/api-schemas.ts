import { ID_PATTERN, LIMITS } from "@keen-pebble/core/world";
import Joi from "joi";
import { ENTRY_KINDS } from "../api.ts";
import { fileNameSchema, idSchema } from "./address-schemas.ts";
import { stepSchema } from "./step-schema.ts";

// What is not said to be optional must be there.
const J = Joi.defaults((schema) => schema.options({ presence: "required" }));

const text = J.string();
const fileText = J.string().max(LIMITS.fileBytes);
/** Any JSON at all; what may stand there depends on what stands beside it. */
const anything = J.any();
const maybe = (schema: Joi.Schema): Joi.Schema => J.alternatives(schema, J.valid(null));
const whole = (min = 0): Joi.NumberSchema => J.number().integer().min(min);
const list = (items: Joi.Schema): Joi.ArraySchema => J.array().items(items);
const moment = J.string().isoDate();
const texts = J.object().pattern(ID_PATTERN, fileText);

/** The longest note of a revision. */
export const NOTE_LENGTH = 4000;
const note = J.string().max(NOTE_LENGTH).allow("");

const worldEntry = J.object({
  id: idSchema,
  name: text,
  revision: whole(1),
  rooms: whole(1),
  logs: whole(),
  summary: text,
  savedAt: moment,
});
const stored = { revision: whole(1), summary: text };

const deletedWorld = J.object({ key: whole(1), id: idSchema, name: text, deletedAt: moment }).meta({
  "x-name": "DeletedWorld",
});

const verdict = J.object({
  check: text,
  verdict: J.valid("pass", "fail", "unreached"),
  frame: whole(),
  seen: maybe(text),
  law: J.valid(true).optional(),
}).meta({ "x-name": "Verdict" });

const shelfLog = J.object({
  log: idSchema,
  title: maybe(text),
  outcome: maybe(J.object({ holds: J.boolean(), refused: maybe(text), frames: maybe(whole()), checks: list(verdict) })),
}).meta({ "x-name": "ShelfLog" });

const logOutcome = J.object({
  log: idSchema,
  holds: J.boolean(),
  refused: maybe(text),
  status: maybe(text),
  frames: maybe(whole()),
  fingerprint: maybe(J.string().pattern(/^[0-9a-f]{64}$/)),
  accepted: maybe(J.boolean()),
  checks: list(verdict),
}).meta({ "x-name": "LogOutcome" });

const entryText = J.string().max(NOTE_LENGTH).pattern(/\S/, "something that is written");
const entry = {
  kind: J.valid(...ENTRY_KINDS),
  text: entryText,
  log: maybe(idSchema),
  frame: maybe(whole()),
};
const journalEntry = J.object({
  id: whole(1),
  ...entry,
  revision: whole(1),
  picture: J.boolean(),
  sender: maybe(text),
  writtenAt: moment,
}).meta({
  "x-name": "JournalEntry",
});

const proofState = J.object({
  revision: whole(1),
  state: J.valid("none", "running", "done", "cancelled", "failed"),
  done: whole(),
  total: whole(),
  holds: whole(),
}).meta({ "x-name": "ProofState" });

/**
 * Everything that goes over the network as JSON, by name; the types of the same names stand in `api.ts`. Requests are
 * read by these, and the OpenAPI document is made from them.
 */
export const SCHEMAS = {
  Id: idSchema,
  FileName: fileNameSchema,
  Step: stepSchema,
  NewRevision: J.object({
    batch: J.string().guid({ version: "uuidv4" }),
    base: whole(1),
    steps: list(stepSchema).min(1).max(2000),
    note: note.optional(),
  }),
  StoredRevision: J.object(stored),
  WorldList: J.object({ worlds: list(worldEntry) }),
  ShelfLog: shelfLog,
  ShelfSummary: J.object({
    worlds: list(worldEntry.keys({ roomNames: list(text), outcomes: list(shelfLog) })),
  }),
  StaleBase: J.object({ revision: whole(1), steps: maybe(list(stepSchema)) }),
  WorldRevision: J.object({
    revision: whole(1),
    world: J.object().unknown().description("As in a world file; see docs/world.schema.json."),
    logs: texts,
  }),
  Verdict: verdict,
  LogOutcome: logOutcome,
  WorldOutcomes: J.object({
    revision: whole(1),
    outcomes: list(logOutcome),
    missing: list(idSchema),
    reach: list(J.object({ check: text, verdict: J.valid("pass", "fail", "open"), seen: maybe(text) })),
  }),
  ProofState: proofState,
  WorldProofs: J.object({
    proofs: proofState,
    history: list(
      J.object({
        revision: whole(1),
        summary: text,
        logs: J.object().pattern(ID_PATTERN, J.valid("holds", "breaks", "refused")),
      }),
    ),
  }),
  RevisionList: J.object({
    revisions: list(
      J.object({
        revision: whole(1),
        summary: text,
        note: maybe(text),
        savedAt: moment,
        proofs: maybe(J.object({ state: text, total: whole(), holds: whole() })),
      }),
    ),
    entries: list(journalEntry),
    before: maybe(whole(1)),
  }),
  JournalEntry: journalEntry,
  NewEntry: J.object({
    ...entry,
    picture: maybe(
      J.string()
        .max(1_400_000)
        .pattern(/^[A-Za-z0-9+/]+={0,2}$/, "base64"),
    ),
  }),
  ChangedEntry: J.object({ text: entryText }),
  PlaytestLink: J.object({
    on: J.boolean(),
    address: maybe(text),
    fault: maybe(text),
    received: whole(),
    most: whole(1),
  }),
  PlaytestSwitch: J.object({ on: J.boolean() }),
  NewPlay: J.object({
    batch: J.string().guid({ version: "uuidv4" }),
    revision: whole(1).max(1_000_000_000),
    log: J.string().max(1024 * 1024),
    fingerprint: J.string().pattern(/^[0-9a-f]{64}$/, "a fingerprint"),
    name: J.string()
      .max(40)
      .pattern(/^[^\p{C}\p{Z}]([^\p{C}\p{Zl}\p{Zp}]*[^\p{C}\p{Z}])?$/u, "a name in one line"),
    opinion: J.string()
      .max(NOTE_LENGTH)
      .allow("")
      .pattern(/^[^\p{Cs}\p{Cn}\u0000-\u0008\u000b-\u001f\u007f\u202a-\u202e\u2066-\u2069]*$/u, "plain text"),
  }),
  KeptPlay: J.object({ log: idSchema }),
  RevisionNote: J.object({ note }),
  AcceptedAt: J.object({ revision: whole(1) }),
  NewSearch: J.object({ log: idSchema, check: J.string().min(1).max(200) }),
  BreakSearch: J.object({
    id: J.string().guid(),
    log: idSchema,
    check: text,
    state: J.valid("running", "found", "never-held", "holds", "cancelled", "failed"),
    good: maybe(whole(1)),
    bad: maybe(whole(1)),
    found: maybe(J.object({ revision: whole(1), summary: text, frame: whole(), seen: maybe(text) })),
  }),
  ImportedFiles: J.object({
    world: fileText.optional(),
    logs: texts.optional(),
    csvLogs: texts.optional(),
    into: idSchema.optional(),
    sheetsOf: idSchema.optional(),
    origin: J.valid("made", "conflict").optional(),
  }).or("world", "logs", "csvLogs"),
  Imported: J.object({
    id: idSchema,
    name: text,
    made: J.valid("world", "revision", "nothing"),
    ...stored,
    steps: list(stepSchema),
  }),
  NewWorld: J.object({ id: idSchema, ...stored }),
  DeletedWorld: deletedWorld,
  DeletedWorlds: J.object({ worlds: list(deletedWorld) }),
  StoredSheet: J.object({ file: fileNameSchema, width: whole(1), height: whole(1) }),
  Restored: J.object({ id: idSchema }),
  Health: J.object({ ok: J.valid(true) }),
  Problem: J.object({
    type: text,
    title: text,
    status: J.number().integer().min(400).max(599),
    detail: text,
    code: text,
    data: anything.optional(),
  }).description("RFC 9457"),
} satisfies Record<string, Joi.Schema>;

export type SchemaName = keyof typeof SCHEMAS;
