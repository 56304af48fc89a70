import { CoreError } from "@keen-pebble/core/world";
import type { Knex } from "knex";
import { raw } from "objection";
import type { JournalEntry, NewEntry } from "../api.ts";
import { EntryRow } from "../models/entry-row.ts";
import { NotFoundError } from "./service-errors.ts";
import type { Shelf } from "./shelf.ts";

/** Entries of one world. */
const MOST_ENTRIES = 2000;
/** Bytes of a picture. */
const MOST_PICTURE = 1024 * 1024;
const PNG_BEGINS = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);

/** A picture that is none, or too large. */
class BadPictureError extends CoreError {
  constructor() {
    super("refused", `picture: must be a PNG of at most ${MOST_PICTURE} bytes, in base64; nothing was stored`, null);
  }
}

/** A world has as many entries as it may have. */
class TooManyEntriesError extends CoreError {
  constructor() {
    super("refused", `a Journal holds at most ${MOST_ENTRIES} entries; nothing was stored`, null);
  }
}

const COLUMNS = ["id", "kind", "text", "revision", "log", "frame", "sender", "writtenAt"] as const;

/** What people write into the Journal of a world by hand: reasons, faults, opinions. */
export class Entries {
  constructor(
    private readonly db: Knex,
    private readonly shelf: Shelf,
  ) {}

  /** Writes an entry as of the newest revision. */
  async write(slug: string, { kind, text, log, frame, picture }: NewEntry): Promise<JournalEntry> {
    const world = await this.shelf.row(slug);
    const png = picture === null ? null : pictureOf(picture);
    if ((await EntryRow.query(this.db).where("worldId", world.id).resultSize()) >= MOST_ENTRIES)
      throw new TooManyEntriesError();
    const row = await EntryRow.query(this.db)
      .insert({ worldId: world.id, kind, text: text.trim(), revision: world.revision, log, frame, picture: png })
      .returning("*");
    return entryOf(row, png !== null);
  }

  /** Writes another text in its place. */
  async change(slug: string, id: number, text: string): Promise<JournalEntry> {
    const row = await this.row(slug, id);
    await row.$query(this.db).patch({ text: text.trim() });
    return entryOf(row, row.picture !== null);
  }

  /** Deletes an entry; gives back what it was. */
  async remove(slug: string, id: number): Promise<JournalEntry> {
    const row = await this.row(slug, id);
    await row.$query(this.db).delete();
    return entryOf(row, row.picture !== null);
  }

  /** The picture of an entry, a PNG. */
  async picture(slug: string, id: number): Promise<Buffer> {
    const { picture } = await this.row(slug, id);
    if (picture === null) throw new NotFoundError("picture of entry", String(id));
    return picture;
  }

  /** The entries written at revisions from one to another, the newest first; null: without an end. */
  async between(worldId: number, from: number, to: number | null): Promise<JournalEntry[]> {
    const rows = await EntryRow.query(this.db)
      .select(...COLUMNS, raw("picture is not null").as("hasPicture"))
      .where("worldId", worldId)
      .where("revision", ">=", from)
      .modify((query) => {
        if (to !== null) void query.where("revision", "<=", to);
      })
      .orderBy("id", "desc");
    return rows.map((row) => entryOf(row, (row as EntryRow & { readonly hasPicture: boolean }).hasPicture));
  }

  /** All entries of a world with their pictures, the first one first. */
  async all(worldId: number): Promise<EntryRow[]> {
    return EntryRow.query(this.db).where("worldId", worldId).orderBy("id");
  }

  private async row(slug: string, id: number): Promise<EntryRow> {
    const world = await this.shelf.row(slug);
    const row = await EntryRow.query(this.db).findById(id).where("worldId", world.id);
    if (row === undefined) throw new NotFoundError("entry", String(id));
    return row;
  }
}

function entryOf(
  { frame, id, kind, log, revision, sender, text, writtenAt }: Omit<EntryRow, "picture">,
  picture: boolean,
): JournalEntry {
  return { id, kind, text, revision, log, frame, picture, sender, writtenAt: writtenAt.toISOString() };
}

function pictureOf(base64: string): Buffer {
  const png = Buffer.from(base64, "base64");
  if (png.length > MOST_PICTURE || !png.subarray(0, PNG_BEGINS.length).equals(PNG_BEGINS)) throw new BadPictureError();
  return png;
}
