import { acceptedAt, ProblemError, OfflineError } from "../project/api-client.ts";
import { layRevisionBeside } from "../bench/beside.ts";
import { notice, projectStore } from "../project/project.ts";

/** Lays the walk that was accepted for a log beside its present one: as it was at the revision that accepted it. */
export async function layAccepted(log: string): Promise<void> {
  const { worldId } = projectStore.getState();
  if (worldId === null) return;
  try {
    const { revision } = await acceptedAt(worldId, log);
    await layRevisionBeside(revision, `Accepted at revision ${revision}`);
  } catch (error) {
    if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
    notice(`The accepted walk cannot be shown: ${error.message}.`);
  }
}
