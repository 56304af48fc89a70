import { nameOf } from "@keen-pebble/core/formats";
import type { World } from "@keen-pebble/core/world";
import { createStore } from "zustand/vanilla";
import { keepSetting, keptSetting } from "../project/local-settings.ts";
import type { MapFiles } from "./map-files.ts";
import { readMapFiles, readSheet } from "./map-files.ts";
import type { AskedAnswers, MapRead, MapReading } from "./read-map.ts";
import { readMap } from "./read-map.ts";

/** Where a map goes: a world of its own, or a room more of the open one. */
export interface MapTarget {
  /** The world that it comes into; null where that is gone. */
  readonly base: (tileSize: number, name: string) => World | null;
  /** The cell size that it has already; null where it is asked. */
  readonly tileSize: () => number | null;
  /** The id of the room that a map of that name becomes. */
  readonly roomId: (name: string) => string;
  /** Makes it; gives back what went wrong, or null. */
  readonly make: (read: MapRead) => Promise<string | null>;
}

export interface MapImportState {
  /** Null while nothing is brought in. */
  readonly files: MapFiles | null;
  readonly isOpen: boolean;
  readonly name: string;
  readonly asked: AskedAnswers;
  readonly reading: MapReading | null;
  /** Pictures of the sheets of the world as it will be. */
  readonly images: ReadonlyMap<string, ImageBitmap>;
  readonly fault: string | null;
  readonly busy: boolean;
}

const KEPT = "keen-pebble-map-answers";
const ASKED: AskedAnswers = { tileSize: 16, width: null, first: 1, empty: null, solid: null, picture: "map" };
const CLOSED: MapImportState = {
  files: null,
  isOpen: false,
  name: "",
  asked: ASKED,
  reading: null,
  images: new Map(),
  fault: null,
  busy: false,
};

/** A map from elsewhere while it is brought in: read again with each answer, made once. */
export class MapImport {
  readonly store = createStore<MapImportState>(() => CLOSED);

  constructor(private readonly target: MapTarget) {}

  /** Begins with nothing: a text is pasted or a file chosen. */
  readonly open = (): void => this.store.setState({ ...CLOSED, isOpen: true, asked: this.remembered() });

  readonly close = (): void => this.store.setState(CLOSED);

  /** Takes files: a map, a sheet for its looks, or both. */
  readonly take = async (files: readonly File[]): Promise<void> => {
    const { isOpen, files: present } = this.store.getState();
    if (!isOpen) this.open();
    try {
      const [file] = files;
      const isSheetOnly = present?.source.kind === "text" && files.length === 1 && /\.png$/i.test(file!.name);
      const read = isSheetOnly ? { ...present, sheet: await readSheet(file!) } : await readMapFiles(files);
      this.store.setState((state) => ({ files: read, fault: null, name: state.name || stemOf(read.source.name) }));
      await this.readAgain();
    } catch (error) {
      if (!(error instanceof Error)) throw error;
      this.store.setState({ fault: error.message });
    }
  };

  /** Takes a pasted text as the map. */
  readonly paste = (text: string): void => {
    this.store.setState(({ files, name }) => ({
      files:
        text.trim() === ""
          ? null
          : { source: { kind: "text", name: "pasted text", text }, sheet: files?.sheet ?? null },
      name: name || "New map",
      fault: null,
    }));
    void this.readAgain();
  };

  readonly answer = (answers: Partial<AskedAnswers>): void => {
    this.store.setState(({ asked }) => ({ asked: { ...asked, ...answers } }));
    void this.readAgain();
  };

  readonly call = (name: string): void => {
    this.store.setState({ name });
    void this.readAgain();
  };

  /** Says of a kind of cell that it blocks, or that it does not. */
  readonly toggleSolid = (value: number): void => {
    const { reading } = this.store.getState();
    if (reading === null || "refused" in reading || value === reading.answers.empty) return;
    const solid = new Set(reading.answers.solid);
    if (!solid.delete(value)) solid.add(value);
    this.answer({ solid });
  };

  /** Makes what is shown; what went wrong is said, and everything typed stays. */
  readonly make = async (): Promise<void> => {
    const { reading, busy } = this.store.getState();
    if (reading === null || "refused" in reading || busy) return;
    this.store.setState({ busy: true });
    this.remember();
    const fault = await this.target.make(reading);
    if (fault === null) return this.close();
    this.store.setState({ busy: false, fault });
    await this.readAgain();
  };

  private async readAgain(): Promise<void> {
    const { files, asked, name } = this.store.getState();
    const tileSize = this.target.tileSize() ?? asked.tileSize;
    const base = this.target.base(tileSize, name === "" ? "New map" : name);
    if (files === null || base === null) return this.store.setState({ reading: null });
    const reading = readMap(files, asked, base, this.target.roomId(name));
    const images = "refused" in reading ? new Map<string, ImageBitmap>() : await imagesOf(reading);
    // Another answer may have come meanwhile.
    const now = this.store.getState();
    if (now.files === files && now.asked === asked && now.name === name) this.store.setState({ reading, images });
  }

  private remember(): void {
    const { asked, files } = this.store.getState();
    if (files?.source.kind !== "text") return;
    const { tileSize, width, first, empty, solid } = asked;
    keepSetting(KEPT, JSON.stringify({ tileSize, width, first, empty, solid: solid === null ? null : [...solid] }));
  }

  /** The answers that were given for the map before. */
  private remembered(): AskedAnswers {
    try {
      const kept = JSON.parse(keptSetting(KEPT) ?? "null") as Record<string, unknown> | null;
      if (kept === null) return ASKED;
      const { tileSize, first, solid } = kept;
      return {
        ...ASKED,
        ...(Number.isInteger(tileSize) ? { tileSize: tileSize as number } : {}),
        ...(Number.isInteger(first) ? { first: first as number } : {}),
        ...(Array.isArray(solid) && solid.every(Number.isInteger) ? { solid: new Set(solid as number[]) } : {}),
      };
    } catch {
      return ASKED;
    }
  }
}

/** A name out of a file's: `pump_hall.c` is Pump hall. */
const stemOf = (name: string): string =>
  nameOf(
    name
      .replace(/\.[^.]*$/, "")
      .replaceAll(/[_-]+/g, " ")
      .trim()
      .slice(0, 80),
  );

async function imagesOf({ sheet }: MapRead): Promise<ReadonlyMap<string, ImageBitmap>> {
  if (sheet === null) return new Map();
  const { width, height, rgba } = sheet.picture;
  const image = await createImageBitmap(new ImageData(new Uint8ClampedArray(rgba), width, height), {
    premultiplyAlpha: "none",
    colorSpaceConversion: "none",
  });
  return new Map([[sheet.sheet.id, image]]);
}
