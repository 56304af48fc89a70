import { createSession } from "better-sse";
import type { Request, Response } from "express";
import type { Logger } from "pino";
import type { Signals } from "../jobs/signals.ts";
import type { WorldRow } from "../models/world-row.ts";
import type { Proofs } from "../services/proofs.ts";

/** Signals that come close together are told as one. */
const GATHER_MS = 60;

/** Tells pages how the proofs of their world get on, as server-sent events (architecture.md, flow 5). */
export class WorldEvents {
  constructor(
    private readonly proofs: Proofs,
    private readonly signals: Signals,
    private readonly logger: Logger,
  ) {}

  /** Answers with a stream: `proofs` with their state, now and whenever it changes; `search` with the id of one that got on. */
  async follow(row: Pick<WorldRow, "id" | "revision">, req: Request, res: Response): Promise<void> {
    const session = await createSession(req, res);
    let timer: NodeJS.Timeout | null = null;
    const tell = async (): Promise<void> => {
      timer = null;
      try {
        const state = await this.proofs.state(row);
        if (session.isConnected) session.push(state, "proofs");
      } catch (error) {
        this.logger.debug({ err: error }, "could not tell how the proofs stand");
      }
    };
    const stops = [
      this.signals.on("proofs", (world) => {
        if (world === row.id) timer ??= setTimeout(() => void tell(), GATHER_MS);
      }),
      this.signals.on("search", (id) => {
        if (session.isConnected) session.push(id, "search");
      }),
    ];
    session.on("disconnected", () => {
      if (timer !== null) clearTimeout(timer);
      for (const stop of stops) stop();
    });
    await tell();
  }
}
