import type { ReachRuling, Verdict } from "@keen-pebble/core/check";
import type { EditStep } from "@keen-pebble/core/edit";
import type { PlainWorld } from "@keen-pebble/core/formats";

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

/** What a log comes to, as the Shelf shows it; the outcome is null until it was run. */
export interface ShelfLog {
  readonly log: string;
  readonly title: string | null;
  readonly outcome: Pick<LogOutcome, "holds" | "refused" | "frames" | "checks"> | null;
}

/** A world as the Shelf shows it. */
export interface ShelfEntry extends WorldEntry {
  readonly roomNames: readonly string[];
  readonly outcomes: readonly ShelfLog[];
}

/** `GET /api/shelf` */
export interface ShelfSummary {
  readonly worlds: readonly ShelfEntry[];
}

/** A world that was just made. */
export interface NewWorld extends StoredRevision {
  readonly id: string;
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
  /** Why, in the person's words. */
  readonly note?: string;
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
  /** Only where a walk was accepted for the log: the one that it walks now, and whether it is the same. */
  readonly fingerprint: string | null;
  readonly accepted: boolean | null;
  readonly checks: readonly Verdict[];
}

/** `GET /api/worlds/:world/outcomes` */
export interface WorldOutcomes {
  readonly revision: number;
  readonly outcomes: readonly LogOutcome[];
  /** Logs that were not run yet: the answer is 202 where there are any. */
  readonly missing: readonly string[];
  /** What the world's reach checks come to. */
  readonly reach: readonly ReachRuling[];
}

/** How the proofs of a world's newest revision stand: all its logs, run by the server. */
export interface ProofState {
  readonly revision: number;
  readonly state: "none" | "running" | "done" | "cancelled" | "failed";
  /** Logs whose outcome is known, of so many; and how many of them hold. */
  readonly done: number;
  readonly total: number;
  readonly holds: number;
}

/** What the logs came to at one revision, by their ids; logs that are not known are missing. */
export interface ProofHistory {
  readonly revision: number;
  readonly summary: string;
  readonly logs: Readonly<Record<string, "holds" | "breaks" | "refused">>;
}

/** `GET /api/worlds/:world/proofs` */
export interface WorldProofs {
  readonly proofs: ProofState;
  /** The last runs, the newest last. */
  readonly history: readonly ProofHistory[];
}

/** A revision as the journal lists it. */
export interface RevisionEntry {
  readonly revision: number;
  readonly summary: string;
  readonly note: string | null;
  /** ISO 8601. */
  readonly savedAt: string;
  /** What the proofs said, where they ran. */
  readonly proofs: Pick<ProofState, "state" | "total" | "holds"> | null;
}

/** What an entry of the Journal is: why something is so, what is wrong, or what somebody says who tried it. */
export const ENTRY_KINDS = ["reason", "fault", "opinion"] as const;
export type EntryKind = (typeof ENTRY_KINDS)[number];

/** `POST /api/worlds/:world/entries` */
export interface NewEntry {
  readonly kind: EntryKind;
  readonly text: string;
  /** The log and the frame of it that show what is meant. */
  readonly log: string | null;
  readonly frame: number | null;
  /** A PNG in base64. */
  readonly picture: string | null;
}

/** `PUT /api/worlds/:world/entries/:entry` */
export interface ChangedEntry {
  readonly text: string;
}

/** An entry that somebody wrote into the Journal. */
export interface JournalEntry extends Omit<NewEntry, "picture"> {
  readonly id: number;
  /** The newest revision when it was written. */
  readonly revision: number;
  /** Whether it has one, at `/entries/:entry/picture`. */
  readonly picture: boolean;
  /** What whoever sent it from a playtest wants to be called; null for what was written by hand. */
  readonly sender: string | null;
  /** ISO 8601. */
  readonly writtenAt: string;
}

/** `GET` and `PUT /api/worlds/:world/playtest`: the link at which others can play the world. */
export interface PlaytestLink {
  readonly on: boolean;
  /** Where it can be played; null where it is off, or nothing listens there. */
  readonly address: string | null;
  /** Why it is on and nothing listens, or null. */
  readonly fault: string | null;
  /** How many playtests are in the Journal, of so many that it takes. */
  readonly received: number;
  readonly most: number;
}

/** `PUT /api/worlds/:world/playtest` */
export interface PlaytestSwitch {
  readonly on: boolean;
}

/** `GET /play/:token/game` of a playtest's own address: the world as it is now. */
export interface PlaytestGame {
  readonly revision: number;
  readonly world: PlainWorld;
}

/** `POST /play/:token/plays` of a playtest's own address. */
export interface NewPlay {
  /** Made by the page; the same play sent twice is kept once. */
  readonly batch: string;
  /** The revision that was played. */
  readonly revision: number;
  /** The log of what was pressed, as a file's text. */
  readonly log: string;
  /** Of its run. */
  readonly fingerprint: string;
  readonly name: string;
  readonly opinion: string;
}

/** The answer to a playtest that is kept. */
export interface KeptPlay {
  readonly log: string;
}

/** `GET /api/worlds/:world/revisions`, the newest first. */
export interface RevisionList {
  readonly revisions: readonly RevisionEntry[];
  /** What was written by hand at these revisions. */
  readonly entries: readonly JournalEntry[];
  /** There are older ones: ask before this one. */
  readonly before: number | null;
}

/** `PUT /api/worlds/:world/revisions/:revision/note` */
export interface RevisionNote {
  readonly note: string;
}

/** `GET /api/worlds/:world/logs/:log/accepted` */
export interface AcceptedAt {
  readonly revision: number;
}

/** `POST /api/worlds/:world/searches`: which revision broke a check? */
export interface NewSearch {
  readonly log: string;
  readonly check: string;
}

/** A search for the revision that broke a check. */
export interface BreakSearch extends NewSearch {
  readonly id: string;
  /** `holds`: it does not fail at all; `never-held`: it never passed. */
  readonly state: "running" | "found" | "never-held" | "holds" | "cancelled" | "failed";
  /** It holds at one and fails at the other, and looks in between. */
  readonly good: number | null;
  readonly bad: number | null;
  /** The first revision at which it fails, what that did, and what was seen there. */
  readonly found: {
    readonly revision: number;
    readonly summary: string;
    readonly frame: number;
    readonly seen: string | null;
  } | null;
}

/** What `GET /api/events` tells: each with the world that it is of. */
export interface ServerEvents {
  /** How the proofs of a world stand, whenever that changes. */
  readonly proofs: ProofState & { readonly world: string };
  /** A world has a new revision. */
  readonly saved: { readonly world: string; readonly revision: number };
  /** A search has got on. */
  readonly search: { readonly world: string; readonly search: string };
  /** The shelf has other worlds than before. */
  readonly shelf: Record<string, never>;
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
  /** The world whose sheets a world file comes with. */
  readonly sheetsOf?: string;
  /** Where a new world comes from, if not from files: it was made in the page, or kept as it was when others had saved something else. */
  readonly origin?: "made" | "conflict";
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

/** `data` of the problem `stale-base`, and `GET /api/worlds/:world/steps`: what happened since the base. */
export interface StaleBase {
  readonly revision: number;
  /** Null where the base is not kept apart from later revisions any more: it is too old. */
  readonly steps: readonly EditStep[] | null;
}
