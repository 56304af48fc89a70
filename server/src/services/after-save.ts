import type { Logger } from "pino";
import type { Proofs } from "./proofs.ts";
import { NotFoundError } from "./service-errors.ts";

/** Edits come in rows: the proofs begin once a world has rested for so long. */
const REST_MS = 600;

const AGAIN_MS = 5000;

/** Asks for a world's proofs shortly after it was saved. */
export class AfterSave {
  private readonly timers = new Map<string, NodeJS.Timeout>();
  private readonly under = new Set<Promise<unknown>>();
  private stopped = false;

  constructor(
    private readonly proofs: Proofs,
    private readonly logger: Logger,
  ) {}

  /** A world has a new revision. */
  saved(world: string, rest = REST_MS): void {
    clearTimeout(this.timers.get(world));
    this.timers.set(
      world,
      setTimeout(() => this.ask(world), rest),
    );
  }

  /** Asks for all that was saved and not asked for since, and waits until that has been put in. */
  async stop(): Promise<void> {
    this.stopped = true;
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
      .catch((error: unknown) => {
        this.logger.debug({ err: error, world }, "proofs could not be asked for");
        // It may have been taken off the shelf meanwhile; a database that is away comes back.
        if (!(error instanceof NotFoundError) && !this.stopped) this.saved(world, AGAIN_MS);
      })
      .finally(() => this.under.delete(asked));
    this.under.add(asked);
  }
}
