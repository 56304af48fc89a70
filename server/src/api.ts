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

/** `POST /api/worlds`: files as texts. */
export interface NewWorld {
  readonly world: string;
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

/** `GET /api/worlds/:world/logs/:log/run` */
export interface LogRun {
  readonly revision: number;
  readonly status: string;
  readonly frames: number;
  readonly fingerprint: string;
  readonly holds: boolean;
  readonly checks: readonly Verdict[];
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
