import type { Imported, KeptPlay, NewWorld, Problem, StoredRevision } from "../api.ts";
import type { ReachRuling } from "@keen-pebble/core/check";
import type { ReportedLog } from "@keen-pebble/core/reports";

/** What a thread of the desk can be asked for: everything that reads what came from outside, or writes out a whole world. */
export interface DeskTasks {
  /** A batch of steps, as JSON. */
  readonly store: { readonly world: string; readonly body: Uint8Array };
  /** World file and logs, as JSON. */
  readonly importFiles: { readonly body: Uint8Array };
  readonly importBundle: { readonly body: Uint8Array };
  /** What somebody sent from the playtest of a link, as JSON. */
  readonly keepPlay: { readonly token: string; readonly body: Uint8Array };
  /** The world of a playtest's link as it is now. */
  readonly playtestGame: { readonly token: string };
  readonly putSheet: { readonly world: string; readonly file: string; readonly png: Uint8Array };
  readonly copy: { readonly world: string };
  /** A world with its logs at a revision, the newest unless one is named. */
  readonly open: { readonly world: string; readonly revision?: number };
  readonly worldFile: { readonly world: string };
  readonly bundle: { readonly world: string };
  readonly junit: {
    readonly world: string;
    readonly reports: readonly ReportedLog[];
    readonly reach: readonly ReachRuling[] | null;
  };
  /** World of a revision as a text, and some of its logs, by their ids or by the hashes of their texts, for the jobs. */
  readonly texts: {
    readonly worldId: number;
    readonly revision: number;
    readonly ids?: readonly string[];
    readonly hashes?: readonly string[];
  };
  /** Makes one revision of several old ones of a world. */
  readonly thin: { readonly worldId: number; readonly before: string };
  /** Names of a world's rooms, for one that was stored before they were kept apart. */
  readonly roomNames: { readonly worldId: number };
}

/** What it answers with; `bytes` are texts and files, ready to be sent. */
export interface DeskAnswers {
  readonly store: StoredRevision;
  readonly importFiles: Imported;
  readonly importBundle: Imported;
  readonly keepPlay: KeptPlay & { readonly world: string };
  readonly playtestGame: Uint8Array;
  readonly putSheet: { readonly file: string; readonly width: number; readonly height: number };
  readonly copy: NewWorld;
  readonly open: Uint8Array;
  readonly worldFile: Uint8Array;
  readonly bundle: Uint8Array;
  readonly junit: Uint8Array;
  readonly texts: RevisionTexts;
  readonly thin: number;
  readonly roomNames: null;
}

/** A revision's world file, and the texts of the logs that were asked for, by what they were asked by. */
export interface RevisionTexts {
  readonly world: string;
  readonly logs: ReadonlyMap<string, string>;
}

export type DeskTaskName = keyof DeskTasks;

/** A task as it goes to a thread. */
export type DeskTask = { [K in DeskTaskName]: { readonly name: K; readonly of: DeskTasks[K] } }[DeskTaskName];

/** What comes back: an error keeps its code and data, which would not come through by themselves. */
export type DeskAnswer =
  | { readonly value: DeskAnswers[DeskTaskName] }
  | { readonly problem: Problem; readonly stack: string | null };
