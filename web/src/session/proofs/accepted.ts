import type { ProjectSession } from "../project/project.ts";
import type { BesideRun } from "../bench/beside.ts";
import { acceptedAt } from "../project/api-client.ts";
import { OfflineError, ProblemError } from "../project/server-answer.ts";

/** The path that was accepted for a log, laid beside. */
export class AcceptedWalk {
  constructor(
    private readonly project: ProjectSession,
    private readonly beside: BesideRun,
  ) {}

  /** Lays the walk that was accepted for a log beside its present one: as it was at the revision that accepted it. */
  readonly layAccepted = async (log: string): Promise<void> => {
    const { worldId } = this.project.store.getState();
    if (worldId === null) return;
    try {
      const { revision } = await acceptedAt(worldId, log);
      await this.beside.layRevisionBeside(revision, `Accepted at revision ${revision}`);
    } catch (error) {
      if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
      this.project.notice(`The accepted walk cannot be shown: ${error.message}.`);
    }
  };
}
