import { RefusedError } from "@keen-pebble/core/world";

/** A file that was dropped or chosen: its name, and what reads it once more where the browser can. */
export interface TakenFile {
  readonly name: string;
  /** The text as it is now. Throws where the browser cannot read it again. */
  readonly again: () => Promise<string>;
}

/** The part of a browser's handle of a file that is used here. */
interface FileHandle {
  readonly kind: "file" | "directory";
  getFile(): Promise<File>;
}

/**
 * The text of a file, refused where it is not UTF-8.
 * @throws {RefusedError} naming the file
 */
export async function textOf(file: File): Promise<string> {
  try {
    return new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(await file.arrayBuffer());
  } catch {
    throw new RefusedError(file.name, [{ place: "", line: null, column: null, message: "it is not UTF-8 text" }]);
  }
}

/** A file as one that may be read again: through its handle, which also sees what has taken its place, else as it was. */
export function takenFile(file: File): TakenFile {
  const handle = HANDLES.get(file);
  return {
    name: file.name,
    again: async () => textOf(handle === undefined ? file : await (await handle).getFile()),
  };
}

/** Handles of dropped files: a browser gives them only while the drop is handled. */
const HANDLES = new WeakMap<File, Promise<FileHandle>>();

/** The files of a drop. Browsers that can are asked for what reads them again. */
export function droppedFiles({ files, items }: DataTransfer): readonly File[] {
  const dropped = [...files];
  [...items]
    .filter(({ kind }) => kind === "file")
    .forEach((item: DataTransferItem & { getAsFileSystemHandle?: () => Promise<FileHandle | null> }, i) => {
      const file = dropped[i];
      if (file === undefined || item.getAsFileSystemHandle === undefined) return;
      const handle = item.getAsFileSystemHandle().then((found) => {
        if (found?.kind !== "file") throw new Error("the browser gives no handle of it");
        return found;
      });
      HANDLES.set(file, handle);
      // Then it is read as it was when it was dropped.
      handle.catch(() => HANDLES.delete(file));
    });
  return dropped;
}
