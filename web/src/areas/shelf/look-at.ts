import type { Project, TraceRows, Verdict } from "@keen-pebble/core";
import { fromPlain } from "@keen-pebble/core";
import type { LogOutcome } from "@keen-pebble/server/api";
import { logOrder, logTitle } from "../../logs/log-title.ts";
import { openWorld, worldOutcomes } from "../../session/api-client.ts";
import { sheetImages } from "../../session/sheets.ts";
import { SimulationClient } from "../../session/simulation-client.ts";

/** A log as its card shows it. */
export interface LookedLog extends LogOutcome {
  readonly title: string;
  /** Of the checks that do not pass the one that is decided first. */
  readonly first: Verdict | null;
}

/** A world as its card shows it. */
export interface Looked {
  readonly revision: number;
  readonly project: Project;
  readonly images: ReadonlyMap<string, ImageBitmap>;
  readonly logs: readonly LookedLog[];
  /** The run that is drawn: of the first log that does not hold, else of the longest one. */
  readonly path: { readonly rows: TraceRows; readonly frame: number; readonly fails: boolean } | null;
  /** What its rooms and logs are called. */
  readonly names: string;
}

/** Asks the server for a world and what its logs come to, and runs the one log that is drawn; null where it cannot. */
export async function lookAt(id: string): Promise<Looked | null> {
  try {
    const [opened, { outcomes }] = await Promise.all([openWorld(id), worldOutcomes(id)]);
    const project: Project = { world: fromPlain(opened.world), logs: opened.logs };
    const byLog = new Map(outcomes.map((outcome) => [outcome.log, outcome]));
    const logs = logOrder(project.logs).flatMap((log): LookedLog[] => {
      const outcome = byLog.get(log);
      return outcome ? [{ ...outcome, title: logTitle(project.logs[log]!, log), first: firstToFail(outcome.checks) }] : [];
    });
    const names = [...project.world.rooms.map((room) => room.name), ...logs.map((log) => log.title)].join(" ");
    return { revision: opened.revision, project, images: await sheetImages(project.world), logs, path: await pathOf(project, logs), names };
  } catch {
    // The card then shows what the list told.
    return null;
  }
}

function firstToFail(checks: readonly Verdict[]): Verdict | null {
  const failing = checks.filter((check) => check.verdict !== "pass");
  return failing.reduce<Verdict | null>((first, check) => (first === null || check.frame < first.frame ? check : first), null);
}

async function pathOf(project: Project, logs: readonly LookedLog[]): Promise<Looked["path"]> {
  const runnable = logs.filter((log) => log.refused === null);
  const longest = Math.max(...runnable.map((log) => log.frames ?? 0));
  const shown = runnable.find((log) => !log.holds) ?? runnable.find((log) => log.frames === longest);
  if (!shown) return null;
  const client = new SimulationClient();
  try {
    client.load(project);
    const answer = await client.run(project.logs[shown.log]!);
    return "refused" in answer ? null : { rows: answer.rows, frame: shown.first?.frame ?? answer.frames, fails: !shown.holds };
  } finally {
    client.close();
  }
}
