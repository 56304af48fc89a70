import { ID_PATTERN, LIMITS, RefusedError, SHEET_FILE_PATTERN } from "@keen-pebble/core/world";
import { readPng } from "@keen-pebble/core/reading";
import type { Entry, ZipFile } from "yauzl";
import { fromBuffer } from "yauzl";
import type { Sheets } from "./stored-revisions.ts";

/** What is in a bundle (formats.md section 6), as it stands there: nothing but the ZIP itself is read yet. */
export interface BundleFiles {
  readonly world: string;
  /** Each log's text by its id. */
  readonly logs: ReadonlyMap<string, string>;
  /** Each sheet's PNG by its file's name. */
  readonly sheets: Sheets;
  readonly journal: string | null;
}

const MOST_ENTRIES = 2000;
const MOST_BYTES = 64 * 1024 * 1024;
const LINK = 0o120000;

const refused = (place: string, message: string): RefusedError =>
  new RefusedError("the bundle", [{ place, line: null, column: null, message }]);

/**
 * Takes a bundle apart.
 * @throws {RefusedError} naming the entry: what is no ZIP, entries that leave the folder or are not of a bundle, links,
 *   encryption, names that stand twice, more than 2,000 entries, more than 64 MiB unpacked
 */
export async function readBundle(zip: Buffer): Promise<BundleFiles> {
  const file = await open(zip);
  try {
    if (file.entryCount > MOST_ENTRIES) throw refused("", `has ${file.entryCount} entries, more than ${MOST_ENTRIES}`);
    const entries = await listed(file);
    let world: string | null = null;
    let journal: string | null = null;
    const logs = new Map<string, string>();
    const sheets = new Map<string, Buffer>();
    for (const entry of entries) {
      const name = entry.fileName;
      if (entry.uncompressedSize > LIMITS.fileBytes) throw refused(name, `is larger than ${LIMITS.fileBytes} bytes`);
      const [, folder, rest] = /^(logs|sheets)\/([^/]+)$/.exec(name) ?? [];
      const bytes = await unpacked(file, entry);
      if (name === "world.json") world = utf8(name, bytes, LIMITS.fileBytes);
      else if (name === "journal.md") journal = utf8(name, bytes, LIMITS.fileBytes);
      else if (folder === "logs") logs.set(logId(name, rest!), utf8(name, bytes, LIMITS.fileBytes));
      else if (folder === "sheets") sheets.set(sheetFile(name, rest!), png(name, bytes));
      else throw refused(name, "expected world.json, logs/*.inputs, sheets/*.png or journal.md");
    }
    if (world === null) throw refused("world.json", "is missing");
    return { world, logs, sheets, journal };
  } finally {
    file.close();
  }
}

function open(zip: Buffer): Promise<ZipFile> {
  return new Promise((resolve, reject) => {
    fromBuffer(
      zip,
      { lazyEntries: true, decodeStrings: true, validateEntrySizes: true, strictFileNames: true, autoClose: false },
      (error, file) => {
        if (error) reject(refused("", `is no ZIP that can be read: ${error.message}`));
        else resolve(file);
      },
    );
  });
}

/** Every entry but folders, looked at before anything is unpacked. */
function listed(file: ZipFile): Promise<Entry[]> {
  return new Promise((resolve, reject) => {
    const entries: Entry[] = [];
    const names = new Set<string>();
    let bytes = 0;
    file.on("error", (error: Error) => reject(refused("", error.message)));
    file.on("end", () => resolve(entries));
    file.on("entry", (entry: Entry) => {
      const name = entry.fileName;
      const fault = (message: string): void => reject(refused(name.slice(0, 200), message));
      bytes += entry.uncompressedSize;
      if (names.has(name)) return fault("stands twice");
      names.add(name);
      if (((entry.externalFileAttributes >>> 16) & 0o170000) === LINK) return fault("is a link");
      if (entry.isEncrypted()) return fault("is encrypted");
      if (bytes > MOST_BYTES) return fault(`unpacked the bundle has more than ${MOST_BYTES} bytes`);
      if (!name.endsWith("/")) entries.push(entry);
      else if (name !== "logs/" && name !== "sheets/") return fault("expected no folders but logs and sheets");
      file.readEntry();
    });
    file.readEntry();
  });
}

/** An entry's bytes. yauzl stops a stream that gives more than the entry says. */
function unpacked(file: ZipFile, entry: Entry): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const fault = (error: Error): void => reject(refused(entry.fileName, `cannot be unpacked: ${error.message}`));
    file.openReadStream(entry, (error, stream) => {
      if (error) {
        fault(error);
        return;
      }
      const pieces: Buffer[] = [];
      stream.on("data", (piece: Buffer) => pieces.push(piece));
      stream.on("error", fault);
      stream.on("end", () => resolve(Buffer.concat(pieces)));
    });
  });
}

function utf8(name: string, bytes: Buffer, max: number): string {
  if (bytes.length > max) throw refused(name, `is larger than ${max} bytes`);
  try {
    return new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(bytes);
  } catch {
    throw refused(name, "is not UTF-8 text");
  }
}

function logId(name: string, file: string): string {
  const id = file.endsWith(".inputs") ? file.slice(0, -".inputs".length) : "";
  if (!ID_PATTERN.test(id))
    throw refused(name, "expected logs/ID.inputs with an id of 1 to 40 of a to z, 0 to 9 and -");
  return id;
}

function sheetFile(name: string, file: string): string {
  if (!SHEET_FILE_PATTERN.test(file))
    throw refused(name, "expected sheets/NAME.png, the name of letters, digits, dots and dashes");
  return file;
}

/** Looked at as a picture that is sent by itself. */
function png(name: string, bytes: Buffer): Buffer {
  if (bytes.length > LIMITS.fileBytes) throw refused(name, `is larger than ${LIMITS.fileBytes} bytes`);
  readPng(bytes, LIMITS.sheetSide[1], name);
  return bytes;
}
