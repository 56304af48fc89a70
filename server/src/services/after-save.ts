import type { Logger } from "pino";
import type { Proofs } from "./proofs.ts";

/** Edits come in rows: the proofs begin once a world has rested for so long. */
const REST_MS = 600;

/** Asks for a world's proofs shortly after it was saved. */
export class AfterSave {
  private readonly timers = new Map<string, NodeJS.Timeout>();
  private readonly under = new Set<Promise<unknown>>();

  constructor(
    private readonly proofs: Proofs,
    private readonly logger: Logger,
  ) {}

  /** A world has a new revision. */
  saved(world: string): void {
    clearTimeout(this.timers.get(world));
    this.timers.set(world, setTimeout(() => this.ask(world), REST_MS));
  }

  /** Asks for all that was saved and not asked for since, and waits until that has been put in. */
  async stop(): Promise<void> {
    for (const [world, timer] of this.timers) {
      clearTimeout(timer);
      this.ask(world);
    }
    await Promise.all(this.under);
  }

  private ask(world: string): void {
    this.timers.delete(world);
    const asked = this.proofs
      .request(world)
      // It may have been taken off the shelf meanwhile, or the database is away: the next start asks again.
      .catch((error: unknown) => this.logger.debug({ err: error, world }, "proofs could not be asked for"))
      .finally(() => this.under.delete(asked));
    this.under.add(asked);
  }
}
