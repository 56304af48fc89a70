import type { InputLog } from "@keen-pebble/core/check";
import type { Logs, Project } from "@keen-pebble/core/edit";
import type { World } from "@keen-pebble/core/world";
import { readLog, writeLog } from "@keen-pebble/core/check";
import { RefusedError } from "@keen-pebble/core/world";
import { readRecording, readWorld } from "@keen-pebble/core/reading";
import type { Imported, ImportedFiles } from "../api.ts";
import { NOTE_LENGTH } from "../http/api-schemas.ts";
import type { BundleFiles } from "./bundle-reader.ts";
import { IdTakenError, NotFoundError } from "./service-errors.ts";
import type { Shelf } from "./shelf.ts";
import type { Sheets } from "./stored-revisions.ts";
import { NO_SHEETS } from "./stored-revisions.ts";

/** Brings files in: a new world, or the differences to one that is here as one revision (architecture.md, flow 2). */
export class Imports {
  constructor(private readonly shelf: Shelf) {}

  /** A bundle: its world with logs and sheets. Logs that it does not have stay. */
  async bundle(files: BundleFiles): Promise<Imported> {
    return this.world(
      readWorld(files.world, "world.json"),
      parsedLogs(files.logs, readLog),
      files.sheets,
      files.journal === null ? null : journalNote(files.journal),
    );
  }

  /**
   * Loose files.
   * @throws {RefusedError} where one of them is not in order; nothing of any of them is stored then
   */
  async files({ world, logs = {}, csvLogs = {}, into, sheetsOf, origin }: ImportedFiles): Promise<Imported> {
    const own = parsedLogs(new Map(Object.entries(logs)), readLog);
    /** With what was pressed, as the games of the world say. */
    const parsed = ({ games }: Pick<World, "games">): ParsedLogs =>
      new Map([
        ...own,
        ...parsedLogs(new Map(Object.entries(csvLogs)), (text, name) => readRecording(text, games, name)),
      ]);
    if (world !== undefined) {
      const read = readWorld(world, "the world file");
      return this.world(
        read,
        parsed(read),
        sheetsOf === undefined ? NO_SHEETS : await this.shelf.sheets(await this.shelf.row(sheetsOf)),
        null,
        origin,
      );
    }
    const named = [...new Set([...own.values()].flatMap((log) => log.world ?? []))];
    const id = into ?? (named.length === 1 ? named[0]! : null);
    if (id === null)
      throw refused(
        "world",
        named.length === 0
          ? "the logs name no world; choose the one that they belong to"
          : `the logs name different worlds: ${named.join(", ")}`,
      );
    return this.revision(
      id,
      (project) => ({ ...project, logs: new Map([...project.logs, ...texts(parsed(project.world))]) }),
      NO_SHEETS,
    );
  }

  private async world(
    world: World,
    logs: ParsedLogs,
    sheets: Sheets,
    journal: string | null,
    origin?: ImportedFiles["origin"],
  ): Promise<Imported> {
    const project: Project = { world, logs: texts(logs) };
    try {
      return {
        ...(await this.shelf.add(project, origin === undefined ? "brought in from files" : ORIGINS[origin], {
          sheets,
          note: journal,
        })),
        name: world.name,
        made: "world",
        steps: [],
      };
    } catch (error) {
      if (!(error instanceof IdTakenError)) throw error;
      return this.revision(
        world.id,
        (present) => ({ world, logs: new Map([...present.logs, ...project.logs]) }),
        sheets,
      );
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
      if (error instanceof NotFoundError)
        throw refused("world", `there is no world ${id} on the shelf that these logs could go to`);
      throw error;
    }
  }
}

/** What the Journal says of the first revision of a world that came from no file. */
const ORIGINS = { made: "made here", conflict: "kept as it was when others had saved something else" } as const;

function refused(place: string, message: string): RefusedError {
  return new RefusedError("the import", [{ place, line: null, column: null, message }]);
}

type ParsedLogs = ReadonlyMap<string, InputLog>;

function parsedLogs(logs: ReadonlyMap<string, string>, read: (text: string, name: string) => InputLog): ParsedLogs {
  return new Map([...logs].map(([id, text]) => [id, read(text, `log ${id}`)]));
}

function texts(logs: ParsedLogs): Logs {
  return new Map([...logs].map(([id, log]) => [id, writeLog(log)]));
}

/**
 * A journal as the note of the first revision, which has at most as many characters as a note may have: of a longer one the
 * newest entries, and a line that says so.
 * @throws {RefusedError} where no note could hold it
 */
function journalNote(journal: string): string {
  if (journal.includes("\0"))
    throw new RefusedError("the bundle", [
      { place: "journal.md", line: null, column: null, message: "holds a NUL character" },
    ]);
  // What its pictures show is in the logs that came along.
  const text = journal.replace(/!\[[^\]\n]*\]\(data:[^)\s]*\)/g, "(a picture)").trim();
  if (text.length <= NOTE_LENGTH) return text;
  const cut = text.slice(0, NOTE_LENGTH - 100);
  const whole = cut.slice(0, Math.max(cut.lastIndexOf("\n"), 1));
  return `${whole.trimEnd()}\n\n(The bundle's journal.md goes on for ${text.length - whole.length} characters.)`;
}
