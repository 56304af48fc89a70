import type { ProjectSession } from "../project/project.ts";
import type { Project } from "@keen-pebble/core/edit";
import type { Sheet, World } from "@keen-pebble/core/world";
import { freeId } from "@keen-pebble/core/edit";
import { sheetTiles } from "@keen-pebble/core/formats";
import { createStore } from "zustand/vanilla";
import { freeSlug } from "../log/log-title.ts";
import { putSheet, sheetAddress } from "../project/api-client.ts";

/** Largest width and height of a sheet, in px. */
const MOST_SIDE = 4096;

/** The picture of a sheet, or null where it cannot be had. */
async function fetchSheet(world: string, sheet: Sheet): Promise<ImageBitmap | null> {
  const response = await fetch(sheetAddress(world, sheet.file)).catch(() => null);
  if (!response?.ok) return null;
  return createImageBitmap(await response.blob(), { premultiplyAlpha: "none", colorSpaceConversion: "none" }).catch(
    () => null,
  );
}

/** The pictures of a world's sheets, for a world that is not open. */
export async function sheetImages({
  id,
  sheets,
}: Pick<World, "id" | "sheets">): Promise<ReadonlyMap<string, ImageBitmap>> {
  const images = new Map<string, ImageBitmap>();
  for (const sheet of sheets) {
    const image = await fetchSheet(id, sheet);
    if (image !== null) images.set(sheet.id, image);
  }
  return images;
}

/** Image sheets and their pictures. */
export class Sheets {
  /** Pictures of the open world's image sheets, by their ids; those that could not be loaded are missing. */
  readonly store = createStore<{ readonly images: ReadonlyMap<string, ImageBitmap> }>(() => ({ images: new Map() }));
  private readonly asked = new Set<string>();

  constructor(private readonly project: ProjectSession) {}

  /** Loads the pictures of the open world's sheets as they come. Gives back what stops it. */
  readonly followSheets = (): (() => void) => {
    const stop = this.project.onProject((project, steps) => {
      if (steps === null) {
        this.asked.clear();
        this.store.setState({ images: new Map() });
      }
      this.loadMissing(project);
    });
    return stop;
  };

  private readonly loadMissing = ({ world }: Project): void => {
    for (const sheet of world.sheets) {
      if (this.asked.has(sheet.id)) continue;
      this.asked.add(sheet.id);
      void this.loadImage(world.id, sheet);
    }
  };

  private readonly loadImage = async (world: string, sheet: Sheet): Promise<void> => {
    const image = await fetchSheet(world, sheet);
    if (this.project.store.getState().project?.world.id !== world) return;
    if (image === null) {
      // Something that was told before is of more use; the Kit says it too.
      if (this.project.store.getState().notice === null)
        this.project.notice(`The image sheet ${sheet.file} is not here; its tiles are shown as checks.`);
    } else this.store.setState(({ images }) => ({ images: new Map(images).set(sheet.id, image) }));
  };

  /** Brings in a PNG as an image sheet of the open world. */
  readonly bringInSheet = async (file: File): Promise<void> => {
    const { project } = this.project.store.getState();
    if (project === null) return;
    const { world } = project;
    const stillOpen = this.project.stillOpen();
    try {
      const bytes = new Uint8Array(await file.arrayBuffer());
      const { readPng } = await import("@keen-pebble/core/reading");
      const { width, height } = readPng(bytes, MOST_SIDE, file.name);
      const id = freeId(
        freeSlug(file.name.replace(/\.png$/i, ""), []),
        world.sheets.map((sheet) => sheet.id),
      );
      const sheet: Sheet = { id, file: `${id}.png`, tile: world.tileSize, margin: 0, spacing: 0 };
      // The picture is there before anything names it.
      await putSheet(world.id, sheet.file, bytes);
      if (!stillOpen() || !this.project.changeWorld((w) => ({ ...w, sheets: [...w.sheets, sheet] }))) return;
      const { across, down, overX, overY } = sheetTiles(width, height, sheet);
      const over =
        overX !== 0 || overY !== 0
          ? ` ${overX} px at the right and ${overY} px below are left over: set its tile, margin and spacing.`
          : "";
      this.project.notice(
        `${file.name}: ${width}x${height} px, ${across} x ${down} tiles of ${sheet.tile} px.${over}`,
        over === "" ? "info" : "attention",
      );
    } catch (error) {
      if (!(error instanceof Error)) throw error;
      this.project.notice(`${error.message}. No sheet was added.`);
    }
  };

  /** Changes how a sheet is cut. */
  readonly cutSheet = (id: string, cut: Partial<Pick<Sheet, "tile" | "margin" | "spacing">>): void => {
    this.project.changeWorld((w) => ({
      ...w,
      sheets: w.sheets.map((sheet) => (sheet.id === id ? { ...sheet, ...cut } : sheet)),
    }));
  };
}
