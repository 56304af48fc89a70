import type { Session } from "better-sse";
import { createSession } from "better-sse";
import type { Request, Response } from "express";
import type { Knex } from "knex";
import type { Logger } from "pino";
import type { ServerEvents } from "../api.ts";
import type { Signals } from "../jobs/signals.ts";
import { WorldRow } from "../models/world-row.ts";
import { NoDatabaseError } from "../services/service-errors.ts";
import type { Proofs } from "../services/proofs.ts";

/** Signals that come close together are told as one. */
const GATHER_MS = 60;

/**
 * Tells pages what happens to all worlds, as server-sent events (architecture.md, flow 5). One stream is enough for a
 * whole browser: its pages share it. What it carries is made once for all who listen.
 */
export class Events {
  private readonly sessions = new Set<Session>();
  private readonly streams = new Set<Response>();
  private readonly changed = new Set<number>();
  private timer: NodeJS.Timeout | null = null;

  constructor(
    private readonly db: Knex,
    private readonly proofs: Proofs,
    private readonly signals: Signals,
    private readonly logger: Logger,
  ) {
    signals.on("proofs", (world) => {
      if (this.sessions.size === 0) return;
      this.changed.add(world);
      this.timer ??= setTimeout(() => this.quietly(this.tellProofs()), GATHER_MS);
    });
    signals.on("saved", (world, revision) =>
      this.quietly(this.tellOf(world, (id) => this.push("saved", { world: id, revision }))),
    );
    signals.on("search", (world, search) =>
      this.quietly(this.tellOf(world, (id) => this.push("search", { world: id, search }))),
    );
    signals.on("shelf", () => this.push("shelf", {}));
    // Pages must not take silence for calm.
    signals.onLost(() => {
      for (const res of this.streams) res.end();
    });
  }

  /** Answers with a stream. */
  async follow(req: Request, res: Response): Promise<void> {
    if (!this.signals.isConnected) throw new NoDatabaseError();
    const session = await createSession(req, res);
    this.sessions.add(session);
    this.streams.add(res);
    session.on("disconnected", () => {
      this.sessions.delete(session);
      this.streams.delete(res);
    });
  }

  private push<K extends keyof ServerEvents>(event: K, data: ServerEvents[K]): void {
    for (const session of this.sessions) if (session.isConnected) session.push(data, event);
  }

  private async tellOf(world: number, tell: (id: string) => void): Promise<void> {
    if (this.sessions.size === 0) return;
    const row = await WorldRow.onShelf(this.db).select("slug").findById(world);
    if (row) tell(row.slug);
  }

  private async tellProofs(): Promise<void> {
    this.timer = null;
    const worlds = [...this.changed];
    this.changed.clear();
    for (const row of await WorldRow.onShelf(this.db).whereIn("id", worlds))
      this.push("proofs", { world: row.slug, ...(await this.proofs.state(row)) });
  }

  private quietly(telling: Promise<void>): void {
    telling.catch((error: unknown) => this.logger.debug({ err: error }, "an event could not be told"));
  }
}
