import type { EditStep, PlainWorld, Verdict } from "@keen-pebble/core";

/** A world as the shelf lists it. */
export interface WorldEntry {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly rooms: number;
  readonly logs: number;
  /** What the last revision did, in words. */
  readonly summary: string;
  /** ISO 8601. */
  readonly savedAt: string;
}

/** `GET /api/worlds` */
export interface WorldList {
  readonly worlds: readonly WorldEntry[];
}

/** `GET /api/worlds/:world` */
export interface WorldRevision {
  readonly revision: number;
  readonly world: PlainWorld;
  readonly logs: Readonly<Record<string, string>>;
}

/** `POST /api/worlds/:world/revisions`: a batch of steps on top of a revision. */
export interface NewRevision {
  /** Made by the page; the same batch sent twice is stored once. */
  readonly batch: string;
  readonly base: number;
  readonly steps: readonly EditStep[];
}

/** The answer to a batch that was stored. */
export interface StoredRevision {
  readonly revision: number;
  readonly summary: string;
}

/** What a log comes to in a world. */
export interface LogOutcome {
  readonly log: string;
  readonly holds: boolean;
  /** Why it could not be run, or null; status, frames and fingerprint are null then. */
  readonly refused: string | null;
  readonly status: string | null;
  readonly frames: number | null;
  readonly fingerprint: string | null;
  readonly checks: readonly Verdict[];
}

/** `GET /api/worlds/:world/outcomes` */
export interface WorldOutcomes {
  readonly revision: number;
  readonly outcomes: readonly LogOutcome[];
}

/** `POST /api/imports` as JSON: files as texts. */
export interface ImportedFiles {
  /** A world file. */
  readonly world?: string;
  /** Input logs by id. Without a world they go to the one that is named here, or that they name themselves. */
  readonly logs?: Readonly<Record<string, string>>;
  /** Logs as CSV, by id. */
  readonly csvLogs?: Readonly<Record<string, string>>;
  readonly into?: string;
}

/** The answer to an import. */
export interface Imported {
  readonly id: string;
  readonly name: string;
  /** A new world, one revision of a world that was here, or nothing, because nothing differs. */
  readonly made: "world" | "revision" | "nothing";
  readonly revision: number;
  readonly summary: string;
  /** What the revision did; empty otherwise. */
  readonly steps: readonly EditStep[];
}

/** A world that was taken off the shelf. */
export interface DeletedWorld {
  /** What it is restored by. */
  readonly key: number;
  readonly id: string;
  readonly name: string;
  readonly deletedAt: string;
}

/** `GET /api/deleted-worlds` */
export interface DeletedWorlds {
  readonly worlds: readonly DeletedWorld[];
}

/** Every error: problem details (RFC 9457), with a stable `code` and what a program may want to know in `data`. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly code: string;
  readonly data?: unknown;
}

/** `data` of the problem `stale-base`: what happened since the base. */
export interface StaleBase {
  readonly revision: number;
  readonly steps: readonly EditStep[];
}
