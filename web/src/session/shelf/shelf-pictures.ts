import type { Project } from "@keen-pebble/core/edit";
import type { TraceRows } from "@keen-pebble/core/simulate";
import { openWorld } from "../project/api-client.ts";
import { openedProject } from "../project/opened-project.ts";
import { sheetImages } from "../bench/sheets.ts";
import type { ShownLog, ShownWorld } from "./shelf.ts";
import { SimulationClient } from "../project/simulation-client.ts";

/** What is drawn on a world's card. */
export interface ShelfPicture {
  readonly project: Project;
  readonly images: ReadonlyMap<string, ImageBitmap>;
  /** The run that is drawn: of the first log that does not hold, else of the longest one. */
  readonly path: { readonly rows: TraceRows; readonly frame: number; readonly fails: boolean } | null;
}

/** Makes the pictures of the Shelf one after the other, over one connection and with one worker. */
export class ShelfPictures {
  private client: SimulationClient | null = null;
  private last: Promise<unknown> = Promise.resolve();
  private closed = false;

  /** The picture of a world; null where it cannot be made: the card then shows what the list told. */
  picture(world: ShownWorld): Promise<ShelfPicture | null> {
    const made = this.last.then(() => (this.closed ? null : this.make(world))).catch(() => null);
    this.last = made;
    return made;
  }

  close(): void {
    this.closed = true;
    this.client?.close();
  }

  private async make({ id, shownLogs }: ShownWorld): Promise<ShelfPicture> {
    const project = openedProject(await openWorld(id));
    return { project, images: await sheetImages(project.world), path: await this.path(project, shownLogs) };
  }

  private async path(project: Project, logs: readonly ShownLog[]): Promise<ShelfPicture["path"]> {
    const runnable = logs.filter((log) => log.refused === null);
    const longest = Math.max(...runnable.map((log) => log.frames ?? 0));
    const drawn = runnable.find((log) => !log.holds) ?? runnable.find((log) => log.frames === longest);
    const text = drawn && project.logs.get(drawn.log);
    if (!drawn || text === undefined) return null;
    this.client ??= new SimulationClient();
    this.client.load(project);
    const answer = await this.client.run(text);
    return "refused" in answer
      ? null
      : { rows: answer.rows, frame: drawn.first?.frame ?? answer.frames, fails: !drawn.holds };
  }
}
