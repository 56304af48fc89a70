import type { Check, InputLog } from "@keen-pebble/core/check";
import type { TraceRows } from "@keen-pebble/core/simulate";
import type { World } from "@keen-pebble/core/world";
import { checksOfWalk, readLog, writeLog } from "@keen-pebble/core/check";
import { compile, explainFrame, run } from "@keen-pebble/core/simulate";
import { CoreError } from "@keen-pebble/core/world";
import { freeSlug } from "../log/log-title.ts";
import type { OfferedWalk } from "../bench/bench-store.ts";
import { benchStore } from "../bench/bench-store.ts";
import { selectLog } from "../bench/shown-log.ts";
import { firstDifference } from "../bench/first-difference.ts";
import { outbox } from "../project/outbox.ts";
import { edit, notice, projectStore } from "../project/project.ts";

/**
 * Offers a walk to be kept, replayed under the rules as they are now: what is kept is what the log says.
 * @param seen the rows that were seen while it was walked
 */
export function offerReplayed(log: InputLog, onto: string | null, seen: TraceRows): void {
  const { project } = projectStore.getState();
  if (project === null) return;
  try {
    const offered = replayed(project.world, log, onto, seen);
    if (offered.differs !== null) benchStore.setState({ explanation: explainFrame(compile(project.world, log.rules ?? undefined), log, Infinity) });
    offer(offered);
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    notice(`This walk cannot be replayed in the world as it is now (${error.message}). It stays in this browser until the next walk.`);
    letWalkGo();
  }
}

/** @throws {CoreError} where the log cannot be run */
function replayed(world: World, log: InputLog, onto: string | null, seen: TraceRows | null): OfferedWalk {
  const c = compile(world, log.rules ?? undefined);
  const rows = run(c, log, { rows: true }).rows!;
  return { phase: "offered", room: rows.room[rows.count - 1]!, rows, log, onto, checks: checksOfWalk(c, log), differs: seen === null ? null : firstDifference(seen, rows) };
}

/** Offers the walk of an open world that was not kept on the last visit once more; one that was discarded comes back by undo. */
export async function offerKeptWalk(): Promise<void> {
  const { worldId, project } = projectStore.getState();
  if (worldId === null || project === null) return;
  const kept = await outbox.keptWalk(worldId);
  if (kept === null || projectStore.getState().worldId !== worldId || benchStore.getState().walk !== null) return;
  try {
    const log = readLog(kept.log);
    const offered = replayed(project.world, log, kept.onto !== null && project.logs.has(kept.onto) ? kept.onto : null, null);
    if (kept.discarded) benchStore.setState({ discarded: offered });
    else offer(offered);
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    notice(`A walk of your last visit that was not kept cannot be walked in this world any more (${error.message}). It stays in this browser until the next walk.`, "info");
  }
}

function offer(offered: OfferedWalk): void {
  benchStore.setState({ walk: offered, playing: false, frame: offered.rows.count - 1, room: projectStore.getState().project!.world.rooms[offered.room]!.id });
}

/** Keeps the offered walk as a log with a title and checks, and selects it. */
export function keepWalk(title: string, checks: readonly Check[]): void {
  const { walk: offered } = benchStore.getState();
  const { project } = projectStore.getState();
  if (offered?.phase !== "offered" || project === null) return;
  const id = freeSlug(title, [...project.logs.keys()]);
  const named = title.trim() === "" ? id : title.trim();
  const text = writeLog({ ...offered.log, accept: null, title: named, checks });
  const last = offered.rows.count - 1;
  if (!edit({ kind: "add-log", log: id, text })) return;
  isKept();
  selectLog(id, last);
}

/** Keeps the offered walk in the log that it went on from, with its title and checks. */
export function keepInLog(): void {
  const { walk: offered } = benchStore.getState();
  const { project } = projectStore.getState();
  const before = offered?.onto == null ? undefined : project?.logs.get(offered.onto);
  if (offered?.phase !== "offered" || offered.onto === null || before === undefined) return;
  const last = offered.rows.count - 1;
  const after = writeLog({ ...offered.log, accept: null });
  if (after !== before && !edit({ kind: "change-log", log: offered.onto, before, after })) return;
  isKept();
  selectLog(offered.onto, last);
}

/** Lets the walk go; undo brings it back, also after a reload, until the next walk. */
export function discardWalk(): void {
  const { walk: offered } = benchStore.getState();
  if (offered?.phase !== "offered") return;
  rememberWalk(offered.log, offered.onto, true);
  letWalkGo();
  benchStore.setState({ discarded: offered });
}

/** Whether the last thing that was done is that a walk was discarded. */
export function canTakeWalkBack(): boolean {
  const { discarded, walk: present } = benchStore.getState();
  return discarded !== null && present === null;
}

/** Offers the discarded walk again. */
export function takeWalkBack(): void {
  const { discarded } = benchStore.getState();
  if (discarded === null) return;
  rememberWalk(discarded.log, discarded.onto, false);
  benchStore.setState({ discarded: null });
  offer(discarded);
}

/** The walk is a log now. */
function isKept(): void {
  const { worldId } = projectStore.getState();
  if (worldId !== null) void outbox.keepWalk(worldId, null);
  benchStore.setState({ walk: null, tool: "paint" });
}

/** Puts the walk away and shows the log again that was shown before. */
export function letWalkGo(): void {
  benchStore.setState({ walk: null, tool: "paint" });
  selectLog(benchStore.getState().log);
}

/** Keeps a walk in this browser until the next one. */
export function rememberWalk(log: InputLog, onto: string | null, discarded: boolean): void {
  const { worldId } = projectStore.getState();
  if (worldId !== null) void outbox.keepWalk(worldId, { log: writeLog(log), onto, discarded });
}
