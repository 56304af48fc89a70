import type { Outbox } from "../project/outbox.ts";
import type { ServerStream } from "../project/server-events.ts";
import { invert } from "@keen-pebble/core/edit";
import type { Verdict } from "@keen-pebble/core/check";
import type { EditStep } from "@keen-pebble/core/edit";
import type { DeletedWorld, Imported, LogOutcome, ShelfEntry, WorldEntry } from "@keen-pebble/server/api";
import { createStore } from "zustand/vanilla";
import {
  copyWorld,
  deletedWorlds,
  openWorld,
  removeWorld,
  restoreWorld,
  sendBundle,
  sendFiles,
  shelfSummary,
  storeBatch,
} from "../project/api-client.ts";
import { OfflineError, ProblemError } from "../project/server-answer.ts";
import type { Told } from "../project/told.ts";
import { ShelfError } from "./shelf-error.ts";
import type { Parcel } from "./shelf-files.ts";
import { parcels } from "./shelf-files.ts";

/** Something done on the Shelf that can be taken back and done again. */
interface ShelfAct {
  readonly undo: () => Promise<unknown>;
  readonly redo: () => Promise<unknown>;
}

/** A log as its card shows it. */
export interface ShownLog extends Pick<LogOutcome, "log" | "holds" | "refused" | "frames" | "checks"> {
  readonly title: string;
  /** Of the checks that do not pass the one that is decided first. */
  readonly first: Verdict | null;
}

/** A world as its card shows it. */
export interface ShownWorld extends WorldEntry {
  /** Logs that were run, by their titles; others follow. */
  readonly shownLogs: readonly ShownLog[];
  /** What its rooms and logs are called. */
  readonly names: string;
}

/** What the Shelf shows. */
export interface ShelfState {
  /** Null until they were asked for. */
  readonly worlds: readonly ShownWorld[] | null;
  /** Worlds with edits that only this browser has, and how many. */
  readonly unsaved: ReadonlyMap<string, number>;
  readonly deleted: readonly DeletedWorld[];
  /** Why the shelf cannot be shown. */
  readonly fault: string | null;
  readonly told: Told | null;
  readonly busy: boolean;
  readonly done: readonly ShelfAct[];
  readonly undone: readonly ShelfAct[];
}

function shown({ outcomes, roomNames, ...world }: ShelfEntry): ShownWorld {
  const logs = outcomes
    .map(({ log, title, outcome }) => ({ log, title: title ?? log, outcome }))
    .sort((a, b) => byTitle.compare(a.title, b.title) || (a.log < b.log ? -1 : 1));
  const shownLogs = logs.flatMap(({ log, title, outcome }) =>
    outcome === null ? [] : [{ log, title, ...outcome, first: firstToFail(outcome.checks) }],
  );
  return { ...world, shownLogs, names: [...roomNames, ...logs.map(({ title }) => title)].join(" ") };
}

function firstToFail(checks: readonly Verdict[]): Verdict | null {
  const failing = checks.filter((check) => check.verdict !== "pass");
  return failing.reduce<Verdict | null>(
    (first, check) => (first === null || check.frame < first.frame ? check : first),
    null,
  );
}

const byTitle = new Intl.Collator("en", { numeric: true });

const GATHER_MS = 200;

async function sent(parcel: Parcel): Promise<Imported> {
  try {
    return "bundle" in parcel ? await sendBundle(parcel.bundle) : await sendFiles(parcel.files);
  } catch (error) {
    if (error instanceof ProblemError)
      throw new ShelfError(`${parcel.name}: ${error.message}. Nothing of it was kept.`);
    throw error;
  }
}

function importedText({ name, made, revision, summary }: Imported): string {
  if (made === "world") return `${name} is on the shelf.`;
  return made === "revision" ? `${name}, revision ${revision}: ${summary}.` : `${name} is just like that already.`;
}

function revisionAct({ id, steps }: Imported): ShelfAct {
  return { undo: () => storeSteps(id, [...steps].reverse().map(invert)), redo: () => storeSteps(id, steps) };
}

/** The act that put a world on the shelf. */
function comesAndGoes(id: string): ShelfAct {
  let key = 0;
  return {
    undo: async () => {
      key = (await removeWorld(id)).key;
    },
    redo: () => restoreWorld(key),
  };
}

async function storeSteps(id: string, steps: readonly EditStep[]): Promise<void> {
  const { revision } = await openWorld(id);
  await storeBatch(id, { batch: crypto.randomUUID(), base: revision, steps });
}

type ToldError = ProblemError | OfflineError | ShelfError;

function isTold(error: unknown): error is ToldError {
  return error instanceof ProblemError || error instanceof OfflineError || error instanceof ShelfError;
}

/** The worlds on the shelf, and what is done with them. */
export class ShelfSession {
  readonly store = createStore<ShelfState>(() => ({
    worlds: null,
    unsaved: new Map(),
    deleted: [],
    fault: null,
    told: null,
    busy: false,
    done: [],
    undone: [],
  }));

  constructor(
    private readonly outbox: Outbox,
    private readonly serverEvents: ServerStream,
  ) {}

  /** Asks the server what is on the shelf. */
  readonly loadShelf = async (): Promise<void> => {
    try {
      const [{ worlds }, deleted, unsaved] = await Promise.all([
        shelfSummary(),
        deletedWorlds(),
        this.outbox.unsaved(),
      ]);
      this.store.setState({ worlds: worlds.map(shown), unsaved, deleted: deleted.worlds, fault: null });
    } catch (error) {
      if (!isTold(error)) throw error;
      this.store.setState({ fault: error.message });
    }
  };

  /** Follows what happens to the shelf elsewhere. Gives back what stops it. */
  readonly followShelf = (): (() => void) => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const stop = this.serverEvents.onServerEvent(({ event }) => {
      if (event === "lost" || event === "search") return;
      // Proofs tell of each slice.
      timer ??= setTimeout(() => {
        timer = undefined;
        void this.loadShelf();
      }, GATHER_MS);
    });
    const stopOutbox = this.outbox.onWritten(
      () => void this.outbox.unsaved().then((unsaved) => this.store.setState({ unsaved })),
    );
    return () => {
      stop();
      stopOutbox();
      clearTimeout(timer);
    };
  };

  /** Tells the person something until it is dismissed. */
  readonly tellOnShelf = (told: Told | null): void => {
    this.store.setState({ told });
  };

  /** Takes back the last act on the Shelf, or does it again. Asked with `dry`, it only says whether there is one. */
  readonly travelOnShelf = (direction: "undo" | "redo", dry = false): boolean => {
    const { done, undone, busy } = this.store.getState();
    const act = (direction === "undo" ? done : undone).at(-1);
    if (act === undefined || busy) return false;
    if (dry) return true;
    void this.attempt(async () => {
      await (direction === "undo" ? act.undo() : act.redo());
      this.store.setState(
        direction === "undo"
          ? { done: done.slice(0, -1), undone: [...undone, act] }
          : { done: [...done, act], undone: undone.slice(0, -1) },
      );
    });
    return true;
  };

  /** Gives a world another name. */
  readonly renameWorld = (world: WorldEntry, name: string): void => {
    const step = (before: string, after: string): EditStep => ({
      kind: "change-parts",
      parts: [{ part: "name", before, after }],
    });
    const to = (before: string, after: string) => () => storeSteps(world.id, [step(before, after)]);
    this.act(to(world.name, name), { undo: to(name, world.name), redo: to(world.name, name) });
  };

  /** Puts a copy of a world on the shelf. */
  readonly copyOfWorld = (world: WorldEntry): void => {
    void this.attempt(async () => {
      const { id } = await copyWorld(world.id);
      this.done(comesAndGoes(id));
      this.tellOnShelf({ tone: "info", text: `${world.name} copied as ${id}.` });
    });
  };

  /** Takes a world off the shelf; it stays among the deleted ones. */
  readonly takeOffShelf = (world: WorldEntry): void => {
    let key = 0;
    const remove = async (): Promise<void> => {
      key = (await removeWorld(world.id)).key;
    };
    this.act(remove, { undo: () => restoreWorld(key), redo: remove });
  };

  /** Puts a deleted world back. */
  readonly putBack = ({ key, id }: DeletedWorld): void => {
    let at = key;
    const restore = (): Promise<unknown> => restoreWorld(at);
    const remove = async (): Promise<void> => {
      at = (await removeWorld(id)).key;
    };
    this.act(restore, { undo: remove, redo: restore });
  };

  /**
   * Brings in files: worlds, bundles, logs.
   * @param into the world that loose logs are for, or null for the one that they name
   * @param onMade is told of the last new world, once it is there
   */
  readonly bringIn = (
    files: readonly File[],
    into: string | null,
    origin?: "made",
    onMade: (world: string) => void = () => undefined,
  ): void => {
    void this.attempt(async () => {
      const told: string[] = [];
      let last: string | null = null;
      for (const parcel of await parcels(
        files,
        into,
        (this.store.getState().worlds ?? []).map((world) => world.id),
      )) {
        const imported = await sent(
          origin === undefined || "bundle" in parcel ? parcel : { ...parcel, files: { ...parcel.files, origin } },
        );
        told.push(importedText(imported));
        if (imported.made === "world") {
          this.done(comesAndGoes(imported.id));
          last = imported.id;
        }
        if (imported.made === "revision") this.done(revisionAct(imported));
      }
      this.tellOnShelf({ tone: "info", text: told.join(" ") });
      if (last !== null) onMade(last);
    });
  };

  /** Makes a world of a bundle; gives back its id, or what went wrong. */
  readonly makeOf = async (bundle: File): Promise<string | { readonly fault: string }> => {
    try {
      const imported = await sendBundle(bundle);
      if (imported.made === "world") this.done(comesAndGoes(imported.id));
      return imported.id;
    } catch (error) {
      if (!isTold(error)) throw error;
      return { fault: error instanceof OfflineError ? `${error.message}; nothing was made.` : error.message };
    }
  };

  private readonly done = (each: ShelfAct): void => {
    this.store.setState((state) => ({ done: [...state.done, each], undone: [] }));
  };

  private readonly act = (now: () => Promise<unknown>, later: ShelfAct): void => {
    void this.attempt(async () => {
      await now();
      this.done(later);
    });
  };

  /** Does something with the server, one at a time, tells what went wrong, and shows what came of it. */
  private readonly attempt = async (what: () => Promise<void>): Promise<void> => {
    if (this.store.getState().busy) return;
    this.store.setState({ busy: true, told: null });
    try {
      await what();
    } catch (error) {
      if (!isTold(error)) throw error;
      this.tellOnShelf({
        tone: "attention",
        text: error instanceof OfflineError ? `${error.message}; nothing was changed.` : error.message,
      });
    } finally {
      this.store.setState({ busy: false });
      await this.loadShelf();
    }
  };
}
