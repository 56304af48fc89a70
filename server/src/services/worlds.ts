import type { Imported, NewWorld, StoredRevision } from "../api.ts";
import type { Desk } from "../desk/desk.ts";
import type { Signals } from "../jobs/signals.ts";
import type { AfterSave } from "./after-save.ts";
import type { Shelf } from "./shelf.ts";

/** Changes of worlds that come from outside: a thread reads and stores them, and then everybody hears of it. */
export class Worlds {
  constructor(
    private readonly desk: Desk,
    private readonly shelf: Shelf,
    private readonly afterSave: AfterSave,
    private readonly signals: Signals,
  ) {}

  /** Stores a batch of steps, as JSON. */
  async store(world: string, body: Uint8Array): Promise<StoredRevision> {
    const stored = await this.desk.ask("store", { world, body });
    await this.changed(world);
    return stored;
  }

  /** Brings in loose files as JSON, or a bundle. */
  async bringIn(kind: "importFiles" | "importBundle", body: Uint8Array): Promise<Imported> {
    const imported = await this.desk.ask(kind, { body });
    if (imported.made !== "nothing") await this.changed(imported.id);
    if (imported.made === "world") await this.signals.tell("shelf");
    return imported;
  }

  async copy(world: string): Promise<NewWorld> {
    const made = await this.desk.ask("copy", { world });
    await this.changed(made.id);
    await this.signals.tell("shelf");
    return made;
  }

  /** Pages hear of the new revision, and its proofs are asked for soon. */
  async changed(world: string): Promise<void> {
    this.afterSave.saved(world);
    const row = await this.shelf.row(world).catch(() => null);
    if (row !== null) await this.signals.tell("saved", row.id, row.revision);
  }
}
