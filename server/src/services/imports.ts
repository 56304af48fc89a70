import type { InputLog, Project, World } from "@keen-pebble/core";
import { RefusedError, readLog, writeLog } from "@keen-pebble/core";
import { readCsvLog, readWorld } from "@keen-pebble/core/reading";
import type { Imported, ImportedFiles } from "../api.ts";
import type { BundleFiles } from "./bundle-reader.ts";
import { IdTakenError, NotFoundError } from "./service-errors.ts";
import type { Sheets, Shelf } from "./shelf.ts";

/** Brings files in: a new world, or the differences to one that is here as one revision (architecture.md, flow 2). */
export class Imports {
  constructor(private readonly shelf: Shelf) {}

  /** A bundle: its world with logs and sheets. Logs that it does not have stay. */
  async bundle(files: BundleFiles): Promise<Imported> {
    return this.world(readWorld(files.world, "world.json"), parsedLogs(files.logs, readLog), files.sheets, files.journal);
  }

  /**
   * Loose files.
   * @throws {RefusedError} where one of them is not in order; nothing of any of them is stored then
   */
  async files({ world, logs = {}, csvLogs = {}, into }: ImportedFiles): Promise<Imported> {
    const parsed = { ...parsedLogs(logs, readLog), ...parsedLogs(csvLogs, readCsvLog) };
    if (world !== undefined) return this.world(readWorld(world, "the world file"), parsed, {}, null);
    const named = [...new Set(Object.values(parsed).flatMap((log) => log.world ?? []))];
    const id = into ?? (named.length === 1 ? named[0]! : null);
    if (id === null) throw refused("world", named.length === 0 ? "the logs name no world; choose the one that they belong to" : `the logs name different worlds: ${named.join(", ")}`);
    return this.revision(id, (project) => ({ ...project, logs: { ...project.logs, ...texts(parsed) } }), {});
  }

  private async world(world: World, logs: Readonly<Record<string, InputLog>>, sheets: Sheets, journal: string | null): Promise<Imported> {
    const project: Project = { world, logs: texts(logs) };
    try {
      return { ...(await this.shelf.add(project, "brought in from files", { sheets, note: journal })), name: world.name, made: "world", steps: [] };
    } catch (error) {
      if (!(error instanceof IdTakenError)) throw error;
      return this.revision(world.id, (present) => ({ world, logs: { ...present.logs, ...project.logs } }), sheets);
    }
  }

  private async revision(id: string, after: (present: Project) => Project, sheets: Sheets): Promise<Imported> {
    let name = id;
    try {
      const stored = await this.shelf.replace(
        id,
        (present) => {
          const changed = after(present);
          name = changed.world.name;
          return changed;
        },
        sheets,
      );
      return { id, name, made: stored.steps.length > 0 ? "revision" : "nothing", ...stored };
    } catch (error) {
      if (error instanceof NotFoundError) throw refused("world", `there is no world ${id} on the shelf that these logs could go to`);
      throw error;
    }
  }
}

function refused(place: string, message: string): RefusedError {
  return new RefusedError("the import", [{ place, line: null, column: null, message }]);
}

function parsedLogs(logs: Readonly<Record<string, string>>, read: (text: string, name: string) => InputLog): Record<string, InputLog> {
  return Object.fromEntries(Object.entries(logs).map(([id, text]) => [id, read(text, `log ${id}`)]));
}

function texts(logs: Readonly<Record<string, InputLog>>): Record<string, string> {
  return Object.fromEntries(Object.entries(logs).map(([id, log]) => [id, writeLog(log)]));
}
